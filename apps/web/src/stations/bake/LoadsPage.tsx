import type { Oven } from '@schmelz/contract';
import {
  headsInLoad,
  headsOf,
  loadsFor,
  ovenState,
  programKey,
  waitingForOven,
  type OvenLog,
  type WaitingHeads,
} from '@schmelz/core';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useList } from '../../api/queries.ts';
import { useRuns } from '../../api/runs.ts';
import { Button } from '../../design/Button.tsx';
import { Ways } from '../../design/Dials.tsx';
import { Icon } from '../../design/Icon.tsx';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { RackView, rackScale } from '../../drawing/RackView.tsx';
import { useNow } from '../../shell/clock.ts';
import { runPath, useLineState } from '../../shell/line-state.ts';
import { LoadSays } from '../../shell/BakeSays.tsx';
import { loadOven } from './loading.ts';
import { kindsOf } from './racked.ts';
import { BakeRooms } from './rooms.tsx';

const WHICH = [
  { value: 'here', label: 'What waits', hint: 'painted, at the oven now' },
  { value: 'coming', label: 'And what comes', hint: 'with what is still being painted' },
] as const;
type Which = (typeof WHICH)[number]['value'];

/** From the drawn load to the oven in one tap: the door is shut on all that hangs there, of however many tickets. */
function LoadIt({
  counts,
  here,
  oven,
  busy,
}: {
  counts: ReadonlyMap<string, number>;
  here: readonly WaitingHeads[];
  oven: Oven | undefined;
  busy: boolean;
}) {
  const navigate = useNavigate();
  const hung = [...counts].flatMap(([ticketId, count]) => {
    const waiting = here.find((each) => each.ticket.id === ticketId);
    return waiting ? [{ ...waiting, count: Math.min(count, waiting.heads) }] : [];
  });
  const heads = hung.map(({ ticket, step, count }) => ({ ticketId: ticket.id, step, count }));
  const all = headsOf(heads);
  const missing = [...counts.values()].reduce((sum, count) => sum + count, 0) - all;
  const [first] = hung;
  const program = first?.program;
  const shut = () => {
    const productOf = (id: string) => hung.find(({ ticket }) => ticket.id === id)?.ticket.product;
    void navigate(runPath('oven', loadOven(heads, headsInLoad(heads, productOf), program!, oven)));
  };
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
      {program && (
        <div className="w-full">
          <LoadSays
            heads={hung.map(({ ticket, step, count }) => ({ product: ticket.product, step, count }))}
            program={program}
            oven={oven}
          />
        </div>
      )}
      <Button look="main" disabled={all === 0 || !program || busy} onClick={shut}>
        {all === 0 ? 'Nothing of it is painted yet' : `Door is shut on ${all}`}
      </Button>
      {busy && all > 0 && <span className="quiet">The oven is in use.</span>}
      {missing > 0 && all > 0 && <span className="quiet">{missing} are still being painted.</span>}
    </div>
  );
}

/** Tonight's oven: what hangs together, load by load, on which rack, with every place drawn. */
export function LoadsPage() {
  const now = useNow(10_000);
  const line = useLineState(now);
  const { data: ovens } = useList('ovens');
  const [which, setWhich] = useState<Which>('coming');
  const busy = useRuns(line?.runs).some((run) => ovenState(run.log as OvenLog).phase === 'baking');
  if (!line || !ovens) return <Waiting />;
  const oven = ovens[0];
  const racks = oven?.racks ?? [];
  const groups = waitingForOven(line.tickets, which === 'coming');
  const { loads, unplaced } = loadsFor(groups, racks);
  const kinds = kindsOf(line.tickets, 'powder');
  const here = waitingForOven(line.tickets, false);
  // Two tickets may call the same heat and time by two names: the first says it.
  const programName = (key: string) => groups.find(({ program }) => programKey(program) === key)?.program.name;
  const ticketOf = (id: string) => line.tickets.find((ticket) => ticket.id === id)!;
  return (
    <Page
      stub={
        <>
          <TheNumber value={racks.length ? loads.length : '–'}>
            {racks.length === 0
              ? 'no rack is drawn yet'
              : loads.length === 1
                ? 'load, by program and rack'
                : 'loads, by program and rack'}
          </TheNumber>
          <Ways label="Heads" value={which} options={WHICH} onChange={setWhich} />
          {racks.length === 0 && (
            <Button look="main" asChild className="self-start">
              <Link to="/bake/oven">Say how your racks are built</Link>
            </Button>
          )}
          {racks.length > 0 &&
            [...new Set(unplaced)].map((id) => (
              <p key={id} className="flex gap-2 text-watch">
                <Icon name="watch" className="mt-1 shrink-0" />
                <span>No rack has room for ticket {ticketOf(id).number}: its heads are too long or too wide.</span>
              </p>
            ))}
          <p className="quiet">One program a load; of one program, heads that fit hang together, the widest first.</p>
          <Caution>Heads that touch stick together: leave a finger of air where they sway.</Caution>
        </>
      }
    >
      <BakeRooms />
      <ol className="grid gap-x-8 gap-y-7 xl:grid-cols-2">
        {loads.map((load, index) => {
          const counts = new Map<string, number>();
          for (const { groupId, heads } of load.bars.flat()) counts.set(groupId, (counts.get(groupId) ?? 0) + heads);
          const all = [...counts.values()].reduce((sum, count) => sum + count, 0);
          return (
            <li key={index}>
              <Heading aside={`${load.rack.name}, ${load.rack.way}`}>
                Load {index + 1}: {all} heads, {programName(load.program)}
              </Heading>
              <RackView
                rack={load.rack}
                bars={load.bars}
                kinds={kinds}
                pitchM={Math.min(...[...counts.keys()].map((id) => kinds.get(id)!.pitchM))}
                scale={rackScale(load.rack, 420, 420)}
                label={`${load.rack.name} with ${all} heads on ${load.rack.bars} bars`}
              />
              <ul className="mt-2">
                {[...counts].map(([id, count]) => (
                  <li key={id} className="flex justify-between gap-3 border-b border-rule py-1.5">
                    <Link to={`/bake/${id}`} className="min-w-0 truncate hover:underline">
                      <b className="fig text-[19px]">{ticketOf(id).number}</b> {ticketOf(id).product.name}
                    </Link>
                    <b className="fig text-[19px]">{count}</b>
                  </li>
                ))}
              </ul>
              <LoadIt counts={counts} here={here} oven={oven} busy={busy} />
            </li>
          );
        })}
      </ol>
      {racks.length > 0 && loads.length === 0 && <p className="quiet">Nothing waits for the oven.</p>}
    </Page>
  );
}
