import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { QueryTypes, Sequelize, Transaction, type FindOptions, type Model, type ModelStatic } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { lockFolder } from './lock.ts';
import { up as workshop } from './migrations/001-workshop.ts';
import { up as heat } from './migrations/002-heat.ts';
import { up as twoMolds } from './migrations/003-two-molds.ts';
import { up as finish } from './migrations/004-finish.ts';
import { up as job } from './migrations/005-job.ts';
import { up as runs } from './migrations/006-runs.ts';
import { defineModels, type Models } from './models.ts';

export interface Store {
  folder: string;
  models: Models;
  /** Runs `work` in one transaction; writes take turns, so that SQLite is never busy. Committed means on disk. */
  write<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
  /** A read that the models cannot say well. */
  select<Row>(sql: string, values?: Record<string, unknown>, transaction?: Transaction): Promise<Row[]>;
  close(): Promise<void>;
}

/** A migration is SQL, or a function where what is to be written must be reckoned. */
type Step = string | ((sequelize: Sequelize, transaction: Transaction) => Promise<void>);

const MIGRATIONS: { name: string; step: Step }[] = [
  { name: '001-workshop', step: workshop },
  { name: '002-heat', step: heat },
  { name: '003-two-molds', step: twoMolds },
  { name: '004-finish', step: finish },
  { name: '005-job', step: job },
  { name: '006-runs', step: runs },
];

/** Brings the tables up to date, or up to one step, so that an older file can be made. */
export async function migrate(sequelize: Sequelize, to?: string): Promise<void> {
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, step }) => ({
      name,
      up: () =>
        sequelize.transaction(async (transaction) => {
          if (typeof step !== 'string') return step(sequelize, transaction);
          for (const statement of step
            .replace(/^--.*$/gm, '')
            .split(/;\s*\n/)
            .filter((each) => each.trim())) {
            await sequelize.query(statement, { transaction });
          }
        }),
    })),
    storage: new SequelizeStorage({ sequelize, modelName: 'migrations' }),
    logger: undefined,
  });
  await umzug.up(to === undefined ? undefined : { to });
}

/** Opens (or makes) the data folder, holds it for this process and brings its tables up to date. */
export async function openStore(folder: string): Promise<Store> {
  mkdirSync(folder, { recursive: true });
  const unlock = await lockFolder(folder);
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage: join(folder, 'schmelz.sqlite'),
    logging: false,
    transactionType: Transaction.TYPES.IMMEDIATE,
  });
  try {
    await sequelize.query('PRAGMA journal_mode = WAL');
    await migrate(sequelize);
  } catch (error) {
    await sequelize.close();
    await unlock();
    throw error;
  }
  let turn: Promise<unknown> = Promise.resolve();
  return {
    folder,
    models: defineModels(sequelize),
    write(work) {
      const result = turn.then(() => sequelize.transaction(work));
      turn = result.catch(() => undefined); // the next in line does not care how this one ended
      return result;
    },
    select<Row>(sql: string, values: Record<string, unknown> = {}, transaction?: Transaction) {
      return sequelize.query(sql, { replacements: values, type: QueryTypes.SELECT, transaction }) as unknown as Promise<
        Row[]
      >;
    },
    async close() {
      await turn.catch(() => undefined);
      await sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)');
      await sequelize.close();
      await unlock();
    },
  };
}

/** Plain rows of a model. */
export async function rowsOf<Row extends object>(
  model: ModelStatic<Model<Row, Row>>,
  options: FindOptions<Row> = {},
): Promise<Row[]> {
  const found = await model.findAll(options);
  return found.map((each) => each.get({ plain: true }) as Row);
}
