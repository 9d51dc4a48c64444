import fc from 'fast-check';
import { Solver } from 'odex';
import table from 'periodic-table';
import { alloyOf, SOFT_LEAD } from '../metal/alloy.ts';
import { enthalpyJKg, temperatureOf } from '../metal/enthalpy.ts';
import { QuantityError } from '../quantity/check.ts';
import { fumeCeilingUgM3, LEAD_ACTION_LEVEL_UG_M3, LEAD_LIMIT_UG_M3, leadVapourPa } from './fume.ts';
import { fitPot } from './fit-pot.ts';
import { meltPlan } from './melt-plan.ts';
import { afterAdding, largestRefill } from './refill.ts';
import { simulatePot, type PotEvent, type PotRun } from './simulate.ts';
import { SKINS, skinAt, skinTemperatureC } from './skin.ts';
import { meltTime } from './time-to-pour.ts';

const POT = { powerW: 700, lossWPerK: 0.55 };
const hold: PotRun = { pot: POT, leadKg: 6, fromC: 371, roomC: 20, setC: 371, seconds: 3600 };

describe('pot through time', () => {
  test('against npm odex: heating, and cooling with the power off', () => {
    for (const [powerW, fromC] of [
      [700, 20],
      [0, 400],
    ] as const) {
      const pot = { powerW, lossWPerK: 0.55 };
      const { points } = simulatePot({ pot, leadKg: 4, fromC, roomC: 20, setC: 600, seconds: 300 });
      const temperature = temperatureOf(SOFT_LEAD);
      const rate = (_: number, [h]: number[]) => [(powerW - 0.55 * (temperature(h!) - 20)) / 4];
      const solver = new Solver(1);
      solver.absoluteTolerance = 1e-9;
      solver.relativeTolerance = 1e-11;
      const { y } = solver.solve(rate, 0, [enthalpyJKg(SOFT_LEAD, fromC)], 300);
      expect(points.at(-1)!.temperatureC).toBeCloseTo(temperature(y[0]!), 4);
    }
  });

  test('against the closed form of the melt: T = T_end + (T0 - T_end) exp(-UA t / m c)', () => {
    const { points } = simulatePot({ ...hold, pot: { powerW: 0, lossWPerK: 0.55 }, fromC: 420, seconds: 150 });
    const rate = 0.55 / (6 * SOFT_LEAD.liquidJKgK);
    expect(points.at(-1)!.temperatureC).toBeCloseTo(20 + 400 * Math.exp(-rate * 150), 6);
  });

  test('energy and metal close to 1e-9 over a session of pouring, feeding and turning the dial', () => {
    const events: PotEvent[] = Array.from({ length: 60 }, (_, i) => ({ atS: 60 * i + 7.3, kind: 'take', kg: 0.05 }));
    events.push({ atS: 900, kind: 'add', kg: 1.2, fromC: 20 }, { atS: 1800, kind: 'dial', setC: 395 });
    const trace = simulatePot({ ...hold, seconds: 4 * 3600, events });
    const flows = trace.boughtJ - trace.lostJ + trace.addedJ - trace.takenJ;
    expect(Math.abs(trace.storedJ - flows) / trace.boughtJ).toBeLessThan(1e-9);
    expect(trace.points.at(-1)!.leadKg).toBeCloseTo(6 + 1.2 - 3, 9);
    // The thermostat keeps it between its marks once it is there.
    const late = trace.points.filter((point) => point.atS > 4000).map((point) => point.temperatureC);
    expect(Math.max(...late)).toBeLessThan(397);
    expect(Math.min(...late)).toBeGreaterThan(384);
  });

  test('what happens is taken in order of time, however it was written down', () => {
    const events: PotEvent[] = [
      { atS: 1200, kind: 'dial', setC: 360 },
      { atS: 60, kind: 'take', kg: 1 },
      { atS: 600, kind: 'add', kg: 0.5, fromC: 20 },
    ];
    const inOrder = [events[1]!, events[2]!, events[0]!];
    const ends = [events, inOrder].map((each) => simulatePot({ ...hold, events: each }).points);
    expect(ends[0]).toEqual(ends[1]);
    expect(ends[0]!.at(-1)!.leadKg).toBeCloseTo(5.5, 12);
    expect(simulatePot({ ...hold, seconds: 600 }).points.every(({ leadKg }) => leadKg === 6)).toBe(true);
    // Frozen in an unheated shed it is as cold as that; no pot starts below what a winter gives.
    expect(simulatePot({ ...hold, fromC: -15, seconds: 30 }).points[0]!.temperatureC).toBeCloseTo(-15, 6);
    expect(() => simulatePot({ ...hold, fromC: -25 })).toThrow(/fromC is -25\u00a0C/);
  });

  test('a smaller pot gets there sooner; what cannot be is refused by name', () => {
    const level = (leadKg: number) =>
      simulatePot({ ...hold, leadKg, fromC: 20, seconds: 300 }).points.at(-1)!.temperatureC;
    expect(level(3)).toBeGreaterThan(level(6));
    expect(() => simulatePot({ ...hold, events: [{ atS: 1, kind: 'take', kg: 6 }] })).toThrow(/taken is 6\u00a0kg/);
    expect(() => simulatePot({ ...hold, leadKg: NaN })).toThrow(QuantityError);
  });

  test('no NaN for any input in range, a named error outside', () => {
    const any = fc.record({
      leadKg: fc.double({ min: -1, max: 60, noNaN: false }),
      fromC: fc.double({ min: -60, max: 700, noNaN: false }),
      powerW: fc.double({ min: -10, max: 6000, noNaN: false }),
      lossWPerK: fc.double({ min: -1, max: 30, noNaN: false }),
    });
    fc.assert(
      fc.property(any, ({ leadKg, fromC, powerW, lossWPerK }) => {
        try {
          const trace = simulatePot({ ...hold, pot: { powerW, lossWPerK }, leadKg, fromC, seconds: 30 });
          expect(trace.points.every((point) => Number.isFinite(point.temperatureC))).toBe(true);
        } catch (error) {
          expect(error).toBeInstanceOf(QuantityError);
        }
      }),
      { numRuns: 300 },
    );
  });
});

