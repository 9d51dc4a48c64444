import type { Casts } from '../count/casts-for.ts';
import { inRange } from '../quantity/check.ts';

/**
 * When what is cast in is won back from heads that are thrown back: at once, held by the hook and dipped, so that it is
 * laid in again; or later, on another day.
 */
export const WINNING_BACK = ['at once', 'later'] as const;
export type WinningBack = (typeof WINNING_BACK)[number];

/** What becomes of the hooks of rejects in this house. */
export interface RejectWays {
  /** Left out: at once. */
  wonBack?: WinningBack;
  /** Of heads that are thrown back, so many lose their hook; left out: as usual. */
  hookLostShare?: number;
}

/** Rejects whose hook does not come back, leaning on 20 of them. Common practice, no source. */
const PRIOR = { lost: 1, rejects: 20 };

/**
 * Of heads that were thrown back, the share that lost its hook, by records that lean on the usual.
 * @example hookLostShare({ lost: 0, rejects: 0 }) // 0.05
 */
export const hookLostShare = ({ lost, rejects }: { lost: number; rejects: number }): number =>
  (lost + PRIOR.lost) / (rejects + PRIOR.rejects);

/**
 * Hooks, pins and other pieces that are cast in, one a head, to be there for what is cast: one for each good head, for
 * each that is lost, for each that is in a reject until it is won back, and one load of the mold; so that it reaches
 * nineteen evenings in twenty. Never by casts alone, and never more than they take.
 * @param wanted good heads that the pot owes, its casts and the cavities that are loaded at once
 * @example castInWanted({ toCast: 116, casts: { expected: 123.4, provision: 143, least: 118 }, load: 5 }) // 123
 */
export function castInWanted(
  { toCast, casts, load }: { toCast: number; casts: Casts; load: number },
  { wonBack = 'at once', hookLostShare: share = hookLostShare({ lost: 0, rejects: 0 }) }: RejectWays = {},
): number {
  inRange('share of hooks that are lost', share, '', 0, 1);
  const rejects = Math.max(0, casts.provision - toCast);
  const lost = share * rejects;
  const waiting = wonBack === 'later' ? rejects - lost : 0;
  return Math.min(casts.provision, Math.ceil(toCast + lost + waiting + load - 1e-9));
}
