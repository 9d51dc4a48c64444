import { eveningAt } from './test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

// Evenings that were kept on paper: looked at, taken in whole or not at all, told in the books, undone.
let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
let { get, post } = {} as ReturnType<typeof eveningAt>;
beforeAll(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
  ({ get, post } = eveningAt(server, things));
});
afterAll(() => server.stop());

const csv = (text: string, query = '') =>
  server.call('POST', `/api/evenings/import${query}`, text, { 'content-type': 'text/csv' });
const HEAD = 'on,name,mold,product,good,casts,minutes,note\r\n';
const moldName = async () =>
  (await get('/molds')).find(({ id }: { id: string }) => id === things.moldId).name as string;

test('a year on paper comes in: by month, by mold, with what nobody knew left open; and goes out again', async () => {
  const mold = await moldName();
  const log =
    HEAD +
    `2024-11-03,big five,${mold},,90,120,150,cold\r\n` +
    `2024-11-20,big five,${mold.toUpperCase()},,60,,,\r\n` +
    '2024-12-01,old round one,,,"31",34,"62,5",\r\n';
  const before = await get('/materials');
  const looked = await csv(log, '?look=true');
  expect(looked.body).toMatchObject({ id: null, rows: 3, takenAt: null });
  expect(
    looked.body.evenings.map(({ line, mold: is, casts, minutes }: Record<string, unknown>) => [
      line,
      is,
      casts,
      minutes,
    ]),
  ).toEqual([
    [2, mold, 120, 150],
    [3, mold, null, null],
    [4, null, 34, 62.5],
  ]);
  expect((await get('/evenings/paper')).total).toEqual({ evenings: 0, good: 0 });
  const { body: taken } = await csv(log);
  const paper = await get('/evenings/paper');
  expect(paper.total).toEqual({ evenings: 3, good: 181 });
  expect(paper.evenings.map(({ on, good }: Record<string, unknown>) => [on, good])).toEqual([
    ['2024-12-01', 31],
    ['2024-11-20', 60],
    ['2024-11-03', 90],
  ]);
  // 90 of 120 casts of the mold are known whole; 60 more were good of nobody knows how many.
  expect(paper.byName).toEqual([
    {
      ...{ name: mold, moldId: things.moldId, evenings: 2, good: 150 },
      ...{ judged: { good: 90, casts: 120 }, timed: { good: 90, minutes: 150 } },
    },
    {
      ...{ name: 'old round one', moldId: null, evenings: 1, good: 31 },
      ...{ judged: { good: 31, casts: 34 }, timed: { good: 31, minutes: 63 } },
    },
  ]);
  const months = await get('/books/months');
  const heads = (month: string) =>
    (months as { month: string; paperHeads: number }[]).find((each) => each.month === month)?.paperHeads;
  expect([heads('2024-11'), heads('2024-12')]).toEqual([150, 31]);
  // Nothing comes off a shelf for it.
  expect(await get('/materials')).toEqual(before);
  expect((await csv(log)).status).toBe(409);
  expect((await post(`/imports/${taken.id}/strike`, {})).status).toBe(204);
  expect((await get('/evenings/paper')).total).toEqual({ evenings: 0, good: 0 });
  expect((await get('/books/months')).some(({ month }: { month: string }) => month === '2024-11')).toBe(false);
});

test('a mold that nobody has cast in here is planned by its evenings on paper, while they stand', async () => {
  const mold = await moldName();
  const lines = [{ productId: things.productIds[0]!, quantity: 30 }];
  const { body: order } = await post('/orders', { customer: 'Stall', dueOn: null, note: '', lines });
  const yieldOf = async () => {
    const { plan } = await get(`/orders/${order.id}/plan`);
    return plan.lines[0].yieldShare.value as number;
  };
  const usual = await yieldOf();
  const { body: taken } = await csv(`${HEAD}2024-11-03,,${mold},,300,500,,\r\n`);
  // Each cavity has 60 of 100 beside 37.6 of 40 by habit: 0.697, worked by hand.
  const byPaper = await yieldOf();
  expect(byPaper).toBeCloseTo(97.6 / 140, 6);
  expect(byPaper).toBeLessThan(usual);
  await post(`/imports/${taken.id}/strike`, {});
  expect(await yieldOf()).toBeCloseTo(usual, 12);
});

test.each([
  ['no heads', '2024-11-03,x,,,,,,', /Line 2: good is ""; allowed: a number/],
  ['no number', '2024-11-03,x,,,many,,,', /Line 2: good is "many"; allowed: a number/],
  ['no day', 'spring,x,,,4,,,', /Line 2: on/],
  ['a mold that is not there', '2024-11-03,x,Nowhere,,4,,,', /Line 2: mold is "Nowhere"; allowed: the name of a mold/],
  ['more good ones than casts', '2024-11-03,x,,,9,4,,', /Line 2: good must be no more than casts/],
  ['too many of them', '2024-11-03,x,,,900000,,,', /Line 2: good/],
])('%s is refused by its line, and nothing comes in', async (_, line, says) => {
  const { status, body } = await csv(`${HEAD}${line}\r\n2024-11-04,fine,,,4,5,,\r\n`);
  expect(status).toBe(422);
  expect(body.detail).toMatch(says);
  expect((await get('/evenings/paper')).total.evenings).toBe(0);
});

test('columns that are missing are named; a long log comes in pages', async () => {
  expect((await csv('date,good\r\n2024-11-03,4')).body.detail).toMatch(/missing: on; found: date, good/);
  const rows = Array.from({ length: 70 }, (_, at) => `2023-0${1 + (at % 9)}-${10 + (at % 19)},jig,,,${at + 1},,,`);
  await csv(HEAD + rows.join('\r\n'));
  const first = await get('/evenings/paper');
  const rest = await get('/evenings/paper?skip=50');
  expect([first.evenings.length, first.more, rest.evenings.length, rest.more]).toEqual([50, true, 20, false]);
  const days = [...first.evenings, ...rest.evenings].map(({ on }: { on: string }) => on);
  expect(days).toEqual([...days].sort().reverse());
  expect(new Set([...first.evenings, ...rest.evenings].map(({ id }: { id: string }) => id)).size).toBe(70);
});
