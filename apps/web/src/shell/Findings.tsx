import type { LotQuality } from '@schmelz/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../api/client.ts';
import { chanceSays, Found, timesAsOften } from '../design/Found.tsx';
import { Waiting } from '../design/Notice.tsx';
import { Heading } from '../design/Page.tsx';
import { type Catalogue } from './catalogue.ts';
import { lotSays } from './lot-says.ts';

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
  return (
    <Found
      value={lot.bad}
      title={`${name}, ${lotSays(lot)}`}
      to={linked ? { path: `/trace/lot/${lot.lotId}`, says: 'Who has them' } : undefined}
    >
      <p>
        {share(lot)} heads thrown back{worst ? `, most as “${worst[0]}”` : ''}; of other lots {share(lot.rest)}
        {timesAsOften(lot, lot.rest)}.
      </p>
      <p className="quiet">{chanceSays(lot.chance, 'lot')}</p>
    </Found>
  );
}

/** Lots of hooks and powder against each other. */
export const useLotsByQuality = () => useQuery({ queryKey: ['trace-lots'], queryFn: () => call('GET /trace/lots') });

/** Lots that stand out by what was thrown back, or that none does. */
export function Findings({ catalogue }: { catalogue: Catalogue }) {
  const { data: lots, error } = useLotsByQuality();
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
