import type { Mold, Pour } from '@schmelz/contract';
import type { PourCause } from '@schmelz/core';
import { Key } from '../../design/Button.tsx';
import { causeIcon, Icon } from '../../design/Icon.tsx';
import type { moldFrame } from '../../drawing/Mold.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { CAUSE_KEYS, type PourBench } from './usePourBench.ts';

/** Letter buttons for the cause of the reject that was marked last. */
function Causes({
  bench,
  marked,
  position,
  hookLost,
}: {
  bench: PourBench;
  marked: PourCause;
  position: number;
  hookLost: boolean;
}) {
  const also = [
    { key: 'H', label: 'hook is lost', on: hookLost, run: bench.hookLost },
    { key: 'K', label: `cavity ${position} is out for tonight`, on: false, run: () => bench.block(position) },
  ];
  return (
    <div className="flex flex-wrap gap-2" role="group" aria-label="Why it is bad">
      {Object.entries(CAUSE_KEYS).map(([key, cause]) => (
        <button
          key={cause}
          type="button"
          aria-pressed={marked === cause}
          onClick={(event) => {
            bench.cause(cause);
            event.currentTarget.blur();
          }}
          className={`cut flex min-h-16 items-center gap-1.5 px-2.5 text-[17px] ${marked === cause ? 'bg-stop-wash text-stop' : 'bg-sheet'}`}
        >
          <Key>{key}</Key>
          <Icon name={causeIcon(cause)} /> {cause}
        </button>
      ))}
      {also.map(({ key, label, on, run }) => (
        <button
          key={key}
          type="button"
          aria-pressed={on}
          onClick={(event) => {
            run();
            event.currentTarget.blur();
          }}
          className={`cut flex min-h-16 items-center gap-1.5 px-2.5 text-[17px] ${on ? 'bg-stop-wash text-stop' : 'bg-sheet'}`}
        >
          <Key>{key}</Key> {label}
        </button>
      ))}
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
}: {
  pour: Pour;
  mold: Mold;
  bench: PourBench;
  catalogue: Catalogue;
  frame: ReturnType<typeof moldFrame>;
}) {
  const { state } = bench;
  const lastShot = state.shots.at(-1);
  const markedNow = bench.last?.kind === 'reject' ? bench.last : null;
  return (
    <>
      <ol className="relative mt-2 h-[118px] max-w-[620px]">
        {mold.cavities.map((cavity, index) => {
          const load = pour.setup.loads.find((each) => each.position === cavity.position);
          const record = state.byPosition[cavity.position];
          const { left, width } = frame.column(index);
          const at = { left: `${left * 100}%`, width: `${width * 100}%` };
          if (!load || !record) {
            return (
              <li key={cavity.id} className="absolute border-t border-rule pt-2 text-ink-3" style={at}>
                not used
              </li>
            );
          }
          const out = state.blockedPositions.includes(cavity.position);
          const head = lastShot?.heads.find((each) => each.position === cavity.position);
          const bad = head && head.verdict !== 'good';
          const rejects = Object.entries(record.rejects);
          const hook = catalogue.materials.get(load.hookMaterialId ?? '')?.hook;
          return (
            <li key={cavity.id} className="absolute" style={at}>
              <button
                type="button"
                disabled={!head}
                aria-pressed={!!bad}
                aria-label={`Cavity ${cavity.position}: ${record.good} good. ${head ? `Last one ${bad ? `is bad, ${head.verdict}` : 'was good'}` : 'Not in the last shot'}`}
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
                {rejects.length ? (
                  rejects.map(([cause, count]) => (
                    <span
                      key={cause}
                      className="mt-1 flex items-center gap-1.5 text-lg leading-tight text-stop max-sm:text-sm"
                      style={{ fontStretch: '84%' }}
                    >
                      <Icon name={causeIcon(cause)} /> {count} {cause}
                    </span>
                  ))
                ) : (
                  <span
                    className="mt-1 flex items-center gap-1.5 text-lg leading-tight text-ink-3 max-sm:text-sm"
                    style={{ fontStretch: '84%' }}
                  >
                    {out ? (
                      <>
                        <Icon name="stop" /> out tonight
                      </>
                    ) : record.good > 0 ? (
                      <>
                        <Icon name="good" /> all good
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
      {markedNow ? (
        <Causes
          bench={bench}
          marked={markedNow.cause}
          position={markedNow.position}
          hookLost={markedNow.hookLost ?? false}
        />
      ) : (
        <p className="flex min-h-16 flex-wrap items-center gap-x-4 text-lg text-ink-3">
          {lastShot && (
            <>
              A digit or a tap marks a bad head of the last shot.
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
