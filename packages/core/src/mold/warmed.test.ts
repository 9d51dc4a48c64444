import { readSample } from './sample.ts';
import { moldSession } from './session.ts';
import { warmPlan, type WarmPlanInput } from './warm-plan.ts';

const input = (more: Partial<WarmPlanInput> = {}): WarmPlanInput => ({
  ...{ block: { bodyKg: 0.5 }, basis: 'given', shotKg: 0.08, metalC: 371, roomC: 20 },
  ...{ school: 'blank shots', openBelow: false },
  ...more,
});

describe('warming a mold', () => {
  // 25 s a blank shot: common practice, no source.
  test('takes its minutes on the pot and 25 s a blank shot', () => {
    const shots = warmPlan(input());
    expect(shots.seconds).toBe(25 * shots.blanks.value);
    const pot = warmPlan(input({ school: 'pot top', potTopS: 600 }));
    expect(pot.seconds).toBe(600);
    const both = warmPlan(input({ school: 'both', potTopS: 600 }));
    expect(both.seconds).toBe(600 + 25 * both.blanks.value);
    expect(both.blanks.value).toBeLessThan(shots.blanks.value);
  });
  test('it is ready as the last blank shot leaves it, not as it stands after a wait', () => {
    const { readyC, points, blanks } = warmPlan(input());
    const shots = points.filter((point) => point.after === 'shot');
    expect(shots).toHaveLength(blanks.value);
    expect(readyC).toBe(shots.at(-1)!.meanC);
    expect(readyC).toBeGreaterThanOrEqual(60 - 1e-9);
    // One fewer is too few.
    expect(shots.at(-2)!.meanC).toBeLessThan(60);
  });
  test('on the pot alone it is as warm as the pot has made it', () => {
    const { readyC } = warmPlan(input({ school: 'pot top', potTopS: 600 }));
    const { points } = moldSession({
      block: { bodyKg: 0.5 },
      roomC: 20,
      steps: [{ kind: 'pot top', seconds: 600, potC: 240 }],
    });
    expect(readyC).toBe(points.at(-1)!.meanC);
    expect(readyC).toBeGreaterThan(30);
  });
});

describe('a sample on the scale', () => {
  const heads = (own: number, others: number) =>
    [1, 2, 3].flatMap((position) =>
      Array.from({ length: 4 }, (_, i) => ({ at: 10 * position + i, massKg: position === 2 ? own : others, position })),
    );
  const says = (own: number) => readSample({ heads: heads(own, 0.015), leadKg: 0.014, hookKg: 0.001 })!.says[0];
  test('a cavity that is heavy has flash or wear, one that is light is not full', () => {
    expect(says(0.0157)).toMatch(/^Cavity 2 is 5(\.0)? % heavier than its fellows: flash there/);
    expect(says(0.0143)).toMatch(/^Cavity 2 is 5(\.0)? % lighter than its fellows: not quite full/);
    expect(says(0.01501)).not.toMatch(/^Cavity/);
  });
});
