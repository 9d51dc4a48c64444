import type { Pour } from '@schmelz/contract';
import { randomUUID } from 'node:crypto';

export const post =
  (url: string) =>
  async (path: string, body: unknown, method: 'POST' | 'PUT' = 'POST') => {
    const answer = await fetch(`${url}/api${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(await answer.text());
    return answer.status === 204 ? null : answer.json();
  };

interface CavityShape {
  style: string;
  nominalMassKg: number;
  hookSize: string;
  pin?: { diameterM: number; lengthM: number };
}
export const aMold = (send: ReturnType<typeof post>, name: string, shapes: CavityShape[]) =>
  send('/molds', {
    name,
    bodyKg: 0.5,
    cavities: shapes.map((shape, i) => ({ position: i + 1, eyeAngleDeg: 60, condition: 'good', ...shape })),
  });

async function aHook(send: ReturnType<typeof post>, size: string) {
  const hook = await send('/materials', {
    kind: 'hook',
    name: `Hook ${size}`,
    note: '',
    metalId: null,
    powder: null,
    hook: { size, wire: 'standard', eyeAngleDeg: 60, plating: 'bronze' },
    limitC: 175,
  });
  await send(`/materials/${hook.id}/receipts`, { quantity: 20, priceMinor: 320, on: '2026-01-05', lot: '' });
  return hook as { id: string };
}
export const aLead = (send: ReturnType<typeof post>): Promise<{ id: string }> =>
  send('/materials', { kind: 'lead', name: 'Lead', note: '', metalId: 'soft-lead', hook: null, powder: null });

/** Two molds and a released order for each, nothing poured: what a session of two molds starts from. */
export async function twoMolds(url: string, quantity: number) {
  const send = post(url);
  await aLead(send);
  const ball = { style: 'ball', nominalMassKg: 0.01, hookSize: '2/0' };
  const rocker = {
    style: 'football',
    nominalMassKg: 0.021,
    hookSize: '4/0',
    pin: { diameterM: 0.003175, lengthM: 0.008 },
  };
  await aMold(send, 'Twin ball', [ball, ball]);
  await aMold(send, 'Twin rocker', [rocker, rocker]);
  for (const shape of [ball, rocker]) {
    const hook = await aHook(send, shape.hookSize);
    const product = await send('/products', {
      name: `${shape.style}, test`,
      style: shape.style,
      nominalMassKg: shape.nominalMassKg,
      hookId: hook.id,
      recipeId: null,
      bakeProgramId: null,
      priceMinor: null,
    });
    const order = await send('/orders', {
      customer: 'Stall',
      dueOn: null,
      note: '',
      lines: [{ productId: product.id, quantity }],
    });
    await send(`/orders/${order.id}/release`, {});
  }
}

/** A small workshop over the API with one released order; bare heads, or painted and baked ones. */
async function aTicket(url: string, quantity: number, painted: boolean) {
  const send = post(url);
  const ball = { style: 'ball', nominalMassKg: 0.01, hookSize: '2/0' };
  const mold = await aMold(send, 'Three', [ball, ball, ball]);
  await aLead(send);
  const hook = await aHook(send, '2/0');
  let recipeId = null;
  let bakeProgramId = null;
  if (painted) {
    // Three colours: a base, a back and a speckle.
    const label = [
      { metalC: 177, seconds: 1200 },
      { metalC: 200, seconds: 600 },
    ];
    const layers = [];
    for (const [name, colour, zone] of [
      ['White', '#eeeeee', 'whole'],
      ['Red', '#b02020', 'back'],
      ['Black', '#111111', 'speckle'],
    ] as const) {
      const powder = await send('/materials', {
        kind: 'powder',
        name,
        note: '',
        metalId: null,
        hook: null,
        powder: { colour, gloss: 'gloss', specificGravity: 1.6, label },
      });
      layers.push({ powderId: powder.id, zone, coats: 1 });
    }
    recipeId = (await send('/recipes', { name: 'Three colours', eyeColour: null, layers })).id;
    bakeProgramId = (await (await fetch(`${url}/api/bake-programs`)).json())[0].id;
  }
  const product = await send('/products', {
    name: 'Ball 10 g, test',
    style: 'ball',
    nominalMassKg: 0.01,
    hookId: hook.id,
    recipeId,
    bakeProgramId,
    priceMinor: null,
  });
  const order = await send('/orders', {
    customer: 'Stall',
    dueOn: null,
    note: '',
    lines: [{ productId: product.id, quantity }],
  });
  const [ticket] = await send(`/orders/${order.id}/release`, {});
  const [pot] = await (await fetch(`${url}/api/pots`)).json();
  const pour = await send('/pours', { moldIds: [mold.id], atOnce: 1, potId: pot.id, ticketIds: [ticket.id] });
  return { ticketId: ticket.id as string, pour: pour as Pour };
}

/** Molds of so many cavities each, one head for each mold, and a pour of all of them, started and cold. */
export async function aPourOn(url: string, cavities: readonly number[], grams: number): Promise<Pour> {
  const send = post(url);
  await aLead(send);
  const ticketIds: string[] = [];
  const moldIds: string[] = [];
  for (const [index, count] of cavities.entries()) {
    // A second mold casts a head of its own, so that it is wanted too.
    const shape = { style: index ? 'football' : 'ball', nominalMassKg: grams / 1000, hookSize: index ? '4/0' : '2/0' };
    moldIds.push((await aMold(send, `Mold ${index + 1}`, Array<CavityShape>(count).fill(shape))).id);
    const hook = await aHook(send, shape.hookSize);
    const product = await send('/products', {
      ...{ name: `${shape.style}, test`, style: shape.style, nominalMassKg: shape.nominalMassKg, hookId: hook.id },
      ...{ recipeId: null, bakeProgramId: null, priceMinor: null },
    });
    const lines = [{ productId: product.id, quantity: 18 }];
    const order = await send('/orders', { customer: 'Stall', dueOn: null, note: '', lines });
    ticketIds.push((await send(`/orders/${order.id}/release`, {}))[0].id);
  }
  const [pot] = await (await fetch(`${url}/api/pots`)).json();
  return send('/pours', { moldIds, atOnce: moldIds.length, potId: pot.id, ticketIds });
}

/** A pour of twelve bare heads, started and cold. */
export const aPour = async (url: string): Promise<Pour> => (await aTicket(url, 12, false)).pour;

/** A ticket of six heads in three colours that wait for paint. */
export async function aTicketToPaint(url: string): Promise<string> {
  const send = post(url);
  const { ticketId, pour } = await aTicket(url, 6, true);
  const entry = (said: Record<string, unknown>) => ({ id: randomUUID(), at: Date.now(), ...said });
  const pot = (said: Record<string, unknown>) => send(`/pours/${pour.id}/entries`, entry(said));
  await pot({ kind: 'charge', massKg: 1, potC: 20 });
  for (let shot = 0; shot < 2; shot++)
    await pot({ kind: 'shot', moldId: pour.setup.molds[0]!.moldId, positions: [1, 2, 3] });
  await pot({ kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0.01, heelKg: 0.9 });
  await send(`/tickets/${ticketId}/entries`, entry({ kind: 'good', step: 'trim', count: 6 }));
  return ticketId;
}

/** The same ticket, painted: it waits for the oven. */
export async function aTicketToBake(url: string): Promise<string> {
  const ticketId = await aTicketToPaint(url);
  await post(url)(`/tickets/${ticketId}/entries`, {
    id: randomUUID(),
    at: Date.now(),
    kind: 'good',
    step: 'paint',
    count: 6,
  });
  return ticketId;
}

/** A shelf for heads of every kind: lead, hooks, two powders and their recipes, parts, bare heads, a mold of three. */
export async function aFullShelf(url: string): Promise<void> {
  const send = post(url);
  const ball = { style: 'ball', nominalMassKg: 0.01, hookSize: '2/0' };
  await aMold(send, 'Three', [ball, ball, ball]);
  const lead = await aLead(send);
  await send(`/materials/${lead.id}/receipts`, { quantity: 5, priceMinor: 1500, on: '2026-01-05', lot: '' });
  await aHook(send, '2/0');
  const label = [
    { metalC: 177, seconds: 1200 },
    { metalC: 200, seconds: 600 },
  ];
  for (const [name, colour] of [
    ['White', '#eeeeee'],
    ['Clear', '#f4f4f4'],
  ] as const) {
    const powder = await send('/materials', {
      ...{ kind: 'powder', name, note: '', metalId: null, hook: null },
      powder: { colour, gloss: 'gloss', specificGravity: 1.6, label },
    });
    await send(`/materials/${powder.id}/receipts`, { quantity: 0.2, priceMinor: 1400, on: '2026-01-05', lot: '' });
    const layers = [{ powderId: powder.id, zone: 'whole', coats: 1 }];
    await send('/recipes', { name: `All ${name.toLowerCase()}`, eyeColour: null, layers });
  }
  for (const [kind, name] of [
    ['ring', 'Split ring 5 mm'],
    ['treble', 'Treble 8'],
    ['bare head', 'Ball 10 g, bare'],
    ['used jig', 'Worn ball 10 g'],
  ]) {
    const part = await send('/materials', { kind, name, note: '', metalId: null, hook: null, powder: null });
    await send(`/materials/${part.id}/receipts`, { quantity: 30, priceMinor: 300, on: '2026-01-05', lot: '' });
  }
}

/**
 * Pours what the one ticket that waits for the pot still wants, three good heads a shot, and closes the pour; in the
 * first mold where none is named.
 */
export async function pourIt(url: string, moldId?: string, leadKg = 1): Promise<void> {
  const send = post(url);
  const get = async (path: string) => (await fetch(`${url}/api${path}`)).json();
  const { tickets } = await get('/line');
  const ticket = tickets.find(
    (each: { source: string; poured: number }) => each.source === 'pour' && each.poured === 0,
  );
  const [[first], [pot]] = [await get('/molds'), await get('/pots')];
  const mold = { id: moldId ?? first.id };
  const pour = (await send('/pours', {
    ...{ moldIds: [mold.id], atOnce: 1, potId: pot.id },
    ticketIds: [ticket.id],
  })) as Pour;
  const say = (said: Record<string, unknown>) =>
    send(`/pours/${pour.id}/entries`, { id: randomUUID(), at: Date.now(), ...said });
  await say({ kind: 'charge', massKg: leadKg, potC: 20 });
  for (let heads = 0; heads < ticket.quantity; heads += 3) {
    await say({ kind: 'shot', moldId: mold.id, positions: [1, 2, 3] });
  }
  await say({ kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0.01, heelKg: 0.9 });
}
