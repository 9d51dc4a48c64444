import { headsOf, sessionState, type SessionLog } from '@schmelz/core';
import { Link, useNavigate } from 'react-router';
import { useRuns } from '../../api/runs.ts';
import { Button } from '../../design/Button.tsx';
import { Heading } from '../../design/Page.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { useNow } from '../../shell/clock.ts';
import { runPath, useLineState } from '../../shell/line-state.ts';
import { CountDesk } from '../count/CountDesk.tsx';
import { beginDip, dipsTogether, type DipTogether } from './dips.ts';
import { WaysPage } from '../ways/WaysPage.tsx';
import { PaintRooms } from './rooms.tsx';

/** How heads are painted here. */
export const PaintWays = () => <WaysPage station="paint" rooms={<PaintRooms />} />;

/** What waits for the same paint at several tickets: dipped in one go, and the sessions that are under way. */
function Together() {
  const navigate = useNavigate();
  const line = useLineState(useNow(5000));
  const catalogue = useCatalogue();
  const going = useRuns(line?.runs, 'dip').filter(({ kind, log }) => {
    return kind === 'dip' && sessionState(log as SessionLog).endedAt === null;
  });
  if (!line || !catalogue) return null;
  const busy = new Set(going.flatMap((run) => sessionState(run.log as SessionLog).heads.map((each) => each.ticketId)));
  const together = dipsTogether(
    line.tickets.filter(({ id }) => !busy.has(id)),
    catalogue,
  );
  if (together.length === 0 && going.length === 0) return null;
  const numbers = ({ heads }: DipTogether) =>
    heads.map(({ ticketId }) => line.tickets.find(({ id }) => id === ticketId)?.number).join(', ');
  return (
    <section className="mt-9">
      <Heading>The same paint, in one go</Heading>
      <ul>
        {going.map((run) => {
          const state = sessionState(run.log as SessionLog);
          return (
            <li key={run.id} className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule py-3">
              <b className="font-medium">{state.name}</b>
              <span className="quiet">
                {state.done} of {headsOf(state.heads)} done
              </span>
              <Button look="main" asChild className="ml-auto">
                <Link to={runPath('dip', run.id)}>Go on</Link>
              </Button>
            </li>
          );
        })}
        {together.map((dip) => (
          <li key={dip.recipeId} className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule py-3">
            <span>
              <b className="font-medium">{dip.name}</b>
              <span className="quiet block">
                {headsOf(dip.heads)} heads of tickets {numbers(dip)}
              </span>
            </span>
            <Button className="ml-auto" onClick={() => void navigate(beginDip(dip))}>
              Dip them in one go
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What waits for paint, ticket by ticket and paint by paint. */
export const PaintDesk = () => <CountDesk station="paint" rooms={<PaintRooms />} aside={<Together />} />;
