import { accessSync, chmodSync, closeSync, constants, existsSync, mkdirSync, openSync, statSync } from 'node:fs';
import {
  QueryTypes,
  Sequelize,
  Transaction,
  type AbstractDataType,
  type FindOptions,
  type Model,
  type ModelAttributeColumnOptions,
  type ModelStatic,
} from 'sequelize';
import { Umzug } from 'umzug';
import { copyBefore } from './copy.ts';
import { backupsIn, sweepLeftovers } from './copies-on-disk.ts';
import type { Ask } from './database.ts';
import { Fault, faultIn } from './fault.ts';
import { databaseIn, inspectFile, quickCheck, workshopIn, type Named } from './inspect.ts';
import { isAsLeft, leave } from './as-left.ts';
import { lockFolder, lockIn } from './lock.ts';
import { up as workshop } from './migrations/001-workshop.ts';
import { up as heat } from './migrations/002-heat.ts';
import { up as twoMolds } from './migrations/003-two-molds.ts';
import { up as finish } from './migrations/004-finish.ts';
import { up as job } from './migrations/005-job.ts';
import { up as runs } from './migrations/006-runs.ts';
import { up as nothingLost } from './migrations/007-nothing-lost.ts';
import { up as keptFigures } from './migrations/008-kept-figures.ts';
import { up as bar } from './migrations/009-bar.ts';
import { up as madeGood } from './migrations/010-made-good.ts';
import { up as byCause } from './migrations/011-by-cause.ts';
import { up as goods } from './migrations/012-goods.ts';
import { up as shop } from './migrations/013-shop.ts';
import { up as hands } from './migrations/014-hands.ts';
import { up as settled } from './migrations/015-settled.ts';
import { up as balances } from './migrations/016-balances.ts';
import { up as ticketProduct } from './migrations/017-ticket-product.ts';
import { up as metal } from './migrations/018-metal.ts';
import { up as exact } from './migrations/019-exact.ts';
import { up as pace } from './migrations/020-pace.ts';
import { up as evenings } from './migrations/021-evenings.ts';
import { up as opening } from './migrations/022-opening.ts';
import { defineModels, type Models } from './models.ts';

/** What has changed since a store was opened: writes, and how often all of its rows became others. */
export interface Changes {
  writes: number;
  wholes: number;
}

export interface Store {
  folder: string;
  /** Whether the database is as this Schmelz left it when it was last stopped: nobody else has written to it. */
  readonly asItWasLeft: boolean;
  /** Says that its records were read as pages do: when it is closed, it is left so. */
  vouch(): void;
  models: Models;
  /** Runs `work` in one transaction; writes take turns, so that SQLite is never busy. Committed means on disk. */
  write<T>(work: (transaction: Transaction) => Promise<T>, what?: 'records' | 'readings'): Promise<T>;
  /** What was written since it was opened, readings of probes left out. */
  changes(): Changes;
  /** Whether figures may be kept in it: one that is only read from keeps none. */
  readonly isOnlyRead: boolean;
  /** Runs `work` while no other write goes on, without a transaction: it has one of its own. */
  alone<T>(work: () => Promise<T>): Promise<T>;
  /**
   * What was reckoned from all records, by name: reckoned once, and anew after something was written. It is shared, and
   * not to be changed.
   */
  kept<T>(name: string, reckon: () => Promise<T>): Promise<T>;
  /**
   * What was reckoned from records that seldom change, by name: it lasts over writes, as long as `sign` says that they
   * are the same. It is shared, and not to be changed.
   */
  keptWhile<T>(name: string, sign: string, reckon: () => Promise<T>): Promise<T>;
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
  { name: '007-nothing-lost', step: nothingLost },
  { name: '008-kept-figures', step: keptFigures },
  { name: '009-bar', step: bar },
  { name: '010-made-good', step: madeGood },
  { name: '011-by-cause', step: byCause },
  { name: '012-goods', step: goods },
  { name: '013-shop', step: shop },
  { name: '014-hands', step: hands },
  { name: '015-settled', step: settled },
  { name: '016-balances', step: balances },
  { name: '017-ticket-product', step: ticketProduct },
  { name: '018-metal', step: metal },
  { name: '019-exact', step: exact },
  { name: '020-pace', step: pace },
  { name: '021-evenings', step: evenings },
  { name: '022-opening', step: opening },
];

/** Whether tables of this Schmelz have taken a step of this name. */
export const isStep = (name: string): boolean => MIGRATIONS.some((each) => each.name === name);

/** Which steps were taken stands in a table beside the others. */
const STEPS_TABLE = 'CREATE TABLE IF NOT EXISTS `migrations` (`name` VARCHAR(255) NOT NULL UNIQUE PRIMARY KEY)';

async function take({ name, step }: (typeof MIGRATIONS)[number], sequelize: Sequelize): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    if (typeof step !== 'string') await step(sequelize, transaction);
    else {
      for (const statement of step
        .replace(/^--.*$/gm, '')
        .split(/;\s*\n/)
        .filter((each) => each.trim())) {
        await sequelize.query(statement, { transaction });
      }
    }
    // With the step itself: one that a killed server had taken and not written down would be taken twice.
    await sequelize.query('INSERT INTO migrations (name) VALUES (?)', { replacements: [name], transaction });
  });
}

