import fc from 'fast-check';
import { ALUMINIUM_J_KG_K } from '../metal/materials.ts';
import { moldSession, shotHeatJ } from './session.ts';
import { warmPlan } from './warm-plan.ts';
import { blankShots, moldTemperaturesC, shotStep } from './warm-up.ts';

describe('blank shots', () => {
  // Common practice, no source: with the bar of 25 g over the gates, molds as they are recorded, one set of defaults.
  test.each([
    ['a micro ladder of 1/80 to 1/32 oz', 0.55, 'aluminium', 0.012, 10, 12],
    ['five of 10 to 14 g', 0.5, 'aluminium', 0.08, 4, 5],
    ['a ladder of six', 0.62, 'aluminium', 0.08, 4, 5],
    ['five of half an ounce', 0.6, 'aluminium', 0.09, 4, 5],
    ['four of 2 oz', 0.9, 'aluminium', 0.25, 2, 3],
    ['iron', 0.9, 'iron', 0.07, 4, 5],
  ] as const)('%s', (_, moldKg, moldMetal, shotKg, least, most) => {
    const { shots, ready } = blankShots({ block: { bodyKg: moldKg, metal: moldMetal }, shotKg, metalC: 371 });
    expect(ready).toBe(true);
    expect(shots).toBeGreaterThanOrEqual(least);
    expect(shots).toBeLessThanOrEqual(most);
  });

  test('without the bar a micro ladder never gets warm, and a capped count says so', () => {
    const bare = { block: { bodyKg: 0.55 }, basis: 'given', shotKg: 0.012, barKg: 0, metalC: 371, roomC: 20 } as const;
    expect(blankShots({ block: { bodyKg: 0.55 }, shotKg: 0.012, barKg: 0, metalC: 371 }).ready).toBe(false);
    const { blanks, impossible } = warmPlan({ ...bare, school: 'blank shots', openBelow: false });
    expect(blanks.beyond).toBe(true);
    expect(blanks.high).toBeUndefined();
    expect(blanks.why.rule).toMatch(/no further than 40/);
    expect(impossible).toMatch(/never warm it/);
  });

  test('one law: iron and aluminium of one heat capacity want the same, whatever they weigh', () => {
    // 0.5 kg of aluminium and 0.934 kg of iron take up 448 J a degree both; lossless, so that surface plays no part.
    const of = (moldKg: number, moldMetal: 'aluminium' | 'iron') =>
      moldTemperaturesC({ block: { bodyKg: moldKg, metal: moldMetal, lossWPerK: 0 }, shotKg: 0.09, metalC: 371 }, 5);
    of(0.5, 'aluminium').forEach((moldC, i) => expect(of((0.5 * 897) / 480, 'iron')[i]).toBeCloseTo(moldC, 6));
  });

  test('no mold gets hotter than its metal, whatever is poured and however fast', () => {
    fc.assert(
      fc.property(
        fc.record({
          moldKg: fc.double({ min: 0.05, max: 2, noNaN: true }),
          shotKg: fc.double({ min: 0.001, max: 10, noNaN: true }),
          metalC: fc.double({ min: 330, max: 600, noNaN: true }),
          cycleS: fc.double({ min: 1, max: 200, noNaN: true }),
        }),
        ({ moldKg, ...input }) => {
          for (const moldC of moldTemperaturesC({ ...input, block: { bodyKg: moldKg } }, 60))
            expect(moldC).toBeLessThanOrEqual(input.metalC + 1e-6);
        },
      ),
    );
    const faces = moldSession({
      block: { bodyKg: 0.3 },
      steps: Array.from({ length: 20 }, () => shotStep({ kg: 3, metalC: 371, cycleS: 5 })),
    }).points.map(({ faceC }) => faceC);
    expect(Math.max(...faces)).toBeLessThanOrEqual(371 + 1e-9);
    // A shot and a mold of one heat: 1 kg of lead at 371 C over 0.2 kg of aluminium from 20 C, by their heats, ends in
    // the melting: 179.4 J/K x 307 K = 55.1 kJ is what the mold takes to 327 C, and 1 kg gives 70.9 - 41.5 = 29.4 at
    // most.
    const heat = shotHeatJ({ shotKg: 1, metalC: 371, moldC: 20, capacityJK: 179.4 });
    const endC = 20 + heat / 179.4;
    expect(heat / 1000).toBeCloseTo(70.9 - (41.5 * (endC - 20)) / 307.46, 0);
  });

  test('without loss, the heat of the shots is the heat in the block', () => {
    const input = { block: { bodyKg: 0.6, lossWPerK: 0 }, shotKg: 0.1, metalC: 371 };
    const after = moldTemperaturesC(input, 6);
    let heat = 0;
    [20, ...after]
      .slice(0, -1)
      .forEach((moldC) => (heat += shotHeatJ({ shotKg: 0.1, metalC: 371, moldC, capacityJK: 0.6 * ALUMINIUM_J_KG_K })));
    const block = 0.6 * ALUMINIUM_J_KG_K * (after.at(-1)! - 20);
    expect(block / heat).toBeCloseTo(1, 9);
  });

  test('heavier shots never want more blanks; a shot too small never warms the mold', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 0.3, noNaN: true }), (shotKg) => {
        const { shots } = blankShots({ block: { bodyKg: 0.7 }, shotKg, metalC: 371 });
        expect(blankShots({ block: { bodyKg: 0.7 }, shotKg: shotKg * 1.2, metalC: 371 }).shots).toBeLessThanOrEqual(
          shots,
        );
      }),
    );
    expect(blankShots({ block: { bodyKg: 5 }, shotKg: 0.001, metalC: 371 }).ready).toBe(false);
    expect(blankShots({ block: { bodyKg: 0.6 }, shotKg: 0.1, metalC: 371, fromC: 120 }).shots).toBe(0);
  });
});
