import { randomUUID } from 'node:crypto';
import {
  BEND_S,
  countAll,
  handsOfPour,
  kindOfMetal,
  METAL_WANTED_NAMES,
  metalKind,
  metalTaken,
  willDo,
  headsOwed,
  headsWithPin,
  knownMetal,
  opensPour,
  pinInWorkM,
  pinLimits,
  pinsSay,
  pourConflict,
  pourProblem,
  pourRefusal,
  pourShares,
  pourState,
  preparePour,
  asPlanned,
  byCavities,
  onBestMold,
  type MoldShares,
  takesAway,
  ticketState,
  withinPins,
  type Pins,
  type PlanLine,
  type PourEntry,
  type PourLog,
  type UndoEntry,
} from '@schmelz/core';
import type { Material, Pour, PourAhead, PourOnList, StartPourInput } from '@schmelz/contract';
import { Op, type Transaction } from 'sequelize';
import type { PourRow } from '../store/models.ts';
import { putRows, rowsOf, type Store } from '../store/store.ts';
import { append, readLogs, type Keeper } from './append.ts';
import { notAllowed, notFound } from './errors.ts';
import { nextNumber } from './orders.ts';
import {
  downTheLine,
  loadTickets,
  readYieldAfterPour,
  setupOf,
  syncTicket,
  ticketLog,
  type LoadedTicket,
} from './tickets.ts';
import { countedParts } from './stock.ts';
import { castingLead, readWorkshop, type Workshop } from './workshop.ts';

function pourView(row: PourRow, log: (PourEntry | UndoEntry)[]): Pour {
  const { pourC, alloy, potWay, roomC, potPowerW, potLossWPerK, potCrucibleJPerK, blocks, ...planned } = row.planned;
  const { id, version, number, potId, startedAt } = row;
  return {
    id,
    version,
    number,
    potId,
    startedAt,
    closed: row.closedAt !== null,
    setup: row.setup,
    plannedMeltS: planned.meltS,
    plannedChargeKg: planned.chargeKg,
    plannedS: planned.plannedS,
    knownThen: { pourC, alloy, potWay, roomC, potPowerW, potLossWPerK, potCrucibleJPerK, blocks },
    log,
  };
}

const poursOfMold = async (store: Store, moldId: string) =>
  (await rowsOf(store.models.pourMolds, { where: { moldId } })).map((row) => row.pourId);

/** Pours with their logs, newest first. */
export async function listPours(
  store: Store,
  which: { open?: boolean; id?: string; moldId?: string; at?: number; last?: number } = {},
): Promise<Pour[]> {
  const { open, id, moldId, at, last } = which;
  const where = {
    ...(open ? { closedAt: null } : {}),
    ...(id ? { id } : {}),
    ...(moldId ? { id: await poursOfMold(store, moldId) } : {}),
    ...(at ? { startedAt: { [Op.lte]: at }, [Op.or]: [{ closedAt: null }, { closedAt: { [Op.gte]: at } }] } : {}),
  };
  const rows = await rowsOf(store.models.pours, { where, order: [['number', 'DESC']], limit: last });
  const logs = await readLogs<PourEntry>(
    store,
    'pour',
    rows.map((row) => row.id),
  );
  return rows.map((row) => pourView(row, logs.get(row.id) ?? []));
}

/** Pours that a list shows at once. */
const PAGE = 50;

/** Pours without their logs, newest first, a page at a time: those before a number where one is given. */
export async function poursOnList(store: Store, before = Infinity): Promise<PourOnList[]> {
  const where = Number.isFinite(before) ? { number: { [Op.lt]: before } } : {};
  const rows = await rowsOf(store.models.pours, { where, order: [['number', 'DESC']], limit: PAGE });
  return rows.map(({ id, number, startedAt, closedAt, setup }) => {
    return { id, number, startedAt, closed: closedAt !== null, moldIds: setup.molds.map(({ moldId }) => moldId) };
  });
}

export async function readPour(store: Store, id: string): Promise<Pour> {
  const [pour] = await listPours(store, { id });
  if (!pour) throw notFound('pour', id);
  return pour;
}

