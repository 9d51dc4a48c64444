import { seeded } from '../random/seeded.ts';
import { eveningTasks, type EveningInput, type Work, type WorkStep } from './evening.ts';
import { cupsChangeS } from '../paint/colour-order.ts';
import { cupsOf } from '../paint/cups.ts';
import { lowerBoundS } from './bound.ts';
import { provedS } from './proof.ts';
import { place, type Placed, type MeansOfEvening } from './place.ts';
import type { Task } from './task.ts';
import { schedule } from './schedule.ts';

const task = (id: string, seconds: number, more: Partial<Task> = {}): Task => ({
  ...{ id, name: id, station: 'trim', seconds, hands: true, holds: [], after: [], works: [id], heads: 1 },
  ...more,
});
const alone: MeansOfEvening = { people: [{ name: 'One', can: null }] };

/** No person and no tool at two things at once, nothing before what it waits for, nothing when nobody is there. */
function holds(tasks: readonly Task[], placed: readonly Placed[], shop: MeansOfEvening): void {
  const overlaps = (some: readonly Placed[]) => {
    const sorted = [...some].filter(({ startS, endS }) => endS > startS).sort((a, b) => a.startS - b.startS);
    return sorted.some((each, at) => at > 0 && each.startS < sorted[at - 1]!.endS - 1e-6);
  };
  const byId = new Map(placed.map((each) => [each.taskId, each]));
  expect(placed.map(({ taskId }) => taskId)).toEqual(tasks.map(({ id }) => id));
  for (const who of shop.people.keys()) expect(overlaps(placed.filter(({ person }) => person === who))).toBe(false);
  for (const tool of new Set(tasks.flatMap((each) => each.holds))) {
    for (let unit = 0; unit < (shop.tools?.[tool] ?? 1); unit++) {
      const held = placed.flatMap((each, at) =>
        each.tools[tool] === unit ? [{ ...each, startS: each.startS - (tasks[at]!.leadS ?? 0) }] : [],
      );
      expect(overlaps(held)).toBe(false);
    }
  }
  // Cups are changed from what was dipped at the same gun before, the first ones filled.
  for (let unit = 0; unit < (shop.tools?.['gun'] ?? 1); unit++) {
    const dips = tasks
      .map((each, at) => ({ cups: each.cups ?? [], ...placed[at]! }))
      .filter(({ cups, tools }) => cups.length > 0 && tools['gun'] === unit)
      .sort((a, b) => a.startS - b.startS);
    dips.forEach(({ cups, changeS }, nth) =>
      expect(changeS).toBeCloseTo(cupsChangeS(nth > 0 ? dips[nth - 1]!.cups : [], cups), 9),
    );
  }
  tasks.forEach((each, at) => {
    const { startS, endS, person, tools } = placed[at]!;
    expect(endS - startS).toBeCloseTo(each.seconds + placed[at]!.changeS, 6);
    expect(person === null).toBe(!each.hands);
    expect(Object.keys(tools).sort()).toEqual([...new Set(each.holds)].sort());
    const can = person === null ? null : shop.people[person]!.can;
    expect(can === null || can.includes(each.station)).toBe(true);
    for (const { task: id, lagS } of each.after) {
      expect(startS).toBeGreaterThanOrEqual(byId.get(id)!.endS + lagS - 1e-6);
    }
    if (shop.windows && person !== null) {
      const inside = shop.windows.some(({ fromS, toS }) => startS >= fromS - 1e-6 && endS <= toS + 1e-6);
      const longest = Math.max(...shop.windows.map(({ fromS, toS }) => toS - fromS));
      expect(inside || each.seconds > longest).toBe(true);
    }
  });
}

