import { chance } from '@schmelz/worlds';
import { jStat } from 'jstat';
import { interfaceWPerM2K, freezing } from './freeze/freeze.ts';
import { airIn, knownOven } from './bake/known-oven.ts';
import { cureShare, timeToFullCureS } from './bake/cure.ts';
import { cureLaw } from './bake/cure-law.ts';
import { programFigure, scheduleFigure } from './bake/figures.ts';
import { bakeProgram } from './bake/program.ts';
import { FILL_DEFAULTS, fillIndex } from './fill/fill-index.ts';
import { fillFigure } from './fill/figures.ts';
import { openingFigures } from './freeze/figures.ts';
import { OPENING_MARGIN, waitAfterSetS } from './freeze/opening.ts';
import { cavitySolid } from './geometry/solid.ts';
import { normalQuantile } from './quantity/range.ts';
import { sprueOf } from './geometry/sprue.ts';
import { moldLossWPerK } from './mold/block.ts';
import { paceFigures, warmTimeFigure } from './mold/figures.ts';
import { cycleForMoldC, steadyMoldC } from './mold/pace.ts';
import { warmPlan, type WarmPlan } from './mold/warm-plan.ts';
import { BAR_KG, BLANK_CYCLE_S, blankShots, MOLD_READY_C } from './mold/warm-up.ts';
import { heatingFigure } from './paint/figures.ts';
import { GUN_W_M2K, heatingS } from './paint/head-heat.ts';
import { headsFromMetal, ingotsFromScrap } from './plan/from-metal.ts';
import { powderPerHeadFigure } from './plan/paint-figures.ts';
import { planOrder } from './plan/plan.ts';
import { handsRange } from './plan/timing.ts';
import type { CostStack } from './plan/types.ts';
import { productHeated } from './plan/product.ts';
import { meltPlan } from './pot/melt-plan.ts';
import { afterAdding, largestRefill } from './pot/refill.ts';
import { refillFigures } from './pot/figures.ts';
import { meltTime } from './pot/time-to-pour.ts';
import { workshop } from './test/workshop.ts';
import type { School } from './ways/school.ts';
import { schoolCostFigure } from './ways/work.ts';

// A stated range is a 90 % range: of cases drawn from the spread of its inputs, 85 to 95 % lie in it. Drawn here by
// plain chance and worked out by the plain models, case by case; spreads as in quantity/spreads.ts.
const CASES = 600;
function inside({ low, high }: { low?: number; high?: number }, answer: (normal: (sd: number) => number) => number) {
  const { normal } = chance(20_26);
  const cases = Array.from({ length: CASES }, () => answer(normal));
  return cases.filter((each) => low! <= each && each <= high!).length / CASES;
}
const isNinety = (share: number, most = 0.95) => {
  expect(share).toBeGreaterThanOrEqual(0.85);
  expect(share).toBeLessThanOrEqual(most);
};

test('where a normal value lies below so often, against npm jstat', () => {
  for (const p of [1e-6, 0.004, 0.05, 0.3, 0.5, 0.8, 0.95, 0.9999]) {
    expect(Math.abs(normalQuantile(p) - jStat.normal.inv(p, 0, 1))).toBeLessThan(2e-6);
  }
});

