import { SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { standing } from '../log/log.ts';
import { moldSession } from '../mold/session.ts';
import type { PourEntry, PourLog, PourSetup } from './pour-log.ts';
import { moldSteps, type SessionMold } from './session-heat.ts';

/** Casts of one cavity while its mold stood within a few degrees, and how many of them were short. */
interface CastsByHeat {
  position: number;
  /** Mean of the block just before the shots, by the model that the coach reads it with. */
  moldC: number;
  casts: number;
  shorts: number;
}

/** Shots within so many degrees are told together. */
const STEP_K = 3;

/** What a pour is looked at with again. */
interface PourAgain {
  setup: PourSetup;
  log: PourLog;
  mold: SessionMold;
  metalC: number;
  roomC: number;
  /** What was poured; left out: soft lead. */
  alloy?: Alloy;
}

/**
 * The mold's mean temperature just before each of its shots, by the shot's id, as the coach read it then.
 * @example heatBeforeShots({ setup: pour.setup, log: twoShots, mold: sessionMold(smallMold, pour.setup),
 *   metalC: 371, roomC: 20 }).get('s2') // 39.49
 */
export function heatBeforeShots({
  setup,
  log,
  mold,
  metalC,
  roomC,
  alloy = SOFT_LEAD,
}: PourAgain): Map<string, number> {
  const entries = standing<PourEntry>(log);
  const charge = entries.find((entry) => entry.kind === 'charge');
  const last = entries.at(-1);
  if (!charge || !last) return new Map();
  const { steps, poured } = moldSteps({ setup, metalC }, mold, entries, charge.at, (last.at - charge.at) / 1000);
  const { points } = moldSession({ block: mold.block, roomC, steps, alloy });
  const before = points.flatMap((point, i) => (points[i + 1]?.after === 'shot' ? [point.meanC] : []));
  return new Map(poured.flatMap((entry, i) => (entry.kind === 'shot' ? [[entry.id, before[i]!] as const] : [])));
}

/**
 * Casts and shorts of a mold's cavities in one pour, by the heat the mold had: what says at which heat this mold is too
 * cold.
 * @example castsByHeat({ setup: pour.setup, log: twoShots, mold: sessionMold(smallMold, pour.setup), metalC: 371,
 *   roomC: 20 }).length // 10
 */
export function castsByHeat(pour: PourAgain): CastsByHeat[] {
  const entries = standing<PourEntry>(pour.log);
  const heat = heatBeforeShots(pour);
  const short = new Set(
    entries.flatMap((entry) =>
      entry.kind === 'reject' && entry.cause === 'short' ? [`${entry.shotId} ${entry.position}`] : [],
    ),
  );
  const sums = new Map<string, CastsByHeat>();
  for (const entry of entries) {
    const before = entry.kind === 'shot' ? heat.get(entry.id) : undefined;
    if (entry.kind !== 'shot' || before === undefined) continue;
    const moldC = STEP_K * Math.round(before / STEP_K);
    for (const position of entry.positions) {
      const sum = sums.get(`${position} ${moldC}`) ?? { position, moldC, casts: 0, shorts: 0 };
      sum.casts += 1;
      if (short.has(`${entry.id} ${position}`)) sum.shorts += 1;
      sums.set(`${position} ${moldC}`, sum);
    }
  }
  return [...sums.values()];
}
