import { randomUUID } from 'node:crypto';
import { putRight } from './services/append.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

let server: TestServer;
let things: Awaited<ReturnType<typeof smallWorkshop>>;
beforeAll(async () => {
  server = await testServer();
  things = await smallWorkshop(server);
});
afterAll(() => server.stop());

const make = async (path: string, body: unknown) => (await server.call('POST', path, body)).body;
const released = async (quantity: number) => {
  const lines = [{ productId: things.productIds[0], quantity }];
  const order = await make('/api/orders', { customer: 'Stall', dueOn: null, note: '', lines });
  return (await make(`/api/orders/${order.id}/release`, {}))[0] as { id: string; orderId: string };
};
const started = (ticketId: string) =>
  server.call('POST', '/api/pours', {
    moldIds: [things.moldId],
    atOnce: 1,
    potId: things.potId,
    ticketIds: [ticketId],
  });
/** Says something in a log and gives what became of it, with the id it was said by. */
const say = async (path: string, said: Record<string, unknown>, headers: Record<string, string> = {}) => {
  const id = (said['id'] as string | undefined) ?? randomUUID();
  const answer = await server.call('POST', `${path}/entries`, { at: Date.now(), ...said, id }, headers);
  return { id, status: answer.status, detail: answer.body?.detail as string | undefined };
};
const close = { kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0 };

/** Three good heads cast and on the line. */
async function cast(quantity = 3) {
  const ticket = await released(quantity);
  const pour = `/api/pours/${(await started(ticket.id)).body.id}`;
  await say(pour, { kind: 'charge', massKg: 1, potC: 20 });
  const shot = await say(pour, { kind: 'shot', moldId: things.moldId, positions: [1, 2, 3] });
  return { ticket: `/api/tickets/${ticket.id}`, ticketId: ticket.id, pour, shot, closing: await say(pour, close) };
}
const undo = (path: string, target: string) => say(path, { kind: 'undo', target });

test('a pour is not opened again while its ticket is in another one, and nothing is taken back inside a closed one', async () => {
  const { pour, ticketId, shot, closing } = await cast(6);
  expect(await undo(pour, shot.id)).toMatchObject({ status: 422, detail: /closed. Take back its closing first/ });
  const second = (await started(ticketId)).body.id as string;
  expect((await undo(pour, closing.id)).detail).toMatch(/^Ticket \d+ is in pour \d+ by now, which is still open/);
  await say(`/api/pours/${second}`, { kind: 'charge', massKg: 1, potC: 20 });
  const other = await say(`/api/pours/${second}`, close);
  expect((await undo(pour, closing.id)).status).toBe(204);
  expect((await undo(`/api/pours/${second}`, other.id)).detail).toMatch(/still open/);
});

test('heads that went on hold what they came from; a closed ticket holds all; each says what goes first', async () => {
  const { ticket, pour, shot, closing } = await cast();
  const steps = (await server.call('GET', ticket)).body.route.map((step: { key: string }) => step.key) as string[];
  const goods = [];
  for (const step of steps) goods.push(await say(ticket, { kind: 'good', step, count: 3 }));
  const done = await say(ticket, { kind: 'close' });
  expect(goods.concat(done).map(({ status }) => status)).toEqual([...steps.map(() => 204), 204]);
  expect((await undo(pour, closing.id)).detail).toMatch(/its pour would be open again. Take back the closing/);
  expect((await undo(ticket, goods[0]!.id)).detail).toMatch(/This ticket is closed/);
  expect((await undo(ticket, done.id)).status).toBe(204);
  expect((await undo(ticket, goods[0]!.id)).detail).toMatch(/Take back first: 3 good at paint/);
  expect((await undo(pour, closing.id)).status).toBe(204);
  expect((await undo(pour, shot.id)).detail).toMatch(/3 heads too few would be at trim/);
  const reject = { kind: 'reject', shotId: shot.id, position: 1, cause: 'short', goes: 'melt' };
  expect((await say(pour, reject)).detail).toMatch(/1 heads too few would be at trim/);
  // From the end of the line back all of it goes.
  for (const good of goods.reverse()) expect((await undo(ticket, good.id)).status).toBe(204);
  expect((await undo(pour, shot.id)).status).toBe(204);
  expect((await server.call('GET', ticket)).body.poured).toBe(0);
});