describe('nine cases in ten lie in the range', () => {
  test.each([0.9, 14.2, 113])('when a cavity of %d g may be opened', (grams) => {
    const cavity = { style: 'ball', nominalMassKg: grams / 1000, shotsSinceSmoked: 20, position: 1 };
    const { opens: figure } = openingFigures(cavity, { metalC: 371, moldC: 60, roomC: 20 });
    const solid = cavitySolid('ball', cavity.nominalMassKg);
    const modulusM = Math.max(solid.modulusM, sprueOf(solid).modulusM);
    isNinety(
      inside(figure, (normal) => {
        const skin = interfaceWPerM2K(20) * Math.max(0.3, 1 + normal(0.18));
        const heat = { metalC: 371 + normal(8), moldC: 60 + normal(8), interfaceWPerM2K: skin };
        const solidS = freezing({ ...heat, modulusM: modulusM * (1 + normal(0.04)) }).seconds;
        return OPENING_MARGIN * solidS + waitAfterSetS(cavity.nominalMassKg);
      }),
    );
  });
  test.each([
    { bodyKg: 0.5, shotKg: 0.08 },
    { bodyKg: 0.9, shotKg: 0.25 },
    { bodyKg: 0.55, shotKg: 0.012 },
  ])('blank shots of %o', ({ bodyKg, shotKg }) => {
    const { blanks } = warmPlan({
      ...{ block: { bodyKg }, shotKg, metalC: 371, roomC: 20 },
      ...{ basis: 'given', school: 'blank shots', openBelow: false },
    });
    const share = inside(blanks, (normal) => {
      const of = (share: number) => Math.max(0.1, 1 + normal(share));
      return blankShots({
        block: { bodyKg, lossWPerK: moldLossWPerK(bodyKg) * of(0.2), capacityShare: of(0.08) },
        ...{ shotKg: shotKg * of(0.03), barKg: BAR_KG * of(0.25), metalC: 371 + normal(8), roomC: 20 + normal(2) },
        readyC: MOLD_READY_C + normal(4),
      }).shots;
    });
    // Whole shots: a range of three holds more than nine in ten, one of two might hold fewer.
    isNinety(share, 1);
    expect(blanks.high! - blanks.low!).toBeLessThan(0.9 * blanks.value + 2);
    const warm = { blanks, seconds: BLANK_CYCLE_S * blanks.value } as WarmPlan;
    const shots = (normal: (sd: number) => number) => blanks.value + normal((blanks.high! - blanks.low!) / 3.29);
    isNinety(
      inside(warmTimeFigure(warm), (normal) => BLANK_CYCLE_S * shots(normal) * (1 + normal(0.18))),
      1,
    );
  });
  test.each([2, 14.2, 57])('seconds under the gun for %d g', (grams) => {
    const head = productHeated({ style: 'ball', nominalMassKg: grams / 1000, hook: { size: '3/0' } });
    const figure = heatingFigure({ head, tool: 'heat gun', roomC: 20 }, 'turned');
    isNinety(
      inside(figure, (normal) => {
        const gunWM2K = GUN_W_M2K * Math.max(0.3, 1 + normal(0.25));
        return heatingS({ head, tool: 'heat gun', roomC: 20 + normal(2), gunWM2K });
      }),
    );
  });
  test('minutes of hands, of one kind of work and of many', () => {
    for (const parts of [[3600], [900, 1800, 600, 2400]]) {
      isNinety(inside(handsRange(parts), (normal) => parts.reduce((sum, each) => sum + each * (1 + normal(0.18)), 0)));
    }
  });
  test.each([0.8, 5])('minutes to pour of %d kg in a pot that was learned', (leadKg) => {
    const pot = { powerW: 690, lossWPerK: 0.45, crucibleJPerK: 560 };
    const sd = { powerSdW: 12, lossSdWPerK: 0.03, crucibleSdJPerK: 50 };
    const { ready } = meltPlan({
      ...{ leadKg, fromC: 20, roomC: 20, pourC: 371, school: 'left at the mark', basis: 'fitted', ...pot, ...sd },
    });
    isNinety(
      inside(ready, (normal) => {
        const [powerW, lossWPerK, crucibleJPerK] = [690 + normal(12), 0.45 + normal(0.03), 560 + normal(50)];
        return meltTime({ leadKg, powerW, lossWPerK, crucibleJPerK, toC: 371 }).seconds;
      }),
    );
  });
  test.each([2, 9])('metal to add to a pot of %d kg, where it comes to, and until it pours again', (potKg) => {
    const pot = { powerW: 690, lossWPerK: 0.45, crucibleJPerK: 540 };
    const input = { potKg, potC: 380, capacityKg: 20, pot, keepAboveC: 340, pourC: 371, roomC: 20 };
    const { add, after, recover, refill } = refillFigures(input, 'given');
    isNinety(inside(add, (normal) => largestRefill({ ...input, potC: 380 + normal(8) }).addKg));
    const mixed = (potC: number) => afterAdding({ ...input, potC, addKg: refill.addKg, crucibleJPerK: 540 });
    isNinety(inside(after, (normal) => mixed(380 + normal(8)).temperatureC));
    isNinety(
      inside(recover, (normal) => {
        const unsure = { powerW: 690 * (1 + normal(0.1)), lossWPerK: 0.45 * (1 + normal(0.25)), crucibleJPerK: 540 };
        const { temperatureC: fromC } = mixed(380 + normal(8));
        return meltTime({ leadKg: potKg + refill.addKg, fromC, toC: 371, ...unsure }).seconds;
      }),
    );
  });
  test.each([0.9, 14.2, 57])('how well a cavity of %d g fills', (grams) => {
    const cavity = { solid: cavitySolid('ball', grams / 1000), sprueHeightM: 0.008, wireM: 0.0009 };
    const settings = { ...FILL_DEFAULTS, moldC: 90 };
    isNinety(
      inside(fillFigure(cavity, settings, null), (normal) => {
        const now = { ...settings, metalC: 371 + normal(8), moldC: 90 + normal(8) };
        return ((1 + normal(0.14)) / (1 + normal(0.18))) * fillIndex(cavity, now).index;
      }),
    );
  });
  test('the pace that holds a mold, and where a pace takes it', () => {
    const block = { bodyKg: 0.6 };
    const input = { block, shotKg: 0.08, metalC: 371, roomC: 20, closedS: 5 };
    const { cycle, steady } = paceFigures(input, 70, 90);
    const drawn = (normal: (sd: number) => number) => ({
      ...{ ...input, shotKg: 0.08 * (1 + normal(0.03)), metalC: 371 + normal(8) },
      block: { ...block, lossWPerK: moldLossWPerK(0.6) * Math.max(0.2, 1 + normal(0.2)) },
    });
    isNinety(inside(cycle, (normal) => cycleForMoldC(drawn(normal), 70)));
    isNinety(inside(steady, (normal) => steadyMoldC(drawn(normal), 90)));
  });
  test.each(['label', 'prior'] as const)('cure and time of a bake, activation energy from the %s', (from) => {
    const label = [
      { metalC: 200, seconds: 600 },
      { metalC: 177, seconds: 1200 },
    ];
    const law = cureLaw(from === 'label' ? label : label.slice(1));
    const head = { name: 'Ball', headLagS: 110, heatJK: 2.3, hook: '', limitC: null, laws: [{ powder: 'White', law }] };
    const oven = knownOven(undefined);
    const way = { setC: 177, seconds: 1200, preheated: true };
    const drawn = (normal: (sd: number) => number) => ({
      // 50 to 90 kJ/mol hold nine in ten where a label has one line.
      law: {
        ...law,
        activationJMol: law.activationJMol + normal(from === 'label' ? 0.06 * law.activationJMol : 12_160),
      },
      headLagS: 110 * Math.max(0.1, 1 + normal(0.2)),
      ...airIn({ ...oven, offsetK: normal(7), lagS: oven.lagS * Math.max(0.1, 1 + normal(0.2)) }, way),
    });
    isNinety(inside(scheduleFigure(head, way, oven), (normal) => cureShare(drawn(normal), 1200)));
    const { program } = bakeProgram({ heads: [head], oven, preheated: true, toC: 190 });
    const figure = programFigure(program!, head, oven, true);
    const atItsMark = (normal: (sd: number) => number) => {
      const { law: ofLaw, headLagS } = drawn(normal);
      const air = airIn({ ...oven, offsetK: normal(7) }, { ...way, setC: program!.setC });
      return timeToFullCureS({ law: ofLaw, headLagS, ...air })!;
    };
    isNinety(inside(figure, atItsMark));
  });
  test('what a head costs: its parts each by itself', () => {
    const input = workshop();
    const { lines } = planOrder({ ...input, ways: { ...input.ways, labourMinorPerHour: 1500 } });
    const shares = {
      lead: 0.018,
      hook: 0,
      powder: Math.hypot(0.12, 0.15),
      parts: 0,
      dross: 0.4,
      energy: 0.2,
      work: 0.18,
    };
    for (const { unitCost, stack } of lines) {
      isNinety(
        inside(unitCost, (normal) =>
          Object.entries(shares).reduce(
            (sum, [part, sd]) => sum + stack[part as keyof CostStack] * (1 + normal(sd)),
            0,
          ),
        ),
      );
    }
  });
  test('lead that an order uses and needs, and the minutes that its melting takes', () => {
    const input = workshop();
    const plan = planOrder(input);
    const kg = (label: string) => plan.chargeParts.find((part) => part.label === label)!.kg;
    const drossKg = kg('dross');
    const headsKg = plan.leadUsed.value - drossKg;
    isNinety(inside(plan.leadUsed, (normal) => headsKg * (1 + normal(0.018)) + drossKg * Math.max(0, 1 + normal(0.4))));
    const castKg = kg('heads, rejects too') + kg('sprues');
    isNinety(
      inside(
        plan.charge,
        (normal) => kg('heel') + castKg * (1 + normal(0.018)) + drossKg * Math.max(0, 1 + normal(0.4)),
      ),
    );
    const { powerW, lossWPerK } = input.pot;
    const leadKg = Math.min(input.pot.capacityKg, plan.charge.value);
    isNinety(
      inside(plan.melt, (normal) => {
        const pot = { powerW: powerW * (1 + normal(0.1)), lossWPerK: lossWPerK * Math.max(0, 1 + normal(0.25)) };
        const roomC = input.ways.roomC;
        return meltTime({ leadKg, fromC: roomC, roomC, toC: input.ways.pourC, ...pot }).seconds;
      }),
    );
  });
  test('heads from a lot of metal, ingots from scrap', () => {
    // Mass balance by hand: heads and dross are used up, dross on sprues and rejects too.
    const ball = { metalKg: 40, style: 'ball', nominalMassKg: 0.0142, cavities: 4, heelKg: 0.4 };
    const sprueKg = sprueOf(cavitySolid('ball', 0.0142)).massKg;
    isNinety(
      inside(headsFromMetal({ ...ball, drossShare: 0.02, yieldShare: 0.9 }), (normal) => {
        const dross = 0.02 * Math.max(0, 1 + normal(0.4));
        const good = Math.min(1, 0.9 + normal(0.035));
        return Math.floor((40 - 0.4 - 4 * sprueKg) / (0.0142 + (dross * (0.0142 + sprueKg)) / good));
      }),
    );
    isNinety(
      inside(ingotsFromScrap({ grossKg: 40, cleanShare: 0.87 }), (normal) =>
        Math.floor((40 * Math.min(1, 0.87 + normal(0.035))) / 0.2268),
      ),
    );
  });
  test('powder on a head, and what a way of working costs', () => {
    const { lines, ways } = workshop();
    const { product } = lines[0]!;
    const figure = powderPerHeadFigure(product, ways);
    const share = ways.transferEfficiency;
    isNinety(
      inside(figure, (normal) => {
        const stays = Math.min(1, Math.max(0.05, share * (1 + normal(0.15))));
        return (figure.value * share * (1 + normal(0.12))) / stays;
      }),
    );
    const school = { id: 'nip', name: 'Nipped', seconds: 6, spoils: { share: 0.04, cause: 'bent' } } as School;
    isNinety(
      inside(schoolCostFigure(school, 1800, 30), (normal) => {
        const seconds = 6 * (1 + normal(0.18));
        const spoiled = 0.04 * Math.max(0, 1 + normal(0.5));
        return ((seconds + spoiled * (30 + seconds)) * 1800) / 3600;
      }),
    );
  });
});
