import fc from 'fast-check';
import { FILL_DEFAULTS, fillIndex } from '../fill/fill-index.ts';
import { fillLevers } from '../fill/levers.ts';
import { freezing } from '../freeze/freeze.ts';
import { handlingTimeS } from '../freeze/handling.ts';
import { typicalHook, HOOK_SIZES } from '../geometry/hook.ts';
import { cavitySolid } from '../geometry/solid.ts';
import { STYLE_IDS } from '../geometry/styles.ts';
import { alloyOf, leadAlloy, METAL_IDS } from '../metal/alloy.ts';
import { enthalpyJKg } from '../metal/enthalpy.ts';
import { afterPause, cycleForMoldC, steadyMoldC } from '../mold/pace.ts';
import { AS_CUT, castAs } from '../mold/variants.ts';
import { warmPlan } from '../mold/warm-plan.ts';
import { fumeCeilingUgM3 } from '../pot/fume.ts';
import { meltPlan } from '../pot/melt-plan.ts';
import { afterAdding, largestRefill } from '../pot/refill.ts';
import { meltTime } from '../pot/time-to-pour.ts';
import { QuantityError } from '../quantity/check.ts';

/** Every number in a result, however deep. */
function numbersIn(value: unknown): number[] {
  if (typeof value === 'number') return [value];
  if (Array.isArray(value)) return value.flatMap(numbersIn);
  return value && typeof value === 'object' ? Object.values(value).flatMap(numbersIn) : [];
}

/** In range a model gives finite numbers; outside it says which quantity, and nothing else is ever thrown. */
function holds<T>(inputs: fc.Arbitrary<T>, model: (input: T) => unknown) {
  let answered = 0;
  fc.assert(
    fc.property(inputs, (input) => {
      try {
        for (const number of numbersIn(model(input))) expect(Number.isFinite(number)).toBe(true);
        answered += 1;
      } catch (error) {
        if (!(error instanceof QuantityError)) throw error;
        expect(error.message).toMatch(/^\S.* is .*; allowed: /);
        expect(error.message).not.toMatch(/undefined/);
      }
    }),
    { numRuns: 400 },
  );
  // A property that only ever saw refusals would say nothing.
  expect(answered).toBeGreaterThan(10);
}

/** Mostly sensible, sometimes far out or no number at all. */
const around = (min: number, max: number) =>
  fc.oneof(
    { weight: 6, arbitrary: fc.double({ min, max, noNaN: true }) },
    { weight: 1, arbitrary: fc.double({ min: min - Math.abs(max), max: 3 * max, noNaN: false }) },
    { weight: 1, arbitrary: fc.constantFrom(NaN, Infinity, -Infinity, 0, -1) },
  );
const style = fc.constantFrom(...STYLE_IDS);
const metal = fc.constantFrom(...METAL_IDS).map((id) => alloyOf(id));

