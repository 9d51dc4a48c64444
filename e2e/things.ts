import { randomUUID } from 'node:crypto';

const post = (url: string) => async (path: string, body: unknown) => {
  const answer = await fetch(`${url}/api${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(await answer.text());
  return answer.status === 204 ? null : answer.json();
};

/** A small workshop over the API with one released order; bare heads, or painted and baked ones. */
async function aTicket(url: string, quantity: number, painted: boolean) {
  const send = post(url);
  const cavity = (position: number) => ({
    position,
    style: 'ball',
    nominalMassKg: 0.01,
    hookSize: '2/0',
    eyeAngleDeg: 60,
    condition: 'good',
  });
  const mold = await send('/molds', { name: 'Three', bodyKg: 0.5, cavities: [1, 2, 3].map(cavity) });
  await send('/materials', { kind: 'lead', name: 'Lead', note: '', metalId: 'soft-lead', hook: null, powder: null });
  const hook = await send('/materials', {
    kind: 'hook',
    name: 'Hook 2/0',
    note: '',
    metalId: null,
    powder: null,
    hook: { size: '2/0', wire: 'standard', eyeAngleDeg: 60, finish: 'bronze', finishLimitC: 175 },
  });
  await send(`/materials/${hook.id}/receipts`, { quantity: 20, priceMinor: 320, on: '2026-01-05', lot: '' });
  let recipeId = null;
  let bakeProgramId = null;
  if (painted) {
    const powder = await send('/materials', {
      kind: 'powder',
      name: 'White',
      note: '',
      metalId: null,
      hook: null,
      powder: { colour: '#eeeeee', finish: 'gloss', specificGravity: 1.6, label: [{ metalC: 177, seconds: 1200 }] },
    });
    const layers = [{ powderId: powder.id, zone: 'whole', coats: 1 }];
    recipeId = (await send('/recipes', { name: 'White', eyeColour: null, layers })).id;
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
  const pour = await send('/pours', { moldId: mold.id, potId: pot.id, batchIds: [ticket.id] });
  return { ticketId: ticket.id as string, pour: pour as { id: string } };
}

/** A pour of twelve bare heads, started and cold. */
export const aPour = async (url: string): Promise<{ id: string }> => (await aTicket(url, 12, false)).pour;

/** A ticket of six painted heads that wait for the oven. */
export async function aTicketToBake(url: string): Promise<string> {
  const send = post(url);
  const { ticketId, pour } = await aTicket(url, 6, true);
  const entry = (said: Record<string, unknown>) => ({ id: randomUUID(), at: Date.now(), ...said });
  const pot = (said: Record<string, unknown>) => send(`/pours/${pour.id}/entries`, entry(said));
  await pot({ kind: 'charge', massKg: 1, potC: 20 });
  for (let shot = 0; shot < 2; shot++) await pot({ kind: 'shot', positions: [1, 2, 3] });
  await pot({ kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0.01, heelKg: 0.93 });
  for (const station of ['trim', 'paint']) {
    await send(`/tickets/${ticketId}/entries`, entry({ kind: 'good', station, count: 6 }));
  }
  return ticketId;
}
