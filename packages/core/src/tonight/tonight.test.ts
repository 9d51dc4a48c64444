import { cavity, product, workshop } from '../test/workshop.ts';
import { solver } from '../test/solve.ts';
import { powdersPerHead } from '../plan/product.ts';
import { castsTonight, type CastsInput } from '../plan/casts.ts';
import { heatTonight, needsTonight, pinsTonight, wantedFirst } from './needs.ts';
import type { SolveLp } from '../numeric/program.ts';
import { castsOfTonight, planTonight, type TonightAsked, type TonightWishes, type Wanted } from './tonight.ts';

let solve: SolveLp;
beforeAll(async () => {
  solve = await solver();
});

const { molds, pot, oven, ways } = workshop();
const [five] = molds as [(typeof molds)[number]];
const single = { ...five, id: 'single', name: 'Single', cavities: [{ ...cavity(1, 10), id: 's1' }] };
const hour = 3600_000;
const startMs = Date.UTC(2026, 10, 27, 18);
const wanted = (id: string, grams: number, heads: number, more: Partial<Wanted> = {}): Wanted => ({
  ...{ id, name: `Ball ${grams} g`, customer: 'Stall', orderNumber: 1, ticketNumber: null, orderId: 'o' },
  ...{ dueMs: null, product: product(grams), heads, toCast: heads, left: {} },
  ...more,
});
const asked = (more: Partial<TonightAsked> = {}): TonightAsked => ({
  ...{ wanted: [wanted('a', 10, 60), wanted('b', 14, 24)], molds: [five, single], pot, oven, ways },
  ...{ hooksHere: {}, leadHereKg: 20, leadId: 'lead', stock: workshop().stock },
  ...more,
});
const wishes = (more: Partial<TonightWishes> = {}): TonightWishes => ({
  ...{ evenings: [{ fromMs: startMs, toMs: startMs + 5 * hour }], people: [{ name: 'One', can: null }] },
  ...{ guns: 1, atOnce: 1, leftOut: [], pinned: {} },
  ...more,
});
const plan = (from: TonightAsked, wish: TonightWishes, tries = 50) =>
  planTonight(from, wish, castsOfTonight(from, wish, solve), { tries });
const casts = (more: Partial<CastsInput> = {}) =>
  castsTonight(
    {
      wanted: [
        { workId: 'a', product: product(10), heads: 60 },
        { workId: 'b', product: product(14), heads: 24 },
      ],
      ...{ molds: [five], pot, ways, atOnce: 1 },
      ...more,
    },
    solve,
  );

test('two blanks that share a mold are cast side by side: the one that wants most shots decides', () => {
  const plan = casts();
  const [a, b] = plan.blanks;
  // 94 %, as sure as after 17.6 casts: 60 * 16.6 / (0.94 * 17.6 - 1) = 64.1 and 25.6 casts; shots are whole.
  expect(a!.casts.expected).toBeCloseTo(64.1, 0);
  expect(b!.casts.expected).toBeCloseTo(25.6, 0);
  expect(plan.molds).toHaveLength(1);
  expect(plan.molds[0]!.shots).toBe(Math.ceil(64 / 3));
  expect(plan.molds[0]!.uses.map(({ positions }) => positions)).toEqual([
    [1, 2, 3],
    [4, 5],
  ]);
  expect(plan.optimal).toBe(true);
  expect(plan.says.join(' ')).toMatch(/Ball 10 g, 60 good: about 64 casts, up to 7\d\./);
});

test('a cavity that is bad every third time is reckoned so, and named', () => {
  const bad = {
    ...five,
    cavities: five.cavities.map((each) =>
      each.position === 2 ? { ...each, good: 100, casts: 180 } : { ...each, good: 170, casts: 180 },
    ),
  };
  const [clean, poor] = [
    casts({ molds: [{ ...five, cavities: five.cavities.map((each) => ({ ...each, good: 170, casts: 180 })) }] }),
    casts({ molds: [bad] }),
  ];
  expect(poor.molds[0]!.shots).toBeGreaterThan(clean.molds[0]!.shots);
  // (100 + 37.6) / (180 + 40) good, with the prior of common practice.
  expect(poor.says.join(' ')).toMatch(/Five, cavity 2: bad 37 times in a hundred/);
});

