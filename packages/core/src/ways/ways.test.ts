import { coldHeadSolid } from '../geometry/solid.ts';
import { typicalHook } from '../geometry/hook.ts';
import { heatingS } from '../paint/head-heat.ts';
import { paintSteps, rhythmAt, stirDue } from './rhythm.ts';
import { USUAL_SCHOOLS, schoolsFollowed, schoolOf, schoolsAt, spoiledShare } from './house.ts';
import { STEPS, type Schools } from './school.ts';
import { paintSeconds, schoolCostFigure, targetOf, trimSeconds } from './work.ts';

const head = {
  leadKg: 0.01,
  areaM2: coldHeadSolid('ball', 0.01).cooledAreaM2,
  wireM: typicalHook('2/0').wireM,
  embeddedM: 0.012,
};
const with_ = (more: Partial<Schools>) => schoolsFollowed(null, more);

describe('house ways', () => {
  test("a product's own way outranks the house's, the house's the usual", () => {
    expect(schoolsFollowed()).toEqual(USUAL_SCHOOLS);
    expect(schoolsFollowed({ sprue: 'shear', edge: 'knife' }, { edge: 'nothing' })).toMatchObject({
      sprue: 'shear',
      edge: 'nothing',
      after: 'hang',
    });
    expect(schoolsAt('trim', schoolsFollowed({ sprue: 'shear' })).map(({ school }) => school.id)).toEqual([
      'shear',
      'file',
    ]);
    expect(() => schoolOf('edge', { ...USUAL_SCHOOLS, edge: 'bitten' as never })).toThrow(
      /edge is bitten; allowed: file, paper/,
    );
  });
  test('every school says when it suits; where lead dust, heat or a flame can hurt, it says so', () => {
    for (const { schools } of STEPS) for (const school of schools) expect(school.suits.length).toBeGreaterThan(8);
    const cautious = STEPS.flatMap(({ schools }) => schools.filter((each) => 'caution' in each).map((each) => each.id));
    expect(cautious).toEqual(
      expect.arrayContaining(['file', 'paper', 'disc', 'hot', 'water', 'bed', 'drilled', 'ptfe']),
    );
  });
  test('each step spoils its share of what the others left', () => {
    const ways = with_({ sprue: 'wiggle', edge: 'disc' });
    expect(spoiledShare('trim', ways)).toBeCloseTo(1 - (1 - 0.008) * (1 - 0.006), 12);
    expect(spoiledShare('trim', with_({ sprue: 'nip', edge: 'nothing' }))).toBe(0);
  });
});

describe('what a way takes', () => {
  // Common practice, no source: about a dozen seconds a head, nipped and filed; a maker for own use leaves the nub.
  test('trimming', () => {
    expect(trimSeconds(USUAL_SCHOOLS)).toBe(12);
    expect(trimSeconds(with_({ edge: 'nothing' }))).toBe(5);
  });
  const whole = (coats: number) => [{ zone: 'whole' as const, coats, form: 'powder' as const }];
  test('painting: the model’s heating and the ways’ seconds; a second coat starts warm', () => {
    const one = paintSeconds(whole(1), head, USUAL_SCHOOLS, { roomC: 20 });
    const heat = heatingS({ head, tool: 'heat gun', roomC: 20 });
    expect(one).toBeCloseTo(
      paintSteps(heat, USUAL_SCHOOLS).reduce((sum, step) => sum + step.seconds, 0),
      9,
    );
    expect(one).toBeGreaterThan(20);
    expect(one).toBeLessThan(40);
    const two = paintSeconds(whole(2), head, USUAL_SCHOOLS, { roomC: 20 });
    expect(two - one).toBeLessThan(one - 0.4 * heat);
    // Dropped in water it is cold, and its second coat takes as long as the first.
    const drowned = with_({ after: 'water' });
    const wet = (coats: number) => paintSeconds(whole(coats), head, drowned, { roomC: 20 });
    expect(wet(2)).toBeCloseTo(2 * wet(1), 6);
    const backed = [...whole(1), { zone: 'back' as const, coats: 1, form: 'powder' as const }];
    expect(paintSeconds(backed, head, USUAL_SCHOOLS, { roomC: 20 }) - one).toBe(8);
  });
  test('hot enough the first time takes no second heating, but a hotter head', () => {
    const hot = with_({ gloss: 'hot' });
    expect(targetOf(hot)).toBeGreaterThan(targetOf(USUAL_SCHOOLS));
    expect(paintSteps(15, hot).map((step) => step.name)).toEqual(['heat', 'dip', 'tap', 'eye', 'hang']);
    expect(
      paintSteps(15, with_({ gloss: 'twice', hole: 'pulled one by one', after: 'foam' })).map((step) => step.name),
    ).toEqual(['heat', 'dip', 'tap', 'dip again', 'eye', 'pin', 'foam']);
  });
  test('a torch heats a head sooner than a gun', () => {
    expect(paintSeconds(whole(1), head, with_({ tool: 'torch' }), { roomC: 20 })).toBeLessThan(
      paintSeconds(whole(1), head, USUAL_SCHOOLS, { roomC: 20 }) - 4,
    );
  });
  test('liquid paint is dipped, never heated', () => {
    const cold = { ...head, leadKg: 0.3 };
    const liquid = [{ zone: 'whole' as const, coats: 3, form: 'liquid' as const }];
    expect(paintSeconds(liquid, cold, USUAL_SCHOOLS, { roomC: 20 })).toBe(
      paintSeconds(liquid, head, USUAL_SCHOOLS, { roomC: 20 }),
    );
  });
  test('powder is stirred every 2 dips or 6, in a fluid bed never', () => {
    const due = (loose: Schools['loose']) => [0, 1, 2, 3, 4, 5, 6].filter((dips) => stirDue(dips, with_({ loose })));
    expect(due('two')).toEqual([2, 4, 6]);
    expect(due('six')).toEqual([6]);
    expect(due('bed')).toEqual([]);
  });
  test('the metronome goes round: step by step, head after head', () => {
    const steps = paintSteps(15, USUAL_SCHOOLS);
    const round = steps.reduce((sum, step) => sum + step.seconds, 0);
    expect(rhythmAt(steps, 0)).toEqual({ heads: 0, at: 0, withinS: 0 });
    expect(rhythmAt(steps, 15.5)).toMatchObject({ heads: 0, at: 1, withinS: 0.5 });
    expect(rhythmAt(steps, 3 * round + 1)).toMatchObject({ heads: 3, at: 0 });
    expect(rhythmAt(steps, round - 0.01).at).toBe(steps.length - 1);
  });
  // By hand: 3 s and 1 % of (60 + 3) s, at 12.00 an hour: 3.63 s, 1.21 minor units.
  test('what a school costs a head', () => {
    const school = { id: 'x', name: 'X', suits: '', seconds: 3, spoils: { share: 0.01, cause: 'runs' }, needs: [] };
    expect(schoolCostFigure(school, 1200, 60).value).toBeCloseTo(1.21, 9);
    expect(() => schoolCostFigure(school, -1, 60)).toThrow(/labour is -1/);
  });
});
