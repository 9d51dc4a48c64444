import { pinInWorkM, pinOutAfter, samePin } from '../plan/pins.ts';
import type { Pins, HouseWays, PlanMold, PlanProduct } from '../plan/types.ts';
import type { CastsOnMold, MoldTonight } from '../plan/casts.ts';
import type { Work } from './evening.ts';

/**
 * The pin that a product's heads keep after the pour, with the step after which it is out; null where none stays.
 * @example pinOf(product(10), workshop().molds, {}) // null
 */
export function pinOf(product: PlanProduct, molds: readonly PlanMold[], house: HouseWays['schools']): Work['pin'] {
  const diameterM = pinInWorkM(product, molds, house);
  const outAfter = diameterM === null ? null : pinOutAfter(product, house);
  return diameterM === null || outAfter === null ? null : { diameterM, outAfter };
}

/** Molds that are poured together in one round: as many heads as there are pins for. */
export interface PourRound {
  molds: MoldTonight[];
  round: number;
  /** Of the molds that it belongs to. */
  rounds: number;
  /** Diameters of pins that must be back before it. */
  pins: number[];
  /** Part of each blank's casts that it gives. */
  shares: Record<string, number>;
}

/** A use of a mold, cut down to so many casts. */
const cut = (use: CastsOnMold, casts: number): CastsOnMold => ({ ...use, casts });

/** A mold with fewer casts: as many shots as they take, and metal in proportion. */
function fewer(mold: MoldTonight, uses: readonly CastsOnMold[]): MoldTonight {
  const castsOf = (some: readonly CastsOnMold[]) => some.reduce((sum, { casts }) => sum + casts, 0);
  const part = castsOf(uses) / Math.max(1, castsOf(mold.uses));
  if (part === 1) return mold;
  const shots = Math.max(...uses.map(({ casts, positions }) => Math.ceil(casts / Math.max(1, positions.length))));
  return {
    ...mold,
    ...{
      uses: [...uses],
      shots: Math.min(mold.shots, shots),
      castKg: mold.castKg * part,
    },
  };
}

/**
 * Pours in rounds where pins are few: never more good heads at once with a pin in them than there are pins; that of a
 * bad one goes into the next shot. The first round takes those that are free, each later one all of them, when they are
 * back. What needs no pin is poured in the first round.
 * @param groups molds that are poured together
 * @param pinOfBlank the pin that stays in a blank, and the part of its casts that are good, by its id
 * @example inRounds([[{ ...mold, uses: [{ blankId: 'a', name: 'A', positions: [1], casts: 30 }], shots: 30 }]],
 *   new Map([['a', { diameterM: 0.0032, goodShare: 1 }]]),
 *   { pins: [{ diameterM: 0.0032, count: 12 }] }).map(({ shares }) => shares.a)
 *   // [0.4, 0.4, 0.2]
 */
export function inRounds(
  groups: readonly (readonly MoldTonight[])[],
  pinOfBlank: ReadonlyMap<string, { diameterM: number; goodShare: number }>,
  { pins = [], pinsInWork = [] }: { pins?: readonly Pins[]; pinsInWork?: readonly Pins[] },
): PourRound[] {
  const kinds = pins.map(({ diameterM, count }) => {
    const inWork = pinsInWork.filter((each) => samePin(each.diameterM, diameterM));
    return { diameterM, count, free: Math.max(0, count - inWork.reduce((sum, each) => sum + each.count, 0)) };
  });
  const kindOf = (blankId: string) => {
    const { diameterM } = pinOfBlank.get(blankId) ?? {};
    // Of a diameter whose pins nobody has counted there are enough.
    return diameterM === undefined ? undefined : kinds.find((kind) => samePin(kind.diameterM, diameterM));
  };
  const left = new Map(groups.flatMap((molds) => molds.flatMap(({ uses }) => uses.map((use) => [use, use.casts]))));
  const total = new Map<string, number>();
  for (const [{ blankId }, casts] of left) total.set(blankId, (total.get(blankId) ?? 0) + casts);
  const found: (Omit<PourRound, 'rounds'> & { group: number })[] = [];
  for (let round = 0; [...left.values()].some((casts) => casts > 0); round++) {
    const here = new Map(kinds.map((kind) => [kind, round === 0 ? kind.free : kind.count]));
    groups.forEach((molds, group) => {
      const needs = new Set<number>();
      const shares: Record<string, number> = {};
      const poured = molds.flatMap((mold) => {
        const uses = mold.uses.flatMap((use) => {
          const kind = kindOf(use.blankId);
          const ownLeft = left.get(use)!;
          const good = ownLeft * (pinOfBlank.get(use.blankId)?.goodShare ?? 1);
          const pins = kind ? Math.min(good, here.get(kind)!) : good;
          const casts = good - pins < 1e-6 ? ownLeft : Math.round((ownLeft * pins) / good);
          if (casts <= 0) return [];
          left.set(use, ownLeft - casts);
          shares[use.blankId] = (shares[use.blankId] ?? 0) + casts / total.get(use.blankId)!;
          if (kind) {
            here.set(kind, here.get(kind)! - pins);
            if (round > 0) needs.add(kind.diameterM);
          }
          return [cut(use, casts)];
        });
        return uses.length > 0 ? [fewer(mold, uses)] : [];
      });
      if (poured.length > 0) found.push({ molds: poured, round, pins: [...needs], shares, group });
    });
    // Where there is not one pin, no round casts anything more.
    if (round > 0 && !found.some((each) => each.round === round)) break;
  }
  const roundsOf = (group: number) => found.filter((each) => each.group === group).length;
  return found.map(({ group, ...each }) => ({
    ...each,
    round: found.filter((other) => other.group === group).findIndex((other) => other.round === each.round),
    rounds: roundsOf(group),
  }));
}
