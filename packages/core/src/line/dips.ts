import type { TicketState } from '../job/ticket.ts';
import { stepOfRoute } from '../job/route.ts';
import type { PlanStep } from '../plan/types.ts';
import { headsOf, type HeadsInRun } from '../run/heads-in-run.ts';
import type { TicketProduct } from './ticket-product.ts';

/** Heads of several tickets that are dipped in one go, because they wait for the same paint. */
export interface DipTogether {
  /** The paint by what it is laid on of, and what it is called. */
  paint: string;
  name: string;
  /** What is dipped into first: the session is kept under it. */
  powderId: string;
  heads: HeadsInRun[];
}

/**
 * What tells one paint from another: what is laid on, where and how often, whatever the recipe is called.
 * @example paintKey({ layers: [] }) // '[]'
 */
export const paintKey = ({ layers }: Pick<PlanStep, 'layers'>): string =>
  JSON.stringify(
    layers.map(({ powder, zone, coats, mix }) => [
      powder.materialId,
      zone,
      coats,
      ...(mix ? [mix.powder.materialId, mix.share] : []),
    ]),
  );

/**
 * What waits for the same paint at two tickets or more, the largest first. Liquid paint goes ticket by ticket.
 * @example dipsTogether([]) // []
 */
export function dipsTogether(
  tickets: readonly { id: string; product: TicketProduct; state: TicketState }[],
): DipTogether[] {
  const byPaint = new Map<string, DipTogether>();
  for (const { id, product, state } of tickets) {
    for (const { station, key, left } of state.steps) {
      const step = stepOfRoute(product.steps, key);
      const [first] = step?.layers ?? [];
      if (station !== 'paint' || left <= 0 || !step || !first) continue;
      if (step.layers.some(({ powder }) => powder.form === 'liquid')) continue;
      const paint = paintKey(step);
      const dip = byPaint.get(paint) ?? {
        ...{ paint, name: step.recipe?.name || first.powder.name, powderId: first.powder.materialId },
        heads: [],
      };
      dip.heads.push({ ticketId: id, step: key, count: left });
      byPaint.set(paint, dip);
    }
  }
  return [...byPaint.values()]
    .filter(({ heads }) => heads.length > 1)
    .sort((a, b) => headsOf(b.heads) - headsOf(a.heads));
}
