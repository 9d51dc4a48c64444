import { fullShotKg, knownBlock } from '../mold/known-mold.ts';
import { openRange } from '../freeze/figures.ts';
import { settledMold } from '../freeze/settled.ts';
import { massShareOfLead, SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { blanksToWarm, warmPlan, type WarmPlanInput } from '../mold/warm-plan.ts';
import { metalAtMoldC } from '../pot/way.ts';
import { figure, fitted, given, type Figure } from '../quantity/figure.ts';
import { castKg } from './blank.ts';
import { cavitySprueKg } from './charge.ts';
import { wholeCasts } from '../count/casts-for.ts';
import { shotsOf, type KindOnMold, type MoldAllocation } from './allocate.ts';
import type { CavityUse, HouseWays, MoldPlan, PlanMold, PlanPot } from './types.ts';

/**
 * What each cavity of these gives and takes, in their order.
 * @example usesOf(kinds, SOFT_LEAD).length // 5
 */
export const usesOf = (kinds: readonly KindOnMold[], alloy: Alloy): CavityUse[] =>
  kinds
    .flatMap(({ kind, cavities, yieldShare, yieldSure }) =>
      cavities.map((cavity) => ({
        position: cavity.position,
        cavityId: cavity.id,
        productIds: kind.lines.map((line) => line.product.id),
        leadKg: castKg(cavity, kind.lines[0]!.product, alloy),
        sprueKg: massShareOfLead(alloy) * cavitySprueKg(cavity),
        yieldShare,
        yieldSure,
      })),
    )
    .sort((a, b) => a.position - b.position);

function shotsFigure(allocation: MoldAllocation): Figure {
  const { mold, kinds } = allocation;
  return figure(
    shotsOf(allocation),
    'count',
    {
      rule: `The blank that needs most shots decides; once the others have enough, their cavities stay empty.`,
      formula: 'shots = max over blanks of ⌈casts / cavities⌉',
      source: 'Counting; yields from records with a beta prior',
      inputs: [
        given('Mold', mold.name, 'text'),
        ...kinds.flatMap(({ kind, cavities, casts }) => {
          const name = kind.lines.map((line) => line.product.name).join(', ');
          return [
            given(`${name}: casts`, wholeCasts(casts.expected), 'count', `for ${kind.wanted} good`),
            given(`${name}: up to`, casts.provision, 'count', 'to lay out'),
            given(`${name}: cavities`, cavities.length, 'count'),
          ];
        }),
      ],
    },
    {
      low: shotsOf(allocation, ({ least }) => least),
      high: shotsOf(allocation, ({ provision }) => provision),
      basis: 'fitted',
    },
  );
}

/** The metal as it reaches a mold, and the room, C. */
interface PouredAt {
  metalC: number;
  roomC: number;
  alloy: Alloy;
}

/** Blank shots by the mold's own way of warming; one that is open below can only be warmed on the pot. */
function warmingOf(mold: PlanMold, { metalC, roomC, alloy }: PouredAt): WarmPlanInput {
  const openBelow = mold.cavities.some((cavity) => cavity.openBelow);
  const school = openBelow ? 'pot top' : (mold.warmSchool ?? 'blank shots');
  // Every open cavity is filled, used tonight or not: the mold is warmed as a whole.
  const shotKg = massShareOfLead(alloy) * fullShotKg(mold.cavities);
  return {
    ...{ ...knownBlock(mold), shotKg, barKg: mold.barKg ?? undefined },
    ...{ metalC, roomC, alloy, school, openBelow },
  };
}

/** What the mold settles at when these cavities are filled shot by shot, and how long it stays closed. */
const settledOf = ({ mold, kinds }: MoldAllocation, ways: HouseWays, { metalC, roomC, alloy }: PouredAt) =>
  settledMold({
    ...{ block: knownBlock(mold).block, cavities: kinds.flatMap((each) => each.cavities) },
    ...{ shotsSinceSmoked: mold.shotsSinceSmoked, metalC, roomC, hands: ways, alloy },
  });

function openFigure(allocation: MoldAllocation, ways: HouseWays, at: PouredAt): Figure {
  const { mold, kinds } = allocation;
  const { metalC, alloy } = at;
  const { block } = knownBlock(mold);
  const cavities = kinds.flatMap((each) => each.cavities);
  const { openS, moldC, cycleS, last } = settledOf(allocation, ways, at);
  const slowest = cavities.find(({ position }) => position === last.position)!;
  const heat = { metalC, moldC, alloy, moldMetal: block.metal ?? ('aluminium' as const) };
  return figure(
    openS,
    's',
    {
      rule: `Cavity ${last.position} is last, its ${last.last} sets last; a moment more, to be safe.`,
      formula: 't = ρ (L + c ΔT) (V/A) / (h (T_m − T_mold))',
      source: 'Interface-limited freezing; margin is common practice',
      inputs: [
        given('Metal', metalC, 'C', 'as it reaches the gate'),
        given('Mold, settled', moldC, 'C', `a shot every ${Math.round(cycleS)} s`),
        given('Head freezes in', last.headS, 's'),
        given('Sprue freezes in', last.sprueS, 's'),
        fitted('Shots since smoked', mold.shotsSinceSmoked, 'count'),
      ],
    },
    openRange({ ...slowest, shotsSinceSmoked: mold.shotsSinceSmoked }, heat),
  );
}

const pouredAt = (ways: HouseWays, pot: Pick<PlanPot, 'way'>, alloy: Alloy): PouredAt => ({
  ...{ metalC: metalAtMoldC(ways.pourC, pot.way, alloy), roomC: ways.roomC, alloy },
});

/**
 * Blank shots until a mold is warm.
 * @example blanksOf(smallMold, ways, {}) // 4
 */
export const blanksOf = (
  mold: PlanMold,
  ways: HouseWays,
  pot: Pick<PlanPot, 'way'>,
  alloy: Alloy = SOFT_LEAD,
): number => blanksToWarm(warmingOf(mold, pouredAt(ways, pot, alloy)));

/**
 * How long a mold stays closed after a shot of these cavities, s.
 * @example openOf(allocations[0], ways, {}) // 1.871
 */
export const openOf = (
  allocation: MoldAllocation,
  ways: HouseWays,
  pot: Pick<PlanPot, 'way'>,
  alloy: Alloy = SOFT_LEAD,
): number => settledOf(allocation, ways, pouredAt(ways, pot, alloy)).openS;

/**
 * What one mold does in this plan.
 * @example moldPlan(allocations[0], ways, {}).shots.value // 22
 */
export function moldPlan(
  allocation: MoldAllocation,
  ways: HouseWays,
  pot: Pick<PlanPot, 'way'>,
  alloy: Alloy = SOFT_LEAD,
): MoldPlan {
  const at = pouredAt(ways, pot, alloy);
  return {
    moldId: allocation.mold.id,
    moldName: allocation.mold.name,
    uses: usesOf(allocation.kinds, alloy),
    shots: shotsFigure(allocation),
    blanks: warmPlan(warmingOf(allocation.mold, at)).blanks,
    openS: openFigure(allocation, ways, at),
  };
}
