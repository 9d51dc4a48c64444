import { typicalHook } from '../geometry/hook.ts';
import { cavitySolid } from '../geometry/solid.ts';
import { fullShotKg } from '../mold/known-mold.ts';
import { openRange } from '../freeze/figures.ts';
import { interfaceWPerM2K, rodWindowS } from '../freeze/freeze.ts';
import { holdFigure } from '../freeze/hook-heat.ts';
import { headOpening, workingBlock } from '../freeze/opening.ts';
import { settledMold } from '../freeze/settled.ts';
import { massShareOfLead, SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { blanksToWarm, warmPlan, type WarmPlanInput } from '../mold/warm-plan.ts';
import { metalAtMoldC } from '../pot/way.ts';
import { figure, fitted, given, type Figure } from '../quantity/figure.ts';
import { castKg, insertsOf } from './blank.ts';
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
    ...{ ...workingBlock(mold), shotKg, barKg: mold.barKg ?? undefined },
    ...{ metalC, roomC, alloy, school, openBelow },
  };
}

/** What the mold settles at when these cavities are filled shot by shot, and how long it stays closed. */
const settledOf = ({ mold, kinds }: MoldAllocation, ways: HouseWays, { metalC, roomC, alloy }: PouredAt) =>
  settledMold({
    ...{ block: workingBlock(mold).block, cavities: kinds.flatMap((each) => each.cavities) },
    ownOpenS: mold.ownOpenS,
    ...{ shotsSinceSmoked: mold.shotsSinceSmoked, metalC, roomC, hands: ways, alloy },
  });

function openFigure(allocation: MoldAllocation, ways: HouseWays, at: PouredAt): Figure {
  const { mold, kinds } = allocation;
  const { metalC, alloy } = at;
  const { block } = workingBlock(mold);
  const cavities = kinds.flatMap((each) => each.cavities);
  const { openS, moldC, cycleS, last } = settledOf(allocation, ways, at);
  const slowest = cavities.find(({ position }) => position === last.position)!;
  const heat = {
    ...{ metalC, moldC, alloy, moldMetal: block.metal, roomC: at.roomC },
    ...{ ownOpenS: mold.ownOpenS, together: cavities.length },
  };
  return figure(
    openS,
    's',
    {
      rule:
        (mold.ownOpenS ?? null) !== null
          ? 'Your own count for this mold.'
          : `Cavity ${last.position} is last, its ${last.last} sets last; a moment more, to be safe.`,
      formula: 't = ρ (L + c ΔT) (V/A) / (h (T_m − T_mold))',
      source: 'Interface-limited freezing; margin is common practice',
      inputs: [
        given('Metal', metalC, 'C', 'as it reaches the gate'),
        given('Mold, settled', moldC, 'C', `a shot every ${Math.round(cycleS)} s`),
        given('Head freezes in', last.head.seconds, 's'),
        given('Sprue freezes in', last.sprue.seconds, 's'),
        fitted('Shots since smoked', mold.shotsSinceSmoked, 'count'),
      ],
    },
    openRange({ ...slowest, shotsSinceSmoked: mold.shotsSinceSmoked }, heat),
  );
}

type Settled = ReturnType<typeof settledOf>;

/** Each cavity of an allocation as it is opened with all others, at what its mold settles at. */
const openings = ({ mold, kinds }: MoldAllocation, { moldC, openS }: Settled, { metalC, alloy }: PouredAt) =>
  kinds.flatMap(({ kind, cavities }) =>
    cavities.map((cavity) => {
      const { style, nominalMassKg } = cavity;
      const solid = cavitySolid(style, nominalMassKg);
      const opening = headOpening(solid, nominalMassKg, {
        ...{ metalC, alloy, moldMetal: mold.metal, interfaceWPerM2K: interfaceWPerM2K(mold.shotsSinceSmoked) },
        moldC: Math.min(moldC, alloy.solidusC - 40),
        ...{ ownOpenS: openS, together: kinds.reduce((sum, each) => sum + each.cavities.length, 0) },
      });
      return { products: kind.lines.map((line) => line.product), cavity, solid, headKg: nominalMassKg, opening };
    }),
  );

/** When the rods in a mold are moved: by the head with one that sets first. */
function rodOf(allocation: MoldAllocation, settled: Settled, at: PouredAt) {
  const withRod = openings(allocation, settled, at).filter(({ products, cavity }) =>
    products.some((product) => insertsOf(cavity, product).includes('pull-out rod')),
  );
  if (withRod.length === 0) return null;
  return rodWindowS(Math.min(...withRod.map(({ opening }) => opening.head.seconds)));
}

/** How long after opening its hooks may be held: by the one that gets hot first; null where none does. */
function hookHeldS(allocation: MoldAllocation, settled: Settled, at: PouredAt): number | null {
  const seen = new Map<string, number>();
  for (const { products, solid, headKg, opening } of openings(allocation, settled, at)) {
    const hook = products[0]!.hook;
    if (!hook) continue;
    const key = `${hook.materialId} ${headKg}`;
    if (seen.has(key)) continue;
    const usual = typicalHook(hook.size, hook.wire);
    const own = { ...usual, lengthM: hook.lengthM ?? usual.lengthM, wireM: hook.wireM ?? usual.wireM };
    const held = holdFigure({ hook: own, solid, headKg, opening, roomC: at.roomC });
    seen.set(key, held?.low ?? Infinity);
  }
  const least = Math.min(...seen.values());
  return least === Infinity ? null : Math.max(0, least);
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
 * @example openOf(allocations[0], ways, {}) // 1.868
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
  const settled = settledOf(allocation, ways, at);
  const rod = rodOf(allocation, settled, at);
  const held = hookHeldS(allocation, settled, at);
  return {
    moldId: allocation.mold.id,
    moldName: allocation.mold.name,
    uses: usesOf(allocation.kinds, alloy),
    shots: shotsFigure(allocation),
    blanks: warmPlan(warmingOf(allocation.mold, at)).blanks,
    openS: openFigure(allocation, ways, at),
    solidS: settled.last.solidS,
    ...(rod ? { rodS: rod } : {}),
    ...(held === null ? {} : { hookHeldS: held }),
  };
}
