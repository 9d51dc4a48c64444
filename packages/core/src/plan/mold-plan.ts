import { fullShotKg, knownBlock } from '../mold/known-mold.ts';
import { castMassKg } from '../cast/cast-mass.ts';
import { interfaceWPerM2K, timeToOpen } from '../freeze/freeze.ts';
import { cavitySolid } from '../geometry/solid.ts';
import { sprueOf } from '../geometry/sprue.ts';
import { warmPlan } from '../mold/warm-plan.ts';
import { figure, fitted, given, type Figure } from '../quantity/figure.ts';
import type { KindOnMold, MoldAllocation } from './allocate.ts';
import type { CavityUse, HouseWays, MoldPlan, PlanMold } from './types.ts';

/** Mold temperature that shots are reckoned at: the middle of its window. */
export const WORKING_MOLD_C = 120;

const usesOf = (kinds: readonly KindOnMold[]): CavityUse[] =>
  kinds
    .flatMap(({ kind, cavities, yieldShare }) =>
      cavities.map((cavity) => ({
        position: cavity.position,
        cavityId: cavity.id,
        productIds: kind.lines.map((line) => line.product.id),
        leadKg: castMassKg({ nominalMassKg: cavity.nominalMassKg }),
        sprueKg: sprueOf(cavitySolid(cavity.style, cavity.nominalMassKg)).massKg,
        yieldShare,
      })),
    )
    .sort((a, b) => a.position - b.position);

function shotsFigure({ mold, kinds, shots }: MoldAllocation): Figure {
  const slowest = kinds.find((each) => each.shots === shots)!;
  const allGood = Math.max(...kinds.map((each) => Math.ceil(each.kind.wanted / each.cavities.length)));
  return figure(
    shots,
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
            given(`${name}: casts`, casts, 'count', `for ${kind.wanted} good`),
            given(`${name}: cavities`, cavities.length, 'count'),
          ];
        }),
      ],
    },
    { low: allGood, high: shots + Math.ceil(slowest.shots * 0.05), basis: 'given' },
  );
}

/** Blank shots by the mold's own way of warming; one that is open below can only be warmed on the pot. */
function blanksFigure(mold: PlanMold, shotKg: number, ways: HouseWays): Figure {
  const openBelow = mold.cavities.some((cavity) => cavity.openBelow);
  const school = openBelow ? 'pot top' : (mold.warmSchool ?? 'blank shots');
  return warmPlan({
    ...knownBlock(mold),
    shotKg,
    metalC: ways.pourC,
    roomC: ways.roomC,
    school,
    openBelow,
  }).blanks;
}

function openFigure({ mold, kinds }: MoldAllocation, ways: HouseWays): Figure {
  const h = interfaceWPerM2K(mold.shotsSinceSmoked);
  const heat = { metalC: ways.pourC, moldC: WORKING_MOLD_C, interfaceWPerM2K: h };
  const times = kinds.flatMap(({ cavities }) =>
    cavities.map((cavity) => {
      const solid = cavitySolid(cavity.style, cavity.nominalMassKg);
      return { cavity, ...timeToOpen(solid, sprueOf(solid), heat) };
    }),
  );
  const slowest = times.reduce((a, b) => (b.openS > a.openS ? b : a));
  return figure(
    slowest.openS,
    's',
    {
      rule: `Cavity ${slowest.cavity.position} is last, its ${slowest.last} sets last. Twice its freezing time, to be safe.`,
      formula: 't = ρ (L + c ΔT) (V/A) / (h (T_m − T_mold))',
      source: 'Interface-limited freezing; margin is common practice',
      inputs: [
        given('Metal', ways.pourC, 'C'),
        given('Mold', WORKING_MOLD_C, 'C'),
        given('Head freezes in', slowest.headS, 's'),
        given('Sprue freezes in', slowest.sprueS, 's'),
        fitted('Shots since smoked', mold.shotsSinceSmoked, 'count', `h = ${Math.round(h)} W/m²K`),
      ],
    },
    { low: slowest.openS * 0.75, high: slowest.openS * 1.35 },
  );
}

/** What one mold does in this plan. */
export function moldPlan(allocation: MoldAllocation, ways: HouseWays): MoldPlan {
  const uses = usesOf(allocation.kinds);
  // Blank shots fill every open cavity, used tonight or not: the mold is warmed as a whole.
  const blankShotKg = fullShotKg(allocation.mold.cavities);
  return {
    moldId: allocation.mold.id,
    moldName: allocation.mold.name,
    uses,
    shots: shotsFigure(allocation),
    blanks: blanksFigure(allocation.mold, blankShotKg, ways),
    openS: openFigure(allocation, ways),
  };
}
