import { randomUUID } from 'node:crypto';
import {
  allocate,
  BLANK_CYCLE_S,
  castingProblem,
  castsFor,
  holdingEnergyKWh,
  LEAD_MELTING_C,
  loadsOf,
  meltTime,
  moldPlan,
  pourState,
  shotsSeconds,
  type Insert,
  type PlanCavity,
  type PlanLine,
  type PourEntry,
  type PourLog,
  type PourSetup,
  type PourState,
  type UndoEntry,
} from '@schmelz/core';
import type { Pour, StartPourInput } from '@schmelz/contract';
import { Op, type Transaction } from 'sequelize';
import type { EntryRow, PourRow } from '../store/models.ts';
import { rowsOf, type Store } from '../store/store.ts';
import { notAllowed, notFound } from './errors.ts';
import { nextNumber } from './orders.ts';
import { syncTicket } from './tickets.ts';
import { castingLead, readWorkshop } from './workshop.ts';

interface PourPlan {
  meltS: number;
  chargeKg: number;
  plannedS: number;
  pourC: number;
  roomC: number;
  potPowerW: number;
  potLossWPerK: number;
}

const entryOf = (row: EntryRow) => ({ ...row.body, id: row.id, at: row.at, kind: row.kind }) as PourEntry | UndoEntry;

async function readLog(store: Store, pourIds: string[], transaction?: Transaction) {
  const rows = await rowsOf(store.models.entries, { where: { pourId: pourIds }, order: [['seq', 'ASC']], transaction });
  const logs = new Map<string, (PourEntry | UndoEntry)[]>(pourIds.map((id) => [id, []]));
  for (const row of rows) logs.get(row.pourId!)!.push(entryOf(row));
  return logs;
}

function pourView(row: PourRow, log: (PourEntry | UndoEntry)[]): Pour {
  const planned = row.planned as unknown as PourPlan;
  const { id, version, number, potId, startedAt } = row;
  return {
    id,
    version,
    number,
    potId,
    startedAt,
    closed: row.closedAt !== null,
    setup: row.setup as unknown as PourSetup,
    plannedMeltS: planned.meltS,
    plannedChargeKg: planned.chargeKg,
    plannedS: planned.plannedS,
    log,
  };
}

const poursOfMold = async (store: Store, moldId: string) =>
  (await rowsOf(store.models.pourMolds, { where: { moldId } })).map((row) => row.pourId);

/** Pours with their logs, newest first. */
export async function listPours(
  store: Store,
  which: { open?: boolean; id?: string; moldId?: string; at?: number } = {},
): Promise<Pour[]> {
  const { open, id, moldId, at } = which;
  const where = {
    ...(open ? { closedAt: null } : {}),
    ...(id ? { id } : {}),
    ...(moldId ? { id: await poursOfMold(store, moldId) } : {}),
    ...(at ? { startedAt: { [Op.lte]: at }, [Op.or]: [{ closedAt: null }, { closedAt: { [Op.gte]: at } }] } : {}),
  };
  const rows = await rowsOf(store.models.pours, { where, order: [['number', 'DESC']] });
  const logs = await readLog(
    store,
    rows.map((row) => row.id),
  );
  return rows.map((row) => pourView(row, logs.get(row.id) ?? []));
}

export async function readPour(store: Store, id: string): Promise<Pour> {
  const [pour] = await listPours(store, { id });
  if (!pour) throw notFound('pour', id);
  return pour;
}

/** What each ticket still wants from the pot. */
async function wantedLines(store: Store, ticketIds: readonly string[]) {
  const workshop = await readWorkshop(store);
  const tickets = await rowsOf(store.models.tickets, { where: { id: [...ticketIds] } });
  const missing = ticketIds.find((id) => !tickets.some((ticket) => ticket.id === id));
  if (missing) throw notFound('ticket', missing);
  const poured = await store.select<{ ticketId: string; good: number; open: number }>(
    `SELECT pt.ticketId, SUM(pt.good) AS good, SUM(p.closedAt IS NULL) AS open
     FROM pourTickets pt JOIN pours p ON p.id = pt.pourId WHERE pt.ticketId IN (:ids) GROUP BY pt.ticketId`,
    { ids: [...ticketIds] },
  );
  const lines = tickets.map((ticket): PlanLine => {
    const before = poured.find((each) => each.ticketId === ticket.id);
    if (ticket.closedAt !== null) throw notAllowed(`Ticket ${ticket.number} is closed.`);
    if (before?.open) throw notAllowed(`Ticket ${ticket.number} is in another pour that is still open.`);
    const quantity = ticket.quantity - (before?.good ?? 0);
    if (quantity <= 0) throw notAllowed(`Ticket ${ticket.number} has all its heads.`);
    // In a pour the ticket stands in the product's place: cavities are loaded for tickets.
    return { product: { ...workshop.products.get(ticket.productId)!, id: ticket.id }, quantity };
  });
  return { workshop, lines };
}

