import { DEFAULT_SETTINGS } from '@schmelz/contract';
import { pourState, stepState, ticketState, withShares, type TicketEntry } from '@schmelz/core';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { Sequelize } from 'sequelize';
import { listMolds } from '../services/cavities.ts';
import { fillRecords } from '../services/fill-records.ts';
import { addPourEntries, readPour } from '../services/pours.ts';
import { createResource } from '../services/resources.ts';
import { readSettings } from '../services/settings.ts';
import { listMaterials } from '../services/stock.ts';
import { addRunEntries } from '../services/runs.ts';
import { readTicket } from '../services/ticket-figures.ts';
import { addTicketEntries } from '../services/tickets.ts';
import { temporaryFolder } from '../test/server.ts';
import { up as byCause } from './migrations/011-by-cause.ts';
import { migrate, openStore } from './store.ts';

const [mold, cavity, pot, lead, pour] = [1, 2, 3, 4, 5].map((n) => `${n}0000000-0000-4000-8000-000000000000`) as [
  string,
  string,
  string,
  string,
  string,
];
const shotId = randomUUID();

/** A file as it was before pours had several molds: one pour with a blank shot, a shot and a short. */
async function oldFile(folder: string) {
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: join(folder, 'schmelz.sqlite'), logging: false });
  await migrate(sequelize, '002-heat');
  const load = {
    position: 1,
    cavityId: cavity,
    batchIds: ['t'],
    hookMaterialId: null,
    leadKg: 0.01,
    sprueKg: 0.003,
    yieldShare: 0.94,
  };
  const setup = JSON.stringify({ loads: [load], needs: { t: 5 }, plannedBlanks: 3 });
  const planned = JSON.stringify({
    meltS: 900,
    chargeKg: 2,
    openS: 6.5,
    pourC: 371,
    roomC: 20,
    potPowerW: 700,
    potLossWPerK: 0.5,
  });
  const say = (kind: string, id: string, at: number, body: object) =>
    sequelize.query('INSERT INTO entries (id, pourId, kind, at, body) VALUES (?, ?, ?, ?, ?)', {
      replacements: [id, pour, kind, at, JSON.stringify(body)],
    });
  const run = (sql: string, replacements: unknown[]) => sequelize.query(sql, { replacements });
  await run(`INSERT INTO molds (id, name, bodyKg, version) VALUES (?, 'Three', 0.5, 1)`, [mold]);
  await run(
    `INSERT INTO cavities (id, moldId, position, style, nominalMassKg, hookSize, eyeAngleDeg, condition) VALUES (?, ?, 1, 'ball', 0.01, '2/0', 60, 'good')`,
    [cavity, mold],
  );
  await run(
    `INSERT INTO pots (id, name, capacityKg, powerW, lossWPerK, version) VALUES (?, 'Old pot', 4, 700, 0.5, 1)`,
    [pot],
  );
  await run(`INSERT INTO materials (id, kind, name, note, version) VALUES (?, 'lead', 'Lead', '', 1)`, [lead]);
  await run(
    `INSERT INTO pours (id, number, moldId, potId, leadId, startedAt, setup, planned, chargedKg, shots, version) VALUES (?, 1, ?, ?, ?, 1000, ?, ?, 2, 2, 1)`,
    [pour, mold, pot, lead, setup, planned],
  );
  await run(`INSERT INTO pourCavities (pourId, cavityId, good, rejects, casts) VALUES (?, ?, 0, '{"short":1}', 1)`, [
    pour,
    cavity,
  ]);
  await say('charge', randomUUID(), 1000, { massKg: 2, potC: 20 });
  await say('blank', randomUUID(), 2000, {});
  await say('shot', shotId, 3000, { positions: [1] });
  await say('reject', randomUUID(), 4000, { shotId, position: 1, cause: 'short' });
  await sequelize.close();
}

test('pours of one mold stay what they were, and can be gone on with', async () => {
  const folder = temporaryFolder();
  await oldFile(folder);
  const store = await openStore(folder);
  const before = await readPour(store, pour);
  expect(before.setup.molds).toMatchObject([{ moldId: mold, plannedBlanks: 3, openS: 6.5 }]);
  const state = pourState(before.setup, before.log);
  expect(state.molds[0]).toMatchObject({ blanks: 1, shots: 1, lastPouredAt: 3000 });
  expect(state.byCavity[cavity]).toEqual({ good: 0, kept: 0, rejects: { short: 1 } });
  expect((await listMolds(store))[0]!.cavities[0]).toMatchObject({ casts: 1, shotsSinceSmoked: 2 });
  expect(await fillRecords(store, mold)).toMatchObject([{ casts: 1, shorts: 1 }]);
  await store.close();
});

