import { listPours, addPourEntries, pourAhead, poursOnList, readPour, startPour } from '../services/pours.ts';
import { planView, releaseOrder, type Planned } from '../services/orders.ts';
import { orderGoods } from '../services/goods.ts';
import { poursSign } from '../services/cavities.ts';
import {
  costOfProduct,
  makeables,
  metalEver,
  metalOfPours,
  monthsOfBooks,
  quality,
  salesOf,
} from '../services/books.ts';
import { changesOf } from '../services/changes.ts';
import { lotQuality } from '../services/lot-quality.ts';
import { openRuns, readRun } from '../services/run-views.ts';
import { addRunEntries } from '../services/runs.ts';
import {
  EVER,
  bakesOnRecord,
  bookedPeriod,
  listTickets,
  plansHeld,
  readTicket,
  ticketsOnList,
} from '../services/ticket-figures.ts';
import { addTicketEntries } from '../services/tickets.ts';
import { takeOverProduct } from '../services/take-over.ts';
import { readTonight } from '../services/tonight.ts';
import { ticketsOfLot, traceTicket } from '../services/trace.ts';
import type { Store } from '../store/store.ts';
import { periodOf } from './request.ts';
import type { Handlers } from './router.ts';

/** Pours of a mold that are looked at whole, the newest: what it is learned from, however many years there are. */
const WHOLE_OF_A_MOLD = 24;

/**
 * Orders as tickets, and what is said of tickets, pours and runs.
 * @param planned makes the plan that an order is released by
 */
export const jobHandlers = (store: Store, planned: Planned = (id) => planView(store, id)) =>
  ({
    'GET /orders/:id/plan': ({ params }) => planView(store, params.id),
    'GET /orders/:id/tickets': ({ params }) => listTickets(store, { orderId: params.id }),
    'GET /orders/:id/goods': ({ params }) => orderGoods(store, params.id),
    'POST /orders/:id/release': async ({ params }) => {
      await releaseOrder(store, params.id, Date.now(), planned);
      return listTickets(store, { orderId: params.id });
    },

    'GET /tonight': () => store.kept('tonight', () => readTonight(store)),
    'GET /line': async () => {
      const [tickets, pours, runs] = await Promise.all([
        listTickets(store, { open: true }),
        listPours(store, { open: true }),
        openRuns(store),
      ]);
      return { tickets, pours, runs };
    },
    'GET /tickets': ({ query }) => ticketsOnList(store, periodOf(query)),
    'GET /bakes': ({ query }) => bakesOnRecord(store, periodOf(query)),
    'GET /books/period': () => bookedPeriod(store),
    'GET /stock/makes': () => makeables(store),
    'GET /books/metal': ({ query }) => metalOfPours(store, periodOf(query)),
    'GET /books/metal/ever': async () => store.keptWhile('metal ever', await poursSign(store), () => metalEver(store)),
    'GET /books/months': () => store.kept('months', () => monthsOfBooks(store)),
    'GET /books/plans': ({ query }) => plansHeld(store, periodOf(query)),
    'GET /books/sales': ({ query }) => {
      const { from, to } = periodOf(query) ?? EVER;
      return store.kept(`sales ${from} ${to}`, () => salesOf(store, { from, to }));
    },
    'GET /books/changes': ({ query }) => {
      const { from, to } = periodOf(query) ?? EVER;
      return store.kept(`changes ${from} ${to}`, () => changesOf(store, { from, to }));
    },
    'GET /books/quality': ({ query }) => quality(store, periodOf(query)),
    'GET /books/cost/:id': ({ params, query: { heads } }) =>
      store.kept(`cost of ${params.id}, ${heads}`, () => costOfProduct(store, params.id, heads)),
    'GET /tickets/:id': ({ params }) => readTicket(store, params.id),
    'GET /trace/tickets/:number': ({ params }) => traceTicket(store, params.number),
    'GET /trace/lots': () => store.kept('lots by quality', () => lotQuality(store)),
    'GET /trace/lots/:receipt': ({ params }) => ticketsOfLot(store, params.receipt),
    'POST /tickets/:id/product': async ({ params }) => {
      await takeOverProduct(store, params.id);
      return readTicket(store, params.id);
    },
    'POST /tickets/:id/entries': ({ params, body, clock }) => addTicketEntries(store, params.id, [body], clock),

    'GET /pours': ({ query }) => poursOnList(store, query.before),
    'GET /pours/whole': ({ query: { mold, at } }) =>
      listPours(store, { moldId: mold, at, ...(mold ? { last: WHOLE_OF_A_MOLD } : {}) }),
    'POST /pours': ({ body }) => startPour(store, body),
    'POST /pours/prepare': ({ body }) => pourAhead(store, body),
    'GET /pours/:id': ({ params }) => readPour(store, params.id),
    'POST /pours/:id/entries': ({ params, body, clock }) => addPourEntries(store, params.id, [body], clock),

    'GET /runs/:kind/:id': ({ params }) => readRun(store, params.kind, params.id),
    'POST /runs/:kind/:id/entries': ({ params, body, clock }) =>
      addRunEntries(store, params.kind, params.id, [body], clock),
  }) satisfies Partial<Handlers>;
