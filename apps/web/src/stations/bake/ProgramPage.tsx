import type { Product } from '@schmelz/contract';
import {
  bakeProgram,
  COMMON_SCHEDULES,
  cureWords,
  FULL_ENOUGH,
  knownOven,
  OVER_BAKED,
  programFigure,
  scheduleFigure,
  type BakedHead,
  type BakeWay,
  loadHeat,
  type KnownOven,
  type OvenLoadHeat,
} from '@schmelz/core';
import { useState } from 'react';
import { useList } from '../../api/queries.ts';
import { Ways } from '../../design/Dials.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Icon } from '../../design/Icon.tsx';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Head } from '../../drawing/Head.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import { bakedHead } from '../../shell/past-bakes.ts';
import { BakeRooms } from './rooms.tsx';

const START = [
  { value: 'hot', label: 'Hot first', hint: 'loading lets the air out, the walls stay hot' },
  { value: 'cold', label: 'From cold', hint: 'heads and oven get warm together, a few minutes more on the clock' },
] as const;
type Start = (typeof START)[number]['value'];

const FILLED = [
  { value: 'few', label: 'A few heads', hint: 'they hardly cool the oven' },
  { value: 'full', label: 'All its places', hint: 'cold heads take of the oven’s power' },
] as const;
type Filled = (typeof FILLED)[number]['value'];

const TONE = (share: number) =>
  share >= FULL_ENOUGH && share < OVER_BAKED ? 'text-good' : share >= 0.7 ? 'text-watch' : 'text-stop';

/** A share of a full cure as a bar, its full mark drawn. */
function CureBar({ share }: { share: number }) {
  return (
    <span className="relative block h-4 w-full max-w-[260px] border border-rule-2 bg-well" aria-hidden="true">
      <span
        className={`absolute h-full ${share >= FULL_ENOUGH ? 'bg-good' : share >= 0.7 ? 'bg-watch' : 'bg-stop'}`}
        style={{ width: `${Math.min(100, (share / 1.5) * 100)}%` }}
      />
      <span className="absolute -top-1 -bottom-1 w-0.5 bg-ink" style={{ left: `${100 / 1.5}%` }} />
    </span>
  );
}

