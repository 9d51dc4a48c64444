import { headsOf, mixesFor, writeSpan } from '@schmelz/core';
import { useNavigate } from 'react-router';
import { useList } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Heading } from '../../design/Page.tsx';
import { SubNav } from '../../design/SubNav.tsx';
import { useNow } from '../../shell/clock.ts';
import { useLineState, wholeLog } from '../../shell/line-state.ts';
import { CountDesk } from '../../counting/CountDesk.tsx';
import { GoingSessions, useGoing } from '../../counting/GoingSessions.tsx';
import { beginMix } from './mixing.ts';

const ml = (value: number) => `${value.toFixed(value < 2 ? 1 : 0)} ml`;

/** Glue that is mixed for what waits: how many heads a mix, how much, how often; and mixes that are going. */
function Glues() {
  const now = useNow(2000);
  const line = useLineState(now);
  const { data: materials } = useList('materials');
  const navigate = useNavigate();
  const { going, busy } = useGoing(line?.runs, 'glue');
  if (!line || !materials) return null;
  const glues = mixesFor(
    line.tickets
      .filter(({ id }) => !busy.has(id))
      .map((ticket) => ({ ...ticket, log: wholeLog(ticket), bill: ticket.planned.bill })),
    (partId) => materials.find(({ id }) => id === partId)?.details,
    now,
  );
  if (going.length === 0 && glues.length === 0) return null;
  return (
    <section className="mt-6 mb-7">
      <Heading>Glue, a mix at a time</Heading>
      <ul>
        <GoingSessions going={going} />
        {glues.map((glue) => {
          const { plan } = glue;
          const first = plan?.mixes[0];
          return (
            <li key={glue.partId} className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-rule py-3">
              <span className="min-w-0 flex-1">
                <b className="font-medium">{glue.name}</b>
                <span className="quiet block">
                  {headsOf(glue.heads)} heads wait; {writeSpan(glue.potLifeS)} to work it,{' '}
                  {glue.own ? 'at your pace' : 'at a usual pace'} of {Math.round(glue.secondsPerHead)} s a head
                </span>
                {plan && first ? (
                  <span className="quiet block">
                    {plan.mixes.length === 1 ? 'one mix' : `${plan.mixes.length} mixes`} of {ml(first.ml)}:{' '}
                    {ml(first.resin)} and {ml(first.hardener)}; {ml(plan.wastedMl)} stay on the card in all
                  </span>
                ) : (
                  <span className="block text-watch">No mix: {glue.why}.</span>
                )}
              </span>
              {first && (
                <>
                  <span className="text-right">
                    <b className="fig text-[34px]">{first.heads}</b>
                    <span className="quiet block">heads a mix</span>
                  </span>
                  <Button onClick={() => void navigate(beginMix(glue))}>It is mixed: begin</Button>
                </>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const FinishRooms = () => (
  <SubNav
    label="Rooms of the finish"
    rooms={[
      { to: '/finish', name: 'Waiting' },
      { to: '/products/templates', name: 'What is made' },
      { to: '/stock/goods', name: 'Finished' },
      { to: '/trace', name: 'Trace a bag' },
    ]}
  />
);

/** What waits at the finish, step by step, and the glue that it wants. */
export const FinishDesk = () => <CountDesk station="finish" aside={<Glues />} rooms={<FinishRooms />} />;
