import fc from 'fast-check';
import { fillLevers } from '../fill/levers.ts';
import { FILL_DEFAULTS } from '../fill/fill-index.ts';
import { fillCavityOf } from '../fill/known-cavity.ts';
import { planOrder } from '../plan/plan.ts';
import { workshop } from '../test/workshop.ts';
import { atTheGateFigure, hotterAsItEmptiesK, metalAtMoldC, POT_WAYS } from './way.ts';

describe('how metal gets from the pot into the mold', () => {
  // From memory: a ladle loses 10 to 20 K on its way.
  test('a ladle loses its heat on the way, a spout next to nothing, a lip something', () => {
    const lost = Object.fromEntries(POT_WAYS.map(({ id }) => [id, 371 - metalAtMoldC(371, id)]));
    expect(lost['ladle']).toBeGreaterThanOrEqual(10);
    expect(lost['ladle']).toBeLessThanOrEqual(20);
    expect(lost['bottom spout']).toBeLessThan(lost['tipping pot']!);
    expect(lost['tipping pot']).toBeLessThan(lost['ladle']!);
    expect(atTheGateFigure(371, 'ladle')).toMatchObject({ low: 351, high: 361 });
    // Pots of before are poured by their spout, as they were.
    expect(metalAtMoldC(371)).toBe(371);
    expect(metalAtMoldC(371, null)).toBe(371);
  });
  // Common practice, no source: some 15 to 25 K from full to nearly empty.
  test('less metal runs hotter at one mark', () => {
    const at = (leadKg: number) => hotterAsItEmptiesK({ leadKg, capacityKg: 9, potC: 371, roomC: 20 });
    expect(at(9)).toBe(0);
    expect(at(0.5)).toBeGreaterThan(15);
    expect(at(0.5)).toBeLessThan(25);
    fc.assert(fc.property(fc.double({ min: 0, max: 9, noNaN: true }), (kg) => at(kg) >= at(Math.min(9, kg + 0.5))));
  });
  test('only a spout can be pressed against, and only a spout clogs', () => {
    const cavity = fillCavityOf({ style: 'ball', nominalMassKg: 0.0142, hookSize: '3/0' });
    const ids = (way: 'bottom spout' | 'ladle') =>
      fillLevers(cavity, { ...FILL_DEFAULTS, stream: 'thin' }, way).map(({ id, says }) => `${id}: ${says}`);
    expect(ids('bottom spout').join()).toMatch(/inject/);
    expect(ids('bottom spout').join()).toMatch(/Clear the spout/);
    expect(ids('ladle').join()).not.toMatch(/inject|spout/);
  });
  test('the plan goes by what reaches the gate: cooler metal sets sooner', () => {
    const input = workshop();
    const opens = (way?: 'ladle') =>
      planOrder({ ...input, pot: { ...input.pot, ...(way ? { way } : {}) } }).molds[0]!.openS.value;
    expect(opens('ladle')).toBeLessThan(opens());
  });
});
