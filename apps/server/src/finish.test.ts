import { randomUUID } from 'node:crypto';
import type { JarView, Material, Ticket } from '@schmelz/contract';
import { coldHeadSolid, castMassKg } from '@schmelz/core';
import { smallWorkshop, testServer, type TestServer } from './test/server.ts';

/** Trim, paint and bake through the API: what is weighed reaches the books, ways and mixtures the plan. */
describe('the finishing stations', () => {
  let server: TestServer;
  let things: Awaited<ReturnType<typeof smallWorkshop>>;
  beforeEach(async () => {
    server = await testServer();
    things = await smallWorkshop(server);
  });
  afterEach(() => server.stop());

  const call = async (method: 'GET' | 'POST' | 'PUT', path: string, body?: unknown) => {
    const answer = await server.call(method, `/api${path}`, body);
    if (answer.status >= 400) throw new Error(JSON.stringify(answer.body));
    return answer.body;
  };
  const material = async (id: string): Promise<Material> =>
    (await call('GET', '/materials')).find((each: Material) => each.id === id);
  const entry = (said: Record<string, unknown>) => ({ id: randomUUID(), at: Date.now(), ...said });

  /** A ticket of so many heads, poured and closed; its sprues still hang on. */
  async function pouredTicket(quantity: number): Promise<Ticket> {
    const order = await call('POST', '/orders', {
      customer: 'Stall',
      dueOn: null,
      note: '',
      lines: [{ productId: things.productIds[0], quantity }],
    });
    const [ticket] = await call('POST', `/orders/${order.id}/release`, {});
    const pour = await call('POST', '/pours', {
      moldIds: [things.moldId],
      atOnce: 1,
      potId: things.potId,
      ticketIds: [ticket.id],
    });
    const pot = (said: Record<string, unknown>) => call('POST', `/pours/${pour.id}/entries`, entry(said));
    await pot({ kind: 'charge', massKg: 1, potC: 20 });
    for (let shot = 0; shot < quantity / 3; shot++)
      await pot({ kind: 'shot', moldId: things.moldId, positions: [1, 2, 3] });
    await pot({ kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0.8 });
    return ticket;
  }
  const say = (ticket: Ticket, said: Record<string, unknown>) =>
    call('POST', `/tickets/${ticket.id}/entries`, entry(said));

  test('sprues cut off after the pour come back to the lead, and an undo takes them away again', async () => {
    const ticket = await pouredTicket(6);
    await say(ticket, { kind: 'good', step: 'trim', count: 6 });
    const before = (await material(things.leadId)).quantity;
    const sprue = entry({ kind: 'sprue', step: 'trim', massKg: 0.024 });
    await call('POST', `/tickets/${ticket.id}/entries`, sprue);
    expect((await material(things.leadId)).quantity).toBeCloseTo(before + 0.024, 9);
    await say(ticket, { kind: 'undo', target: sprue.id });
    expect((await material(things.leadId)).quantity).toBeCloseTo(before, 9);
  });

  test('a jar weighed twice says what went, and what of it lies on heads by the coverage formula', async () => {
    const { powderId } = things;
    await call('POST', `/materials/${powderId}/counts`, { quantity: 0.225, note: 'weighed' });
    const ticket = await pouredTicket(6);
    await say(ticket, { kind: 'good', step: 'trim', count: 6 });
    await say(ticket, { kind: 'good', step: 'paint', count: 6 });
    await call('POST', `/materials/${powderId}/counts`, { quantity: 0.224, note: 'weighed' });
    const [jar] = (await call('GET', '/jars')) as JarView[];
    expect(jar).toMatchObject({ materialId: powderId, last: { massKg: 0.224 }, receivedKg: 0, onHeadsKg: 0 });
    expect(jar!.intervals).toHaveLength(1);
    expect(jar!.intervals[0]!.usedKg).toBeCloseTo(0.001, 9);
    // 192.3 ft2/lb per mil at specific gravity 1 (the industry's formula): 100 um of 1.6 on six 10 g balls.
    const { paintedAreaM2 } = coldHeadSolid('ball', castMassKg({ nominalMassKg: 0.01 }));
    expect(jar!.intervals[0]!.onHeadsKg).toBeCloseTo(6 * paintedAreaM2 * 1e-4 * 1600, 9);
  });

  test('a mixture takes of both jars, liquid paint is never baked and dries in the plan, a product keeps its own way', async () => {
    const second = await call('POST', '/materials', {
      kind: 'powder',
      name: 'Second',
      note: '',
      metalId: null,
      hook: null,
      powder: { colour: '#224466', gloss: 'gloss', specificGravity: 1.6, label: [{ metalC: 177, seconds: 1200 }] },
    });
    const liquid = await call('POST', '/materials', {
      kind: 'powder',
      name: 'Vinyl',
      note: '',
      metalId: null,
      hook: null,
      powder: { colour: '#e2ae22', gloss: 'gloss', specificGravity: 1.2, label: [], form: 'liquid', dryS: 7200 },
    });
    const mixed = await call('POST', '/recipes', {
      name: 'Mixed',
      eyeColour: null,
      layers: [{ powderId: things.powderId, zone: 'whole', coats: 1, mix: { powderId: second.id, share: 0.25 } }],
    });
    const dipped = await call('POST', '/recipes', {
      name: 'Dipped',
      eyeColour: '#112233',
      layers: [{ powderId: liquid.id, zone: 'whole', coats: 2 }],
    });
    const [base] = await call('GET', '/products');
    const product = (name: string, recipeId: string, more = {}) =>
      call('POST', '/products', {
        name,
        style: base.style,
        nominalMassKg: base.nominalMassKg,
        hookId: base.hookId,
        recipeId,
        bakeProgramId: base.bakeProgramId,
        priceMinor: null,
        ...more,
      });
    const [a, b] = [
      await product('Mixed ball', mixed.id, { ways: { edge: 'nothing' } }),
      await product('Dipped ball', dipped.id),
    ];
    expect(a.ways).toEqual({ edge: 'nothing' });
    const order = await call('POST', '/orders', {
      customer: 'Stall',
      dueOn: null,
      note: '',
      lines: [a, b].map(({ id }) => ({ productId: id, quantity: 6 })),
    });
    const { plan } = await call('GET', `/orders/${order.id}/plan`);
    const powders = plan.lines[0].powders as { name: string; kgPerHead: number }[];
    expect(powders.map(({ name }) => name)).toEqual(['White', 'Second']);
    expect(powders[0]!.kgPerHead / powders[1]!.kgPerHead).toBeCloseTo(3, 9);
    const minutes = (station: string) => plan.minutes.find((each: { station: string }) => each.station === station);
    // Two coats of two hours; seven are cast for six, as later steps spoil three in a hundred:
    // trimmed by the product's own way in 5 s, by the house's in 12.
    expect(minutes('paint').waitS.value).toBe(14_400);
    expect(minutes('trim').handsS.value).toBe(7 * 5 + 7 * 12);
    const tickets = (await call('POST', `/orders/${order.id}/release`, {})) as Ticket[];
    expect(tickets.sort((x, y) => x.number - y.number).map(({ route }) => route.map((step) => step.key))).toEqual([
      ['trim', 'paint', 'bake', 'finish'],
      ['trim', 'paint', 'finish'],
    ]);
  });

  test('an oven keeps its racks and what it was taught; loads are packed onto them', async () => {
    const [oven] = await call('GET', '/ovens');
    const { id, version, ...rest } = oven;
    const racks = [{ name: 'Wires', way: 'hanging', bars: 1, barM: 0.09, clearM: 0.06 }];
    const learned = {
      lagS: 210,
      lagSdS: 4,
      offsetK: -4,
      offsetSdK: 1.5,
      swingK: 4,
      periodS: null,
      setC: 177,
      readings: 300,
      at: 1,
    };
    expect(await call('PUT', `/ovens/${id}`, { ...rest, racks, learned, version })).toMatchObject({ racks, learned });
    const order = await call('POST', '/orders', {
      customer: 'Stall',
      dueOn: null,
      note: '',
      lines: [{ productId: things.productIds[0], quantity: 12 }],
    });
    // Five 10 g balls side by side on 90 mm: twelve heads are three loads.
    expect((await call('GET', `/orders/${order.id}/plan`)).plan.ovenLoads.value).toBe(3);
    const refused = await server.call('PUT', `/api/ovens/${id}`, {
      ...rest,
      racks: [{ ...racks[0], barM: 9 }],
      version: version + 1,
    });
    expect(refused.status).toBe(422);
    expect(refused.body.detail).toMatch(/racks\[0\]\.barM is 9\u00a0m; allowed: a number from 0.05\u00a0m to 2\u00a0m/);
  });

  test('what cannot be at the oven is refused with what is allowed', async () => {
    const ticket = await pouredTicket(6);
    await say(ticket, { kind: 'good', step: 'trim', count: 6 });
    await say(ticket, { kind: 'good', step: 'paint', count: 6 });
    const refused = async (said: Record<string, unknown>) => {
      const answer = await server.call('POST', `/api/tickets/${ticket.id}/entries`, entry(said));
      expect(answer.status).toBe(422);
      return answer.body.detail as string;
    };
    expect(await refused({ kind: 'door', step: 'bake', open: true })).toMatch(/kind is "door"; allowed: start, good/);
    const run = randomUUID();
    const tell = (said: Record<string, unknown>) => server.call('POST', `/api/runs/oven/${run}/entries`, entry(said));
    const heads = [{ ticketId: ticket.id, step: 'bake', count: 6 }];
    const load = {
      kind: 'load',
      ovenId: null,
      heads,
      setC: 177,
      seconds: 1200,
      preheated: true,
      from: 'metal',
      warmS: 400,
    };
    expect((await tell({ kind: 'door', open: true })).status).toBe(404);
    expect((await tell({ ...load, from: 'lunch' })).body.detail).toMatch(/from is "lunch"; allowed: door, metal/);
    expect((await tell({ ...load, heads: [{ ...heads[0], count: 7 }] })).body.detail).toMatch(/allowed: 1 to 6/);
    expect((await tell(load)).status).toBe(204);
    expect((await tell({ kind: 'warm', by: 'guess' })).body.detail).toMatch(
      /by is "guess"; allowed: probe, model, hand/,
    );
    // Two heats at once in one oven are refused, whoever asks.
    const second = await server.call('POST', `/api/runs/oven/${randomUUID()}/entries`, entry(load));
    expect(second.body.detail).toMatch(/The oven holds load 1; take it out first/);
    await tell({ kind: 'warm', by: 'probe' });
    await tell({ kind: 'unload', coolS: 300 });
    const { runs } = await call('GET', `/tickets/${ticket.id}`);
    expect(runs[0].log.at(-1)).toMatchObject({ kind: 'unload', coolS: 300 });
  });

  test('88 places, three tickets, one load: one tap each, and the current is shared by heads', async () => {
    const tickets = [await pouredTicket(6), await pouredTicket(12), await pouredTicket(6)];
    for (const ticket of tickets) {
      const { poured } = (await call('GET', `/tickets/${ticket.id}`)) as Ticket;
      await say(ticket, { kind: 'good', step: 'trim', count: poured });
      await say(ticket, { kind: 'good', step: 'paint', count: poured });
    }
    const heads = await Promise.all(
      tickets.map(async ({ id }) => {
        const { poured } = (await call('GET', `/tickets/${id}`)) as Ticket;
        return { ticketId: id, step: 'bake', count: poured };
      }),
    );
    const run = randomUUID();
    const from = Date.UTC(2026, 5, 1, 18);
    const tell = async (said: Record<string, unknown>, seconds: number) => {
      const body = { id: randomUUID(), at: from + 1000 * seconds, ...said };
      expect((await server.call('POST', `/api/runs/oven/${run}/entries`, body)).body).toBe('');
      return body;
    };
    await tell({ kind: 'load', ovenId: null, heads, setC: 177, seconds: 1200, preheated: true }, 0);
    await tell({ kind: 'door', open: true }, 300);
    await tell({ kind: 'door', open: false }, 310);
    const out = await tell({ kind: 'unload', coolS: 60 }, 1200);
    const [oven] = (await call('GET', '/ovens')) as { powerW: number }[];
    // By hand: 20 minutes at six tenths of the rated power, once, not three times.
    const whole = (oven!.powerW * 0.6 * 1200) / 3.6e6;
    const all = heads.reduce((sum, { count }) => sum + count, 0);
    let shared = 0;
    for (const { ticketId, count } of heads) {
      const { actual, pourId } = (await call('GET', `/tickets/${ticketId}`)) as Ticket;
      const pot = await server.running.store.select<{ kWh: number }>(
        'SELECT SUM(energyKWh) AS kWh FROM pourTickets WHERE ticketId = :ticketId AND pourId = :pourId',
        { ticketId, pourId },
      );
      const ofOven = actual.energyKWh - pot[0]!.kWh;
      expect(ofOven).toBeCloseTo((whole * count) / all, 9);
      shared += ofOven;
    }
    expect(shared).toBeCloseTo(whole, 9);
    // What the run said of a ticket is taken back at the run, not at the ticket.
    const answer = await server.call(
      'POST',
      `/api/tickets/${tickets[0]!.id}/entries`,
      entry({ kind: 'undo', target: out.id }),
    );
    expect(answer.body.detail).toMatch(/take it back there/);
    await tell({ kind: 'undo', target: out.id }, 1300);
    expect((await call('GET', `/line`)).runs.map((each: { id: string }) => each.id)).toContain(run);
  });
});
