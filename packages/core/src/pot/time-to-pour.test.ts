import { leadEnthalpyJKg } from '../metal/enthalpy.ts';
import { J_PER_KWH, poundsToKg } from '../quantity/units.ts';
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
    expect(() => meltTime({ leadKg: 5, powerW: 100, lossWPerK: 0.55, toC: 371 })).toThrow(/toC is 371 C/);
    expect(meltTime({ leadKg: 1, powerW: 500, lossWPerK: 0.5, toC: 100, fromC: 120 }).seconds).toBe(0);
  });

  test('holding is loss times time', () =>
    expect(holdingEnergyKWh(0.55, 371, 20, 3600)).toBeCloseTo((0.55 * 351) / 1000, 9));
});
