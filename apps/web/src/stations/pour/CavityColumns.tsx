import type { Mold, Pour } from '@schmelz/contract';
import { loadsOf, SHORT_WHERE, type RejectEntry } from '@schmelz/core';
import type { CSSProperties } from 'react';
import { Key } from '../../design/Button.tsx';
import { causeIcon, Icon, type IconName } from '../../design/Icon.tsx';
import type { moldFrame } from '../../drawing/Mold.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { CAUSE_KEYS, type PourBench } from './usePourBench.ts';

interface Said {
  key?: string;
  label: string;
  on: boolean;
  run: () => void;
  icon?: IconName;
}

/** One thing that can be said of a bad head, by key or by tap. */
const Saying = ({ key: letter, label, on, run, icon }: Said) => (
  <button
    key={label}
    type="button"
    aria-pressed={on}
    onClick={(event) => {
      run();
      event.currentTarget.blur();
    }}
    className={`cut flex min-h-16 items-center gap-1.5 px-2 text-[17px] ${on ? 'bg-stop-wash text-stop' : 'bg-sheet'}`}
  >
    {letter && <Key>{letter}</Key>}
    {icon && <Icon name={icon} />} {label}
  </button>
);

/** Only a cavity that was cut for a pin leaks without it. */
const OF_PIN_CAVITIES = 'leaked';

/** The cause of the reject that was marked last, and what became of it. */
function Causes({ bench, marked, pinSlot }: { bench: PourBench; marked: RejectEntry; pinSlot: boolean }) {
  const { cause, where, goes, position } = marked;
  const fate = (key: string, label: string, what: typeof goes): Said => {
    return { key, label, on: goes === what, run: () => bench.detail({ goes: what }) };
  };
  const causes = Object.entries(CAUSE_KEYS)
    .filter(([, each]) => pinSlot || each !== OF_PIN_CAVITIES)
    .map(([key, each]): Said => ({
      key,
      label: each,
      on: cause === each,
      run: () => bench.cause(each),
      icon: causeIcon(each),
    }));
  causes.push({ key: 'K', label: `cavity ${position} out tonight`, on: false, run: bench.block });
  const wheres =
    cause === 'short'
      ? SHORT_WHERE.map((each): Said => ({
          label: each,
          on: where === each,
          run: () => bench.detail({ where: each }),
        }))
      : [];
  const fates: Said[] = [
    fate('D', 'second grade', 'second grade'),
    fate('R', 're-dipped', 'parts back'),
    fate('H', 'hook lost', 'hook lost'),
  ];
  return (
    <div className="flex flex-col gap-2">
      <div
        className="flex flex-wrap gap-1.5"
        role="group"
        aria-label="Why it is bad, and whether its cavity is poured again"
      >
        {causes.map(Saying)}
      </div>
      <div className="flex flex-wrap items-center gap-1.5" role="group" aria-label="Where, and what became of it">
        {wheres.length > 0 && <span className="text-lg text-ink-2">at the</span>}
        {wheres.map(Saying)}
        {fates.map(Saying)}
      </div>
      {goes === 'parts back' && (
        <p className="text-lg text-ink-2">
          Pin out first. Held by the hook, at an angle, its eye out of the metal; the keeper comes out after, with
          pliers. Its lead counts as back in the pot.
        </p>
      )}
    </div>
  );
}

/**
 * The mold heads its own table: under each cavity its digit, which is both key and tap target, its good heads, rejects
 * and hook.
 */
