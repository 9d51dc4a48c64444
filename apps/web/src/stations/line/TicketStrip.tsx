import type { Ticket } from '@schmelz/contract';
import { AT, countAll, pareto, STATIONS, stationOf, stepAtStation, type TicketOnLine, forWhom } from '@schmelz/core';
import { Link } from 'react-router';
import { causeIcon, Icon } from '../../design/Icon.tsx';
import { Head } from '../../drawing/Head.tsx';
import { paintOn, specOf } from '../../drawing/product.ts';

interface Stop {
  station: string;
  good: number | null;
  /** What was thrown back here, by its causes. */
  rejects: Record<string, number>;
  here: string | null;
}

/** The worst cause with its heads, and how many more there are by others. */
function ThrownBack({ rejects }: { rejects: Record<string, number> }) {
  const [worst] = pareto(rejects);
  if (!worst) return <span />;
  const more = countAll(rejects) - worst.count;
  return (
    <span className="flex items-center gap-1 text-stop">
      <Icon name={causeIcon(worst.cause)} size={12} /> {worst.count} {worst.cause}
      {more > 0 && `, ${more} more`}
    </span>
  );
}

/** What the strip says in each of the line's columns: at each station the step that has the heads. */
function stopsOf(ticket: Ticket & TicketOnLine): Stop[] {
  const { state, quantity } = ticket;
  return STATIONS.map(({ id: station, verb, counts }): Stop => {
    const none = { station, rejects: {}, here: null };
    if (station === 'pour') {
      if (ticket.source !== 'pour') return { ...none, good: null };
      const more = ticket.poured ? `${ticket.toCast} more ${verb}` : `${ticket.toCast} ${verb}`;
      const waits =
        state.at === AT.pour && ticket.poured && !ticket.pourClosed ? 'at the pot' : ticket.toCast ? more : null;
      return {
        ...none,
        good: ticket.poured || null,
        rejects: ticket.pourCauses,
        here: waits,
      };
    }
    // Lead and molds make ready: nothing is counted there.
    if (!counts) return { ...none, good: quantity };
    const step = stepAtStation(state, station);
    if (!step) return { ...none, good: null };
    const takes = state.at === AT.take && state.steps[0]!.key === step.key;
    const here =
      step.left > 0
        ? step.inOven
          ? `${step.inOven} in the oven`
          : `${step.left} ${verb}`
        : takes
          ? `${quantity} to take`
          : null;
    return { station, good: step.good || null, rejects: step.rejects, here };
  });
}

/** From here on a painted ticket is drawn in its colours. */
const isAfterPaint = (station: string) => ['powder', 'baked'].includes(stationOf(station).after);

/** A ticket as a torn strip along the line: a bar as thick as the good heads left, grey while it is lead. */
export function TicketStrip({ ticket, next }: { ticket: Ticket & TicketOnLine; next: boolean }) {
  const { product } = ticket;
  const paint = paintOn(product);
  const painted = ticket.state.steps.some((step) => stationOf(step.station).after === 'powder' && step.good > 0);
  const stops = stopsOf(ticket);
  const waits = stops.find((stop) => stop.here)?.here ?? (ticket.state.at === 'close' ? 'ready to close' : '');
  const thickness = (count: number) => Math.max(4, Math.min(13, 3 + count / 11));
  const reached = (stop: Stop) => stop.station === 'lead' || stop.station === 'molds' || (stop.good ?? 0) > 0;
  return (
    <article
      className={`ticket-strip ${next ? 'bg-white!' : ''} dark:bg-sheet!`}
      aria-label={`Ticket ${ticket.number}`}
    >
      <div className="grid items-center gap-x-9 px-4 py-1.5 lg:grid-cols-[300px_minmax(0,1fr)]">
        <Link
          to={`/tickets/${ticket.id}`}
          className="grid grid-cols-[44px_84px_minmax(0,1fr)] items-center gap-x-2 lg:border-r-2 lg:border-dotted lg:border-rule"
        >
          <span className="fig text-[21px]">{ticket.number}</span>
          <Head
            {...specOf(product)}
            paint={paint}
            state={painted ? 'baked' : 'blank'}
            scale={1.55}
            className="max-h-[42px] max-w-[82px]"
          />
          <span className="min-w-0">
            <span className="block truncate font-medium">{product.name.split(',')[0]}</span>
            <span className="quiet block truncate">
              {product.name.split(',')[1]?.trim()}, {forWhom(ticket.customer)}
            </span>
          </span>
        </Link>
        <p className="flex justify-between pt-1 text-sm lg:hidden">
          <b className="font-semibold">{waits}</b>
          <span className="quiet">of {ticket.quantity}</span>
        </p>
        <ol className="hidden lg:grid" style={{ gridTemplateColumns: `repeat(${STATIONS.length}, minmax(0, 1fr))` }}>
          {stops.map((stop) => (
            <li key={stop.station} className="flex min-w-0 flex-col">
              <span
                className="flex h-5 items-center justify-between gap-1 pr-2 text-[13.5px] whitespace-nowrap"
                style={{ fontStretch: '88%' }}
              >
                {stop.here ? (
                  <b className={`font-semibold ${next ? 'text-good' : ''}`}>{stop.here}</b>
                ) : (
                  <ThrownBack rejects={stop.rejects} />
                )}
                {!stop.here && stop.good !== null && <span className="text-ink-2">{stop.good}</span>}
              </span>
              <span className="relative flex h-[15px] items-center">
                <span className="absolute inset-x-0 border-t border-dotted border-rule-2" />
                {reached(stop) && (
                  <span
                    className="relative w-full"
                    style={{
                      height: thickness(stop.good ?? ticket.quantity),
                      background:
                        painted && isAfterPaint(stop.station) && paint.base
                          ? `linear-gradient(${(paint.back ?? paint.base).colour} 50%, ${paint.base.colour} 50%)`
                          : 'var(--lead-shade)',
                    }}
                  />
                )}
                {stop.here && <span className={`absolute left-0 h-[15px] w-[3px] ${next ? 'bg-good' : 'bg-ink'}`} />}
              </span>
            </li>
          ))}
        </ol>
      </div>
    </article>
  );
}