test('short of hooks: as many as there are, and said so', () => {
  const plan = casts({ hooksHere: { 'hook-2/0': 20 } });
  const [a] = plan.blanks;
  expect(a!.missing).toBeGreaterThan(0);
  expect(plan.blanks[0]).toMatchObject({ lacks: 'only 20 Hook' });
  // What is used up is named, not what there is fewest of: kilograms are fewer than hooks.
  const both = casts({ hooksHere: { 'hook-2/0': 20 }, leadHereKg: 12 });
  expect(both.blanks.map(({ lacks }) => lacks)).toContain('only 20 Hook');
  const lead = casts({ leadHereKg: 0.3 });
  expect(lead.blanks[0]!.lacks).toMatch(/^no lead beyond the heel$/);
  expect(lead.blanks.reduce((sum, { missing }) => sum + missing, 0)).toBeGreaterThan(0);
});

test('what no mold casts is a problem with a word, and does not stop the rest', () => {
  const plan = casts({
    wanted: [
      { workId: 'a', product: product(10), heads: 10 },
      { workId: 'x', product: product(28), heads: 10 },
    ],
  });
  expect(plan.problems).toEqual([
    { workId: 'x', text: expect.stringMatching(/No mold has a ball cavity of 28\u00a0g/) },
  ]);
  expect(plan.blanks.map(({ works }) => works)).toEqual([['a']]);
});

test('an evening from cold to bagged: everything wanted is done, in its order, and the bound is kept', () => {
  const found = plan(asked(), wishes(), 300);
  expect(found.ends.map(({ id }) => id).sort()).toEqual(['a', 'b']);
  const { endS, boundS } = found.schedule;
  expect(endS).toBeGreaterThanOrEqual(boundS - 1e-6);
  expect(endS / boundS).toBeLessThan(1.05);
  const first = (station: string) =>
    Math.min(...found.tasks.flatMap((task, at) => (task.station === station ? found.schedule.placed[at]!.startS : [])));
  expect(first('pour')).toBeGreaterThan(60);
  for (const [before, then] of [
    ['pour', 'trim'],
    ['trim', 'paint'],
    ['paint', 'bake'],
    ['bake', 'finish'],
  ] as const) {
    expect(first(before)).toBeLessThan(first(then));
  }
  const heads = found.tasks.filter(({ station }) => station === 'finish').reduce((sum, task) => sum + task.heads, 0);
  expect(heads).toBe(84);
});

test('what it takes: hooks for good heads, the lost and a load, powder for every head that is still to be painted, metal for what stays', () => {
  const ticket = wanted('t', 10, 0, { ticketNumber: 107, left: { paint: 30, finish: 12 } });
  const from = asked({ wanted: [wanted('a', 10, 60), ticket] });
  const casts = castsOfTonight(from, wishes(), solve);
  const needs = new Map(needsTonight(from, wishes(), casts).map((each) => [each.materialId, each]));
  // Sixty good ones, one in twenty of the rejects without its hook, and one load of three cavities.
  expect(needs.get('hook-2/0')!.need).toBe(60 + Math.ceil(0.05 * (casts.blanks[0]!.casts.provision - 60) + 3));
  const { kgPerHead } = powdersPerHead(product(10), ways)[0]!;
  expect(needs.get('white')!.need).toBeCloseTo(90 * kgPerHead, 9);
  // Heads of 10 g by their stamp, 2 % of dross and the heel of the house: within what dross and sprues may be.
  const heads = 0.01 * 60;
  expect(needs.get('lead')!.need).toBeGreaterThan(heads + ways.heelKg);
  expect(needs.get('lead')!.need).toBeLessThan(1.3 * heads + ways.heelKg);
  const nothing = needsTonight(
    from,
    wishes({ leftOut: ['a', 't'] }),
    castsOfTonight(from, wishes({ leftOut: ['a', 't'] }), solve),
  );
  expect(nothing).toEqual([]);
});