describe('feeding the pot', () => {
  // Worked example of the enthalpy balance: 2 kg at 385 C.
  test.each([
    [0.1, 361],
    [0.2, 340],
  ])('with %d kg cold falls to %d C', (kg, celsius) => {
    expect(Math.abs(afterAdding({ potKg: 2, potC: 385, addKg: kg }).temperatureC - celsius)).toBeLessThan(1);
  });
  test('half a kilogram freezes 27 % of it', () =>
    expect(1 - afterAdding({ potKg: 2, potC: 385, addKg: 0.5 }).moltenShare).toBeCloseTo(0.27, 2));

  test('the largest addition leaves the pot just where it may fall to, whatever is in it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 8, noNaN: true }),
        fc.double({ min: 350, max: 420, noNaN: true }),
        (potKg, potC) => {
          const refill = largestRefill({
            potKg,
            potC,
            capacityKg: 50,
            pot: POT,
            keepAboveC: 340,
            pourC: 371,
            roomC: 20,
          });
          expect(refill.limit).toBe('heat');
          expect(afterAdding({ potKg, potC, addKg: refill.addKg }).temperatureC).toBeCloseTo(340, 4);
          expect(refill.recoverS).toBeGreaterThan(0);
        },
      ),
    );
  });
  test('it comes back the slower, the more there is to heat: the addition counts with the rest', () => {
    const input = { potC: 385, capacityKg: 50, pot: POT, keepAboveC: 340, pourC: 371, roomC: 20 };
    const refill = largestRefill({ ...input, potKg: 4 });
    const alone = meltTime({ leadKg: 4, fromC: refill.afterC, toC: 371, roomC: 20, ...POT }).seconds;
    expect(refill.recoverS / alone).toBeCloseTo((4 + refill.addKg) / 4, 2);
  });
  test('a full pot and a cold pot say so', () => {
    const input = { potKg: 8.4, potC: 400, capacityKg: 9, pot: POT, keepAboveC: 340, pourC: 371, roomC: 20 };
    expect(largestRefill(input)).toMatchObject({ limit: 'room in the pot', addKg: expect.closeTo(0.15, 6) });
    expect(largestRefill({ ...input, potC: 338 })).toMatchObject({ limit: 'too cold to feed', addKg: 0 });
  });
});