describe('no NaN leaves the core, and what is refused is named', () => {
  test('alloys and their heat', () => {
    holds(fc.record({ antimonyPercent: around(0, 11), tinPercent: around(0, 5) }), leadAlloy);
    holds(fc.tuple(metal, around(-40, 800)), ([alloy, celsius]) => enthalpyJKg(alloy, celsius));
  });

  test('melting, feeding, fume', () => {
    const pot = fc.record({ powerW: around(100, 2000), lossWPerK: around(0.1, 2) });
    holds(
      fc.record({ pot, leadKg: around(0.2, 15), toC: around(150, 450), fromC: around(0, 300), alloy: metal }),
      ({ pot: body, ...input }) => meltTime({ ...input, ...body }),
    );
    holds(
      fc.record({ potKg: around(0.5, 12), potC: around(330, 450), addKg: around(0, 2) }),
      ({ potKg, potC, addKg }) => afterAdding({ potKg, potC, addKg }),
    );
    holds(
      fc.record({
        pot,
        potKg: around(0.5, 9),
        potC: around(330, 450),
        capacityKg: around(2, 12),
        keepAboveC: around(330, 400),
      }),
      (input) => largestRefill({ ...input, pourC: 375, roomC: 20 }),
    );
    holds(around(327, 900), fumeCeilingUgM3);
    holds(
      fc.record({ pot, leadKg: around(0.2, 9), fromC: around(0, 340), pourC: around(340, 420) }),
      ({ pot: body, ...input }) => {
        const plan = meltPlan({
          ...input,
          ...body,
          roomC: 20,
          basis: 'given',
          powerSdW: 0,
          lossSdWPerK: 0,
          school: 'full then down',
        });
        return [plan.ready.value, plan.skim.value, plan.energy.value, plan.points];
      },
    );
  });

  test('warming, pace, pauses', () => {
    const block = fc.record({ bodyKg: around(0.2, 3), metal: fc.constantFrom('aluminium' as const, 'iron' as const) });
    const school = fc.constantFrom('blank shots' as const, 'pot top' as const, 'both' as const);
    holds(
      fc.record({ block, school, shotKg: around(0.01, 0.5), metalC: around(330, 450), roomC: around(0, 35) }),
      (input) => {
        const plan = warmPlan({ ...input, basis: 'given', openBelow: false });
        return [plan.blanks.value, plan.readyC, plan.points];
      },
    );
    const pace = fc.record({
      block,
      shotKg: around(0.01, 0.5),
      metalC: around(330, 450),
      roomC: around(0, 35),
      closedS: around(0, 600),
    });
    holds(fc.tuple(pace, around(60, 200)), ([input, moldC]) => cycleForMoldC(input, moldC));
    holds(fc.tuple(pace, around(20, 300)), ([input, cycleS]) => steadyMoldC(input, cycleS));
    holds(fc.tuple(pace, around(60, 200), around(0, 7200)), ([input, moldC, s]) => afterPause(input, moldC, s));
  });

  test('freezing, handling, filling, casting', () => {
    const heat = { modulusM: around(0.0002, 0.01), metalC: around(330, 480), moldC: around(20, 250), alloy: metal };
    holds(fc.record(heat), freezing);
    holds(fc.tuple(around(0.001, 0.5), around(1e-4, 0.01), around(50, 320)), ([kg, m2, c]) =>
      handlingTimeS({ headKg: kg, areaM2: m2, fromC: c }),
    );
    const cavity = fc.record({ style, massKg: around(0.0005, 0.3), size: fc.constantFrom(...HOOK_SIZES) });
    const settings = fc.record({
      metalC: around(330, 500),
      moldC: around(0, 240),
      tiltDeg: around(0, 50),
      dirt: around(0, 1),
      potLevelM: around(0.01, 0.2),
    });
    holds(fc.tuple(cavity, settings), ([{ style: id, massKg, size }, change]) => {
      const one = { solid: cavitySolid(id, massKg), sprueHeightM: 0.008, wireM: typicalHook(size).wireM };
      const { verdict: _words, ...terms } = fillIndex(one, { ...FILL_DEFAULTS, ...change });
      return [terms, fillLevers(one, { ...FILL_DEFAULTS, ...change }).map((lever) => lever.gain)];
    });
    holds(
      fc.record({ style, massKg: around(0.001, 0.3), diameterM: around(0.0005, 0.004), lengthM: around(0.002, 0.02) }),
      ({ style: id, massKg, diameterM, lengthM }) =>
        castAs(
          { position: 1, style: id, nominalMassKg: massKg, pin: { diameterM, lengthM } },
          { ...AS_CUT, keeper: true },
        ),
    );
  });
});

describe('hotter never freezes faster, heavier never warms slower', () => {
  const warm = fc.double({ min: 340, max: 440, noNaN: true });
  test('metal and mold', () => {
    fc.assert(
      fc.property(warm, fc.double({ min: 20, max: 220, noNaN: true }), metal, (metalC, moldC, alloy) => {
        fc.pre(moldC < alloy.solidusC - 20);
        const at = (m: number, c: number) => freezing({ modulusM: 0.0018, metalC: m, moldC: c, alloy }).seconds;
        expect(at(metalC + 15, moldC)).toBeGreaterThan(at(metalC, moldC));
        expect(at(metalC, moldC + 5)).toBeGreaterThan(at(metalC, moldC));
      }),
    );
  });
  test('a hotter pot takes more cold metal, and never less with room to spare', () => {
    fc.assert(
      fc.property(warm, fc.double({ min: 1, max: 5, noNaN: true }), (potC, potKg) => {
        const add = (celsius: number) =>
          largestRefill({
            potKg,
            potC: celsius,
            capacityKg: 50,
            pot: { powerW: 700, lossWPerK: 0.5 },
            keepAboveC: 338,
            pourC: 371,
            roomC: 20,
          }).addKg;
        expect(add(potC + 5)).toBeGreaterThan(add(potC));
      }),
    );
  });
});