/** What common schedules and the maker's own programs give one kind of head. */
function Worth({
  head,
  oven,
  load,
  preheated,
  own,
}: {
  head: BakedHead;
  oven: KnownOven;
  load: OvenLoadHeat | undefined;
  preheated: boolean;
  own: readonly (BakeWay & { name: string })[];
}) {
  const units = useUnits();
  // A schedule that is on record as a program is listed once, as the maker runs it.
  const common = COMMON_SCHEDULES.filter(
    ({ setC, seconds }) => !own.some((p) => p.setC === setC && p.seconds === seconds),
  );
  const inWords = ({ setC, seconds }: { setC: number; seconds: number }) =>
    `${units.temperature(setC)}, ${Math.round(seconds / 60)} min`;
  const ways: readonly (BakeWay & { name: string })[] = [
    ...own,
    ...common.map((each) => ({ ...each, name: inWords(each), preheated })),
  ];
  return (
    <div className="overflow-x-auto">
      <table className="sheet-table max-w-[820px] min-w-[560px]">
        <thead>
          <tr>
            <th>Schedule</th>
            <th>Cure at the end</th>
            <th className="num" />
            <th>In words</th>
          </tr>
        </thead>
        <tbody>
          {ways.map((way) => {
            const { name, setC } = way;
            const figure = scheduleFigure(head, way, oven, load);
            return (
              <tr key={name}>
                <td>
                  {inWords(way)}
                  <span className="quiet block text-sm">
                    {way.preheated ? 'hot first' : 'from cold'}
                    {way.from === 'metal' && ', counted from warm metal'}
                    {own.includes(way) && ' · on record'}
                  </span>
                  {head.limitC !== null && setC > head.limitC && (
                    <span className="block text-sm text-watch">over what the plating stands</span>
                  )}
                </td>
                <td>
                  <CureBar share={figure.value} />
                </td>
                <td className="num">
                  <Fig
                    figure={figure}
                    title={name}
                    className="fig text-[19px]"
                  >{`${Math.round(100 * figure.value)} %`}</Fig>
                </td>
                <td className={TONE(figure.value)}>{cureWords(figure.value)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function Pick({
  products,
  chosen,
  catalogue,
  onToggle,
}: {
  products: Product[];
  chosen: ReadonlySet<string>;
  catalogue: Catalogue;
  onToggle: (id: string) => void;
}) {
  return (
    <ul className="mb-6 grid gap-x-6 sm:grid-cols-2 xl:grid-cols-3">
      {products.map((product) => (
        <li key={product.id} className="border-b border-rule">
          <label className="grid cursor-pointer grid-cols-[24px_76px_1fr] items-center gap-2 py-1.5">
            <input
              type="checkbox"
              className="size-5 accent-[var(--good)]"
              checked={chosen.has(product.id)}
              onChange={() => onToggle(product.id)}
            />
            <Head {...catalogue.spec(product)} paint={catalogue.paint(product)} state="baked" scale={1.3} />
            <span className="leading-tight">{product.name}</span>
          </label>
        </li>
      ))}
    </ul>
  );
}

/** What can be baked, what of it is picked (the first where nothing was), how the oven sees that, and its program. */
function hungTogether(
  catalogue: Catalogue,
  picked: ReadonlySet<string> | null,
  { oven, preheated, places }: { oven: KnownOven; preheated: boolean; places: number },
) {
  const baked = catalogue.products.flatMap((product) => {
    const head = bakedHead(product, catalogue);
    return head ? [{ product, head }] : [];
  });
  const chosen = picked ?? new Set(baked.slice(0, 1).map(({ product }) => product.id));
  const heads = baked.filter(({ product }) => chosen.has(product.id)).map(({ head }) => head);
  // A full oven holds as many of each.
  const load = loadHeat(heads.map((head) => ({ ...head, count: places / heads.length })));
  const answer = heads.length > 0 ? bakeProgram({ heads, oven, preheated, load }) : null;
  return { products: baked.map(({ product }) => product), chosen, heads, answer, load };
}

/** The shortest program for what hangs together, and what the schedules that are passed on are worth. */
export function ProgramPage() {
  const catalogue = useCatalogue();
  const { data: ovens } = useList('ovens');
  const units = useUnits();
  const [picked, setPicked] = useState<ReadonlySet<string> | null>(null);
  const [start, setStart] = useState<Start>('hot');
  const [filled, setFilled] = useState<Filled>('few');
  if (!catalogue || !ovens) return <Waiting />;
  const oven = knownOven(ovens[0]);
  const preheated = start === 'hot';
  const places = filled === 'full' ? (ovens[0]?.places ?? 0) : 0;
  const { products, chosen, heads, answer, load } = hungTogether(catalogue, picked, { oven, preheated, places });
  const program = answer?.program ?? null;
  const toggle = (id: string) => {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    setPicked(next);
  };
  const slowest = program ? heads.find((head) => head.name === program.slowest.name)! : heads[0];
  return (
    <Page
      stub={
        <>
          <TheNumber
            value={
              program && slowest ? (
                <Fig figure={programFigure(program, slowest, oven, preheated)} title="Shortest program">
                  {String(Math.round(program.seconds / 60))}
                </Fig>
              ) : (
                '–'
              )
            }
            unit={program ? 'min' : undefined}
          >
            {program
              ? `set to ${units.temperature(program.setC)}, the oven cures all of it`
              : heads.length
                ? 'no program satisfies all of it'
                : 'pick what is baked together'}
          </TheNumber>
          {program && (
            <p className="text-ink-2">
              The shortest that fully cures the slowest, over-bakes none and stays under what every plating stands. Last
              to be full: {program.slowest.powder} on {program.slowest.name}.
            </p>
          )}
          {program && Math.abs(oven.offsetK) >= 1 && (
            <p>
              This oven holds {units.write(Math.abs(oven.offsetK), 'K')} {oven.offsetK < 0 ? 'under' : 'over'} its mark:
              set there, its air comes to <b>{units.temperature(program.setC + oven.offsetK)}</b>. All figures here
              count that in.
            </p>
          )}
          {answer?.conflict && (
            <div>
              <p className="flex items-start gap-2 font-medium text-watch">
                <Icon name="watch" className="mt-1 shrink-0" /> {units.said(answer.conflict.says)}
              </p>
              <ul className="mt-2">
                {answer.conflict.ways.map(({ gives, program: way }) => (
                  <li key={gives} className="border-b border-rule py-1.5">
                    Give up {gives}
                    {way && `: ${units.temperature(way.setC)} for ${Math.round(way.seconds / 60)} min`}.
                  </li>
                ))}
              </ul>
            </div>
          )}
          <Ways label="The oven" value={start} options={START} onChange={setStart} />
          <Ways label="In it" value={filled} options={FILLED} onChange={setFilled} />
          <Caution>
            An oven that bakes powder never bakes food again. Ventilate; keep powder dust from the heating coil.
          </Caution>
        </>
      }
    >
      <BakeRooms />
      <Heading aside={`${chosen.size} of ${products.length}`}>Baked in one load</Heading>
      <Pick products={products} chosen={chosen} catalogue={catalogue} onToggle={toggle} />
      {slowest && (
        <>
          <Heading aside={slowest.name}>What a schedule is worth for it</Heading>
          <Worth head={slowest} oven={oven} load={load} preheated={preheated} own={[...catalogue.programs.values()]} />
          <p className="quiet mt-2">
            The clock counts from closing the door; the cure counts from the heat of the metal. Less than full is no
            ban: heads that were only reheated to gloss have survived a hammer. The jar&apos;s label decides, so give
            both its lines.
          </p>
        </>
      )}
      {products.length === 0 && <p className="quiet">No painted product on record yet.</p>}
    </Page>
  );
}