test('what a pour threw back is known by cause where it was for one ticket, and not guessed where for two', async () => {
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: ':memory:', logging: false });
  for (const sql of [
    'CREATE TABLE products (id TEXT)',
    'CREATE TABLE materials (id TEXT)',
    'CREATE TABLE molds (id TEXT)',
    'CREATE TABLE pourTickets (pourId TEXT, ticketId TEXT)',
    'CREATE TABLE pourCavities (pourId TEXT, cavityId TEXT, rejects TEXT)',
    `INSERT INTO pourTickets VALUES ('one', 'a'), ('two', 'a'), ('two', 'b'), ('clean', 'c')`,
    `INSERT INTO pourCavities VALUES ('one', '1', '{"short":3,"second grade":1}'), ('one', '2', '{"short":1,"flash":2}'),
     ('two', '1', '{"short":5}'), ('clean', '1', '{}')`,
    ...byCause.split(';').filter((sql) => sql.trim()),
  ]) {
    await sequelize.query(sql);
  }
  const [rows] = await sequelize.query('SELECT pourId, causes FROM pourTickets ORDER BY pourId, ticketId');
  expect(rows).toEqual([
    { pourId: 'clean', causes: '{}' },
    { pourId: 'one', causes: '{"flash":2,"short":4}' },
    { pourId: 'two', causes: null },
    { pourId: 'two', causes: null },
  ]);
  await sequelize.close();
});

test('seconds that nobody had changed come from the ways now; a maker’s own stay', async () => {
  const folder = temporaryFolder();
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: join(folder, 'schmelz.sqlite'), logging: false });
  await migrate(sequelize, '003-two-molds');
  const old = { ...DEFAULT_SETTINGS, ways: { ...DEFAULT_SETTINGS.ways, trimS: 12, coatS: 31 } };
  await sequelize.query('INSERT INTO settings (id, body, version) VALUES (1, ?, 1)', {
    replacements: [JSON.stringify(old)],
  });
  await sequelize.close();
  const store = await openStore(folder);
  expect((await readSettings(store)).settings.ways).toMatchObject({ trimS: null, coatS: 31 });
  await store.close();
});

test('a mold that was learned loses in a cycle what it lost: open a third of it before, nearly all of it now', async () => {
  const folder = temporaryFolder();
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: join(folder, 'schmelz.sqlite'), logging: false });
  await migrate(sequelize, '008-kept-figures');
  const learned = { lossWPerK: 0.6, lossSdWPerK: 0.05, capacityShare: 1.1, capacitySdShare: 0.02, readings: 90, at: 1 };
  const made = (name: string, what: string | null) =>
    sequelize.query(`INSERT INTO molds (id, name, bodyKg, learned, version) VALUES (?, ?, 0.6, ?, 1)`, {
      replacements: [randomUUID(), name, what],
    });
  await made('Learned', JSON.stringify(learned));
  await made('Plain', null);
  await made('Forgotten', 'null');
  await sequelize.close();
  const store = await openStore(folder);
  const by = new Map((await listMolds(store)).map((each) => [each.name, each.learned ?? null]));
  const now = by.get('Learned')!;
  expect(now.lossWPerK * (1 + 0.95)).toBeCloseTo(0.6 * 1.2, 9);
  expect(now.lossSdWPerK / now.lossWPerK).toBeCloseTo(0.05 / 0.6, 9);
  expect(now).toMatchObject({ capacityShare: 1.1, readings: 90 });
  expect([by.get('Plain'), by.get('Forgotten')]).toEqual([null, null]);
  await store.close();
});

test('nothing but the molds of its setup can be poured', async () => {
  const folder = temporaryFolder();
  await oldFile(folder);
  const store = await openStore(folder);
  const other = { id: randomUUID(), at: 5000, kind: 'shot' as const, moldId: randomUUID(), positions: [1] };
  await expect(addPourEntries(store, pour, [other])).rejects.toThrow(/moldId is .*; allowed: the molds of this pour/);
  await store.close();
});

/**
 * A file as it was before the job was data: a painted ticket whose heads are in the oven, some thrown back, all of it
 * said.
 */