test('what it draws, and when each material is wanted first', () => {
  const from = asked({ wanted: [wanted('a', 10, 60)] });
  const made = plan(from, wishes());
  const { potKWh, ovenKWh, gunKWh, gasKg, costMinor, meltKg } = heatTonight(from, made);
  const [pour] = made.pours;
  // By hand: watts times hours; melting at full power, then what the hot pot loses to the room; the oven at 60 %.
  const meltWh = (pot.powerW * pour!.meltS) / 3600;
  const heldWh = (pot.lossWPerK * (ways.pourC - ways.roomC) * pour!.seconds) / 3600;
  expect(1000 * potKWh).toBeCloseTo(meltWh + heldWh, 6);
  const bakedS = made.tasks.filter(({ id }) => id.startsWith('bake')).reduce((sum, { seconds }) => sum + seconds, 0);
  expect(bakedS).toBeGreaterThan(0);
  expect(1000 * ovenKWh).toBeCloseTo((0.6 * oven.powerW * bakedS) / 3600, 6);
  // A gun of 1,500 W on its stand blows for as long as heads are dipped; making ready takes half a minute before.
  const paintedS = made.tasks
    .filter(({ station }) => station === 'paint')
    .reduce((sum, { seconds }) => sum + seconds, 0);
  expect(paintedS).toBeGreaterThan(0);
  expect(1000 * gunKWh).toBeCloseTo((1500 * (paintedS - 30)) / 3600, 6);
  expect(gasKg).toBe(0);
  expect(costMinor).toBeCloseTo((potKWh + ovenKWh + gunKWh) * ways.energyMinorPerKWh, 9);
  // A torch of 1.5 kW burns 1500 / 46.4e6 kg/s while it is held on the head, and draws nothing.
  const byTorch = { ...from, ways: { ...ways, schools: { tool: 'torch' as const }, gasMinorPerKg: 2000 } };
  const torch = heatTonight(byTorch, made);
  expect(torch.gunKWh).toBe(0);
  expect(torch.gasKg).toBeGreaterThan(60 * 1 * (1500 / 46.4e6));
  expect(torch.gasKg).toBeLessThan(60 * 12 * (1500 / 46.4e6));
  expect(torch.costMinor).toBeCloseTo((potKWh + ovenKWh) * ways.energyMinorPerKWh + 2000 * torch.gasKg, 9);
  // 0.72 kg of heads with their sprues and the heel: within what sprues may be.
  expect(meltKg).toBeGreaterThan(0.7 + ways.heelKg);
  expect(meltKg).toBeLessThan(1.4 + ways.heelKg);
  const first = wantedFirst(from, made);
  const begins = (station: string) => made.schedule.placed[made.tasks.findIndex((each) => each.station === station)]!;
  // Lead is wanted when the pot is switched on, powder when it is dipped.
  expect(first.get('lead')).toBe(0);
  expect(first.get('hook-2/0')).toBe(0);
  expect(first.get('white')).toBe(begins('paint').startS);
  expect(heatTonight(from, plan(from, wishes({ leftOut: ['a'] })))).toEqual({
    ...{ potKWh: 0, ovenKWh: 0, gunKWh: 0, gasKg: 0, costMinor: 0, meltKg: 0 },
  });
});

