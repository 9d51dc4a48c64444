import { cavitySolid } from '../geometry/solid.ts';
import { sprueOf } from '../geometry/sprue.ts';
import { STYLE_IDS } from '../geometry/styles.ts';
import { moldSession } from '../mold/session.ts';
import { interfaceWPerM2K } from './freeze.ts';
import { headOpening } from './opening.ts';
import { settledMold } from './settled.ts';

const five = (grams: number, style = 'ball' as const) =>
  [1, 2, 3, 4, 5].map((position) => ({ position, style, nominalMassKg: grams / 1000 }));
const hands = { loadS: 17, inspectS: 12 };
const settled = (grams: number, more = {}) =>
  settledMold({
    block: { bodyKg: 0.5 },
    cavities: five(grams),
    ...{ shotsSinceSmoked: 20, metalC: 371, roomC: 20, hands, ...more },
  });

// Common practice, no source: five cavities, 100 heads an hour, some 170 s a shot; the mold stays between 48 and 57 C.
test.each([10, 12, 14])('at the pace that people really work five of %d g settle where practice says', (grams) => {
  const { moldC, cycleS } = settled(grams);
  expect(cycleS).toBeGreaterThan(155);
  expect(cycleS).toBeLessThan(180);
  expect(moldC).toBeGreaterThan(45);
  expect(moldC).toBeLessThan(61);
});

test('the session goes where the pace tends to: one loss, one open share', () => {
  const { moldC, openS, cycleS } = settled(12);
  const kg = 5 * (0.012 + sprueOf(cavitySolid('ball', 0.012)).massKg);
  const steps = Array.from({ length: 60 }, () => ({
    ...{ kind: 'shot' as const, kg, metalC: 371, closedS: openS, openS: cycleS - openS },
  }));
  const points = moldSession({ block: { bodyKg: 0.5 }, steps }).points.slice(-12);
  const mean = points.reduce((sum, point) => sum + point.meanC, 0) / points.length;
  expect(Math.abs(mean - moldC)).toBeLessThan(5);
});

test('quicker hands run it hotter, a cold shed colder', () => {
  expect(settled(12, { hands: { loadS: 8, inspectS: 4 } }).moldC).toBeGreaterThan(settled(12).moldC + 10);
  expect(settled(12, { roomC: 5 }).moldC).toBeLessThan(settled(12).moldC - 10);
});

describe('the gate feeds the head', () => {
  test.each(STYLE_IDS)('%s: its sprue sets last at every mass, and weighs less than it', (style) => {
    for (const grams of [0.35, 0.9, 4, 7, 14.2, 28, 57, 113, 227]) {
      const solid = cavitySolid(style, grams / 1000);
      const sprue = sprueOf(solid);
      const heat = { metalC: 371, moldC: 90, interfaceWPerM2K: 1500 };
      expect(headOpening(solid, grams / 1000, heat).last).toBe('sprue');
      expect(sprue.modulusM / solid.modulusM).toBeGreaterThan(1.04);
      if (grams >= 4) expect(sprue.massKg).toBeLessThan(0.55 * (grams / 1000));
    }
  });
  // Common practice, no source.
  test('small heads are opened after half a second to two and a half, from fresh soot to worn', () => {
    for (const grams of [0.9, 1.8, 3.5, 7, 10]) {
      for (const shots of [0, 20, 60, 300]) {
        const solid = cavitySolid('ball', grams / 1000);
        const heat = { metalC: 371, moldC: 60, interfaceWPerM2K: interfaceWPerM2K(shots) };
        const { openS } = headOpening(solid, grams / 1000, heat);
        expect(openS).toBeGreaterThan(0.3);
        expect(openS).toBeLessThan(2.6);
      }
    }
  });
});
