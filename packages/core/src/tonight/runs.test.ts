import { seeded } from '../random/seeded.ts';
import { cavity, product, workshop } from '../test/workshop.ts';
import { solver } from '../test/solve.ts';
import { eveningTasks, type EveningInput, type StepGlue, type Work, type WorkStep } from './evening.ts';
import { inRounds } from './rounds.ts';
import type { Schedule } from './place.ts';
import type { Task } from './task.ts';
import { schedule } from './schedule.ts';
import { castsOfTonight, planTonight, type TonightAsked, type TonightWishes } from './tonight.ts';
import type { SolveLp } from '../numeric/program.ts';

let solve: SolveLp;
beforeAll(async () => {
  solve = await solver();
});

const step = (station: string, secondsPerHead: number, more: Partial<WorkStep> = {}): WorkStep => ({
  ...{ key: station, station, does: station, secondsPerHead, waitS: 0, bake: null, colour: null, left: 0 },
  ...more,
});
const bake = step('bake', 4, { bake: { program: '20 min', seconds: 1200 } });
const work = (id: string, heads: number, steps: readonly WorkStep[], more: Partial<Work> = {}): Work => ({
  ...{ id, name: id.toUpperCase(), toCast: 0, blankId: null },
  steps: steps.map((each, at) => (at === 0 && !more.toCast ? { ...each, left: heads } : each)),
  ...{ head: { style: 'ball' as const, massKg: 0.01, hookSize: '2/0' as const }, toCast: 0 },
  ...more,
});
const tasksOf = (works: readonly Work[], more: Partial<EveningInput> = {}) =>
  eveningTasks({ works, pours: [], oven: { places: 60 }, ...more });
const at = (tasks: readonly Task[], station: string) => tasks.filter((each) => each.station === station);

describe('dip sessions', () => {
  const painted = (id: string, heads: number, colour: string) => work(id, heads, [step('paint', 30, { colour }), bake]);

  test('heads of one load and one colour are one session: one cup is filled for all of them', () => {
    const tasks = tasksOf([painted('a', 20, 'white'), painted('b', 10, 'white'), painted('c', 10, 'red')]);
    const [white, red] = at(tasks, 'paint');
    expect(at(tasks, 'paint')).toHaveLength(2);
    // By hand: 30 heads of 30 s; what changing the cup takes is known when it is known what was in it.
    expect(white).toMatchObject({ name: 'paint white: A; B', works: ['a', 'b'], heads: 30, seconds: 30 * 30 });
    expect(red).toMatchObject({ name: 'paint red: C', seconds: 10 * 30 });
    const [hang] = at(tasks, 'bake');
    expect(new Set(hang!.after.map(({ task }) => task))).toEqual(new Set([white!.id, red!.id]));
  });

  test('heads that do not go into one load are not waited for', () => {
    const tasks = tasksOf([painted('a', 50, 'white'), painted('b', 50, 'white')]);
    expect(at(tasks, 'paint').map(({ heads }) => heads)).toEqual([50, 50]);
  });

  test('two that want the same colours the other way round do not wait for each other', () => {
    const both = (id: string, first: string, second: string) =>
      work(id, 10, [
        step('paint', 30, { key: 'one', colour: first }),
        step('paint', 30, { key: 'two', colour: second }),
        bake,
      ]);
    const tasks = tasksOf([both('a', 'white', 'red'), both('b', 'red', 'white'), both('c', 'white', 'red')]);
    expect(at(tasks, 'paint').map(({ works }) => works)).toEqual([['a', 'c'], ['a', 'c'], ['b'], ['b']]);
    expect(schedule(tasks, { people: [{ name: 'One', can: null }] }, { tries: 20 }).placed).toHaveLength(tasks.length);
  });
});

describe('glue mixes', () => {
  const EPOXY: StepGlue = { partId: 'epoxy', name: 'Epoxy', mlPerHead: 0.06, potLifeS: 240 };
  const glued = (id: string, heads: number, glue = EPOXY) =>
    work(id, heads, [bake, step('finish', 28, { glue, waitS: 3600 }), step('finish', 5, { key: 'bag', does: 'bag' })]);

  test('what comes off one load and wants one glue shares its mixes, as many as its pot life makes of it', () => {
    const tasks = tasksOf([glued('a', 8), glued('b', 5)]);
    const [mix, ...bags] = at(tasks, 'finish');
    // By hand: (240 - 45) / 28 are 6 heads a mix; 13 heads are 3 mixes, of 45 s of mixing each.
    expect(mix).toMatchObject({ name: 'finish, Epoxy: A; B, 3 mixes', heads: 13, seconds: 13 * 28 + 3 * 45 });
    expect(bags.map(({ after }) => after)).toEqual([[{ task: mix!.id, lagS: 3600 }], [{ task: mix!.id, lagS: 3600 }]]);
  });

  test('another glue is another mix; who is slower than it is stiff does them one by one', () => {
    const tasks = tasksOf([glued('a', 4), glued('b', 4, { ...EPOXY, partId: 'uv', name: 'Resin' })]);
    expect(at(tasks, 'finish').filter(({ name }) => name.startsWith('finish,'))).toHaveLength(2);
    const [slow] = at(tasksOf([glued('a', 4, { ...EPOXY, potLifeS: 50 })]), 'finish');
    expect(slow).toMatchObject({ name: 'finish, Epoxy: A, 4 mixes', seconds: 4 * 28 + 4 * 45 });
  });
});