const COLOURS = { white: '#f4f1e8', red: '#b83a2e', olive: '#6b6b35', black: '#26282b' };
const cupOf = (name: keyof typeof COLOURS) => cupsOf([{ powder: { materialId: name, name, colour: COLOURS[name] } }]);
const dip = (colour: keyof typeof COLOURS) => ({ colour, cups: cupOf(colour) });
/** An evening somebody might have: one to six works, some half done, one or two pours, one oven. */
function randomEvening(random: () => number): { input: EveningInput; shop: MeansOfEvening } {
  const whole = (low: number, high: number) => low + Math.floor(random() * (high - low + 1));
  const steps = (from: number): WorkStep[] => {
    const step = (station: string, secondsPerHead: number, more: Partial<WorkStep> = {}): WorkStep => ({
      ...{ key: station, station, does: station, secondsPerHead, waitS: 0, bake: null, colour: null, left: 0 },
      ...more,
    });
    const minutes = [15, 20, 30][whole(0, 2)]!;
    const all = [
      step('trim', whole(6, 20)),
      step('paint', whole(25, 70), dip((['white', 'red', 'olive', 'black'] as const)[whole(0, 3)]!)),
      step('bake', whole(4, 10), { bake: { program: `${minutes} min`, seconds: 60 * minutes } }),
      step('finish', whole(5, 40), { waitS: 0 }),
    ];
    return all.slice(from);
  };
  const works = Array.from({ length: whole(1, 6) }, (_, at): Work => {
    const begun = random() < 0.35;
    const own = steps(begun ? whole(0, 3) : 0);
    const heads = 6 * whole(2, 14);
    if (begun) own[0]!.left = heads;
    return {
      ...{ id: `w${at}`, name: `Work ${at}`, toCast: begun ? 0 : heads, blankId: begun ? null : `b${whole(0, 1)}` },
      steps: own,
      head: { style: 'ball', massKg: 0.01, hookSize: '2/0' },
    };
  });
  const blanks = ['b0', 'b1'].filter((id) => works.some(({ blankId }) => blankId === id));
  const pours = blanks.map((id) => ({
    ...{ id, name: `Pour ${id}`, moldIds: [id], blankIds: [id], meltS: 60 * whole(3, 25) },
    seconds: 240 + works.reduce((sum, work) => sum + (work.blankId === id ? 36 * work.toCast : 0), 0),
  }));
  const people = Array.from({ length: whole(1, 3) }, (_, at) => ({ name: `P${at}`, can: null }));
  return {
    input: { works, pours, oven: { places: whole(3, 10) * 12 } },
    shop: { people, tools: { gun: whole(1, 2) } },
  };
}

test('100 evenings: nothing is taken twice, and each ends within a twentieth of the bound', () => {
  const random = seeded(29);
  const gaps: number[] = [];
  let [rule, oneByOne] = [0, 0];
  for (let round = 0; round < 100; round++) {
    const { input, shop } = randomEvening(random);
    // As the plan is made: what was poured apart is baked together or apart, whatever is done sooner.
    const [tasks, found] = [eveningTasks(input), eveningTasks({ ...input, apart: true })]
      .map((all) => [all, schedule(all, shop, { seed: round, tries: 1500 })] as const)
      .sort(([, a], [, b]) => a.endS - b.endS)[0]!;
    holds(tasks, found.placed, shop);
    const boundS = found.endS > 1.02 * found.boundS ? provedS(tasks, shop, found) : found.boundS;
    gaps.push(found.endS / boundS - 1);
    const plain = place(
      tasks,
      shop,
      tasks.map(({ id }) => id),
    );
    rule += Math.max(...plain.map(({ endS }) => endS)) - found.endS;
    oneByOne +=
      tasks.reduce((sum, each) => sum + (each.hands || each.station === 'bake' ? each.seconds : 0), 0) - found.endS;
  }
  gaps.sort((a, b) => a - b);
  console.info(
    `gap to the bound: median ${(100 * gaps[50]!).toFixed(2)} %, ${gaps.filter((gap) => gap <= 0.05).length} of 100 within 5 %, largest ${(100 * gaps[99]!).toFixed(1)} %; ` +
      `minutes saved an evening: ${(rule / 6000).toFixed(0)} against the order of orders, ` +
      `${(oneByOne / 6000).toFixed(0)} against one thing after another`,
  );
  expect(gaps[0]).toBeGreaterThanOrEqual(-1e-9);
  expect(gaps[50]).toBeLessThanOrEqual(0.02);
  expect(gaps[99]).toBeLessThanOrEqual(0.05);
}, 120_000);

test('a chain is as long as its parts, and what works by itself is passed by other work', () => {
  const tasks = [
    task('paint', 600),
    task('bake', 1200, { hands: false, holds: ['oven'], after: [{ task: 'paint', lagS: 0 }] }),
    task('bag', 300, { after: [{ task: 'bake', lagS: 60 }] }),
    task('trim other', 900),
  ];
  const { endS, boundS, placed } = schedule(tasks, alone);
  // By hand: paint 10 min, then 20 min of oven and a minute to cool pass while the other is trimmed; 5 min of bagging.
  expect(endS).toBe(600 + 1200 + 60 + 300);
  expect(boundS).toBe(endS);
  holds(tasks, placed, alone);
});

