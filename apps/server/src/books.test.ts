import { planOrder, type Sale } from '@schmelz/core';
import { eveningAt } from './test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

// What the records add up to, against what was said at the benches.
let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
let { call, post, get, entry, ticketOf, pour, bareProduct } = {} as ReturnType<typeof eveningAt>;
let bare: { id: string };
let ticketId: string;
beforeAll(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
  ({ call, post, get, entry, ticketOf, pour, bareProduct } = eveningAt(server, things));
  bare = await bareProduct({ priceMinor: 150 });
  // 12 casts of 10 g: two short, one with its eye full; 9 good ones, all of them handed over.
  const ordered = await ticketOf(bare.id, 9);
  const { orderId } = ordered;
  ({ ticketId } = ordered);
  await pour(ticketId, things.moldId, 12, ['short', 'short', 'eye full']);
  await post(`/tickets/${ticketId}/entries`, entry({ kind: 'good', step: 'trim', count: 9 }));
  await post(`/tickets/${ticketId}/entries`, entry({ kind: 'close' }));
  const on = new Date().toISOString().slice(0, 10);
  const line = (pieces: number, priceMinor: number | null) => [
    { productId: bare.id, grade: 'good', pieces, priceMinor },
  ];
  const move = (what: string, order: string | null, lines: object) =>
    post('/goods/moves', { id: crypto.randomUUID(), what, orderId: order, party: 'Stall', on, note: '', lines });
  expect((await move('sold', orderId, line(6, 900))).status).toBe(204);
  expect((await move('given', null, line(2, null))).status).toBe(204);
});
afterAll(() => server.stop());

test('metal of a pour is what was charged, and every gram of it is somewhere', async () => {
  const [one, ...others] = await get('/books/metal');
  expect(others).toEqual([]);
  expect(one).toMatchObject({ chargedKg: 1, heelKg: 0.8, drossKg: 0, sprueBackKg: 0, rejectsBackKg: 0 });
  const { headsKg, unexplainedKg } = one;
  expect(headsKg + 0.8 + unexplainedKg).toBeCloseTo(1, 9);
  // Nine heads of 10 g, by the stamp.
  expect(headsKg).toBeCloseTo(0.09, 2);
  expect((await get(`/books/metal?from=0&to=${one.closedAt}`)).length).toBe(0);
  expect((await get(`/books/metal?from=${one.closedAt}&to=${one.closedAt + 1}`)).length).toBe(1);
});
test('a pour that is opened again is not in it', async () => {
  const second = await ticketOf((await bareProduct({})).id, 3);
  const { id } = await pour(second.ticketId, things.moldId, 3);
  const both: { chargedKg: number; closedAt: number }[] = await get('/books/metal');
  expect(both.length).toBe(2);
  // Since the beginning it is all of them, added up.
  const ever = await get('/books/metal/ever');
  expect([ever.pours, ever.since]).toEqual([2, Math.min(...both.map(({ closedAt }) => closedAt))]);
  expect(ever.metal.chargedKg).toBeCloseTo(both[0]!.chargedKg + both[1]!.chargedKg, 12);
  const { log } = await get(`/pours/${id}`);
  const close = log.find(({ kind }: { kind: string }) => kind === 'close');
  expect((await post(`/pours/${id}/entries`, entry({ kind: 'undo', target: close.id }))).status).toBe(204);
  expect((await get('/books/metal')).length).toBe(1);
  expect((await get('/books/metal/ever')).pours).toBe(1);
});

