import { coldHeadSolid } from '../geometry/solid.ts';
import { typicalHook } from '../geometry/hook.ts';
import { cureLaw, fullCureS } from './cure-law.ts';
import { bakeTemperaturesC, cureShare, timeToFullCureS } from './cure.ts';
import { headLagS } from './head-lag.ts';

const law = cureLaw([
  { metalC: 177, seconds: 1200 },
  { metalC: 200, seconds: 600 },
]);

describe('cure', () => {
  // Arrhenius through two label lines, worked by hand: 53.4 kJ/mol.
  test('activation energy from a label', () => expect(law.activationJMol / 1000).toBeCloseTo(53.4, 1));
  // Equal to 20 min at 177 C with that energy.
  test.each([
    [163, 31.6],
    [149, 51.5],
    [135, 87],
    [121, 152],
  ])('at %d C it takes %d min', (metalC, minutes) => {
    expect(Math.abs(fullCureS(law, metalC) / 60 / minutes - 1)).toBeLessThan(0.01);
  });
  test('one line only: a prior, said to be one', () =>
    expect(cureLaw([{ metalC: 177, seconds: 1200 }]).from).toBe('prior'));
  test('a label that contradicts itself is refused', () => {
    expect(() =>
      cureLaw([
        { metalC: 177, seconds: 600 },
        { metalC: 200, seconds: 1200 },
      ]),
    ).toThrow(/activation energy from the label/);
    expect(() => cureLaw([])).toThrow(/label is empty/);
  });

  test('the closed form of two lags against small steps', () => {
    const input = { law, headLagS: 180, airC: 177, ovenLagS: 240, fromC: 20 };
    let [oven, metal, cure] = [20, 20, 0];
    const dt = 0.05;
    for (let t = 0; t < 1500; t += dt) {
      cure += dt / fullCureS(law, metal);
      metal += ((oven - metal) / 180) * dt;
      oven += ((177 - oven) / 240) * dt;
    }
    expect(bakeTemperaturesC(input, 1500).ovenC).toBeCloseTo(oven, 1);
    expect(bakeTemperaturesC(input, 1500).metalC).toBeCloseTo(metal, 1);
    expect(cureShare(input, 1500)).toBeCloseTo(cure, 2);
    expect(bakeTemperaturesC({ ...input, ovenLagS: 180 }, 600).metalC).toBeCloseTo(
      bakeTemperaturesC({ ...input, ovenLagS: 180.5 }, 600).metalC,
      0,
    );
  });

  test('the time to full cure is where the share is one; some programs never get there', () => {
    const input = { law, headLagS: 150, airC: 177 };
    const seconds = timeToFullCureS(input)!;
    expect(cureShare(input, seconds)).toBeCloseTo(1, 2);
    expect(seconds / 60).toBeGreaterThan(20);
    expect(timeToFullCureS({ ...input, airC: 80 })).toBeNull();
  });

  // Common practice, no source: a half-ounce head lags 2 to 3 minutes, heavier ones more.
  test('lag of a head', () => {
    const lag = (massKg: number, size: '3/0' | '5/0') =>
      headLagS({
        leadKg: massKg,
        hookKg: typicalHook(size).massKg,
        areaM2: coldHeadSolid('ball', massKg).cooledAreaM2,
      }) / 60;
    expect(lag(0.0142, '3/0')).toBeGreaterThan(2);
    expect(lag(0.0142, '3/0')).toBeLessThan(3.2);
    expect(lag(0.057, '5/0')).toBeGreaterThan(lag(0.0142, '3/0'));
  });
});
