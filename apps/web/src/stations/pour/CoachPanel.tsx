import { MOLD_TOO_HOT_C, skinAt, type Advice, type RoutineWork } from '@schmelz/core';
import { BasisMark, Icon } from '../../design/Icon.tsx';
import { SKIN_FILL } from '../../drawing/Skin.tsx';
import { useUnits } from '../../units/Units.tsx';
import type { Coached } from './useCoach.ts';

const COLD_C = 20;
const SCALE_TO_C = 200;

/** The mold's heat as a mark on a bar, its window in straw. */
function MoldWindow({
  moldC,
  coldBelowC,
  moldBasis: basis,
}: Pick<Coached, 'coldBelowC' | 'moldBasis'> & { moldC: number }) {
  const units = useUnits();
  const at = (celsius: number) =>
    `${(100 * (Math.min(SCALE_TO_C, Math.max(COLD_C, celsius)) - COLD_C)) / (SCALE_TO_C - COLD_C)}%`;
  const word = moldC < coldBelowC ? 'cold' : moldC > MOLD_TOO_HOT_C ? 'too hot' : 'in its window';
  return (
    <div className="min-w-44 flex-1">
      <p className="flex items-baseline gap-2 text-lg leading-tight [&>svg]:shrink-0">
        <span>Mold</span>
        <BasisMark basis={basis} />
        <b className="fig text-[34px] whitespace-nowrap">{units.temperature(moldC)}</b>
        <span className="text-ink-2">{word}</span>
      </p>
      <div className="relative mt-1 h-3 border border-rule-2 bg-well" aria-hidden="true">
        <span
          className="absolute h-full bg-straw"
          style={{ left: at(coldBelowC), width: `calc(${at(MOLD_TOO_HOT_C)} - ${at(coldBelowC)})` }}
        />
        <span
          className="absolute -top-1 -bottom-1 w-1.5 border border-contour bg-ink"
          style={{ left: `calc(${at(moldC)} - 3px)` }}
        />
      </div>
    </div>
  );
}

function PotNow({ potC, basis }: { potC: number; basis: 'measured' | 'given' }) {
  const units = useUnits();
  const skin = skinAt(potC);
  return (
    <p className="flex items-baseline gap-2 text-lg leading-tight [&>svg]:shrink-0">
      <span>Metal</span>
      <BasisMark basis={basis} />
      <b className="fig text-[34px] whitespace-nowrap">{units.temperature(potC)}</b>
      {skin ? (
        <span className="inline-flex items-center gap-1.5 text-ink-2">
          <span
            className="size-4 border border-contour"
            style={{ background: SKIN_FILL[skin.colour] }}
            aria-hidden="true"
          />
          {skin.colour}
        </span>
      ) : (
        <span className="text-ink-2">not molten</span>
      )}
    </p>
  );
}

const DONE: Partial<Record<Advice['kind'], RoutineWork>> = { skim: 'skimmed', stream: 'stream looked at' };
const SHOWN = 3;
const TONE = { stop: 'text-stop', watch: 'text-watch', quiet: 'text-ink' } as const;

/** How hot mold and metal are: beside the number, where no key and no list ever covers it. */
export function HeatNow({ coached }: { coached: Coached }) {
  const { moldC, potC } = coached;
  return (
    <div className="flex min-w-44 flex-1 flex-col gap-2 md:max-lg:flex-row md:max-lg:items-end md:max-lg:gap-6">
      {moldC !== null && <MoldWindow {...coached} moldC={moldC} />}
      {potC !== null && <PotNow potC={potC} basis={coached.potBasis} />}
    </div>
  );
}

/** What the coach says: the most pressing in large type. */
export function CoachPanel({
  coached,
  saidAbove,
  onDone,
  onSmoked,
  onFeed,
}: {
  coached: Coached;
  /** The first advice stands beside the number already; here it is left out, unless something can be said back. */
  saidAbove: boolean;
  onDone: (what: RoutineWork) => void;
  onSmoked: () => void;
  onFeed: () => void;
}) {
  const units = useUnits();
  const { advice } = coached;
  const act = (kind: Advice['kind']) => {
    const what = DONE[kind];
    if (what) return { label: 'Done', run: () => onDone(what) };
    if (kind === 'smoke') return { label: 'Smoked', run: onSmoked };
    return kind === 'feed' || kind === 'dry' ? { label: 'Lead added', run: onFeed } : null;
  };
  return (
    <section aria-label="Coach" className="mt-4 border-t border-rule pt-3">
      <ul className="flex flex-col gap-1.5">
        {advice.slice(0, SHOWN).map((each, index) => {
          const action = act(each.kind);
          if (saidAbove && index === 0 && !action && !each.first) return null;
          return (
            <li
              key={each.kind + each.says}
              className={`flex flex-wrap items-center gap-x-3 gap-y-1 ${TONE[each.weight]}`}
            >
              {each.weight !== 'quiet' && (
                <Icon name={each.weight === 'stop' ? 'stop' : 'watch'} size={20} className="shrink-0" />
              )}
              <span className={index === 0 ? 'voice text-xl' : 'text-lg'}>
                {units.said(each.says)}
                {each.kg !== undefined && each.kg > 0.005 && <b> {units.bulk(each.kg)}</b>}
              </span>
              {action && (
                <button
                  type="button"
                  className="min-h-16 border border-current px-4 text-lg font-semibold"
                  onClick={(event) => {
                    action.run();
                    event.currentTarget.blur();
                  }}
                >
                  {action.label}
                </button>
              )}
              {each.first && (
                <ol className="w-full pl-8 text-lg text-ink">
                  {each.first.map((what, at) => (
                    <li key={what}>
                      {at + 1}. {what}
                    </li>
                  ))}
                </ol>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