test('two share the work, but only one gun; who cannot paint does not', () => {
  const tasks = [
    task('a', 600, { station: 'paint', holds: ['gun'] }),
    task('b', 600, { station: 'paint', holds: ['gun'] }),
    task('c', 1200),
  ];
  const two: MeansOfEvening = {
    people: [
      { name: 'One', can: ['paint'] },
      { name: 'Two', can: ['trim'] },
    ],
  };
  const found = schedule(tasks, two);
  expect(found.endS).toBe(1200);
  holds(tasks, found.placed, two);
  expect(() => schedule([task('d', 60, { station: 'pour' })], two)).toThrow(/who does d is nobody; allowed: somebody/);
  const guns = schedule(tasks, {
    ...alone,
    people: [...alone.people, ...alone.people, ...alone.people],
    tools: { gun: 2 },
  });
  expect(guns.endS).toBe(1200);
});

test('nobody works between two evenings, and what dries does', () => {
  const windows = [
    { fromS: 0, toS: 3600 },
    { fromS: 86_400, toS: 90_000 },
  ];
  const shop = { ...alone, windows };
  const tasks = [
    task('dip', 3000),
    task('second', 1800, { after: [{ task: 'dip', lagS: 1800 }] }),
    task('oven', 1200, { hands: false, holds: ['oven'], after: [{ task: 'second', lagS: 0 }] }),
  ];
  const { placed } = schedule(tasks, shop);
  holds(tasks, placed, shop);
  expect(placed.map(({ startS }) => startS)).toEqual([0, 86_400, 88_200]);
});

test('more work than all evenings take goes on in the last of them', () => {
  const windows = [
    { fromS: 0, toS: 1800 },
    { fromS: 86_400, toS: 88_200 },
  ];
  const tasks = ['a', 'b', 'c', 'd'].map((id) => task(id, 1500, { holds: ['gun'] }));
  const { placed, endS, boundS } = schedule(tasks, { ...alone, windows });
  expect(placed.map(({ startS }) => startS).sort((a, b) => a - b)).toEqual([0, 86_400, 87_900, 89_400]);
  expect(boundS).toBeLessThanOrEqual(endS);
});

test('what is pinned begins then and no earlier; what waits for itself is refused', () => {
  const tasks = [task('a', 600), task('b', 600)];
  const { placed } = schedule(tasks, alone, { pinned: { a: 900 } });
  expect(placed.map(({ startS }) => startS)).toEqual([900, 0]);
  const round = [
    task('a', 60, { after: [{ task: 'b', lagS: 0 }] }),
    task('b', 60, { after: [{ task: 'a', lagS: 0 }] }),
  ];
  expect(() => place(round, alone, [])).toThrow(/order of work is a/);
});

test('what is due is done first, though the evening ends no earlier for it', () => {
  const tasks = [task('a', 1200), task('b', 600)];
  const { placed } = schedule(tasks, alone, { due: { b: 700 } });
  expect(placed[1]!.endS).toBe(600);
});

test('one machine: the bound of a case worked by hand is what is reached', () => {
  // Heads 0, 10, 20; work 30 each; tails 100, 0, 50: in the order 1, 3, 2 all is over at 130, the first's own way.
  const way = (id: string, headS: number, tailS: number): Task[] => [
    task(`h${id}`, headS, { hands: false }),
    task(id, 30, { after: [{ task: `h${id}`, lagS: 0 }] }),
    task(`t${id}`, tailS, { hands: false, after: [{ task: id, lagS: 0 }] }),
  ];
  const tasks = [...way('1', 0, 100), ...way('2', 10, 0), ...way('3', 20, 50)];
  expect(lowerBoundS(tasks, alone)).toBe(130);
  expect(schedule(tasks, alone).endS).toBe(130);
});

