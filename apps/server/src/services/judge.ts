import { Ajv2020, type ErrorObject, type ValidateFunction } from 'ajv/dist/2020.js';
import {
  fieldProblems,
  RECORD_KINDS,
  RESOURCES,
  routeStepSchema,
  settingsSchema,
  type ResourcePath,
} from '@schmelz/contract';
import { MOST_STEPS, pourState, RUN_KINDS } from '@schmelz/core';
import { array, object, ValidationError, type AnySchema } from 'yup';
import { answers } from '../openapi/answers.ts';
import { judgeCells, saidOf } from '../store/document.ts';
import { Fault } from '../store/fault.ts';
import { workshopIn } from '../store/inspect.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { metalEver, metalOfPours, monthsOfBooks, quality, salesOf } from './books.ts';
import { listMolds } from './cavities.ts';
import { changesOf } from './changes.ts';
import { Refused } from './errors.ts';
import { listGoods, orderGoods } from './goods.ts';
import { listJars } from './jars.ts';
import { lotQuality } from './lot-quality.ts';
import { listLots } from './lots.ts';
import { planView } from './orders.ts';
import { listPours } from './pours.ts';
import { listChannels } from './readings.ts';
import { listRecords } from './records.ts';
import { listResources } from './resources.ts';
import { readRuns } from './run-views.ts';
import { readSettings } from './settings.ts';
import { listMaterials } from './stock.ts';
import { bakesOnRecord, EVER, listTickets, ticketsOnList } from './ticket-figures.ts';
import { readTonight } from './tonight.ts';

/** What lies in a table may be of before a text was given its longest; nothing breaks for that. */
const HARMLESS = ['noUnknown', 'optionality', 'nullable'];
const isHarmless = ({ type, value, params }: ValidationError) =>
  HARMLESS.includes(type ?? '') ||
  type?.startsWith('across ') ||
  value === undefined ||
  value === null ||
  (typeof value === 'string' && ['max', 'min'].includes(type ?? '') && params !== undefined);

/** A thing as it lies in its tables, judged by what its form takes. @throws Fault with field and what is allowed */
function judgeThing(schema: AnySchema, thing: object, called: string): void {
  try {
    schema.validateSync(thing, { strict: true, abortEarly: false, disableStackTrace: true });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = (error.inner.length ? error.inner : [error]).filter((each) => !isHarmless(each));
    const [first] = fieldProblems(Object.assign(error, { inner }), schema);
    if (inner.length > 0 && first) throw new Fault(`${called}: ${first.message}.`);
  }
}

const ajv = new Ajv2020({ strict: false, verbose: true });
const shapes = new Map<string, ValidateFunction>();

/** What is said of the place that is wrong, deepest first: of a choice between shapes, the one that went furthest. */
function worst(errors: readonly ErrorObject[]): string {
  const depth = ({ instancePath }: ErrorObject) => instancePath.split('/').length;
  const deepest = errors.reduce((best, each) => (depth(each) > depth(best) ? each : best));
  const { instancePath, data, message, params } = deepest;
  const allowed = (params as { allowedValues?: unknown[] }).allowedValues?.slice(0, 20).join(', ');
  const place = instancePath.slice(1).replaceAll('/', ' ') || 'the whole';
  return `${place} is ${saidOf(data)}; ${allowed ? `allowed: ${allowed}` : message}`;
}

/** What a page is given, judged by the shape that it was compiled for. @throws Fault */
function judgeShape(route: string, given: unknown, called: string): void {
  const judge =
    shapes.get(route) ?? ajv.compile({ ...answers.of(route), components: { schemas: answers.definitions } });
  shapes.set(route, judge);
  if (!judge(given)) throw new Fault(`${called}: ${worst(judge.errors!)}.`);
}

const nameOf = (thing: object): string => {
  const { name, number, id } = thing as { name?: unknown; number?: unknown; id?: unknown };
  return String(name ?? number ?? id ?? '');
};

const routeSchema = object({ route: array().of(routeStepSchema).required().min(1).max(MOST_STEPS) });

type Reader = (store: Store, called: string) => Promise<void>;

/** Things as their forms take them. */
const THINGS: [string, Reader][] = (Object.keys(RESOURCES) as ResourcePath[]).map((path) => [
  path,
  async (store) => {
    const { schema, one } = RESOURCES[path];
    for (const thing of await listResources(store, path)) judgeThing(schema, thing, `${one} ${nameOf(thing)}`);
  },
]);