/** What each ticket still wants from the pot: of those that may be poured now. */
async function wantedOf(store: Store, ticketIds: readonly string[], transaction?: Transaction) {
  const all = await loadTickets(store, { id: [...ticketIds] }, transaction);
  const missing = ticketIds.find((id) => !all.some(({ row }) => row.id === id));
  if (missing) throw notFound('ticket', missing);
  const after = await readYieldAfterPour(store, transaction);
  return all.map((loaded) => {
    const { id, number, product, quantity, closedAt, source } = loaded.row;
    if (closedAt !== null) throw notAllowed(`Ticket ${number} is closed.`);
    if (source === 'shelf') throw notAllowed(`The heads of ticket ${number} come off the shelf.`);
    if (loaded.pours.some((pour) => !pour.closed))
      throw notAllowed(`Ticket ${number} is in another pour that is still open.`);
    const setup = setupOf(loaded);
    const { toCast } = headsOwed({ quantity, ...setup }, ticketState(setup, ticketLog(loaded)), after);
    if (toCast === 0) throw notAllowed(`Ticket ${number} has all its heads.`);
    return { id, number, product, quantity: toCast, leadId: loaded.pours[0]?.leadId ?? null };
  });
}

/** Pins that are in heads under way, over all open tickets. */
const pinsInWork = async (store: Store, workshop: Workshop): Promise<Pins[]> =>
  workshop.pins.length === 0 ? [] : pinsInHeads(await loadTickets(store, { closedAt: null }), workshop);

/** Pins that are in the heads of these tickets. */
export function pinsInHeads(tickets: readonly LoadedTicket[], { ways, molds }: Workshop): Pins[] {
  return tickets.flatMap((loaded) => {
    const { product } = loaded.row;
    const diameterM = pinInWorkM(product, molds, ways.schools);
    if (diameterM === null) return [];
    const state = ticketState(setupOf(loaded), ticketLog(loaded));
    return [{ diameterM, count: headsWithPin(state, product, ways.schools) }];
  });
}

type WantedByTicket = Awaited<ReturnType<typeof wantedOf>>;

/** The metal that is poured: as was said, as the products of the tickets have it, or the soft lead there is most of. */
function leadFor(workshop: Workshop, leadId: string | null | undefined, wanted: WantedByTicket): Material {
  const [first] = wanted;
  const other = wanted.find(({ product }) => kindOfMetal(product) !== kindOfMetal(first!.product));
  if (!leadId && other) {
    const of = ({ number, product }: WantedByTicket[number]) =>
      `ticket ${number} is cast in ${METAL_WANTED_NAMES[kindOfMetal(product)]}`;
    throw notAllowed(`One pot, one metal: ${of(first!)}, ${of(other)}. Pour them one after the other.`);
  }
  const id = leadId ?? first?.product.metal?.materialId ?? castingLead(workshop).materialId;
  const lead = workshop.materials.get(id);
  if (!lead) throw notFound('material', id);
  if (lead.kind !== 'lead') throw notAllowed(`leadId names ${lead.name}, which is no lead.`);
  const asks = wanted.find(({ product }) => !willDo(metalKind(lead.metalId), product.wantsMetal));
  if (asks) {
    const { wantsMetal } = asks.product;
    throw notAllowed(`Ticket ${asks.number} asks for ${METAL_WANTED_NAMES[wantsMetal!]}; ${lead.name} is none.`);
  }
  return lead;
}

/** Which mold casts what: as the evening was planned, shared by cavities, or each head on its best one. */
function sharesOf({ planned, spread }: StartPourInput): MoldShares {
  if (!planned?.length) return spread ? byCavities : onBestMold;
  return asPlanned(({ product }, moldId) =>
    planned.reduce((sum, each) => sum + (each.ticketId === product.id && each.moldId === moldId ? each.casts : 0), 0),
  );
}