describe('pins in rounds', () => {
  const mold = { moldId: 'm', name: 'M', shots: 30, blanks: 4, openS: 5, castKg: 3, roundKg: 0.1 };
  const use = (blankId: string, casts: number) => ({ blankId, name: blankId, positions: [1], casts });

  test('30 heads with 12 pins are three rounds; with 5 in heads under way the first is of 7', () => {
    const pinned = new Map([['a', { diameterM: 0.0032, goodShare: 1 }]]);
    const of = (more: Parameters<typeof inRounds>[2]) =>
      inRounds([[{ ...mold, uses: [use('a', 30)] }]], pinned, more).map(({ shares, pins, rounds, molds }) => ({
        casts: Math.round(30 * shares['a']!),
        ...{ pins, rounds, kg: molds[0]!.castKg, shots: molds[0]!.shots },
      }));
    const pins = [{ diameterM: 0.0032, count: 12 }];
    const three = of({ pins });
    expect(three.map(({ casts }) => casts)).toEqual([12, 12, 6]);
    expect(three.map((each) => each.pins)).toEqual([[], [0.0032], [0.0032]]);
    expect(three.map(({ shots }) => shots)).toEqual([12, 12, 6]);
    expect(three.reduce((sum, { kg }) => sum + kg, 0)).toBeCloseTo(3, 9);
    const busy = of({ pins, pinsInWork: [{ diameterM: 0.0032, count: 5 }] });
    expect(busy.map(({ casts }) => casts)).toEqual([7, 12, 11]);
    const none = of({ pins, pinsInWork: [{ diameterM: 0.0032, count: 12 }] });
    expect(none.map(({ casts }) => casts)).toEqual([12, 12, 6]);
    expect(none[0]!.pins).toEqual([0.0032]);
    // Nobody has counted them: there are enough.
    expect(of({})).toHaveLength(1);
    expect(of({ pins: [{ diameterM: 0.0032, count: 0 }] })).toEqual([]);
  });

  test('what needs no pin is poured in the first round, beside it or by itself', () => {
    const rounds = inRounds(
      [[{ ...mold, uses: [use('a', 20), use('b', 40)] }], [{ ...mold, moldId: 'n', uses: [use('c', 10)] }]],
      new Map([['a', { diameterM: 0.0032, goodShare: 1 }]]),
      { pins: [{ diameterM: 0.0032, count: 12 }] },
    );
    expect(rounds.map(({ shares }) => Object.keys(shares))).toEqual([['a', 'b'], ['c'], ['a']]);
    expect(rounds.map((each) => [each.round, each.rounds])).toEqual([
      [0, 2],
      [0, 1],
      [1, 2],
    ]);
  });

  /** At no time more heads with their pins in than pins: from the end of their pour to the end of what frees them. */
  function holdsPins(tasks: readonly Task[], { placed }: Schedule, count: number, outAt: string): void {
    const endOf = (id: string) => placed[tasks.findIndex((each) => each.id === id)]!.endS;
    const pours = tasks.filter(({ station }) => station === 'pour');
    const starts = pours.map((pour) => ({ heads: pour.heads, from: endOf(pour.id) }));
    for (const { from } of starts) {
      const cast = starts.filter((each) => each.from <= from + 1e-6).reduce((sum, { heads }) => sum + heads, 0);
      const out = tasks
        .filter((each) => each.station === outAt && (outAt !== 'bake' || each.id.startsWith('take')))
        .filter((each) => endOf(each.id) <= from + 1e-6)
        .reduce((sum, { heads }) => sum + heads, 0);
      expect(cast - out).toBeLessThanOrEqual(count + 1e-6);
    }
  }

  test.each([
    ['paint', 'the gun'],
    ['bake', 'the oven'],
  ])('60 evenings: there are never more heads in work than pins, where they come back after %s', (outAt) => {
    const random = seeded(8);
    const whole = (low: number, high: number) => low + Math.floor(random() * (high - low + 1));
    for (let evening = 0; evening < 60; evening++) {
      const [heads, count] = [whole(5, 60), whole(3, 30)];
      const rounds = inRounds(
        [[{ ...mold, shots: heads, uses: [use('a', heads)] }]],
        new Map([['a', { diameterM: 0.0032, goodShare: 1 }]]),
        {
          pins: [{ diameterM: 0.0032, count }],
        },
      );
      const steps = [step('trim', 8), step('paint', 30, { colour: 'white' }), bake, step('finish', 10)];
      const works = [work('a', 0, steps, { toCast: heads, blankId: 'a', pin: { diameterM: 0.0032, outAfter: outAt } })];
      const pours = rounds.map(({ shares, pins }, nth) => ({
        ...{ id: String(nth), name: 'Pour', moldIds: ['m'], blankIds: ['a'], seconds: 600, meltS: 300, shares, pins },
      }));
      const tasks = eveningTasks({ works, pours, oven: { places: whole(10, 60) } });
      const found = schedule(tasks, { people: [{ name: 'One', can: null }] }, { tries: 60, seed: evening });
      expect(pours).toHaveLength(Math.ceil(heads / count));
      holdsPins(tasks, found, count, outAt);
    }
  });

  // Found from outside: 16 loads and two evenings.
  test('18 guarded and 40 plain heads, 10 pins, a rack of 32: rounds wait for one load where their pins are out by then', () => {
    const steps = [step('trim', 8), step('paint', 30, { colour: 'white' }), bake, step('finish', 10)];
    const loads = (outAfter: string) => {
      const rounds = inRounds(
        [[{ ...mold, shots: 30, uses: [use('a', 18), use('b', 40)] }]],
        new Map([['a', { diameterM: 0.0032, goodShare: 1 }]]),
        { pins: [{ diameterM: 0.0032, count: 10 }] },
      );
      expect(rounds).toHaveLength(2);
      const works = [
        work('a', 0, steps, { toCast: 18, blankId: 'a', pin: { diameterM: 0.0032, outAfter } }),
        work('b', 0, steps, { toCast: 40, blankId: 'b' }),
      ];
      const pours = rounds.map(({ shares, pins }, nth) => ({
        ...{ id: String(nth), name: 'Pour', moldIds: ['m'], seconds: 600, meltS: 300, shares, pins },
        blankIds: Object.keys(shares),
      }));
      return at(eveningTasks({ works, pours, oven: { places: 32 } }), 'bake').filter(({ id }) => id.startsWith('bake'));
    };
    expect(loads('paint')).toHaveLength(3);
    // A plug that stays in through the bake is back only after it: its second round has a load of its own.
    expect(loads('bake').length).toBeGreaterThan(3);
  });

  test('a guard head with few pins is planned in rounds, and the same without pins in one pour', () => {
    const guard = { ...cavity(1, 10), id: 'g1', pin: { diameterM: 0.0032, lengthM: 0.01 } };
    const { molds, pot, oven, ways, stock } = workshop();
    const asked: TonightAsked = {
      molds: [{ ...molds[0]!, cavities: [guard, { ...guard, id: 'g2', position: 2 }] }],
      ...{ pot, oven, ways: { ...ways, schools: { ...ways.schools, hole: 'pulled one by one' } }, stock },
      ...{ hooksHere: {}, leadHereKg: 20, leadId: 'lead' },
      wanted: [
        {
          ...{ id: 'a', name: 'Guard', customer: '', orderNumber: 1, ticketNumber: null, orderId: 'o', dueMs: null },
          ...{ product: product(10), heads: 24, toCast: 24, left: {} },
        },
      ],
      pins: [{ diameterM: 0.0032, count: 12 }],
    };
    const startMs = Date.UTC(2026, 10, 27, 18);
    const wishes: TonightWishes = {
      ...{ evenings: [{ fromMs: startMs, toMs: startMs + 6 * 3600_000 }], people: [{ name: 'One', can: null }] },
      ...{ guns: 1, atOnce: 1, leftOut: [], pinned: {} },
    };
    const plan = (from: TonightAsked) => planTonight(from, wishes, castsOfTonight(from, wishes, solve), { tries: 40 });
    const few = plan(asked);
    // 24 good heads on 12 pins: twice all of them, whatever it takes to cast them.
    expect(few.pours).toHaveLength(2);
    expect(few.pours[1]!.name).toMatch(/, round 2 of \d/);
    holdsPins(few.tasks, few.schedule, 12, 'paint');
    const enough = plan({ ...asked, pins: [] });
    expect(enough.pours).toHaveLength(1);
    expect(enough.schedule.endS).toBeLessThan(few.schedule.endS);
  });
});
