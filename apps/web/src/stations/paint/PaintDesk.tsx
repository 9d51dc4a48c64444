import { dipsTogether, headsOf, type DipTogether } from '@schmelz/core';
import { useNavigate } from 'react-router';
import { Button } from '../../design/Button.tsx';
import { Heading } from '../../design/Page.tsx';
import { useNow } from '../../shell/clock.ts';
import { useLineState } from '../../shell/line-state.ts';
import { CountDesk } from '../../counting/CountDesk.tsx';
import { GoingSessions, useGoing } from '../../counting/GoingSessions.tsx';
import { beginDip } from './dipping.ts';
import { WaysPage } from '../../ways/WaysPage.tsx';
import { PaintRooms } from './rooms.tsx';

/** How heads are painted here. */
export const PaintWays = () => <WaysPage station="paint" rooms={<PaintRooms />} />;

/** What waits for the same paint at several tickets: dipped in one go, and the sessions that are under way. */
function Together() {
  const navigate = useNavigate();
  const line = useLineState(useNow(5000));
  const { going, busy } = useGoing(line?.runs, 'dip');
  if (!line) return null;
  const together = dipsTogether(line.tickets.filter(({ id }) => !busy.has(id)));
  if (together.length === 0 && going.length === 0) return null;
  const numbers = ({ heads }: DipTogether) =>
    heads.map(({ ticketId }) => line.tickets.find(({ id }) => id === ticketId)?.number).join(', ');
  return (
    <section className="mt-9">
      <Heading>The same paint, in one go</Heading>
      <ul>
        <GoingSessions going={going} />
        {together.map((dip) => (
          <li key={dip.paint} className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule py-3">
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
