import { QUANTITY_TOLERANCE } from '../quantity/check.ts';
import { givenBack, placeOf, POUR_STEP, takenBy, type BillLine } from './bill.ts';
import { disposition, type DispositionId } from './dispositions.ts';
import { partKind } from './part-kinds.ts';
import type { Source, TicketState } from './ticket.ts';

type PostingReason =
  | 'heads'
  | 'second grade'
  | 'returned'
  | 'sprue back'
  | 'dross'
  | 'unexplained'
  | 'hooks'
  | 'hooks lost'
  | 'powder'
  | 'used'
  | 'spoiled'
  | 'off the shelf'
  | 'made';

/** What a ticket should have moved, by part and reason; negative leaves the shelf. */
export interface Posting {
  materialId: string;
  reason: PostingReason;
  quantity: number;
}

/** What the pours gave to a ticket and took for it, once they are closed. */
export interface CastForTicket {
  leadMaterialId: string;
  /** What a head weighs in this metal against soft lead; left out: 1. */
  metalShare?: number;
  good: number;
  /** Kept as second grade: gone from the shelf, though no head of this ticket. */
  secondGrade: number;
  hooksLost: number;
  drossKg: number;
  unexplainedKg: number;
  /** Sprues that its pours may have left on heads, less what other tickets of them have weighed; left out: as above. */
  sprueRoomKg?: number;
}

export interface TicketUse {
  /** What one head takes, and where: as it was when the ticket was released. */
  bill: readonly BillLine[];
  leadKgPerHead: number;
  /** Null until a pour for it is closed. */
  cast: CastForTicket | null;
  source: Source;
  /** The bare or used heads that it starts from. */
  sourceId: string | null;
  /** The bare heads that its finished heads become; null where they are sold. */
  becomesId: string | null;
  state: TicketState;
}

const sumOf = <T>(all: readonly T[], value: (each: T) => number) => all.reduce((sum, each) => sum + value(each), 0);

const countOf = (gone: Partial<Record<DispositionId, number>>, which: (id: DispositionId) => boolean): number =>
  sumOf(Object.entries(gone) as [DispositionId, number][], ([id, count]) => (which(id) ? count : 0));

/** Heads that were melted down at a step or behind it, so that what was on them by then is won back. */
function wonBack({ state }: TicketUse, from: number, which: (id: DispositionId) => boolean): number {
  return sumOf(state.steps.slice(Math.max(0, from)), (step) => countOf(step.gone, which));
}

/** What is cast in: lead, hook and inserts. They come back with what is melted down at a later step. */
function castPostings(use: TicketUse): Posting[] {
  const { cast, bill, state } = use;
  if (!cast) return [];
  const leadKgPerHead = use.leadKgPerHead * (cast.metalShare ?? 1);
  const { leadMaterialId } = cast;
  const melted = wonBack(use, 0, (id) => disposition(id).lead);
  const hooksBack = wonBack(use, 0, (id) => disposition(id).parts);
  const lead: Posting[] = [
    { materialId: leadMaterialId, reason: 'heads', quantity: -cast.good * leadKgPerHead },
    { materialId: leadMaterialId, reason: 'second grade', quantity: -cast.secondGrade * leadKgPerHead },
    { materialId: leadMaterialId, reason: 'returned', quantity: melted * leadKgPerHead },
    {
      materialId: leadMaterialId,
      reason: 'sprue back',
      // What the pour has weighed back already, or cannot have left on its heads, comes back no second time.
      quantity: Math.min(
        sumOf(state.steps, (step) => step.sprueKg),
        Math.max(0, cast.sprueRoomKg ?? cast.unexplainedKg),
      ),
    },
    { materialId: leadMaterialId, reason: 'dross', quantity: -cast.drossKg },
    { materialId: leadMaterialId, reason: 'unexplained', quantity: -cast.unexplainedKg },
  ];
  const castIn = bill
    .filter((line) => line.step === POUR_STEP)
    .flatMap((line): Posting[] => {
      const isHook = line.kind === 'hook';
      const comesBack = partKind(line.kind).comesBack;
      // Of one piece for several heads, those of second grade have what the good ones left of it.
      const good = takenBy(line, cast.good);
      return [
        { materialId: line.partId, reason: isHook ? 'hooks' : 'used', quantity: -good },
        {
          materialId: line.partId,
          reason: 'second grade',
          quantity: good - takenBy(line, cast.good + cast.secondGrade),
        },
        { materialId: line.partId, reason: 'returned', quantity: comesBack ? givenBack(line, hooksBack) : 0 },
        { materialId: line.partId, reason: 'hooks lost', quantity: isHook ? -takenBy(line, cast.hooksLost) : 0 },
      ];
    });
  return [...lead, ...castIn];
}

/** What the steps behind the pour use: so much for every head that was done there, good or not. */
function stepPostings(use: TicketUse): Posting[] {
  const { bill, state } = use;
  return bill
    .filter((line) => line.step !== POUR_STEP)
    .flatMap((line): Posting[] => {
      const step = state.steps.find((each) => each.key === line.step);
      if (!step) return [];
      const at = placeOf(state.steps, line.step);
      const spared = step.spared[line.partId] ?? { heads: 0, back: 0 };
      const mixed = step.mixed[line.partId] ?? { ml: 0, heads: 0 };
      // What was melted down at this very step has the part on it already, unless it was said to be in the hand still.
      const melted = partKind(line.kind).comesBack ? wonBack(use, at, (id) => disposition(id).parts) - spared.back : 0;
      const heads = step.good + step.rejected - spared.heads;
      return [
        {
          materialId: line.partId,
          reason: line.kind === 'powder' ? 'powder' : 'used',
          // Of glue that was mixed all is gone, what stayed on the card too.
          quantity: -takenBy(line, Math.max(0, heads - mixed.heads)) - mixed.ml,
        },
        { materialId: line.partId, reason: 'spoiled', quantity: -(step.spoiled[line.partId] ?? 0) },
        { materialId: line.partId, reason: 'returned', quantity: givenBack(line, melted) },
      ];
    });
}

/**
 * The stock movements that a ticket's counts ask for. They are recomputed from the whole log, and only the difference
 * to what was posted before is posted: an undo at any depth corrects the stock as well.
 * @example ticketPostings({ bill: [], leadKgPerHead: 0.01, cast: null, source: 'shelf', sourceId: 'bare',
 *   becomesId: 'clean', state: { ...ticketState({ ...twoSteps, source: 'shelf' }, []), taken: 5,
 *   good: 5 } })[0].reason // 'off the shelf'
 */
export function ticketPostings(use: TicketUse): Posting[] {
  const { state, sourceId, becomesId } = use;
  const shelf: Posting[] = sourceId ? [{ materialId: sourceId, reason: 'off the shelf', quantity: -state.taken }] : [];
  const made: Posting[] =
    becomesId && state.closedAt !== null ? [{ materialId: becomesId, reason: 'made', quantity: state.good }] : [];
  const all = [...castPostings(use), ...stepPostings(use), ...shelf, ...made];
  return all.filter((posting) => Math.abs(posting.quantity) > QUANTITY_TOLERANCE);
}

/**
 * The part of the cost that a movement belongs to, by its reason and the kind of what moved.
 * @example costPartOf({ reason: 'dross', kind: 'lead' }) // 'dross'
 */
export function costPartOf(move: { reason: string; kind: string }) {
  if (move.reason === 'dross' || move.reason === 'unexplained' || move.reason === 'sprue back') return 'dross' as const;
  return partKind(move.kind).costs;
}
