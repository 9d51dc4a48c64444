import fc from 'fast-check';
import { cavitySolid, cavityVolumeM3 } from '../geometry/solid.ts';
import { freezeTimeS, interfaceWPerM2K } from './freeze.ts';
import { headOpening } from './opening.ts';

/** V/A of a plain ball is a third of its radius. */
const ballModulusM = (massKg: number) => Math.cbrt((3 * cavityVolumeM3(massKg)) / (4 * Math.PI)) / 3;

describe('freezing', () => {
  // Common practice, no source: heads under an ounce are solid within 3 s; worked values of the interface-limited
  // model.
  test.each([
    [0.0142, 2.3],
    [0.0009, 0.9],
    [0.113, 4.5],
  ])('a %d kg ball at 371 C into a sooted mold of 120 C', (massKg, seconds) => {
    expect(freezeTimeS({ modulusM: ballModulusM(massKg), metalC: 371, moldC: 120 })).toBeCloseTo(seconds, 1);
  });
  test('every style under an ounce is solid within 3 s', () => {
    for (const style of ['ball', 'fish', 'flat', 'mushroom', 'bullet']) {
      expect(freezeTimeS({ modulusM: cavitySolid(style, 0.028).modulusM, metalC: 371, moldC: 120 })).toBeLessThan(3);
    }
  });

  test('hotter never freezes faster; soot worn off freezes faster', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 335, max: 480, noNaN: true }),
        fc.double({ min: 20, max: 200, noNaN: true }),
        (metalC, moldC) => {
          const at = (metal: number, mold: number) => freezeTimeS({ modulusM: 0.002, metalC: metal, moldC: mold });
          expect(at(metalC + 10, moldC)).toBeGreaterThan(at(metalC, moldC));
          expect(at(metalC, moldC + 10)).toBeGreaterThan(at(metalC, moldC));
        },
      ),
    );
    expect(interfaceWPerM2K(0)).toBe(1500);
    expect(interfaceWPerM2K(40)).toBeCloseTo(4000 - 2500 / Math.E, 6);
    expect(interfaceWPerM2K(1000)).toBeCloseTo(4000, 3);
  });

  test('opening waits for the later of head and sprue, with margin', () => {
    const heat = { metalC: 371, moldC: 120, interfaceWPerM2K: 1500 };
    const open = headOpening(cavitySolid('ball', 0.02), 0.02, heat);
    expect(open.last).toBe('sprue');
    expect(open.openS).toBeGreaterThan(1.1 * open.head.seconds);
    expect(open.openS).toBeLessThan(2 * open.head.seconds);
    expect(headOpening(cavitySolid('ball', 0.0009), 0.0009, heat).last).toBe('sprue');
  });
});
