import { QUANTITY_TOLERANCE } from '../quantity/check.ts';
import { perHead, placeOf, POUR_STEP, type BillLine } from './bill.ts';
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
    { materialId: leadMaterialId, reason: 'sprue back', quantity: sumOf(state.steps, (step) => step.sprueKg) },
    { materialId: leadMaterialId, reason: 'dross', quantity: -cast.drossKg },
    { materialId: leadMaterialId, reason: 'unexplained', quantity: -cast.unexplainedKg },
  ];
  const castIn = bill
    .filter((line) => line.step === POUR_STEP)
    .flatMap((line): Posting[] => {
      const each = perHead(line);
      const isHook = line.kind === 'hook';
      const comesBack = partKind(line.kind).comesBack;
      return [
        { materialId: line.partId, reason: isHook ? 'hooks' : 'used', quantity: -cast.good * each },
        { materialId: line.partId, reason: 'second grade', quantity: -cast.secondGrade * each },
        { materialId: line.partId, reason: 'returned', quantity: comesBack ? hooksBack * each : 0 },
        { materialId: line.partId, reason: 'hooks lost', quantity: isHook ? -cast.hooksLost * each : 0 },
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
      const each = perHead(line);
      const at = placeOf(state.steps, line.step);
      // What was melted down at this very step has the part on it already.
      const back = partKind(line.kind).comesBack ? wonBack(use, at, (id) => disposition(id).parts) : 0;
      return [
        {
          materialId: line.partId,
          reason: line.kind === 'powder' ? 'powder' : 'used',
          quantity: -(step.good + step.rejected) * each,
        },
        { materialId: line.partId, reason: 'returned', quantity: back * each },
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
