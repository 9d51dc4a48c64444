import { randomUUID } from 'node:crypto';
import { copyFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ROUTES } from '@schmelz/contract';
import fc from 'fast-check';
import { quoted, withDatabase } from './store/database.ts';
import { answersHold } from './test/answers.ts';
import { eveningAt } from './test/evening.ts';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

/**
 * A copy, or a workshop's file, in which something was changed by another hand: it is refused in words, or opened with
 * every page of the application answering. `SCHMELZ_MUTATIONS=60` tries as many of each.
 */
const RUNS = Number(process.env['SCHMELZ_MUTATIONS'] ?? 8);

let server: TestServer;
let call: ReturnType<typeof eveningAt>['call'];
type Row = Record<string, unknown>;
let whole: Record<string, Row[]>;
let good: string;
beforeAll(async () => {
  server = await testServer();
  const things = await smallWorkshop(server);
  const evening = eveningAt(server, things);
  call = evening.call;
  const { ticketId } = await evening.ticketOf(things.productIds[0]!, 6);
  await evening.pour(ticketId, things.moldId, 6, ['short', 'flash']);
  const said = (entry: object) => evening.post(`/tickets/${ticketId}/entries`, evening.entry(entry));
  await said({ kind: 'good', step: 'trim', count: 4 });
  await said({ kind: 'good', step: 'paint', count: 4 });
  const heads = [{ ticketId, step: 'bake', count: 4 }];
  const run = `/runs/oven/${randomUUID()}/entries`;
  const program = { setC: 177, seconds: 1200, preheated: true };
  await evening.post(run, evening.entry({ kind: 'load', ovenId: null, heads, ...program }));
  await evening.post(run, evening.entry({ kind: 'unload' }));
  await evening.ticketOf(things.productIds[1]!, 5);
  const lines = [{ productId: things.productIds[1], quantity: 4 }];
  await evening.post('/orders', { customer: 'Later', dueOn: null, note: '', lines });
  whole = (await call('GET', '/export')).body;
  good = (await evening.post('/backups', undefined)).body.name;
}, 120_000);
afterAll(() => server.stop());

/** Every question that a page asks without naming a record, and those of each thing, ticket, pour and order. */
async function everyPage(): Promise<string[]> {
  const wrong: string[] = [];
  const ask = async (path: string, route: string) => {
    const { status, body } = await call('GET', path);
    if (status >= 500) wrong.push(`${path} answers ${status}`);
    const why = status === 200 ? answersHold('GET', `/api${route.replaceAll(/:(\w+)/g, '{$1}')}`, status, body) : null;
    if (why) wrong.push(why);
    return status === 200 ? (body as unknown) : null;
  };
  for (const key of Object.keys(ROUTES)) {
    const [method, path] = key.split(' ') as [string, string];
    if (method !== 'GET' || /export|stream|readings|pours\/whole/.test(path) || path.includes(':')) continue;
    await ask(path, path);
  }
  const ids = async (table: string) =>
    (await server.running.store.select<{ id: string }>(`SELECT id FROM ${table}`)).map(({ id }) => id);
  for (const id of await ids('tickets')) await ask(`/tickets/${id}`, '/tickets/:id');
  for (const id of await ids('pours')) await ask(`/pours/${id}`, '/pours/:id');
  for (const id of await ids("orders WHERE status = 'open'")) await ask(`/orders/${id}/plan`, '/orders/:id/plan');
  for (const id of await ids('orders')) {
    await ask(`/orders/${id}/tickets`, '/orders/:id/tickets');
    await ask(`/orders/${id}/goods`, '/orders/:id/goods');
  }
  for (const id of await ids('materials')) await ask(`/materials/${id}/lots`, '/materials/:id/lots');
  return wrong;
}

const NASTY = [
  null,
  -1,
  0,
  1e300,
  0.5,
  '',
  'nonsense',
  '7',
  '{}',
  '[]',
  '{"a',
  [],
  {},
  [null],
  [{ key: 'moon' }],
  true,
];
/** One place in a workshop, and what is put there: a cell, or what lies inside a cell. */
const mutation = fc.record({
  table: fc.nat(),
  row: fc.nat(),
  column: fc.nat(),
  inside: fc.array(fc.nat(), { maxLength: 4 }),
  value: fc.constantFrom(...NASTY),
});
type Mutation = typeof mutation extends fc.Arbitrary<infer M> ? M : never;

const pick = <T>(all: readonly T[], at: number): T => all[at % all.length]!;
const isOpen = (value: unknown): value is Row => typeof value === 'object' && value !== null;

/** The row that a mutation makes, with the table and the column that it is in. */
function mutated({ table, row, column, inside, value }: Mutation) {
  const tables = Object.keys(whole).filter((name) => Array.isArray(whole[name]) && whole[name]!.length > 0);
  const name = pick(tables, table);
  const nth = row % whole[name]!.length;
  const changed = structuredClone(whole[name]![nth]!);
  const cell = pick(Object.keys(changed), column);
  let [at, key]: [Row, string] = [changed, cell];
  for (const step of inside) {
    const next = at[key];
    if (!isOpen(next) || Object.keys(next).length === 0) break;
    [at, key] = [next, pick(Object.keys(next), step)];
  }
  at[key] = value;
  return { name, nth, cell, changed };
}

const putBack = async (name: string) => {
  const { status, body } = await call('POST', '/backups/restore', { name });
  return { status, detail: body.detail as string };
};

test('a workshop’s file with a mistake in it is refused in words, or every page of it answers', async () => {
  await fc.assert(
    fc.asyncProperty(mutation, async (change) => {
      const { name, nth, changed } = mutated(change);
      const document = { ...whole, [name]: whole[name]!.with(nth, changed) };
      const { status, body } = await call('POST', '/backups/take-in', document);
      if (status !== 201) {
        expect([status, body.detail]).toEqual([422, expect.stringMatching(/^(?!.*SQLITE_MISMATCH).*\w+ \w+ \w+/)]);
        return;
      }
      expect((await putBack(body.copy.name)).status).toBe(200);
      expect(await everyPage()).toEqual([]);
      expect((await putBack(good)).status).toBe(200);
    }),
    { numRuns: RUNS, seed: Number(process.env['SCHMELZ_SEED']) },
  );
}, 600_000);

test('a copy with a mistake in it likewise', async () => {
  const backups = join(server.folder, 'backups');
  await fc.assert(
    fc.asyncProperty(mutation, async (change) => {
      const { name, nth, cell, changed } = mutated(change);
      const copy = `asked-${randomUUID()}.sqlite`;
      copyFileSync(join(backups, good), join(backups, copy));
      const value = isOpen(changed[cell]) ? JSON.stringify(changed[cell]) : (changed[cell] ?? null);
      const set = `UPDATE ${quoted(name)} SET ${quoted(cell)} = ? WHERE rowid = (SELECT rowid FROM ${quoted(name)} LIMIT 1 OFFSET ${nth})`;
      const could = await withDatabase(join(backups, copy), ({ ask }) => ask(set, [value])).then(
        () => true,
        () => false, // what the tables themselves refuse
      );
      if (could) {
        const { status, detail } = await putBack(copy);
        if (status === 200) {
          expect(await everyPage()).toEqual([]);
          await putBack(good);
        } else expect([status, detail]).toEqual([422, expect.stringContaining(copy)]);
      }
      rmSync(join(backups, copy));
    }),
    { numRuns: RUNS, seed: Number(process.env['SCHMELZ_SEED']) },
  );
}, 600_000);