export function CavityColumns({
  pour,
  mold,
  bench,
  catalogue,
  frame,
  width,
}: {
  pour: Pour;
  mold: Mold;
  bench: PourBench;
  catalogue: Catalogue;
  frame: ReturnType<typeof moldFrame>;
  /** As wide as its mold is drawn, so that each column stands under its cavity. */
  width: CSSProperties;
}) {
  const { state } = bench;
  const { looked } = bench;
  const heads = looked?.moldId === mold.id ? looked.heads : [];
  const loads = loadsOf(pour.setup, mold.id);
  const own = state.molds.find((each) => each.moldId === mold.id)!;
  return (
    <>
      <ol className="relative mt-2 h-[106px]" style={width}>
        {mold.cavities.map((cavity, index) => {
          const load = loads.find((each) => each.position === cavity.position);
          const record = state.byCavity[cavity.id];
          const { left, width } = frame.column(index);
          const at = { left: `${left * 100}%`, width: `${width * 100}%` };
          if (!load || !record) {
            return (
              <li key={cavity.id} className="absolute border-t border-rule pt-2 text-ink-3" style={at}>
                not used
              </li>
            );
          }
          const out = own.blockedPositions.includes(cavity.position);
          const head = heads.find((each) => each.position === cavity.position);
          const bad = head && head.verdict !== 'good';
          const rejects = Object.entries(record.rejects);
          const hook = catalogue.materials.get(load.hookMaterialId ?? '')?.hook;
          return (
            <li key={cavity.id} className="absolute" style={at}>
              <button
                type="button"
                disabled={!head}
                aria-pressed={!!bad}
                aria-label={`Cavity ${cavity.position}: ${record.good} good. ${head ? `Last one ${bad ? `is bad, ${head.verdict}${head.where ? ` at the ${head.where}` : ''}${head.goes === 'second grade' ? ', kept as second grade' : ''}` : 'was good'}` : 'Not in the last shot'}`}
                onClick={(event) => {
                  bench.toggleReject(cavity.position);
                  event.currentTarget.blur();
                }}
                className={`block min-h-[64px] w-full border-t-2 pt-2 pr-1 text-left ${bad ? 'border-stop' : 'border-rule-2'}`}
              >
                <span className="flex items-center gap-2">
                  <span
                    className={`grid h-11 w-9 place-items-center border text-[23px] font-semibold max-sm:w-6 ${bad ? 'border-stop bg-stop text-plate' : 'border-rule-2'}`}
                  >
                    {cavity.position}
                  </span>
                  <span className="fig text-[40px] max-sm:text-[25px]">{record.good}</span>
                </span>
                {record.kept > 0 && (
                  <span
                    className="mt-1 block text-base leading-tight text-ink-2 max-sm:text-sm"
                    style={{ fontStretch: '80%' }}
                  >
                    {record.kept} second grade
                  </span>
                )}
                {rejects.length ? (
                  rejects.map(([cause, count]) => (
                    <span
                      key={cause}
                      className="mt-1 flex items-center gap-1 text-base leading-tight whitespace-nowrap text-stop max-sm:text-sm"
                      style={{ fontStretch: '80%' }}
                    >
                      <Icon name={causeIcon(cause)} /> {count} {cause}
                    </span>
                  ))
                ) : record.kept > 0 ? null : (
                  <span
                    className="mt-1 flex items-center gap-1 text-base leading-tight text-ink-3 max-sm:text-sm"
                    style={{ fontStretch: '80%' }}
                  >
                    {out ? (
                      <>
                        <Icon name="stop" /> out tonight
                      </>
                    ) : record.good > 0 ? (
                      <>
                        <Icon name="good" /> good
                      </>
                    ) : (
                      `hook ${hook?.size ?? '–'}, ${hook?.eyeAngleDeg ?? ''}°`
                    )}
                  </span>
                )}
              </button>
            </li>
          );
        })}
      </ol>
      {bench.marked ? (
        <Causes
          bench={bench}
          marked={bench.marked}
          pinSlot={mold.cavities.some(({ position, pin }) => position === bench.marked!.position && !!pin)}
        />
      ) : (
        <p className="flex min-h-16 flex-wrap items-center gap-x-4 text-lg text-ink-3">
          {heads.length > 0 && (
            <>
              A digit or a tap marks a bad head of its last shot.
              <button
                type="button"
                className="flex min-h-16 items-center gap-2 font-semibold text-ink"
                onClick={(event) => {
                  bench.rejectAll('flash');
                  event.currentTarget.blur();
                }}
              >
                <Key>X</Key> Flash on the whole strip
              </button>
            </>
          )}
        </p>
      )}
    </>
  );
}