test('a month holds what came in and went out, and heads at what a head is sold for where none was asked', async () => {
  await post('/tools', {
    ...{ name: 'Pot', priceMinor: 9900, boughtOn: '2026-01-04', lifeHeads: null, productIds: [], note: '' },
  });
  const months: Record<string, number>[] & { month: string }[] = await get('/books/months');
  const [first] = months;
  // The small workshop bought lead, hooks and powder on 5 January: 50.00 + 16.00 + 18.00 + 14.00.
  expect(first).toMatchObject({ month: '2026-01', toolsMinor: 9900, boughtMinor: 9800, madeHeads: 0 });
  const sum = (of: string) => months.reduce((all, month) => all + Number(month[of]), 0);
  expect([sum('soldHeads'), sum('soldMinor'), sum('ownHeads'), sum('ownMinor')]).toEqual([6, 900, 2, 300]);
  expect([sum('madeHeads'), sum('tickets')]).toEqual([9, 1]);
  expect(months.map(({ month }) => month)).toEqual([...months.map(({ month }) => month)].sort());
});
test('a purchase that is struck out was never paid', async () => {
  const before = (await get('/books/months')).reduce(
    (all: number, m: { boughtMinor: number }) => all + m.boughtMinor,
    0,
  );
  const id = things.powderId;
  await post(`/materials/${id}/receipts`, { quantity: 1, priceMinor: 5000, on: '2026-02-05', lot: 'wrong' });
  const [last] = await get(`/materials/${id}/moves`);
  await post(`/moves/${last.id}/strike`, {});
  const after = (await get('/books/months')).reduce(
    (all: number, m: { boughtMinor: number }) => all + m.boughtMinor,
    0,
  );
  expect(after).toBe(before);
});

test('what came out bad stands by cavity, pour and station, with its causes', async () => {
  const { cavities, pours, stations } = await get('/books/quality');
  const mine = cavities.filter(({ casts }: { casts: number }) => casts === 4);
  expect(mine.map(({ position }: { position: number }) => position)).toEqual([1, 2, 3]);
  expect(mine.map(({ good }: { good: number }) => good)).toEqual([3, 3, 3]);
  expect(mine.map(({ causes }: { causes: object }) => causes)).toEqual([{ short: 1 }, { short: 1 }, { 'eye full': 1 }]);
  expect(pours[0]).toMatchObject({ casts: 12, bad: 3, moldId: things.moldId });
  const pot = stations.find(({ station }: { station: string }) => station === 'pour');
  expect(pot).toMatchObject({ came: 12, causes: { short: 2, 'eye full': 1 } });
  // At the pot only the hands are lost: all of a head's, less those of its steps after it.
  const { planned, quantity } = await get(`/tickets/${ticketId}`);
  const later = Object.values(planned.handsS as Record<string, number>).reduce((all, seconds) => all + seconds, 0);
  const minor = ((planned.workS / quantity - later) * planned.labourMinorPerHour) / 3600;
  expect(minor).toBeGreaterThan(0);
  expect(pot.costMinor.short).toBeCloseTo(2 * minor, 6);
  expect(pot.costMinor['eye full']).toBeCloseTo(minor, 6);
  expect((await get('/books/quality?from=0&to=1')).cavities).toEqual([]);
});

test('a cost comes with all that its plan goes by, so that it can be reckoned again anywhere', async () => {
  const { input, actual, heads, tickets } = await get(`/books/cost/${bare.id}?heads=30`);
  expect(input.lines).toHaveLength(1);
  expect(input.lines[0].quantity).toBe(30);
  const { body } = await post('/orders', {
    ...{ customer: '', dueOn: null, note: '', lines: [{ productId: bare.id, quantity: 30 }] },
  });
  const { plan } = await get(`/orders/${body.id}/plan`);
  // What the order's own plan says, to the last part of it.
  expect(planOrder(input).lines[0]!.stack).toEqual(plan.lines[0].stack);
  expect({ heads, tickets }).toEqual({ heads: 9, tickets: 1 });
  const { onList } = {
    onList: (await get('/tickets')).find((each: { productId: string }) => each.productId === bare.id),
  };
  for (const [part, minor] of Object.entries(actual)) expect(minor).toBeCloseTo(onList.perHead[part], 9);
  const { actual: none } = await get(`/books/cost/${things.productIds[1]}?heads=5`);
  expect(none).toBeNull();
  expect((await call('GET', `/books/cost/${things.moldId}?heads=5`)).status).toBe(404);
  expect((await call('GET', `/books/cost/${bare.id}?heads=0`)).body.detail).toMatch(/heads is/);
});

