import { finishSchool, lookBefore, partKind, perHead, stepOfRoute, writeSpan, type BillLine } from '@schmelz/core';
import { Dressed } from '../../drawing/Dressed.tsx';
import { paintOn, specOf } from '../../drawing/product.ts';
import { dressColour, kindsOn } from '../../shell/dressed.ts';
import { useUnits } from '../../units/Units.tsx';
import { CountFrame, type BenchProps } from '../../counting/CountFrame.tsx';
import { cautionsOf } from '../../counting/words.ts';

/** A part that goes on here: how much of it, and, of pieces, one that broke, or that the last bad head never had on. */
function PartTaken({ line, bench }: { line: BillLine; bench: BenchProps['bench'] }) {
  const units = useUnits();
  const pieces = partKind(line.kind).unit === 'pieces';
  const apart = bench.last?.kind === 'reject' ? bench.last : null;
  const inHand = apart?.spared?.includes(line.partId) ?? false;
  const broke = bench.here.spoiled[line.partId] ?? 0;
  return (
    <div className="flex min-h-12 flex-wrap items-center gap-x-3 border-b border-rule">
      <span className="min-w-0 flex-1 truncate">
        {line.name}
        {broke > 0 && <span className="text-stop">, {broke} broke</span>}
      </span>
      {pieces && apart && (
        <ToggleKey on={inHand} run={() => bench.spare(line.partId)}>
          still in the hand
        </ToggleKey>
      )}
      {pieces && <ToggleKey run={() => bench.spoiled(line.partId)}>one broke</ToggleKey>}
      <b className="whitespace-nowrap">{units.part(line.kind, pieces ? line.quantity : perHead(line))}</b>
    </div>
  );
}

/** A small key beside what it is about; afterwards the foot switch means what it meant. */
const ToggleKey = ({ on, run, children }: { on?: boolean; run: () => void; children: string }) => (
  <button
    type="button"
    aria-pressed={on}
    onClick={(event) => {
      run();
      event.currentTarget.blur();
    }}
    className={`cut min-h-11 px-3 text-base font-semibold ${on ? 'bg-ink text-on-ink' : 'bg-sheet hover:bg-well'}`}
  >
    {children}
  </button>
);

/** The finish, step by step: the head as it grows, what goes on it now and how much of it, what to look at. */
export function FinishBench(props: BenchProps) {
  const { ticket, bench, schools } = props;
  const { here } = bench;
  const { product } = ticket;
  const step = stepOfRoute(ticket.route, here.key);
  const school = step?.task ? finishSchool(step.task, step.school) : null;
  const takes = ticket.planned.bill.filter((line) => line.step === here.key);
  const station = cautionsOf('finish', schools);
  const last = ticket.route.at(-1)?.key === here.key;
  return (
    <CountFrame
      {...props}
      checks={[]}
      cautions={[...(school?.caution ? [school.caution] : []), ...(last ? station : [])]}
      above={
        <div className="mb-3 flex flex-wrap items-center gap-x-8 gap-y-2">
          <Dressed
            {...specOf(product)}
            paint={paintOn(product)}
            state={lookBefore(ticket.route, here.key)}
            on={kindsOn(product, here.key)}
            colour={dressColour(product)}
            scale={3.4}
            label={`${product.name}, once this is on`}
            className="max-h-[200px] max-w-full"
          />
          <div className="flex min-w-[24ch] flex-1 flex-col gap-1 text-lg">
            {school && <p className="font-semibold">{school.name}</p>}
            {takes.map((line) => (
              <PartTaken key={line.partId} line={line} bench={bench} />
            ))}
            {school?.check && <p className="text-ink-2">{school.check}</p>}
            {step?.wait && (
              <p className="text-ink-2">
                Then {writeSpan(step.wait.seconds)}: {step.wait.name}.
              </p>
            )}
          </div>
        </div>
      }
    />
  );
}