async function ovenFile(folder: string) {
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: join(folder, 'schmelz.sqlite'), logging: false });
  await migrate(sequelize, '004-finish');
  const run = (sql: string, replacements: unknown[] = []) => sequelize.query(sql, { replacements });
  const [hook, white, recipe, program, product, order, ticket] = [11, 12, 13, 14, 15, 16, 17].map(
    (n) => `${n}000000-0000-4000-8000-000000000000`,
  ) as [string, string, string, string, string, string, string];
  const hookDetails = { size: '2/0', wire: 'standard', eyeAngleDeg: 60, finish: 'bronze', finishLimitC: 185 };
  const powder = { colour: '#eeeeee', finish: 'matte', specificGravity: 1.5, label: [{ metalC: 177, seconds: 1200 }] };
  const material = (id: string, kind: string, name: string, more: { metal?: string; hook?: object; powder?: object }) =>
    run(
      'INSERT INTO materials (id, kind, name, note, metalId, hook, powder, version) VALUES (?, ?, ?, ?, ?, ?, ?, 1)',
      [
        id,
        kind,
        name,
        '',
        more.metal ?? null,
        more.hook ? JSON.stringify(more.hook) : null,
        more.powder ? JSON.stringify(more.powder) : null,
      ],
    );
  await material(lead, 'lead', 'Lead', { metal: 'soft-lead' });
  await material(hook, 'hook', 'Hook', { hook: hookDetails });
  await material(white, 'powder', 'White', { powder });
  await run(`INSERT INTO recipes (id, name, version) VALUES (?, 'White', 1)`, [recipe]);
  await run(`INSERT INTO recipeLayers (recipeId, position, powderId, zone, coats) VALUES (?, 1, ?, 'whole', 1)`, [
    recipe,
    white,
  ]);
  await run(`INSERT INTO bakePrograms VALUES (?, '177', 177, 1200, 1, 1, 'door')`, [program]);
  await run(
    `INSERT INTO products (id, name, style, nominalMassKg, hookId, recipeId, bakeProgramId, version)
     VALUES (?, 'Ten', 'ball', 0.01, ?, ?, ?, 1)`,
    [product, hook, recipe, program],
  );
  await run(`INSERT INTO orders VALUES (?, 1, 'Stall', NULL, '', 'released', 1, 1)`, [order]);
  const planned = {
    casts: 12,
    yieldShare: 0.94,
    stack: { lead: 2, hook: 16, powder: 1, dross: 0.1, energy: 0.2, work: 20 },
    workS: 900,
    leadKgPerHead: 0.01,
    powders: [{ materialId: white, name: 'White', kgPerHead: 1e-4 }],
    labourMinorPerHour: 1200,
    energyMinorPerKWh: 32,
  };
  await run(
    `INSERT INTO tickets (id, number, orderId, productId, quantity, route, planned, createdAt, version)
     VALUES (?, 101, ?, ?, 10, '["trim","paint","bake","finish"]', ?, 1, 1)`,
    [ticket, order, product, JSON.stringify(planned)],
  );
  await run(`INSERT INTO pots (id, name, capacityKg, powerW, lossWPerK, version) VALUES (?, 'Pot', 4, 700, 0.5, 1)`, [
    pot,
  ]);
  await run(`INSERT INTO ovens (id, name, places, powerW, lagS, version) VALUES ('o', 'Oven', 60, 1400, 180, 1)`);
  await run(`INSERT INTO molds (id, name, bodyKg, version) VALUES (?, 'Three', 0.5, 1)`, [mold]);
  await run(
    `INSERT INTO pours (id, number, moldId, potId, leadId, startedAt, closedAt, setup, planned, chargedKg, shots, version)
     VALUES (?, 1, ?, ?, ?, 1000, 2000, ?, '{}', 2, 4, 1)`,
    [
      pour,
      mold,
      pot,
      lead,
      JSON.stringify({ molds: [], atOnce: 1, loads: [{ batchIds: [ticket] }], needs: {}, hooksOut: {} }),
    ],
  );
  await run(`INSERT INTO pourTickets (pourId, ticketId, good, rejects, workS) VALUES (?, ?, 10, 1, 600)`, [
    pour,
    ticket,
  ]);
  const entry = (kind: string, at: number, body: object) =>
    run('INSERT INTO entries (id, ticketId, kind, at, body) VALUES (?, ?, ?, ?, ?)', [
      randomUUID(),
      ticket,
      kind,
      at,
      JSON.stringify(body),
    ]);
  await entry('start', 10_000, { station: 'trim' });
  await entry('good', 70_000, { station: 'trim', count: 8 });
  await entry('reject', 80_000, { station: 'trim', cause: 'divot', count: 1 });
  await entry('reject', 90_000, { station: 'trim', cause: 'bent hook', count: 1, hookLost: true });
  await entry('good', 300_000, { station: 'paint', count: 8 });
  await entry('load', 400_000, { station: 'bake', count: 8, setC: 177, seconds: 1200, preheated: true });
  await entry('door', 500_000, { station: 'bake', open: true });
  await entry('door', 510_000, { station: 'bake', open: false });
  await sequelize.close();
  return { ticket, hook, white, product };
}

