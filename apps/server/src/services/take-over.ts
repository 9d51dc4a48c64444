import { productAtRelease, productRefusal, routeOf, ticketState } from '@schmelz/core';
import type { Store } from '../store/store.ts';
import { notAllowed, notFound } from './errors.ts';
import { planFor, ticketPlan } from './orders.ts';
import { loadTickets, setupOf, syncTicket, ticketLog } from './tickets.ts';
import { readWorkshop } from './workshop.ts';

/**
 * A ticket under way takes on what its product has become since its release, as far as nothing of it is done yet: what
 * it is planned to take and to cost is reckoned anew, with the prices of today.
 */
export async function takeOverProduct(store: Store, ticketId: string, at = Date.now()): Promise<void> {
  const workshop = await readWorkshop(store);
  const [before] = await loadTickets(store, { id: ticketId });
  if (!before) throw notFound('ticket', ticketId);
  const { productId, quantity } = before.row;
  const known = workshop.products.get(productId);
  if (!known) throw notFound('product', productId);
  const product = productAtRelease(known, workshop.ways.schools);
  const plan = await planFor(store, [{ productId, quantity }], workshop);
  await store.write(async (transaction) => {
    const [loaded] = await loadTickets(store, { id: ticketId }, transaction);
    if (!loaded) throw notFound('ticket', ticketId);
    const { row, pours } = loaded;
    const state = ticketState(setupOf(loaded), ticketLog(loaded));
    const isCast = pours.length > 0 || state.taken > 0;
    const refusal = productRefusal(row.product, product, state, isCast);
    if (refusal) throw notAllowed(refusal);
    const [problem] = plan.problems;
    if (problem && !isCast) throw notAllowed(problem.text);
    // What is cast was planned when it was cast; what still comes is planned by what it is now.
    const { casts, upTo, yieldShare, leadKgPerHead, stack, workS } = row.planned;
    const anew = problem ? row.planned : ticketPlan(plan, productId, workshop);
    const kept = problem ? { stack, workS } : {};
    const planned = {
      ...anew,
      ...kept,
      ...(isCast ? { casts, ...(upTo === undefined ? {} : { upTo }), yieldShare, leadKgPerHead } : {}),
    };
    await store.models.tickets.update(
      { product, route: routeOf(product), planned, version: row.version + 1 },
      { where: { id: ticketId }, transaction },
    );
    await syncTicket(store, ticketId, at, transaction);
  });
}