test('a helper, a second mold: it is done sooner; half done work is gone on with', () => {
  const alone = plan(asked(), wishes(), 300);
  const two = wishes({
    people: [
      { name: 'One', can: null },
      { name: 'Two', can: null },
    ],
    guns: 2,
    atOnce: 2,
  });
  expect(plan(asked(), two, 300).schedule.endS).toBeLessThan(alone.schedule.endS);
  const ticket = wanted('t', 10, 0, { ticketNumber: 107, left: { paint: 30 } });
  const rest = plan(asked({ wanted: [ticket] }), wishes());
  expect(rest.pours).toEqual([]);
  expect(rest.tasks.map(({ station }) => station)).toEqual(['paint', 'bake', 'bake', 'bake', 'finish']);
});

test('what does not fit goes over to the next evening, and what is late is told by how much', () => {
  const short = wishes({ evenings: [{ fromMs: startMs, toMs: startMs + 1.5 * hour }] });
  const found = plan(asked({ wanted: [wanted('a', 10, 60, { dueMs: startMs + 3 * hour })] }), short);
  const [end] = found.ends;
  expect(end!.endMs).toBeGreaterThan(startMs + 20 * hour);
  expect(end!.lateS).toBeCloseTo((end!.endMs - startMs) / 1000 - 3 * 3600, 6);
});

test('nobody there, an evening that ends before it begins: refused with a word', () => {
  expect(() => plan(asked(), wishes({ people: [] }))).toThrow(/people is nobody/);
  expect(() => plan(asked(), wishes({ evenings: [] }))).toThrow(/evenings is none/);
  const backwards = wishes({ evenings: [{ fromMs: startMs, toMs: startMs - 1 }] });
  expect(() => plan(asked(), backwards)).toThrow(/ends before it begins/);
});

test('late in an evening: what does not fit goes into a whole one, and into however many it takes', () => {
  const late = { fromMs: startMs + 4.75 * hour, toMs: startMs + 5 * hour };
  const usual = { fromMs: startMs, toMs: startMs + 5 * hour };
  const next = plan(asked(), wishes({ evenings: [late], usual }));
  expect(next.windows[1]).toEqual({ fromS: 86_400 - 4.75 * 3600, toS: 86_400 + 0.25 * 3600 });
  expect(next.schedule.endS).toBeLessThan(2 * 86_400);
  // Without a usual evening the quarter of an hour comes again, fifteen times, and then work goes on to its end.
  const many = plan(asked({ wanted: [wanted('a', 10, 600)] }), wishes({ evenings: [late] }));
  expect(many.ends.map(({ id }) => id)).toEqual(['a']);
  expect(many.schedule.endS).toBeLessThan(40 * 86_400);
});

test('pins that an evening wants, against those that are free: as often as they have to come back', () => {
  const pin = { diameterM: 0.0032, lengthM: 0.01 };
  const molds = [{ ...five, cavities: [1, 2].map((at) => ({ ...cavity(at, 14), pin })) }];
  const guarded = { ...wanted('g', 14, 20), product: { ...product(14), ways: { hole: 'pulled together' as const } } };
  const here = (count: number, inHeads = 0) => {
    const from = asked({
      ...{ molds, wanted: [guarded], pins: [{ diameterM: 0.0032, count }] },
      pinsInWork: inHeads ? [{ diameterM: 0.0032, count: inHeads }] : [],
    });
    return { of: pinsTonight(from, plan(from, wishes())), from };
  };
  const many = here(100).of;
  const casts = castsOfTonight(here(100).from, wishes(), solve).blanks[0]!.heads;
  expect(many).toEqual([{ diameterM: 0.0032, need: casts, free: 100, rounds: 1 }]);
  // Twelve pins, of which four are in heads: eight casts, then twelve at a time.
  const [few] = here(12, 4).of;
  expect(few).toEqual({ diameterM: 0.0032, need: casts, free: 8, rounds: 1 + Math.ceil((casts - 8) / 12) });
  // Heads whose hole is drilled leave theirs at the pot.
  const drilled = asked({ ...{ molds, wanted: [{ ...guarded, product: product(10) }] }, pins: [{ ...pin, count: 3 }] });
  expect(pinsTonight(drilled, plan(drilled, wishes()))).toEqual([]);
});
