import type { LotQuality } from '@schmelz/contract';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { call } from '../../api/client.ts';
import { Button } from '../../design/Button.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { type Catalogue } from '../../shell/catalogue.ts';
import { lotSays } from './lot-says.ts';

/** A chance in words. */
const chanceSays = (chance: number) =>
  chance < 1e-6
    ? 'Chance alone would do that to fewer than one lot in a million.'
    : `Chance alone would do that to one lot in ${Number((1 / chance).toPrecision(2)).toLocaleString('en')}.`;

const share = ({ heads, bad }: { heads: number; bad: number }) => `${bad} of ${heads}`;

/** Why a lot stands out, in a sentence: its rejects against those of all others of its kind. */
export function Finding({
  lot,
  catalogue,
  linked = true,
}: {
  lot: LotQuality;
  catalogue: Catalogue;
  linked?: boolean;
}) {
  const [worst] = Object.entries(lot.causes).sort(([, a], [, b]) => b - a);
  const name = catalogue.materials.get(lot.materialId)?.name ?? 'a part that is gone';
  const times = lot.rest.bad > 0 ? lot.bad / lot.heads / (lot.rest.bad / lot.rest.heads) : null;
  return (
    <div className="grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-4 border-b border-rule py-3">
      <b className="fig text-[46px] leading-none text-stop">{lot.bad}</b>
      <span>
        <b className="font-medium">
          {name}, {lotSays(lot)}
        </b>
        <span className="block">
          {share(lot)} heads thrown back{worst ? `, most as “${worst[0]}”` : ''}; of other lots {share(lot.rest)}
          {times && `: ${times.toFixed(times < 10 ? 1 : 0)} times as often`}.
        </span>
        <span className="quiet block">{chanceSays(lot.chance)}</span>
      </span>
      {linked && (
        <Button asChild>
          <Link to={`/trace/lot/${lot.lotId}`}>Who has them</Link>
        </Button>
      )}
    </div>
  );
}

/** Lots that stand out by what was thrown back, or that none does. */
export function Findings({ catalogue }: { catalogue: Catalogue }) {
  const { data: lots, error } = useQuery({ queryKey: ['trace-lots'], queryFn: () => call('GET /trace/lots') });
  if (!lots) return <Waiting error={error} />;
  const found = lots.filter(({ standsOut }) => standsOut);
  return (
    <>
      <Heading aside={`${lots.length} lots of hooks and powder compared`}>Lots that stand out</Heading>
      {found.map((lot) => (
        <Finding key={lot.lotId} lot={lot} catalogue={catalogue} />
      ))}
      {found.length === 0 && (
        <p className="quiet">
          None does. Lots of one part are compared by heads that came back for a cause that the part may be to blame
          for: a loose hook, a full eye, runs, bubbles.
        </p>
      )}
    </>
  );
}
