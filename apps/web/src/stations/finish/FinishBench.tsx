import { finishSchool, lookBefore, perHead, stepOfRoute, writeSpan } from '@schmelz/core';
import { Dressed } from '../../drawing/Dressed.tsx';
import { paintOn, specOf } from '../../drawing/product.ts';
import { dressColour, kindsOn } from '../../shell/dressed.ts';
import { useUnits } from '../../units/Units.tsx';
import { CountFrame, type BenchProps } from '../../counting/CountFrame.tsx';
import { cautionsOf } from '../../counting/words.ts';

/** The finish, step by step: the head as it grows, what goes on it now and how much of it, what to look at. */
export function FinishBench(props: BenchProps) {
  const { ticket, bench, schools } = props;
  const units = useUnits();
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
              <p key={line.partId} className="flex justify-between gap-4 border-b border-rule">
                <span className="truncate">{line.name}</span>
                <b className="whitespace-nowrap">{units.part(line.kind, perHead(line))}</b>
              </p>
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
