/** A small workshop over the API, with a pour of twelve heads started. */
export async function aPour(url: string): Promise<{ id: string }> {
  const post = async (path: string, body: unknown) => {
    const answer = await fetch(`${url}/api${path}`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }); // prettier-ignore
    if (!answer.ok) throw new Error(await answer.text());
    return answer.status === 204 ? null : answer.json();
  };
  const cavity = (position: number) => ({ position, style: 'ball', nominalMassKg: 0.01, hookSize: '2/0', eyeAngleDeg: 60, condition: 'good' }); // prettier-ignore
  const mold = await post('/molds', { name: 'Three', bodyKg: 0.5, cavities: [1, 2, 3].map(cavity) });
  await post('/materials', { kind: 'lead', name: 'Lead', note: '', metalId: 'soft-lead', hook: null, powder: null });
  const hook = await post('/materials', { kind: 'hook', name: 'Hook 2/0', note: '', metalId: null, powder: null, hook: { size: '2/0', wire: 'standard', eyeAngleDeg: 60, finish: 'bronze', finishLimitC: 175 } }); // prettier-ignore
  const product = await post('/products', { name: 'Ball 10 g, bare', style: 'ball', nominalMassKg: 0.01, hookId: hook.id, recipeId: null, bakeProgramId: null, priceMinor: null }); // prettier-ignore
  const order = await post('/orders', { customer: 'Stall', dueOn: null, note: '', lines: [{ productId: product.id, quantity: 12 }] }); // prettier-ignore
  const [ticket] = await post(`/orders/${order.id}/release`, {});
  const [pot] = await (await fetch(`${url}/api/pots`)).json();
  return post('/pours', { moldId: mold.id, potId: pot.id, batchIds: [ticket.id] });
}
