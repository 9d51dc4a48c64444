import { coldHeadSolid } from '../geometry/solid.ts';
import { typicalHook } from '../geometry/hook.ts';
import { cureLaw, fullCureS } from './cure-law.ts';
import { Solver } from 'odex';
import { bakeTemperaturesC, cureShare, FULL_ENOUGH, timeToFullCureS, type BakeTemperatures } from './cure.ts';
import { bakedHeatJK, headLagS } from './head-lag.ts';
import { airIn, knownOven, loadHeat } from './known-oven.ts';

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

  test('an oven at full power to its mark, a little over it and about it, against a reference integrator (npm odex)', () => {
    const oven = { airC: 177, ovenLagS: 200, powerRiseK: 400, overshootK: 12 };
    const input = { law, headLagS: 130, ...oven };
    // 63 % of 157 K after 200 s, on the way to 400 K.
    const tauS = -200 / Math.log(1 - ((1 - Math.exp(-1)) * 157) / 400);
    const atMarkS = -tauS * Math.log(1 - 157 / 400);
    const over = (s: number) => 12 * (s / 75) * Math.exp(1 - s / 75);
    const air = (s: number) => (s < atMarkS ? 20 + 400 * -Math.expm1(-s / tauS) : 177 + over(s - atMarkS));
    const solver = new Solver(3);
    solver.absoluteTolerance = 1e-8;
    solver.relativeTolerance = 1e-8;
    // Walls a minute behind while they are cooler, and slow to cool; the head has half of its heat from either.
    const rate = (s: number, [walls, metal]: number[]) => [
      (air(s) - walls!) / (air(s) > walls! ? 60 : 400),
      ((air(s) + walls!) / 2 - metal!) / 130,
      1 / fullCureS(law, Math.max(40, metal!)),
    ];
    const [, metal, cure] = solver.solve(rate, 0, [20, 20, 0], 1500).y as [number, number, number];
    const [half, end] = bakeTemperaturesC(input, [200, 1500]) as [BakeTemperatures, BakeTemperatures];
    expect(Math.abs(half.ovenC - (20 + (1 - Math.exp(-1)) * 157))).toBeLessThan(0.5);
    expect(Math.abs(end.ovenC - air(1500))).toBeLessThan(0.2);
    expect(Math.abs(end.metalC - metal)).toBeLessThan(0.3);
    expect(Math.abs(cureShare(input, 1500) / cure - 1)).toBeLessThan(0.01);
  });

  // 88 heads of 1/2 oz from cold at 177 C are full after 22 to 25 min in an oven that holds its mark or a little over,
  // later in one that holds under it: common practice, no source.
  test('88 heads of 1/2 oz from cold', () => {
    const head = { leadKg: 0.0142, hookKg: typicalHook('3/0').massKg };
    const lagS = headLagS({ ...head, areaM2: coldHeadSolid('ball', 0.0142).cooledAreaM2 });
    const load = loadHeat([{ heatJK: bakedHeatJK(head), headLagS: lagS, count: 88 }]);
    const minutes = (offsetK: number, share = 1) => {
      const air = airIn({ ...knownOven({ lagS: 180, powerW: 1500 }), offsetK }, { setC: 177, preheated: false }, load);
      const slower = { ...law, referenceS: law.referenceS * share };
      return timeToFullCureS({ law: slower, headLagS: lagS, ...air })! / 60;
    };
    // As good as full, from nine tenths on, where the oven holds some 2 K over its mark; all of it at 5 K over it. At
    // its very mark the model takes 0.4 min longer than is told.
    expect(minutes(0, FULL_ENOUGH)).toBeGreaterThan(22);
    expect(minutes(2, FULL_ENOUGH)).toBeGreaterThan(22);
    expect(minutes(2, FULL_ENOUGH)).toBeLessThan(25);
    expect(minutes(5)).toBeGreaterThan(22);
    expect(minutes(5)).toBeLessThan(25);
    expect(minutes(-8)).toBeGreaterThan(28);
  });
  test('a load takes of the power on the way, and of a hot oven that can spare none', () => {
    const at = (share: number, more = {}) =>
      timeToFullCureS({ law, headLagS: 150, airC: 177, ovenLagS: 200, load: { share, lagS: 150 }, ...more })!;
    expect(at(0.3)).toBeGreaterThan(at(0) + 30);
    expect(at(1)).toBeGreaterThan(at(0.3) + 60);
    expect(at(1, { preheated: true, powerRiseK: 170 })).toBeGreaterThan(
      at(0, { preheated: true, powerRiseK: 170 }) + 60,
    );
    // Loading lets the air out, a hot oven is not at its mark at once.
    expect(at(0, { preheated: true })).toBeGreaterThan(timeToFullCureS({ law, headLagS: 150, airC: 177 })! + 10);
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
