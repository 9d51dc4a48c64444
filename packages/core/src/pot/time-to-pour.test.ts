import fc from 'fast-check';
import { Solver } from 'odex';
import { SOFT_LEAD } from '../metal/alloy.ts';
import { enthalpyJKg, leadEnthalpyJKg, temperatureOf } from '../metal/enthalpy.ts';
import { J_PER_KWH, poundsToKg } from '../quantity/units.ts';
import { simulatePot } from './simulate.ts';
import { holdingEnergyKWh, meltTime } from './time-to-pour.ts';

describe('melting', () => {
  // Common practice, no source: a 20 lb pot of 700 W pours after about 19 minutes.
  test('20 lb, 700 W, 0.55 W/K', () => {
    const { seconds } = meltTime({ leadKg: poundsToKg(20), powerW: 700, lossWPerK: 0.55, toC: 371 });
    expect(Math.abs(seconds / 60 - 19)).toBeLessThan(1);
  });

  test('without losses it is energy over power, to the second', () => {
    const { seconds, energyKWh } = meltTime({ leadKg: 4, powerW: 500, lossWPerK: 0, toC: 371 });
    expect(seconds).toBeCloseTo((4 * leadEnthalpyJKg(371)) / 500, 6);
    expect(energyKWh).toBeCloseTo((4 * leadEnthalpyJKg(371)) / J_PER_KWH, 9);
  });

  test('energy closes: what was heated is what was bought less what was lost', () => {
    // Lossy run against a run with the mean loss taken off the power: within a percent.
    const lossy = meltTime({ leadKg: 5, powerW: 700, lossWPerK: 0.55, toC: 371 });
    expect(lossy.seconds * 700).toBeGreaterThan(5 * leadEnthalpyJKg(371));
    expect(lossy.seconds * (700 - 0.55 * 351)).toBeLessThan(5 * leadEnthalpyJKg(371));
  });

  test('a pot that can never get there is refused', () => {
    expect(() => meltTime({ leadKg: 5, powerW: 100, lossWPerK: 0.55, toC: 371 })).toThrow(/toC is 371\u00a0C/);
    expect(meltTime({ leadKg: 1, powerW: 500, lossWPerK: 0.5, toC: 100, fromC: 120 }).seconds).toBe(0);
  });

  // Found by requests at random: a step of a second is beyond the stability of Runge-Kutta here, and never ended.
  test('a spoonful over a huge heater ends, and where a reference integrator (npm odex) ends', () => {
    const input = { leadKg: 0.05, powerW: 5000, lossWPerK: 20, toC: 248.56658976019168, roomC: 0 };
    const { seconds } = meltTime(input);
    const temperature = temperatureOf(SOFT_LEAD);
    const solver = new Solver(1);
    solver.absoluteTolerance = 1e-9;
    solver.relativeTolerance = 1e-11;
    const rate = (_: number, [h]: number[]) => [(5000 - 20 * temperature(h!)) / 0.05];
    const { y } = solver.solve(rate, 0, [enthalpyJKg(SOFT_LEAD, 20)], seconds);
    expect(Math.abs(temperature(y[0]!) - input.toC)).toBeLessThan(0.05);
    const { points } = simulatePot({
      ...{ pot: input, leadKg: 0.05, fromC: 20, roomC: 0, setC: 600, seconds: 20 },
    });
    expect(points.at(-1)!.temperatureC).toBeCloseTo(250, 3); // 5000 W over 20 W/K
  });
  test('whatever is in range ends, and no sooner than its heat can be bought', () => {
    const end = (low: number, high: number) =>
      fc.oneof(fc.constantFrom(low, high), fc.double({ min: low, max: high, noNaN: true }));
    fc.assert(
      fc.property(end(0.05, 50), end(50, 5000), end(0, 20), end(25, 600), (leadKg, powerW, lossWPerK, toC) => {
        fc.pre(toC < 20 + powerW / Math.max(lossWPerK, 1e-12) - 1);
        const { seconds } = meltTime({ leadKg, powerW, lossWPerK, toC });
        expect(Number.isFinite(seconds)).toBe(true);
        expect(seconds).toBeGreaterThanOrEqual(((leadKg * leadEnthalpyJKg(toC)) / powerW) * 0.999);
      }),
    );
  });

  test('holding is loss times time', () =>
    expect(holdingEnergyKWh({ lossWPerK: 0.55, potC: 371, roomC: 20, seconds: 3600 })).toBeCloseTo(
      (0.55 * 351) / 1000,
      9,
    ));
});