/** Everything that a pour of these tickets goes by, and what it rests on; nothing is kept. */
async function prepared(store: Store, input: StartPourInput) {
  const ticketIds = [...new Set(input.ticketIds)];
  const wanted = await wantedOf(store, ticketIds);
  const workshop = await readWorkshop(store);
  const molds = [...new Set(input.moldIds)].map((id) => {
    const mold = workshop.molds.find((each) => each.id === id);
    if (!mold) throw notFound('mold', id);
    return mold;
  });
  const pot = workshop.pots.find((each) => each.id === input.potId);
  if (!pot) throw notFound('pot', input.potId);
  const lead = leadFor(workshop, input.leadId, wanted);
  const metal = metalTaken(null, [lead]);
  // In a pour the ticket stands in the product's place: cavities are loaded for tickets.
  const all = wanted.map(({ id, product, quantity }): PlanLine => ({ product: { ...product, id, metal }, quantity }));
  const pins = { ...workshop, molds, pinsInWork: await pinsInWork(store, workshop) };
  const lines = withinPins(all, pins);
  if (lines.length === 0) throw notAllowed(pinsSay(pinLimits(all, pins)[0]!));
  const problem = pourProblem({ lines, molds });
  if (problem) throw notAllowed(problem);
  const other = wanted.find(({ leadId }) => leadId !== null && leadId !== lead.id);
  if (other) throw notAllowed(`Ticket ${other.number} was begun in another metal: pour it in that one.`);
  const { atOnce } = input;
  const shares = sharesOf(input);
  const alloy = knownMetal(lead);
  const hooksHere = await countedParts(store);
  const pour = preparePour({ lines, molds, atOnce, shares, pot, ways: workshop.ways, alloy, hooksHere });
  const pinned = new Set(lines.map(({ product }) => product.id));
  // A ticket that is not cast in this pour is named, with what keeps it from it.
  const leftOut = wanted.flatMap(({ id, number, product: { name } }): PourAhead['leftOut'] => {
    if (!pinned.has(id)) return [{ id, number, name, why: 'no pin is free for it' }];
    return pour.setup.needs[id] === undefined ? [{ id, number, name, why: OTHER_HOOK }] : [];
  });
  return { ticketIds, wanted, workshop, pot, lead, hooksHere, pour, leftOut };
}
const OTHER_HOOK = 'another hook, or a lighter head, goes into its cavities first';

/** What a pour would take, as it would go by it: for the desk, before it is begun. */
export async function pourAhead(store: Store, input: StartPourInput): Promise<PourAhead> {
  const { workshop, lead, hooksHere, pour, leftOut } = await prepared(store, input);
  const { setup, planned, takes } = pour;
  const needOf = (materialId: string, need: number, have: number) => {
    const { name, kind } = workshop.materials.get(materialId)!;
    return { materialId, name, kind, need, have, missing: Math.max(0, need - have) };
  };
  const { casts, tickets, castIn, leadKg } = takes;
  return {
    ...{ casts, tickets, leftOut, plannedS: planned.plannedS, chargeKg: planned.chargeKg },
    molds: setup.molds.map(({ moldId, plannedBlanks: blanks, plannedShots: shots }) => ({ moldId, blanks, shots })),
    needs: [
      needOf(lead.id, leadKg, lead.quantity),
      // What nobody keeps count of is not short.
      ...castIn.map(({ materialId, pieces }) => needOf(materialId, pieces, hooksHere[materialId] ?? pieces)),
    ],
    bent: (setup.bent ?? []).map(({ materialId, says }) => {
      const { name } = workshop.materials.get(materialId)!;
      return { materialId, name, says, seconds: BEND_S * (setup.hooksOut[materialId] ?? 0) };
    }),
  };
}

/**
 * One pour of several tickets, on the molds named, with all that the bench goes by. It is prepared outside the
 * transaction, which then sees that nothing it rests on has changed: of two starts at once for one ticket, one is
 * refused.
 */
export async function startPour(store: Store, input: StartPourInput, at = Date.now()): Promise<Pour> {
  const { ticketIds, wanted, pot, lead, pour } = await prepared(store, input);
  const { setup, planned } = pour;
  const leadId = lead.id;
  return store.write(async (transaction) => {
    const now = await wantedOf(store, ticketIds, transaction);
    if (now.some(({ quantity }, index) => quantity !== wanted[index]!.quantity)) {
      throw notAllowed('Heads of these tickets were poured meanwhile; look at the pour desk again.');
    }
    const row: PourRow = {
      id: randomUUID(),
      number: await nextNumber(store, 'pours', 1, transaction),
      moldId: setup.molds[0]!.moldId,
      potId: pot.id,
      leadId,
      startedAt: at,
      closedAt: null,
      setup,
      planned,
      chargedKg: 0,
      shots: 0,
      hands: null,
      heldUp: null,
      version: 1,
    };
    await store.models.pours.create(row, { transaction });
    await syncPour(store, row, [], transaction);
    return pourView(row, []);
  });
}