test('what a head takes off the shelves is its metal, hook, powder and parts; what cannot be cast here is left out', async () => {
  const makes: { id: string; takes: Record<string, number> }[] = await get('/stock/makes');
  const [ten] = things.productIds;
  const { takes } = makes.find(({ id }) => id === ten)!;
  expect(takes[things.hookIds[0]!]).toBe(1);
  // 10 g and 1.5 % of it skimmed off.
  expect(takes[things.leadId]).toBeCloseTo(0.01015, 6);
  expect(takes[things.powderId]).toBeGreaterThan(0.00002);
  expect(takes[things.powderId]).toBeLessThan(0.0003);
  const { takes: bareTakes } = makes.find(({ id }) => id === bare.id)!;
  expect(Object.keys(bareTakes).sort()).toEqual([things.leadId, things.hookIds[0]!].sort());
  const nowhere = await bareProduct({ nominalMassKg: 0.099 });
  expect((await get('/stock/makes')).some(({ id }: { id: string }) => id === nowhere.id)).toBe(false);
});

test('what was sold and given stands by product and customer, with what those heads cost', async () => {
  const sales = (await get('/books/sales')) as Sale[];
  const own = sales.filter(({ productId }) => productId === bare.id);
  expect(own.map(({ party, heads, minor, givenHeads }) => [party, heads, minor, givenHeads])).toEqual([
    ['Stall', 6, 900, 2],
  ]);
  const onList = (await get('/tickets')).find((each: { productId: string }) => each.productId === bare.id);
  // What was taken off the shelves for nine heads, by the moves of each part; eight of them are gone.
  const materials = (await get('/materials')) as { id: string }[];
  const moves = await Promise.all(materials.map(({ id }) => get(`/materials/${id}/moves`)));
  const taken = (moves.flat() as { ticketNumber: number | null; valueMinor: number }[])
    .filter(({ ticketNumber }) => ticketNumber === onList.number)
    .reduce((sum, { valueMinor }) => sum - valueMinor, 0);
  expect(taken).toBeGreaterThan(0);
  expect(Math.abs(own[0]!.costMinor - (8 / 9) * taken)).toBeLessThanOrEqual(1);
  const { work, energy, wear } = onList.perHead;
  expect(work).toBeGreaterThan(0);
  // Eight of nine heads, at what each of them took of hands, heat and tools.
  expect(Math.abs(own[0]!.workMinor - 8 * (work + energy + wear))).toBeLessThanOrEqual(0.5);
  expect(await get('/books/sales?from=0&to=1')).toEqual([]);
});

test('what a reject costs goes by what was said of it: scrap takes metal and hook along, the pot gives them back', async () => {
  const { ticketId: id } = await ticketOf((await bareProduct({})).id, 6);
  await pour(id, things.moldId, 6);
  const bad = (goes: string) => ({ kind: 'reject', step: 'trim', cause: 'bent', count: 1, goes });
  for (const said of [bad('melt'), bad('scrap'), { kind: 'good', step: 'trim', count: 4 }, { kind: 'close' }]) {
    expect((await post(`/tickets/${id}/entries`, entry(said))).status).toBe(204);
  }
  const { planned, quantity } = await get(`/tickets/${id}`);
  const handsMinor = ((planned.workS / quantity) * planned.labourMinorPerHour) / 3600;
  const { stations } = await get('/books/quality');
  const trim = stations.find(({ station }: { station: string }) => station === 'trim');
  // By hand: its only step is the trim, so that both have all of a head's hands in them.
  const { lead, hook } = planned.stack;
  expect(lead + hook).toBeGreaterThan(0);
  expect(trim.costMinor.bent).toBeCloseTo(2 * handsMinor + lead + hook, 6);
});