/** Brings the tables up to date, or up to one step, so that an older file can be made. */
export async function migrate(sequelize: Sequelize, to?: string): Promise<void> {
  await sequelize.query(STEPS_TABLE);
  const umzug = new Umzug({
    migrations: MIGRATIONS.map((each) => ({ name: each.name, up: () => take(each, sequelize) })),
    storage: {
      executed: () => stepsTaken(sequelize),
      logMigration: async () => undefined, // the step has said so itself
      unlogMigration: () => Promise.reject(new Error('A step is never taken back: a copy is put back.')),
    },
    logger: undefined,
  });
  await umzug.up(to === undefined ? undefined : { to });
}

/** Asks an opened database as one that is read by itself. */
const asking =
  (sequelize: Sequelize): Ask =>
  (sql, values = []) =>
    sequelize.query(sql, { replacements: values, type: QueryTypes.SELECT }) as Promise<never[]>;

/** Steps that the tables of a database have taken; none where it is new. */
async function stepsTaken(sequelize: Sequelize): Promise<string[]> {
  const tables = await sequelize.query("SELECT name FROM sqlite_master WHERE name = 'migrations'", {
    type: QueryTypes.SELECT,
  });
  if (tables.length === 0) return [];
  const taken = await sequelize.query<{ name: string }>('SELECT name FROM migrations', { type: QueryTypes.SELECT });
  return taken.map(({ name }) => name);
}

/** Brings an opened database up to date: a newer one is left alone, and an older one is copied before it changes. */
async function bringUpToDate(
  sequelize: Sequelize,
  { folder, named, mayCopy }: { folder: string; named: Named; mayCopy: boolean },
): Promise<void> {
  const taken = await stepsTaken(sequelize);
  const unknown = taken.find((name) => !isStep(name));
  if (unknown) {
    throw new Fault(
      `${named.called} was written by a newer Schmelz (${unknown} is not known here): start that one, or put back a copy from before.`,
    );
  }
  const next = MIGRATIONS.find(({ name }) => !taken.includes(name));
  if (taken.length > 0 && next && mayCopy) await copyBefore(folder, `before-${next.name}`, asking(sequelize));
  await migrate(sequelize);
}

/** Makes the data folder and its database where they are not there yet, for the eyes of this user alone. */
function prepareFolder(folder: string, named: Named): void {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  accessSync(folder, constants.R_OK | constants.W_OK | constants.X_OK);
  chmodSync(folder, 0o700);
  inspectFile(databaseIn(folder), named, !existsSync(backupsIn(folder)));
  // The files that SQLite puts beside its database take their rights from it.
  for (const file of [databaseIn(folder), lockIn(folder)]) {
    closeSync(openSync(file, 'a', 0o600));
    chmodSync(file, 0o600);
  }
}

/**
 * Sees that a folder is the one that was opened: a file that was deleted or replaced would still take writes, and
 * nobody would ever see them again.
 */
function sameFiles(folder: string): () => void {
  const files = [databaseIn(folder), lockIn(folder)].map((path) => ({ path, inode: statSync(path).ino }));
  return () => {
    const gone = files.find(({ path, inode }) => !existsSync(path) || statSync(path).ino !== inode);
    if (gone) {
      throw new Fault(
        `${gone.path} was removed or replaced while Schmelz was running. Put it back, then stop Schmelz and start it again; nothing is written until then.`,
      );
    }
  };
}

/** What is read of an open database, and what of it is kept until it is told of changes. */
function readsOf(sequelize: Sequelize) {
  let known: Changes = { writes: 0, wholes: 0 };
  let kept = new Map<string, Promise<unknown>>();
  const lasting = new Map<string, { sign: string; made: Promise<unknown> }>();
  return {
    models: defineModels(sequelize),
    told(now: Changes) {
      if (now.writes !== known.writes) kept = new Map();
      if (now.wholes !== known.wholes) lasting.clear(); // all rows may be others now
      known = now;
    },
    kept<T>(name: string, reckon: () => Promise<T>) {
      const known = kept.get(name) as Promise<T> | undefined;
      if (known) return known;
      const own = kept;
      const made = reckon();
      own.set(name, made);
      made.catch(() => own.delete(name)); // what failed is tried again
      return made;
    },
    keptWhile<T>(name: string, sign: string, reckon: () => Promise<T>) {
      const known = lasting.get(name);
      if (known?.sign === sign) return known.made as Promise<T>;
      const made = reckon();
      lasting.set(name, { sign, made });
      made.catch(() => lasting.delete(name)); // what failed is tried again
      return made;
    },
    select<Row>(sql: string, values: Record<string, unknown> = {}, transaction?: Transaction) {
      return sequelize.query(sql, { replacements: values, type: QueryTypes.SELECT, transaction }) as unknown as Promise<
        Row[]
      >;
    },
  };
}

/** A workshop that is open elsewhere, to be read beside it: what it keeps holds until it is told of changes. */
export interface Reader {
  store: Store;
  told(now: Changes): void;
}

