/** What becomes of a head that is not good: one word, never several yes and no. */
interface Disposition {
  id: string;
  /** As it is said at the bench, after "it is" or "they are". */
  says: string;
  /** Its lead comes back. */
  lead: boolean;
  /** Its hook and whatever else can be won back comes back as good as new. */
  parts: boolean;
  /** It stays with its ticket, and comes to a step once more. */
  stays: boolean;
  /** Melted off at the pot then and there: its lead is in the pot again, its hook in the hand. */
  atOnce: boolean;
}

/**
 * Every way out for a head, as data.
 * @example disposition('hook lost').parts // false
 */
export const DISPOSITIONS = [
  { id: 'melt', says: 'melted down: lead and hook come back', lead: true, parts: true, stays: false, atOnce: false },
  { id: 'hook lost', says: 'melted down, its hook is lost', lead: true, parts: false, stays: false, atOnce: false },
  {
    id: 'parts back',
    says: 'dipped in the pot: hook and pin are won back',
    lead: true,
    parts: true,
    stays: false,
    atOnce: true,
  },
  { id: 'back to step', says: 'sent back to be done again', lead: false, parts: false, stays: true, atOnce: false },
  { id: 'second grade', says: 'kept as second grade', lead: false, parts: false, stays: false, atOnce: false },
  { id: 'scrap', says: 'scrap: nothing comes back', lead: false, parts: false, stays: false, atOnce: false },
] as const satisfies readonly Disposition[];
export type DispositionId = (typeof DISPOSITIONS)[number]['id'];
export const DISPOSITION_IDS: readonly DispositionId[] = DISPOSITIONS.map((each) => each.id);

/** The row of a disposition. @example disposition('melt').lead // true */
export const disposition = (id: DispositionId): Disposition => DISPOSITIONS.find((each) => each.id === id)!;
