import { body, csv, json, made, nothing, row } from './route.ts';
import { cleanSchema, importQuerySchema, lotSchema } from './schema/records.ts';
import { beforeQuerySchema, skipQuerySchema } from './schema/runs.ts';
import { putAwaySchema, takeTemplateSchema } from './schema/workshop.ts';
import { countSchema, goodsSchema, lotOfTicketSchema, parcelSchema, receiptSchema } from './schema/stock.ts';
import type {
  GoodsMove,
  GoodsOnShelf,
  ImportOnRecord,
  ImportResult,
  JarView,
  LeadLot,
  PartLot,
  Product,
  StockFlow,
  StockMove,
  UsedWeekly,
} from './views.ts';
import type { EveningsResult, PaperView } from './books-views.ts';
import type { Route } from './route.ts';

/** What comes to the shelves and goes: parts and their lots, lead by the lot, finished heads. */
export const STOCK_ROUTES = {
  'POST /materials/import': {
    operation: 'import_receipts',
    summary: 'Purchases from CSV: material, quantity, price, on, lot',
    query: importQuerySchema,
    body: csv,
    answer: json<ImportResult>(),
  },
  'POST /evenings/import': {
    operation: 'import_evenings',
    summary: 'Evenings that were kept on paper, from CSV: on, name, mold, product, good, casts, minutes, note',
    query: importQuerySchema,
    body: csv,
    answer: json<EveningsResult>(),
  },
  'GET /evenings/paper': {
    operation: 'list_paper_evenings',
    summary: 'Evenings that were kept on paper, newest first, a page at a time; and what they come to by mold',
    query: skipQuerySchema,
    answer: json<PaperView>(),
  },
  'GET /imports': {
    operation: 'list_imports',
    summary: 'Files that were taken in, newest first',
    answer: json<ImportOnRecord[]>(),
  },
  'POST /put-away': {
    operation: 'put_away',
    summary: 'Take a material, mold or product off the lists, or bring it back; its records stay',
    body: body(putAwaySchema),
    answer: nothing,
  },
  'POST /products/from-template': {
    operation: 'take_template',
    summary: 'Make a product that the trade knows, with the parts that are not on the shelf yet',
    body: body(takeTemplateSchema),
    answer: json<Product>(),
  },
  'POST /imports/:id/strike': {
    operation: 'strike_import',
    summary: 'Undo an import, all of it or nothing',
    answer: nothing,
  },
  'POST /moves/:id/strike': {
    operation: 'strike_move',
    summary: 'Strike a purchase or a count out',
    parts: { id: row('movement') },
    answer: nothing,
  },
  'POST /materials/:id/receipts': {
    operation: 'receive',
    summary: 'A purchase comes in',
    body: body(receiptSchema),
    answer: nothing,
  },
  'POST /parcels': {
    operation: 'receive_parcel',
    summary: 'Purchases that came together, with freight shared by value or mass: all of them, or none',
    body: body(parcelSchema),
    answer: json<{ shares: number[] }>(),
  },
  'POST /materials/:id/counts': {
    operation: 'count',
    summary: 'What the scale or a count says is there',
    body: body(countSchema),
    answer: json<{ difference: number }>(),
  },
  'GET /materials/:id/moves': {
    operation: 'moves',
    summary: 'Movements of one material, newest first',
    answer: json<StockMove[]>(),
  },
  'GET /materials/:id/flows': {
    operation: 'flows',
    summary: 'All that came and went of a material, by reason',
    answer: json<StockFlow[]>(),
  },
  'GET /materials/:id/lots': {
    operation: 'part_lots',
    summary: 'Lots of a part: what is left of each, and which tickets used it',
    answer: json<PartLot[]>(),
  },
  'PUT /materials/:id/lots/:receipt': {
    operation: 'name_lot',
    summary: 'Name the lot that a ticket uses from now on',
    parts: { receipt: row('lot') },
    body: body(lotOfTicketSchema),
    answer: nothing,
  },
  'GET /jars': {
    operation: 'list_jars',
    summary: 'Powders with their weighings: gone by the scale, on heads by the coverage formula',
    answer: json<JarView[]>(),
  },

  'GET /stock/use': {
    operation: 'used_weekly',
    summary: 'What was used of each part in each of the last 26 weeks',
    answer: json<UsedWeekly[]>(),
  },

  'GET /goods': {
    operation: 'list_goods',
    summary: 'Finished heads on the shelf by product and grade, with the tickets that made them',
    answer: json<GoodsOnShelf[]>(),
  },
  'GET /goods/moves': {
    operation: 'goods_moves',
    summary: 'What came to that shelf and went, newest first, in pages',
    query: beforeQuerySchema,
    answer: json<GoodsMove[]>(),
  },
  'POST /goods/moves': {
    operation: 'move_goods',
    summary: 'Heads are sold, given away, come back, are scrapped or counted: all lines or none',
    body: body(goodsSchema),
    answer: nothing,
  },
  'POST /goods/moves/:id/strike': {
    operation: 'strike_goods',
    summary: 'Strike out what was said in one go of finished heads',
    answer: nothing,
  },

  'GET /lead-lots': {
    operation: 'list_lots',
    summary: 'Lots of lead: what is left of each and where it went',
    answer: json<LeadLot[]>(),
  },
  'POST /lead-lots': {
    operation: 'add_lot',
    summary: 'A delivery of lead',
    body: body(lotSchema),
    answer: made<LeadLot>(),
  },
  'POST /lead-lots/:id/clean': {
    operation: 'clean_lot',
    summary: 'A dirty lot was melted down and skimmed',
    body: body(cleanSchema),
    versioned: true,
    answer: json<LeadLot>(),
  },
  'POST /lead-lots/:id/strike': { operation: 'strike_lot', summary: 'Strike a lot of lead out', answer: nothing },
} as const satisfies Record<string, Route>;
