import { finishSchool, stepOfRoute, writeClock } from '@schmelz/core';
import { Caution } from '../../design/Notice.tsx';
import { Dressed } from '../../drawing/Dressed.tsx';
import { useNow } from '../../shell/clock.ts';
import { paintOn, specOf } from '../../drawing/product.ts';
import { dressColour, kindsOn } from '../../shell/dressed.ts';
import { SessionPage, type SessionBenchOf, type SessionKind } from '../../counting/SessionBench.tsx';

/** How long this mix can still be worked: the clock that decides at this bench. */
function Workable({ state }: SessionBenchOf) {
  const now = useNow(500);
  if (state.phase === 'over' || state.workableUntil === null) return null;
  const leftS = (state.workableUntil - now) / 1000;
  const stiff = leftS <= 0;
  const short = leftS < 60;
  return (
    <p
      role="timer"
      className={`px-4 py-2 text-xl font-semibold ${stiff ? 'bg-stop-wash text-stop' : short ? 'bg-watch-wash text-watch' : 'bg-well'}`}
    >
      {stiff ? (
        'This mix is stiff: end it, mix anew.'
      ) : (
        <>
          Can be worked for <span className="fig text-[34px]">{writeClock(leftS)}</span>
        </>
      )}
    </p>
  );
}

const GLUE: SessionKind = {
  ...{
    kind: 'glue',
    station: 'finish',
    ends: 'This mix is used up',
    list: 'Tickets in this mix',
    back: { to: '/finish', says: 'What waits at the finish' },
  },
  left: () => 'Left in this mix',
  all: (name) => `All have their ${name.toLowerCase()}`,
  Beside: Workable,
  Above: ({ ticket, step }) => {
    const { product } = ticket;
    const doing = stepOfRoute(ticket.route, step);
    if (!doing?.task) return null;
    const school = finishSchool(doing.task, doing.school);
    return (
      <div className="mb-3 flex flex-wrap items-center gap-6">
        <Dressed
          {...specOf(product)}
          paint={paintOn(product)}
          state="baked"
          on={kindsOn(product, step)}
          colour={dressColour(product)}
          scale={3.4}
          label={`${product.name}, once this is on`}
          className="max-h-[200px] max-w-full"
        />
        <div className="flex max-w-[36ch] flex-col gap-2 text-lg">
          <p className="font-semibold">{doing.does}</p>
          {school.check && <p>{school.check}</p>}
          {school.caution && <Caution>{school.caution}</Caution>}
        </div>
      </div>
    );
  },
};

/** The bench of one mix of glue, over all the heads that are done before it is stiff. */
export const GluePage = () => <SessionPage kind={GLUE} />;