test('a ticket in the oven stays in the oven: same counts, same seconds, same parts, and can be gone on with', async () => {
  const folder = temporaryFolder();
  const old = await ovenFile(folder);
  const store = await openStore(folder);
  const before = await readTicket(store, old.ticket);
  expect(before.route.map(({ key, station, does }) => [key, station, does])).toEqual([
    ['trim', 'trim', 'Trim'],
    ['paint', 'paint', 'Paint'],
    ['bake', 'bake', 'Bake'],
    ['finish', 'finish', 'Finish'],
  ]);
  const folded = ({ id, log, runs, ...ticket }: typeof before) =>
    ticketState(ticket, withShares<TicketEntry>(id, log, runs));
  const state = folded(before);
  expect(stepState(state, 'trim')).toMatchObject({
    good: 8,
    rejected: 2,
    gone: { melt: 1, 'hook lost': 1 },
    workS: 80,
  });
  expect(stepState(state, 'bake')).toMatchObject({ inOven: 8, left: 8 });
  expect(state.loads[0]).toMatchObject({
    loadedAt: 400_000,
    endsAt: 1_600_000,
    doors: [{ fromAt: 500_000, toAt: 510_000 }],
  });
  expect(before.planned.bill).toEqual([
    { partId: old.hook, name: 'Hook', kind: 'hook', quantity: 1, waste: 0, step: 'pour' },
    { partId: old.white, name: 'White', kind: 'powder', quantity: 1e-4, waste: 0, step: 'paint' },
  ]);
  const [hook, white] = (await listMaterials(store)).filter((each) => each.kind !== 'lead');
  expect(hook).toMatchObject({ limitC: 185, hook: { plating: 'bronze' } });
  expect(white).toMatchObject({ limitC: null, powder: { gloss: 'matte' } });
  // The load is a run of its own now, number 1, and is gone on with as such.
  const [run] = before.runs;
  expect(run).toMatchObject({ kind: 'oven', number: 1 });
  expect(run!.log.map((entry) => entry.kind)).toEqual(['load', 'door', 'door']);
  const base = () => ({ id: randomUUID(), at: 1_700_000 });
  await addRunEntries(store, 'oven', run!.id, [{ ...base(), kind: 'unload' }]);
  await addTicketEntries(store, old.ticket, [{ ...base(), kind: 'good', step: 'bake', count: 8 }]);
  expect(stepState(folded(await readTicket(store, old.ticket)), 'bake')).toMatchObject({
    good: 8,
    left: 0,
  });
  // A kind that the old file could not hold.
  await createResource(store, 'materials', {
    kind: 'guard',
    name: 'Guard',
    note: '',
    metalId: null,
    hook: null,
    powder: null,
  });
  expect((await store.select<{ ok: string }>('PRAGMA integrity_check'))[0]).toEqual({ integrity_check: 'ok' });
  await store.close();
});

test('what was finished before finished heads were counted is made and handed over by its order, once', async () => {
  const folder = temporaryFolder();
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: join(folder, 'schmelz.sqlite'), logging: false });
  await migrate(sequelize, '011-by-cause');
  const run = (sql: string, replacements: unknown[] = []) => sequelize.query(sql, { replacements });
  const [product, order, done, open] = [6, 7, 8, 9].map((n) => `${n}0000000-0000-4000-8000-000000000000`);
  await run(`INSERT INTO materials (id, kind, name, note, version) VALUES (?, 'lead', 'Lead', '', 1)`, [lead]);
  await run(
    `INSERT INTO products (id, name, style, nominalMassKg, priceMinor, version) VALUES (?, 'Ten', 'ball', 0.01, 150, 1)`,
    [product],
  );
  await run(
    `INSERT INTO orders (id, number, customer, note, status, createdAt, version) VALUES (?, 4, 'Ferry club', '', 'released', 1, 1)`,
    [order],
  );
  const ticket = (id: string, number: number, closedAt: number | null, good: number | null) =>
    run(
      `INSERT INTO tickets (id, number, orderId, productId, quantity, route, source, planned, createdAt, closedAt, good, version)
       VALUES (?, ?, ?, ?, 24, '[]', 'pour', '{}', 1, ?, ?, 1)`,
      [id, number, order, product, closedAt, good],
    );
  await ticket(done!, 101, 5000, 22);
  await ticket(open!, 102, null, null);
  await run(
    `INSERT INTO stockMoves (at, materialId, reason, quantity, valueMinor, ticketId, lot) VALUES (1, ?, 'heads', -0.22, -440, ?, '')`,
    [lead, done],
  );
  await sequelize.close();
  const store = await openStore(folder);
  const rows = await store.select<Record<string, unknown>>('SELECT * FROM goodsMoves ORDER BY id');
  expect(rows).toMatchObject([
    { at: 5000, reason: 'made', pieces: 22, valueMinor: 440, priceMinor: null, ticketId: done, orderId: null },
    { reason: 'sold', pieces: -22, valueMinor: -440, priceMinor: 3300, orderId: order, party: 'Ferry club' },
  ]);
  expect(rows[1]!['saidId']).toMatch(/^[0-9a-f-]{36}$/);
  expect(rows).toHaveLength(2);
  await store.close();
});