/** Opens the database of a folder that this process holds already, for reading only. */
export async function openReader(folder: string): Promise<Reader> {
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: databaseIn(folder), logging: false });
  await sequelize.query('PRAGMA query_only = ON');
  const { told, ...read } = readsOf(sequelize);
  let changes: Changes = { writes: 0, wholes: 0 };
  const noWrite = () => Promise.reject(new Error('This store is only read from.'));
  return {
    told: (now) => told((changes = now)),
    store: {
      ...{ folder, asItWasLeft: false, isOnlyRead: true, ...read },
      ...{ vouch: () => undefined, changes: () => changes, write: noWrite, alone: noWrite },
      close: () => sequelize.close(),
    },
  };
}

/**
 * Opens (or makes) the data folder, holds it for this process and brings its tables up to date.
 * @param copy how a copy is named that lies in the folder to be judged; left out: it is the workshop itself
 * @throws Fault or FolderInUse in words
 */
export async function openStore(folder: string, copy?: Named): Promise<Store> {
  try {
    return await open(folder, copy ?? workshopIn(folder), copy === undefined);
  } catch (error) {
    throw faultIn(error, folder) ?? error;
  }
}

async function open(folder: string, named: Named, mayCopy: boolean): Promise<Store> {
  prepareFolder(folder, named);
  const unlock = await lockFolder(folder);
  sweepLeftovers(folder);
  const asItWasLeft = isAsLeft(folder);
  let vouchedFor = asItWasLeft;
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage: databaseIn(folder),
    logging: false,
    transactionType: Transaction.TYPES.IMMEDIATE,
  });
  try {
    await quickCheck(asking(sequelize), named);
    await sequelize.query('PRAGMA journal_mode = WAL');
    await bringUpToDate(sequelize, { folder, named, mayCopy });
  } catch (error) {
    await sequelize.close();
    await unlock();
    throw error;
  }
  const check = sameFiles(folder);
  let turn: Promise<unknown> = Promise.resolve();
  let changes: Changes = { writes: 0, wholes: 0 };
  const { told, ...read } = readsOf(sequelize);
  // What is read while a write goes on may be of before it: with its end all of it is reckoned anew.
  const writing = <T>(work: () => Promise<T>, what: 'records' | 'readings' = 'records'): Promise<T> => {
    const result = turn.then(() => {
      check();
      return work();
    });
    const ended = result.finally(() => {
      if (what === 'readings') return; // nothing that is kept is reckoned from them
      told((changes = { ...changes, writes: changes.writes + 1 }));
    });
    turn = ended.catch(() => undefined); // the next in line does not care how this one ended
    return ended;
  };
  return {
    folder,
    asItWasLeft,
    vouch: () => void (vouchedFor = true),
    ...read,
    isOnlyRead: false,
    write: (work, what) => writing(() => sequelize.transaction(work), what),
    changes: () => changes,
    alone: (work) =>
      writing(async () => {
        try {
          return await work();
        } finally {
          told((changes = { ...changes, wholes: changes.wholes + 1 }));
        }
      }),
    async close() {
      await turn.catch(() => undefined);
      await sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)').catch(() => undefined); // the log of the database keeps it
      await sequelize.close();
      if (vouchedFor) leave(folder);
      await unlock();
    },
  };
}

/** SQLite keeps neither JSON nor truth: what its text and its 0 and 1 become. */
const OUT_OF_SQLITE: Partial<Record<string, (raw: unknown) => unknown>> = {
  JSON: (raw) => (typeof raw === 'string' ? JSON.parse(raw) : raw),
  BOOLEAN: (raw) => (typeof raw === 'number' ? raw !== 0 : raw),
};

/** Plain rows of a model, without an instance of it for each: lists are most of what is asked. */
export async function rowsOf<Row extends object>(
  model: ModelStatic<Model<Row, Row>>,
  options: FindOptions<Row> = {},
): Promise<Row[]> {
  const columns = Object.entries<ModelAttributeColumnOptions>(model.getAttributes());
  // With no table named, it is not asked for its columns before each query: the model knows them.
  const asked = { attributes: columns.map(([name]) => name), ...options, raw: true, tableNames: [] };
  const rows = (await model
    .sequelize!.getQueryInterface()
    .select(model, model.getTableName() as string, asked)) as Record<string, unknown>[];
  for (const [column, { type }] of columns) {
    const read = OUT_OF_SQLITE[(type as AbstractDataType).key];
    if (read) for (const row of rows) if (column in row) row[column] = read(row[column]);
  }
  return rows as Row[];
}

/** Writes rows, in the place of those of the same key: one statement, however many. */
export async function putRows<Row extends object>(
  model: ModelStatic<Model<Row, Row>>,
  rows: readonly Row[],
  transaction: Transaction,
): Promise<void> {
  if (rows.length === 0) return;
  const others = Object.keys(model.getAttributes()).filter((name) => !model.primaryKeyAttributes.includes(name));
  const given = others.filter((name) => name in rows[0]!) as (keyof Row)[];
  await model.bulkCreate(rows as never, { updateOnDuplicate: given, transaction });
}
