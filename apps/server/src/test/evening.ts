import { randomUUID } from 'node:crypto';
import type { smallWorkshop, TestServer } from './server.ts';

type Things = Awaited<ReturnType<typeof smallWorkshop>>;

/** What a test says to a small workshop over the API, in the order in which it happens there. */
export function eveningAt(server: TestServer, things: Things) {
  let at = Date.now() - 7_200_000;
  const call = (method: string, path: string, body?: unknown) => server.call(method, `/api${path}`, body);
  const post = (path: string, body: unknown) => call('POST', path, body);
  const get = async (path: string) => (await call('GET', path)).body;
  const entry = (said: object) => ({ id: randomUUID(), at: (at += 20_000), ...said });

  /** An order of one product, released. */
  async function ticketOf(productId: string, quantity: number, customer = 'Stall') {
    const order = { customer, dueOn: null, note: '', lines: [{ productId, quantity }] };
    const { body } = await post('/orders', order);
    const [ticket] = (await post(`/orders/${body.id}/release`, {})).body;
    return { orderId: body.id as string, ticketId: ticket.id as string };
  }
  /** So many heads of a ticket, three a shot; all of them good but those that are said to be bad, by cause. */
  async function pour(ticketId: string, moldId: string, heads: number, bad: string[] = []) {
    const { body } = await post('/pours', {
      ...{ moldIds: [moldId], atOnce: 1, potId: things.potId, ticketIds: [ticketId] },
    });
    const say = async (said: object) => {
      const answer = await post(`/pours/${body.id}/entries`, entry(said));
      if (answer.status !== 204) throw new Error(JSON.stringify(answer.body));
    };
    at = Math.max(at, Date.now());
    const startedAt = at;
    await say({ kind: 'charge', massKg: 1, potC: 20 });
    for (let shot = 0; shot < heads; shot += 3) {
      const id = randomUUID();
      await say({ id, kind: 'shot', moldId, positions: [1, 2, 3] });
      for (const [nth, cause] of bad.slice(shot, shot + 3).entries()) {
        await say({ kind: 'reject', shotId: id, position: nth + 1, cause, goes: 'melt' });
      }
    }
    await say({ kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0.8 });
    return { id: body.id as string, startedAt };
  }
  /** A product like the first of the workshop, bare and trimmed only. */
  const bareProduct = async (more: object) => {
    const { id: _id, version: _version, ...ten } = await get(`/products/${things.productIds[0]}`);
    const route = [{ key: 'trim', station: 'trim', does: 'Trim' }];
    const name = `Bare ${randomUUID().slice(0, 6)}`;
    return (await post('/products', { ...ten, name, recipeId: null, bakeProgramId: null, route, ...more })).body;
  };
  return { call, post, get, entry, ticketOf, pour, bareProduct };
}
