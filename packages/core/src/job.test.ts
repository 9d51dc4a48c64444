import {
  averageMinor,
  costOf,
  expectedClose,
  planOrder,
  pourState,
  stackTotal,
  takeValueMinor,
  ticketPostings,
  ticketState,
  unitCostStack,
  usualRoute,
  type PourEntry,
  type PourSetup,
  type TicketEntry,
} from './index.ts';
import { workshop } from './test/workshop.ts';

/** The whole job in the core alone: order, plan, pour with rejects, trim, paint, bake, finish, close, cost. */
describe('60 heads of 10 g and 24 of 14 g, from order to unit cost', () => {
  const input = workshop();
  const plan = planOrder(input);
  const [mold] = plan.molds;
  const setup: PourSetup = {
    molds: [
      {
        moldId: 'm',
        plannedBlanks: mold!.blanks.value,
        plannedShots: mold!.shots.value,
        openS: mold!.openS.value,
        inspectS: 3,
        loadS: 8,
      },
    ],
    atOnce: 1,
    loads: mold!.uses.map((use) => ({
      ...use,
      moldId: 'm',
      ticketIds: use.productIds,
      hookMaterialId: 'hook',
      hookKg: 0,
      inserts: [],
    })),
    needs: Object.fromEntries(plan.lines.map((line) => [line.productId, line.quantity])),
    hooksOut: {},
  };

  let now = 0;
  const step = (seconds: number) => ({ id: `e${(now += seconds * 1000)}`, at: now });
  const log: PourEntry[] = [{ ...step(60), kind: 'charge', massKg: plan.charge.value, potC: 20 }];
  for (let i = 0; i < mold!.blanks.value; i++) log.push({ ...step(30), kind: 'blank', moldId: 'm' });
  // Every seventh shot gives one short in the cavity whose turn it is.
  for (let i = 0; pourState(setup, log).shotsToGo > 0; i++) {
    const positions = pourState(setup, log).molds[0]!.wantedPositions;
    const shot = { ...step(150), kind: 'shot' as const, moldId: 'm', positions };
    log.push(shot);
    if (i % 7 === 3)
      log.push({
        ...step(5),
        kind: 'reject',
        shotId: shot.id,
        position: positions[i % positions.length]!,
        cause: 'short',
        goes: 'melt',
      });
  }
  const open = pourState(setup, log);
  log.push({ ...step(300), kind: 'close', ...expectedClose(open, input.ways.drossShare) });
  const poured = pourState(setup, log);

  test('the pour gives every ticket its heads and closes to 0.1 g', () => {
    expect(poured.phase).toBe('closed');
    expect(poured.goodByTicket['ball-10']).toBeGreaterThanOrEqual(60);
    expect(poured.goodByTicket['ball-14']).toBeGreaterThanOrEqual(24);
    expect(Math.abs(poured.balance!.unexplainedKg)).toBeLessThan(1e-4);
  });

  test('each ticket goes its route, and lead and hooks of rejects come back to the gram', () => {
    const shelf = { lead: { quantity: 20, valueMinor: 5000 }, hooks: 100 + 20 };
    let leadKg = shelf.lead.quantity;
    let hooks = shelf.hooks;
    let finishedKg = 0;
    let finished = 0;
    for (const { product, quantity } of input.lines) {
      const line = plan.lines.find((each) => each.productId === product.id)!;
      const heads = poured.goodByTicket[product.id]!;
      const route = usualRoute({ painted: true, baked: true });
      const ticket = { route, source: 'pour' as const, poured: heads, pourClosed: true };
      const entries: TicketEntry[] = [];
      let left = heads;
      for (const { key, station } of route) {
        const at = { step: key };
        if (station === 'bake') {
          entries.push({ ...step(60), kind: 'load', ...at, count: left, setC: 177, seconds: 1680, preheated: true });
          entries.push({ ...step(1680), kind: 'unload', ...at });
        }
        entries.push(
          { ...step(200), kind: 'good', ...at, count: left - 1 },
          { ...step(10), kind: 'reject', ...at, cause: 'other', count: 1, goes: 'melt' },
        );
        left -= 1;
      }
      entries.push({ ...step(30), kind: 'close' });
      const state = ticketState(ticket, entries);
      expect(state.at).toBe('closed');
      expect(state.good).toBe(heads - 4);
      expect(state.good).toBeGreaterThanOrEqual(quantity - 4);
      const share = heads / (poured.goodByTicket['ball-10']! + poured.goodByTicket['ball-14']!);
      const bill = [
        { partId: 'hook', name: 'Hook', kind: 'hook', quantity: 1, waste: 0, step: 'pour' },
        ...line.powders.map(({ materialId, name, kgPerHead, step: key }) => {
          return { partId: materialId, name, kind: 'powder', quantity: kgPerHead, waste: 0, step: key };
        }),
      ];
      const postings = ticketPostings({
        bill,
        leadKgPerHead: line.leadKgPerHead.value,
        cast: {
          leadMaterialId: 'lead',
          good: heads,
          secondGrade: 0,
          hooksLost: 0,
          drossKg: poured.balance!.drossKg * share,
          unexplainedKg: poured.balance!.unexplainedKg * share,
        },
        source: 'pour',
        sourceId: null,
        becomesId: null,
        state,
      });
      for (const posting of postings) {
        if (posting.materialId === 'lead') leadKg += posting.quantity;
        if (posting.materialId === 'hook') hooks += posting.quantity;
      }
      finishedKg += state.good * line.leadKgPerHead.value;
      finished += state.good;
      // What a head came to: material at the moving average, nothing for the lead of rejects.
      const perKg = averageMinor(shelf.lead)!;
      const stack = unitCostStack({
        leadKg: line.leadKgPerHead.value,
        leadMinorPerKg: perKg,
        drossKg: 0,
        hookMinor: 16,
        powderMinor: 1,
        energyKWh: 0,
        energyMinorPerKWh: 0,
        workS: 0,
        labourMinorPerHour: 0,
      });
      expect(stackTotal(stack)).toBeCloseTo(line.leadKgPerHead.value * perKg + 17, 9);
      expect(Math.abs(takeValueMinor(shelf.lead, finishedKg) - costOf(perKg, finishedKg))).toBeLessThanOrEqual(1);
    }
    const spentKg = shelf.lead.quantity - leadKg;
    expect(Math.abs(spentKg - finishedKg - poured.balance!.drossKg)).toBeLessThan(1e-4);
    expect(shelf.hooks - hooks).toBe(finished);
  });
});