/** Why a closed pour may not be opened again: a ticket of it is in another pour by now. */
async function openingRefusal(store: Store, { id, setup }: PourRow, transaction: Transaction): Promise<string | null> {
  const ids = Object.keys(setup.needs);
  const [other] = await store.select<{ ticket: number; pour: number }>(
    `SELECT t.number AS ticket, p.number AS pour FROM pourTickets pt
     JOIN pours p ON p.id = pt.pourId JOIN tickets t ON t.id = pt.ticketId
     WHERE pt.ticketId IN (:ids) AND p.closedAt IS NULL AND p.id <> :id`,
    { ids, id },
    transaction,
  );
  return other ? `Ticket ${other.ticket} is in pour ${other.pour} by now, which is still open.` : null;
}

/** Appends entries to a pour's log; an id that is there already is skipped. All or none are taken. */
export async function addPourEntries(
  store: Store,
  pourId: string,
  entries: (PourEntry | UndoEntry)[],
  deviceNow: number | null = null,
): Promise<void> {
  const keep = async (transaction: Transaction): Promise<Keeper<PourEntry>> => {
    const [row] = await rowsOf(store.models.pours, { where: { id: pourId }, transaction });
    if (!row) throw notFound('pour', pourId);
    const line = () => downTheLine(store, Object.keys(row.setup.needs), transaction, pourId);
    return {
      kind: 'pour',
      id: pourId,
      judge: async (log, entry) =>
        pourRefusal(row.setup, log, entry) ??
        (opensPour(row.setup, log, entry) ? await openingRefusal(store, row, transaction) : null) ??
        pourConflict(row.setup, log, entry, takesAway(row.setup, log, entry) ? await line() : []),
      sync: (log) => syncPour(store, row, log, transaction),
    };
  };
  await append<PourEntry>(store, entries, keep, deviceNow);
}

/** Brings everything that is derived from a pour's log in step with it. */
async function syncPour(store: Store, row: PourRow, log: PourLog, transaction: Transaction): Promise<void> {
  const setup = row.setup;
  const state = pourState(setup, log);
  const close = state.phase === 'closed' ? log.findLast((entry) => entry.kind === 'close') : undefined;
  const closedAt = close?.at ?? null;
  const hands = handsOfPour(state.shots);
  await store.models.pours.update(
    {
      chargedKg: state.chargedKg,
      shots: state.shots.length + state.blanks,
      closedAt,
      hands: Object.keys(hands).length > 0 ? hands : null,
      heldUp: state.heldUp,
      version: log.length === 0 ? row.version : row.version + 1,
    },
    { where: { id: row.id }, transaction },
  );
  const pourId = row.id;
  const shares = pourShares(state, setup, row.planned).map((share) => ({ pourId, ...share }));
  await putRows(store.models.pourTickets, shares, transaction);
  const molds = state.molds.map(({ moldId, shots, blanks, shotsSinceSmoked }) => {
    return { pourId, moldId, shots, blanks, shotsSinceSmoked };
  });
  await putRows(store.models.pourMolds, molds, transaction);
  const cavities = setup.loads.map(({ cavityId }) => {
    const { good, kept, rejects } = state.byCavity[cavityId]!;
    const causes: Record<string, number> = { ...rejects, ...(kept ? { 'second grade': kept } : {}) };
    const casts = good + countAll(causes);
    return { pourId, cavityId, good, rejects: causes, casts };
  });
  await putRows(store.models.pourCavities, cavities, transaction);
  if (closedAt !== null || row.closedAt !== null) {
    for (const ticketId of Object.keys(setup.needs)) {
      await syncTicket(store, ticketId, closedAt ?? Date.now(), transaction);
    }
  }
}