/** Small things laid into a cavity before its hook. */
const insertsOf = (cavity: PlanCavity): Insert[] => [
  ...(cavity.pin ? (['base-hole pin'] as const) : []),
  ...(cavity.keeper ? (['keeper'] as const) : []),
];

/** One pour of several tickets, on the molds named, with all that the bench goes by. */
export async function startPour(store: Store, input: StartPourInput, at = Date.now()): Promise<Pour> {
  const { workshop, lines } = await wantedLines(store, input.batchIds);
  const molds = [...new Set(input.moldIds)].map((id) => {
    const mold = workshop.molds.find((each) => each.id === id);
    if (!mold) throw notFound('mold', id);
    return mold;
  });
  const pot = workshop.pots.find((each) => each.id === input.potId);
  if (!pot) throw notFound('pot', input.potId);
  const problem = lines.map((line) => castingProblem(line.product, molds)).find((text) => text !== null);
  if (problem) throw notAllowed(problem);
  // Where several hooks want the same cavities, the others wait for a pour of their own.
  const all = allocate(lines, molds);
  const allocations = molds.flatMap((mold) => all.find((each) => each.mold.id === mold.id) ?? []);
  const taken = allocations.flatMap(({ kinds }) => kinds.flatMap((each) => each.kind.lines));
  const { ways } = workshop;
  const plans = allocations.map((allocation) => moldPlan(allocation, ways));
  const metalKg = plans.reduce(
    (sum, plan) => sum + plan.shots.value * plan.uses.reduce((shot, use) => shot + use.leadKg + use.sprueKg, 0),
    0,
  );
  const chargeKg = Math.min(pot.capacityKg, metalKg * (1 + ways.drossShare) + ways.heelKg);
  const { seconds } = meltTime({
    leadKg: Math.max(0.05, chargeKg),
    powerW: pot.powerW,
    lossWPerK: pot.lossWPerK,
    toC: ways.pourC,
    roomC: ways.roomC,
    fromC: ways.roomC,
  });
  const productOf = new Map(lines.map(({ product }) => [product.id, product]));
  const loads = plans.flatMap(({ moldId, uses }) => {
    const { cavities } = molds.find((mold) => mold.id === moldId)!;
    return uses.map(({ position, cavityId, productIds, leadKg, sprueKg, yieldShare }) => {
      const hook = productOf.get(productIds[0]!)!.hook;
      const inserts = insertsOf(cavities.find((cavity) => cavity.id === cavityId)!);
      return {
        moldId,
        position,
        cavityId,
        batchIds: productIds,
        hookMaterialId: hook.materialId,
        inserts,
        leadKg,
        hookKg: hook.massKg,
        sprueKg,
        yieldShare,
      };
    });
  });
  const hooksOut: Record<string, number> = {};
  for (const { kinds } of allocations) {
    for (const { kind, yieldShare } of kinds) {
      const { materialId } = kind.lines[0]!.product.hook;
      hooksOut[materialId] = (hooksOut[materialId] ?? 0) + castsFor(kind.wanted, yieldShare);
    }
  }
  const setup: PourSetup = {
    molds: plans.map(({ moldId, blanks, shots, openS }) => {
      return {
        moldId,
        plannedBlanks: blanks.value,
        plannedShots: shots.value,
        openS: openS.value,
        inspectS: ways.inspectS,
        loadS: ways.loadS,
      };
    }),
    atOnce: input.atOnce,
    loads,
    needs: Object.fromEntries(taken.map(({ product, quantity }) => [product.id, quantity])),
    hooksOut,
  };
  const shotsS = shotsSeconds(
    ways,
    plans.map((plan) => ({ shots: plan.shots.value, cavities: plan.uses.length, openS: plan.openS.value })),
    input.atOnce,
  );
  const blanksS = BLANK_CYCLE_S * plans.reduce((sum, plan) => sum + plan.blanks.value, 0);
  const planned: PourPlan = {
    meltS: seconds,
    chargeKg,
    plannedS: seconds + blanksS + shotsS,
    pourC: ways.pourC,
    roomC: ways.roomC,
    potPowerW: pot.powerW,
    potLossWPerK: pot.lossWPerK,
  };
  const row: PourRow = {
    id: randomUUID(),
    number: await nextNumber(store, 'pours', 1),
    moldId: allocations[0]!.mold.id,
    potId: pot.id,
    leadId: castingLead(workshop).materialId,
    startedAt: at,
    closedAt: null,
    setup: setup as unknown as Record<string, unknown>,
    planned: planned as unknown as Record<string, unknown>,
    chargedKg: 0,
    shots: 0,
    version: 1,
  };
  await store.write(async (transaction) => {
    await store.models.pours.create(row, { transaction });
    const unmolded = setup.molds.map(({ moldId }) => ({
      pourId: row.id,
      moldId,
      shots: 0,
      blanks: 0,
      shotsSinceSmoked: null,
    }));
    await store.models.pourMolds.bulkCreate(unmolded, { transaction });
    const none = {
      good: 0,
      secondGrade: 0,
      rejects: 0,
      hooksLost: 0,
      workS: 0,
      energyKWh: 0,
      drossKg: 0,
      unexplainedKg: 0,
    };
    const links = taken.map(({ product }) => ({ pourId: row.id, ticketId: product.id, ...none }));
    await store.models.pourTickets.bulkCreate(links, { transaction });
  });
  return pourView(row, []);
}