describe('fume ceiling', () => {
  // Alcock, Itkin & Horrigan (1984) in the CRC Handbook, from memory: lead reaches 1 Pa at 705 C.
  test('vapour pressure', () => expect(leadVapourPa(705)).toBeCloseTo(1, 1));
  // 29 CFR 1910.1025 (OSHA): action level 30 ug/m3, limit 50 ug/m3.
  test('saturated air: 0.3, 11 and 36 ug/m3 at 371, 450 and 480 C', () => {
    expect(fumeCeilingUgM3(371)).toBeCloseTo(0.28, 1);
    expect(Math.abs(fumeCeilingUgM3(450) - 11)).toBeLessThan(0.5);
    expect(Math.abs(fumeCeilingUgM3(480) - 36)).toBeLessThan(0.5);
    expect(fumeCeilingUgM3(470)).toBeLessThan(LEAD_ACTION_LEVEL_UG_M3);
    expect(fumeCeilingUgM3(480)).toBeGreaterThan(LEAD_ACTION_LEVEL_UG_M3);
    expect(fumeCeilingUgM3(490)).toBeGreaterThan(LEAD_LIMIT_UG_M3 * 0.98);
    expect(() => fumeCeilingUgM3(20)).toThrow(/metalC is 20\u00a0C/);
  });
  // npm periodic-table lists lead's boiling point in K: at it the vapour pressure is an atmosphere, within the
  // formula's stretch.
  test('is of the right order at the boiling point', () => {
    const boilingC = Number(table.symbols['Pb']!.boilingPoint) - 273.15;
    const ln = Math.log10(101_325) - (9.917 - 9701 / (boilingC + 273.15));
    expect(Math.abs(ln)).toBeLessThan(0.6);
  });
});

// Common practice, no source: silver is barely hot, straw right, blue or violet too hot.
test('the skin reads the heat in order', () => {
  expect(skinAt(300)).toBeNull();
  expect(SKINS.map((skin) => skinAt(skinTemperatureC(skin.colour))!.colour)).toEqual([
    'silver',
    'straw',
    'gold',
    'violet',
    'blue',
  ]);
  expect(skinAt(371)!.colour).toBe('straw');
  expect(skinAt(600)!.colour).toBe('blue');
});