test('an undo can be undone; what has no effect is refused with a word', async () => {
  const { ticket } = await cast();
  const good = await say(ticket, { kind: 'good', step: 'trim', count: 2 });
  const back = await undo(ticket, good.id);
  expect((await undo(ticket, good.id)).detail).toBe('That was taken back already.');
  expect((await undo(ticket, back.id)).status).toBe(204);
  expect((await undo(ticket, back.id)).detail).toBe('That was taken back already.');
  expect((await say(ticket, { kind: 'good', step: 'trim', count: 2 })).detail).toMatch(/count is 2; allowed: 1 to 1/);
  expect((await say(ticket, { kind: 'resume', step: 'trim' })).detail).toMatch(/goes on already/);
  expect((await undo(ticket, randomUUID())).detail).toMatch(/no such entry/);
});

test('an oven load is not brought back over another one, nor taken out of under what was counted', async () => {
  const { ticket, ticketId } = await cast();
  for (const step of ['trim', 'paint']) await say(ticket, { kind: 'good', step, count: 3 });
  const program = { ovenId: null, setC: 177, seconds: 1200, preheated: true };
  const load = async (count: number) => {
    const run = `/api/runs/oven/${randomUUID()}`;
    return { run, said: await say(run, { kind: 'load', heads: [{ ticketId, step: 'bake', count }], ...program }) };
  };
  const first = await load(2);
  const out = await say(first.run, { kind: 'unload' });
  expect((await undo(first.run, first.said.id)).detail).toBe('Take back the taking out first.');
  const good = await say(ticket, { kind: 'good', step: 'bake', count: 2 });
  expect((await undo(first.run, out.id)).detail).toMatch(/oven would hold more than the 1 heads.*2 good at bake/);
  await undo(ticket, good.id);
  const second = await load(1);
  expect(second.said.status).toBe(204);
  expect((await undo(first.run, out.id)).detail).toMatch(/The oven holds load \d+ by now/);
  expect((await say(second.run, { kind: 'door', open: false })).detail).toMatch(/shut already/);
});

test('one entry id in two logs is refused, by name', async () => {
  const [one, two] = [await cast(), await cast()];
  const { id } = await say(one.ticket, { kind: 'good', step: 'trim', count: 1 });
  const again = await say(two.ticket, { id, kind: 'good', step: 'trim', count: 1 });
  expect([again.status, again.detail]).toEqual([422, `id is ${id}; allowed: one that no entry of another log has`]);
});

describe('clocks', () => {
  const now = Date.UTC(2026, 5, 1);
  const day = 24 * 3600 * 1000;
  const right = (at: number, deviceNow: number | null = null, after: number | null = null) =>
    putRight(at, { now, deviceNow, after });

  test('a time that can be is left as it was said, however late it comes', () => {
    for (const at of [now, now - 3 * day, now + day / 8]) expect(right(at, now)).toEqual({ at });
    expect(right(now - 400 * day)).toEqual({ at: now - 400 * day });
  });
  test('a device that is off is put right by as much, and marked with what it said', () => {
    expect(right(now + 365 * day, now + 365 * day + 5000)).toEqual({ at: now - 5000, saidAt: now + 365 * day });
    expect(right(now - 70 * day, now - 70 * day)).toEqual({ at: now, saidAt: now - 70 * day });
  });
  test('what would be to come, or before all time, was said now; the order of a hand stays', () => {
    expect(right(now + day)).toEqual({ at: now, saidAt: now + day });
    expect(right(0)).toEqual({ at: now, saidAt: 0 });
    expect(right(now + day, null, now + 5)).toEqual({ at: now + 6, saidAt: now + day });
  });
  test('an old entry of a year ahead no longer drags others with it', () => {
    expect(right(now, null, now + 365 * day)).toEqual({ at: now });
    expect(right(now + day, null, now + 365 * day)).toEqual({ at: now, saidAt: now + day });
  });

  test('at the server: a tap from a device a year ahead is on record at the server’s time', async () => {
    const { ticket } = await cast();
    const year = 365 * day;
    const ahead = { 'schmelz-clock': String(Date.now() + year) };
    const { id } = await say(ticket, { kind: 'good', step: 'trim', count: 1, at: Date.now() + year }, ahead);
    const { log } = (await server.call('GET', ticket)).body;
    const kept = log.find((entry: { id: string }) => entry.id === id);
    expect(Math.abs(kept.at - Date.now())).toBeLessThan(60_000);
    expect(kept.saidAt - kept.at).toBeGreaterThan(year - 60_000);
  });
});