test.each([false, true])('one machine, cups %s: no bound is above the best order, and few are below it', (inCups) => {
  const random = seeded(4);
  const whole = (low: number, high: number) => low + Math.floor(random() * (high - low + 1));
  const colours = ['white', 'red', 'olive', 'black'] as const;
  let reached = 0;
  for (let round = 0; round < 200; round++) {
    // Minutes where cups are changed: there a change is some of them.
    const unitS = inCups ? 60 : 1;
    const some = (high: number) => unitS * whole(0, high);
    const jobs = Array.from({ length: whole(2, inCups ? 5 : 6) }, () => {
      return {
        times: [some(60), unitS * whole(1, 30), some(60)] as const,
        cups: inCups ? cupOf(colours[whole(0, 3)]!) : [],
      };
    });
    const tasks = jobs.flatMap(({ times: [headS, seconds, tailS], cups }, at): Task[] => [
      task(`h${at}`, headS, { hands: false }),
      task(`${at}`, seconds, { hands: false, holds: ['gun'], cups, after: [{ task: `h${at}`, lagS: 0 }] }),
      task(`t${at}`, tailS, { hands: false, after: [{ task: `${at}`, lagS: 0 }] }),
    ]);
    const orders = (left: readonly number[]): number[][] =>
      left.length === 0 ? [[]] : left.flatMap((at) => orders(left.filter((o) => o !== at)).map((o) => [at, ...o]));
    const ends = orders(jobs.map((_, at) => at)).map((order) => {
      let [now, end] = [0, 0];
      let before: ReturnType<typeof cupOf> = [];
      for (const at of order) {
        const { times, cups } = jobs[at]!;
        now = Math.max(now, times[0]) + (inCups ? cupsChangeS(before, cups) : 0) + times[1];
        end = Math.max(end, now + times[2]);
        before = cups;
      }
      return end;
    });
    const best = Math.min(...ends);
    const boundS = lowerBoundS(tasks, alone);
    expect(boundS).toBeLessThanOrEqual(best + 1e-6);
    if (boundS > best - 1e-6) reached += 1;
  }
  expect(reached).toBeGreaterThanOrEqual(198);
});

describe('cups', () => {
  const dips = (...colours: (keyof typeof COLOURS)[]) =>
    colours.map((colour, at) =>
      task(`${colour} ${at}`, 600, { station: 'paint', holds: ['gun'], cups: cupOf(colour), works: [`${at}`] }),
    );
  const order = (tasks: readonly Task[], placed: readonly Placed[]) =>
    placed
      .map(({ startS }, at) => ({ startS, name: tasks[at]!.name }))
      .sort((a, b) => a.startS - b.startS)
      .map(({ name }) => name.split(' ')[0]);

  test('light is dipped before dark, the same colour one after another, and the bound is reached', () => {
    const tasks = dips('black', 'white', 'red', 'white');
    const { placed, endS, boundS } = schedule(tasks, alone);
    holds(tasks, placed, alone);
    expect(order(tasks, placed)).toEqual(['white', 'white', 'red', 'black']);
    // By hand: half a minute to fill a cup, and a minute for each change to something darker.
    expect(endS).toBe(4 * 600 + 30 + 60 + 60);
    expect(boundS).toBe(endS);
  });

  test('dark before light where it is due, and the cup is cleaned for longer', () => {
    const tasks = dips('black', 'white');
    const { placed } = schedule(tasks, alone, { due: { 0: 700 } });
    holds(tasks, placed, alone);
    expect(order(tasks, placed)).toEqual(['black', 'white']);
    expect(placed[1]!.changeS).toBeGreaterThan(180);
  });

  test('at two guns each keeps its own', () => {
    const tasks = dips('black', 'white', 'black', 'white');
    const two: MeansOfEvening = { people: [...alone.people, ...alone.people], tools: { gun: 2 } };
    const { placed, endS } = schedule(tasks, two);
    holds(tasks, placed, two);
    expect(endS).toBe(1200 + 30);
  });
});

test('a pot melts in the evening that it is poured in, and not in the one before', () => {
  const windows = [
    { fromS: 0, toS: 3600 },
    { fromS: 86_400, toS: 90_000 },
  ];
  const tasks = [
    task('trim', 1800),
    task('pour', 2400, { holds: ['pot'], leadS: 900, after: [{ task: 'trim', lagS: 0 }] }),
  ];
  const { placed, boundS } = schedule(tasks, { ...alone, windows });
  expect(placed[1]!.startS).toBe(86_400 + 900);
  // 1800 s of trimming and 2400 s of pouring are 600 s more than the first evening has.
  expect(boundS).toBe(86_400 + 600);
  // Nothing in between is longer than it must be when there is time enough.
  expect(schedule(tasks, alone).endS).toBe(1800 + 900 + 2400);
});
