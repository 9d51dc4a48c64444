import { DEFAULT_SETTINGS } from '@schmelz/contract';
import { pourState } from '@schmelz/core';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { Sequelize } from 'sequelize';
import { fillRecords, listMolds } from '../services/cavities.ts';
import { addPourEntries, readPour } from '../services/pours.ts';
import { readSettings } from '../services/settings.ts';
import { temporaryFolder } from '../test/server.ts';
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

test('nothing but the molds of its setup can be poured', async () => {
  const folder = temporaryFolder();
  await oldFile(folder);
  const store = await openStore(folder);
  const other = { id: randomUUID(), at: 5000, kind: 'shot' as const, moldId: randomUUID(), positions: [1] };
  await expect(addPourEntries(store, pour, [other])).rejects.toThrow(/moldId is .*; allowed: the molds of this pour/);
  await store.close();
});
