import type { CountFrom } from '../bake/count-from.ts';
import type { Entry, OfRun, UndoEntry } from '../log/log.ts';
import type { DispositionId } from './dispositions.ts';

/** What is said of heads at a step: `step` is its key in the ticket's route. */
interface AtStep extends Entry {
  step: string;
}

/** Heads that are not good, and what becomes of them. */
export interface RejectedEntry extends AtStep {
  kind: 'reject';
  cause: string;
  count: number;
  goes: DispositionId;
  /** Sent back: the step that they come to once more; this one where nothing is said. */
  to?: string;
  /** Parts of this step that are still in the hand: the heads went before these were on. */
  spared?: string[];
}

export type TicketEntry =
  | (AtStep & { kind: 'start' })
  | (AtStep & { kind: 'good'; count: number })
  | RejectedEntry
  | (AtStep & { kind: 'pause' })
  | (AtStep & { kind: 'resume' })
  /** From here on: what a load of the oven says of this ticket's heads in it. */
  | (AtStep &
      OfRun & {
        kind: 'load';
        count: number;
        setC: number;
        seconds: number;
        preheated: boolean;
        from?: CountFrom;
        warmS?: number;
      })
  /** Out of the oven; so many seconds until a bare hand may take a head. */
  | (AtStep & OfRun & { kind: 'unload'; coolS?: number })
  /** The metal is at the oven's heat: a count that goes from there begins. */
  | (AtStep & OfRun & { kind: 'warm'; by: 'probe' | 'model' | 'hand' })
  /** The oven's door is opened, or shut again, with heads in it. */
  | (AtStep & OfRun & { kind: 'door'; open: boolean })
  /** A coat of liquid paint is on all of them: it dries so long before the next. */
  | (AtStep & { kind: 'coat'; coat: number; paint: string; dryS: number })
  /** Pieces of a part that broke or were lost, with no head on them. */
  | (AtStep & { kind: 'spoiled'; partId: string; count: number })
  /** Glue that was mixed: of the mix, this ticket's part, and its heads that were done with it. */
  | (AtStep & { kind: 'mixed'; partId: string; ml: number; heads: number })
  /** What the hands took at a step, as somebody says afterwards, s: it outranks every clock. */
  | (AtStep & { kind: 'minutes'; seconds: number })
  /** Cut-off sprues on the scale, back to the pot. */
  | (AtStep & { kind: 'sprue'; massKg: number })
  /** Heads taken off the shelf: bare ones that were cast ahead or bought, or used ones. */
  | (Entry & { kind: 'take'; count: number })
  | (Entry & { kind: 'close' });

export type TicketLog = readonly (TicketEntry | UndoEntry)[];

/**
 * What is said of an entry that is not of a step.
 * @example stepOfEntry({ id: 'e', at: 0, kind: 'good', step: 'trim', count: 2 }) // 'trim'
 */
export const stepOfEntry = (entry: TicketEntry | UndoEntry): string | null => ('step' in entry ? entry.step : null);