describe('melt plan', () => {
  const input = {
    leadKg: 9.07,
    fromC: 20,
    roomC: 20,
    pourC: 371,
    ...POT,
    basis: 'given',
    powerSdW: 0,
    lossSdWPerK: 0,
    school: 'full then down',
  } as const;
  test('skim, turn down, ready, in that order, with a range that holds the value', () => {
    const plan = meltPlan(input);
    expect(plan.skim.value).toBeLessThan(plan.turnDown!.value);
    expect(plan.turnDown!.value).toBeLessThan(plan.ready.value);
    expect(Math.abs(plan.ready.value / 60 - 19)).toBeLessThan(1);
    for (const figure of [plan.ready, plan.skim, plan.energy]) {
      expect(figure.low).toBeLessThan(figure.value);
      expect(figure.high).toBeGreaterThan(figure.value);
    }
    expect(plan.points.at(-1)!.temperatureC).toBeGreaterThan(362);
    expect(meltPlan({ ...input, school: 'left at the mark' }).turnDown).toBeNull();
  });
  // By hand for 9.07 kg from 20 to 371 C: 131.5 J/kgK over 307 K and 147 over 44 K make 47 kJ/kg, melting 23 more; the
  // room takes 0.55 W/K times some 250 K for 19 minutes, 160 kJ of 700 W: about a quarter of the heat is for melting.
  test('says what the heat goes into', () => {
    const { rule } = meltPlan(input).ready.why;
    const [melting, room] = [.../takes (\d+) % of the heat, .*the room (\d+) %/.exec(rule)!].slice(1).map(Number) as [
      number,
      number,
    ];
    expect(melting).toBeGreaterThan(22);
    expect(melting).toBeLessThan(32);
    expect(room).toBeGreaterThan(12);
    expect(room).toBeLessThan(25);
  });
  test('a fitted pot narrows the range and says so', () => {
    const fitted = meltPlan({ ...input, basis: 'fitted', powerSdW: 5, lossSdWPerK: 0.02 });
    const width = (plan: ReturnType<typeof meltPlan>) => plan.ready.high! - plan.ready.low!;
    expect(width(fitted)).toBeLessThan(width(meltPlan(input)) / 3);
    expect(fitted.ready.why.inputs.find((each) => each.label === 'Power')!.basis).toBe('fitted');
  });
  test('hard metal is ready to run sooner, bismuth-tin sooner still', () => {
    const at = (id: string, toC: number) => meltTime({ leadKg: 4, ...POT, toC, alloy: alloyOf(id) }).seconds;
    expect(at('bismuth-tin', 180)).toBeLessThan(at('tyre-weight', 340));
  });
});

describe('learning a pot from its probe', () => {
  const truth = { powerW: 640, lossWPerK: 0.72, crucibleJPerK: 430 };
  // A seeded wobble stands for the probe's noise.
  const wobble = (i: number) => 1.5 * Math.sin(i * 12.9898) * Math.cos(i * 4.1414);
  const readingsOf = (run: Partial<PotRun>) =>
    simulatePot({
      pot: truth,
      leadKg: 6,
      fromC: 20,
      roomC: 20,
      setC: 600,
      seconds: 1200,
      everyS: 10,
      ...run,
    }).points.map(({ atS, temperatureC }, i) => ({ atS, temperatureC: temperatureC + wobble(i) }));

  test('finds power and loss again, with honest uncertainty', () => {
    const fit = fitPot({ readings: readingsOf({}), leadKg: 6, roomC: 20, powerW: 700, lossWPerK: 0.55, heating: true });
    const [power, loss] = [fit.parameters[0]!, fit.parameters[1]!];
    expect(Math.abs(power.value - truth.powerW)).toBeLessThan(3 * power.sd + 2);
    expect(Math.abs(power.value / truth.powerW - 1)).toBeLessThan(0.02);
    expect(Math.abs(loss.value - truth.lossWPerK)).toBeLessThan(3 * loss.sd + 0.01);
    expect(fit.rms).toBeLessThan(2);
  });
  test('a cool-down tells the loss and leaves the power to the plate', () => {
    const readings = readingsOf({ pot: { powerW: 0, lossWPerK: 0.72 }, fromC: 400, setC: 20 });
    const fit = fitPot({ readings, leadKg: 6, roomC: 20, powerW: 700, lossWPerK: 0.55, heating: false });
    expect(fit.parameters[0]!.value).toBeCloseTo(700, 3);
    expect(Math.abs(fit.parameters[1]!.value - 0.72)).toBeLessThan(0.02);
  });
  test('too little is refused by name', () => {
    const few = readingsOf({}).slice(0, 5);
    expect(() => fitPot({ readings: few, leadKg: 6, roomC: 20, powerW: 700, lossWPerK: 0.55, heating: true })).toThrow(
      /readings is 5/,
    );
    const flat = Array.from({ length: 20 }, (_, i) => ({ atS: 10 * i, temperatureC: 371 }));
    expect(() => fitPot({ readings: flat, leadKg: 6, roomC: 20, powerW: 700, lossWPerK: 0.55, heating: true })).toThrow(
      /temperature span/,
    );
  });
});
