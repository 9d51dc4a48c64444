import { individuals } from '../count/individuals.ts';
import type { Advice, CoachInput } from './advice.ts';
import { standing } from '../log/log.ts';
import type { PourEntry, PourLog, PourSetup } from './pour-log.ts';

/** A weighed head against what its cavity should give. */
export interface Weighed {
  at: number;
  moldId: string;
  position: number;
  massKg: number;
  /** Lead and hook by the plan. */
  expectedKg: number;
  /** (weighed - expected) / lead: what is off in the casting, as a share of it. */
  off: number;
}

/**
 * Heads weighed at the pot, oldest first.
 * @example weighedHeads(pour.setup, twoShots) // []
 */
export function weighedHeads(setup: PourSetup, log: PourLog): Weighed[] {
  return standing<PourEntry>(log).flatMap((entry) => {
    if (entry.kind !== 'weighed') return [];
    const { at, moldId, position, massKg } = entry;
    const load = setup.loads.find((each) => each.moldId === moldId && each.position === position);
    if (!load) return [];
    const expectedKg = load.leadKg + load.hookKg;
    return [{ at, moldId, position, massKg, expectedKg, off: (massKg - expectedKg) / load.leadKg }];
  });
}

/**
 * A casting off by this share of its lead is looked into. Common practice, no source: hard alloy casts 2 to 4 % light.
 */
const TELLING_SHARE = 0.03;
/** So many weighings give limits of their own. */
const ENOUGH = 8;

const percent = (share: number) => `${Math.abs(100 * share).toFixed(1)} %`;

/**
 * What a weight that is off usually means, by its sign.
 * @example whatItMeans(0.05) // 'Flash,
 *   or the mold does not close: look along the seam. A forgotten pin adds its hole.'
 */
const whatItMeans = (off: number): string =>
  off > 0
    ? 'Flash, or the mold does not close: look along the seam. A forgotten pin adds its hole.'
    : 'Cold metal or a hard alloy casts light, and so does a cavity that is not quite full.';

/**
 * The last weighings are off, or drift: said with what to look at first.
 * @example weightAdvice({ setup: pour.setup, log: twoShots, state: pourState(pour.setup, twoShots), molds: [] })
 *   // []
 */
export function weightAdvice({ setup, log, state, molds }: CoachInput): Advice[] {
  if (state.phase !== 'pouring') return [];
  const all = weighedHeads(setup, log);
  const last = all.at(-1);
  if (!last) return [];
  const same = all.filter((each) => each.moldId === last.moldId && each.position === last.position).slice(-3);
  const mean = same.reduce((sum, each) => sum + each.off, 0) / same.length;
  const name =
    setup.molds.length > 1 ? `${molds.find((mold) => mold.moldId === last.moldId)?.name ?? 'Mold'}, cavity` : 'Cavity';
  if (Math.abs(mean) > TELLING_SHARE) {
    const says = `${name} ${last.position} casts ${percent(mean)} ${mean > 0 ? 'heavy' : 'light'}. ${whatItMeans(mean)}`;
    return [{ kind: 'weight', moldId: last.moldId, says, weight: 'watch' }];
  }
  if (all.length <= ENOUGH) return [];
  const { signals } = individuals(
    all.map((each) => each.off),
    ENOUGH,
  );
  const drift = signals.find((signal) => signal.index === all.length - 1);
  if (!drift) return [];
  const says = `The weights drift: ${drift.rule}, last ${percent(last.off)} ${last.off > 0 ? 'heavy' : 'light'}. ${whatItMeans(last.off)}`;
  return [{ kind: 'weight', moldId: last.moldId, says, weight: 'watch' }];
}