/** What every page rests on, each by its name. */
const READERS: Readonly<Record<string, Reader>> = {
  settings: async (store, called) => judgeThing(settingsSchema, (await readSettings(store)).settings, called),
  materials: async (store, called) => judgeShape('GET /materials', await listMaterials(store), called),
  molds: async (store, called) => judgeShape('GET /molds', await listMolds(store), called),
  tickets: async (store) => {
    for (const { number, route } of await rowsOf(store.models.tickets)) {
      judgeThing(routeSchema, { route }, `ticket ${number}`);
    }
    for (const ticket of await listTickets(store)) judgeShape('GET /tickets/:id', ticket, `ticket ${ticket.number}`);
  },
  'tickets on the list': async (store, called) => judgeShape('GET /tickets', await ticketsOnList(store), called),
  pours: async (store) => {
    for (const pour of await listPours(store)) {
      judgeShape('GET /pours/:id', pour, `pour ${pour.number}`);
      pourState(pour.setup, pour.log);
    }
  },
  runs: async (store) => {
    for (const run of await readRuns(store, {})) {
      const called = `${RUN_KINDS[run.kind]?.name ?? run.kind} ${run.number}`;
      judgeShape('GET /runs/:kind/:id', run, called);
      RUN_KINDS[run.kind].heads(run.log);
    }
  },
  records: async (store, called) => {
    for (const kind of RECORD_KINDS) judgeShape('GET /records/:kind', await listRecords(store, kind), called);
  },
  orders: async (store) => {
    for (const order of await listResources(store, 'orders')) {
      judgeShape('GET /orders/:id', order, `order ${order.number}`);
      if (order.status === 'done') continue;
      judgeShape('GET /orders/:id/goods', await orderGoods(store, order.id), `order ${order.number}`);
      if (order.status === 'open') await asked(planView(store, order.id));
    }
  },
  'what is open': async (store, called) => judgeShape('GET /tonight', await readTonight(store), called),
  'finished heads': async (store, called) => judgeShape('GET /goods', await listGoods(store), called),
  lead: async (store, called) => judgeShape('GET /lead-lots', await listLots(store), called),
  jars: async (store, called) => judgeShape('GET /jars', await listJars(store), called),
  probes: async (store, called) => judgeShape('GET /channels', await listChannels(store), called),
  bakes: async (store, called) => judgeShape('GET /bakes', await bakesOnRecord(store, null), called),
  months: async (store, called) => judgeShape('GET /books/months', await monthsOfBooks(store), called),
  sales: async (store, called) => judgeShape('GET /books/sales', await salesOf(store, EVER), called),
  changes: async (store, called) => judgeShape('GET /books/changes', await changesOf(store, EVER), called),
  quality: async (store, called) => judgeShape('GET /books/quality', await quality(store, null), called),
  metal: async (store, called) => judgeShape('GET /books/metal', await metalOfPours(store, null), called),
  'all metal': async (store, called) => judgeShape('GET /books/metal/ever', await metalEver(store), called),
  'lots by quality': async (store, called) => judgeShape('GET /trace/lots', await lotQuality(store), called),
};

/** A workshop in which something is still to be set up says so on its pages, and is whole. */
const asked = (work: Promise<unknown>): Promise<unknown> =>
  work.catch((error: unknown) => {
    if (!(error instanceof Refused)) throw error;
  });

/**
 * Reads a workshop as its pages do, and judges what they would be given: tables that hang together may still hold what
 * no page can draw. One judge for a file that is taken in, a copy that is put back, and a start.
 * @throws Fault that names what cannot be read, and why
 */
export async function judgeWorkshop(store: Store): Promise<void> {
  const [broken] = await store.select<{ table: string; parent: string }>('PRAGMA foreign_key_check');
  if (broken) throw new Fault(`${broken.table} names a row of ${broken.parent} that is not there.`);
  await judgeCells(<T>(sql: string) => store.select<T>(sql));
  for (const [what, read] of [...THINGS, ...Object.entries(READERS)]) {
    await asked(read(store, what)).catch((error: unknown) => {
      const why = (error as Error).message.replace(/\.$/, '');
      if (error instanceof Fault) throw new Fault(`what it says of ${what} cannot be read: ${why}.`);
      throw new Fault(`what it says of ${what} is in no form that pages can read (${why}).`);
    });
  }
}

/**
 * Judges the workshop of a data folder when it is opened, unless nobody but Schmelz has written to it.
 * @throws Fault with the copy that can be put in its place
 */
export async function judgeAtStart(store: Store): Promise<void> {
  if (store.asItWasLeft) return;
  const { called, advice } = workshopIn(store.folder);
  await judgeWorkshop(store).catch((error: unknown) => {
    if (!(error instanceof Fault)) throw error;
    throw new Fault(
      `${called} is damaged, or was changed by another program. What is wrong: ${error.message} ${advice()}`,
    );
  });
  store.vouch();
}