/** What an entry may not do, in words; null when it may. */
function refusal(setup: PourSetup, log: PourLog, entry: PourEntry | UndoEntry): string | null {
  if (entry.kind === 'undo') {
    return log.some((each) => each.id === entry.target) ? null : 'There is no such entry in this pour.';
  }
  const state = pourState(setup, log);
  if (state.phase === 'closed') return 'This pour is closed. Undo the closing first.';
  if ('moldId' in entry && !setup.molds.some((mold) => mold.moldId === entry.moldId)) {
    return `moldId is ${entry.moldId}; allowed: the molds of this pour`;
  }
  if (entry.kind === 'shot') {
    const loaded = loadsOf(setup, entry.moldId);
    const unused = entry.positions.find((position) => !loaded.some((load) => load.position === position));
    if (unused !== undefined) return `positions names cavity ${unused}; allowed: the cavities loaded for this pour`;
  }
  if (entry.kind === 'blocked' || entry.kind === 'weighed') {
    if (!loadsOf(setup, entry.moldId).some((load) => load.position === entry.position)) {
      return `position is ${entry.position}; allowed: the cavities loaded for this pour`;
    }
  }
  if (entry.kind === 'hooks' && setup.hooksOut[entry.materialId] === undefined) {
    return `materialId is ${entry.materialId}; allowed: the hooks counted out for this pour`;
  }
  if (entry.kind === 'reject') {
    const shot = state.shots.find((each) => each.id === entry.shotId);
    if (!shot?.heads.some((head) => head.position === entry.position)) {
      return `cavity ${entry.position} was not filled in that shot`;
    }
  }
  if (entry.kind === 'close' && state.chargedKg <= 0) return 'Nothing was charged in this pour yet.';
  return null;
}

/**
 * Appends entries to a pour's log. An id that is there already is skipped: a tap that is delivered twice counts once.
 * All or none are taken.
 */
export async function addPourEntries(store: Store, pourId: string, entries: (PourEntry | UndoEntry)[]): Promise<void> {
  await store.write(async (transaction) => {
    const [row] = await rowsOf(store.models.pours, { where: { id: pourId }, transaction });
    if (!row) throw notFound('pour', pourId);
    const log = (await readLog(store, [pourId], transaction)).get(pourId)!;
    const setup = row.setup as unknown as PourSetup;
    const known = new Set(log.map((entry) => entry.id));
    for (const entry of entries) {
      if (known.has(entry.id)) continue;
      const why = refusal(setup, log, entry);
      if (why) throw notAllowed(why);
      const { id, at, kind, ...body } = entry;
      await store.models.entries.create({ id, pourId, ticketId: null, kind, at, body }, { transaction });
      known.add(id);
      log.push(entry);
    }
    await syncPour(store, row, log, transaction);
  });
}

/** Splits the pour's time, electricity, dross and unexplained metal among its tickets: by heads and by mass. */
function shares(state: PourState, setup: PourSetup, planned: PourPlan) {
  const ids = Object.keys(setup.needs);
  const massOf = (id: string) => {
    const load = setup.loads.find((each) => each.batchIds.includes(id));
    return (state.goodByBatch[id] ?? 0) * (load?.leadKg ?? 0);
  };
  const heads = ids.reduce((sum, id) => sum + (state.goodByBatch[id] ?? 0), 0);
  const mass = ids.reduce((sum, id) => sum + massOf(id), 0);
  const melt =
    state.chargedKg >= 0.05
      ? meltTime({
          leadKg: Math.min(50, state.chargedKg),
          powerW: planned.potPowerW,
          lossWPerK: planned.potLossWPerK,
          toC: planned.pourC,
          roomC: planned.roomC,
          fromC: planned.roomC,
        }).energyKWh
      : 0;
  const hold = holdingEnergyKWh(
    planned.potLossWPerK,
    Math.max(LEAD_MELTING_C, planned.pourC),
    planned.roomC,
    state.workS,
  );
  return ids.map((ticketId) => {
    const byMass = mass > 0 ? massOf(ticketId) / mass : 1 / ids.length;
    const byHeads = heads > 0 ? (state.goodByBatch[ticketId] ?? 0) / heads : 1 / ids.length;
    return {
      ticketId,
      good: state.goodByBatch[ticketId] ?? 0,
      secondGrade: state.keptByBatch[ticketId] ?? 0,
      rejects: state.rejectsByBatch[ticketId] ?? 0,
      hooksLost: state.hooksLostByBatch[ticketId] ?? 0,
      workS: state.workS * byHeads,
      energyKWh: (melt + hold) * byMass,
      drossKg: (state.balance?.drossKg ?? 0) * byMass,
      unexplainedKg: (state.balance?.unexplainedKg ?? 0) * byMass,
    };
  });
}

/** Brings everything that is derived from a pour's log in step with it. */
async function syncPour(store: Store, row: PourRow, log: PourLog, transaction: Transaction): Promise<void> {
  const setup = row.setup as unknown as PourSetup;
  const state = pourState(setup, log);
  const close = state.phase === 'closed' ? log.findLast((entry) => entry.kind === 'close') : undefined;
  const closedAt = close?.at ?? null;
  await store.models.pours.update(
    {
      chargedKg: state.chargedKg,
      shots: state.shots.length + state.blanks,
      closedAt,
      version: row.version + 1,
    },
    { where: { id: row.id }, transaction },
  );
  for (const share of shares(state, setup, row.planned as unknown as PourPlan)) {
    await store.models.pourTickets.upsert({ pourId: row.id, ...share }, { transaction });
  }
  for (const { moldId, shots, blanks, shotsSinceSmoked } of state.molds) {
    await store.models.pourMolds.upsert({ pourId: row.id, moldId, shots, blanks, shotsSinceSmoked }, { transaction });
  }
  const cavities = setup.loads.map(({ cavityId }) => {
    const { good, kept, rejects } = state.byCavity[cavityId]!;
    const causes: Record<string, number> = { ...rejects, ...(kept ? { 'second grade': kept } : {}) };
    const casts = good + Object.values(causes).reduce((sum, count) => sum + count, 0);
    return { pourId: row.id, cavityId, good, rejects: causes, casts };
  });
  for (const cavity of cavities) await store.models.pourCavities.upsert(cavity, { transaction });
  if (closedAt !== null || row.closedAt !== null) {
    for (const ticketId of Object.keys(setup.needs)) {
      await syncTicket(store, ticketId, closedAt ?? Date.now(), transaction);
    }
  }
}
