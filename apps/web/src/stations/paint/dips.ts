import { headsOf, stepBy, type HeadsInRun } from '@schmelz/core';
import { newId } from '../../api/id.ts';
import { sayInto } from '../../api/outbox.ts';
import { runPath, type LineTicket } from '../../shell/line-state.ts';
import type { Catalogue } from '../../shell/catalogue.ts';
import { laidOn } from './PaintPlan.tsx';

/** Heads of several tickets that are dipped in one go, because they wait for the same paint. */
export interface DipTogether {
  recipeId: string;
  name: string;
  /** What is dipped into first: the session is kept under it. */
  powderId: string;
  heads: HeadsInRun[];
}

/** What waits for the same paint at two tickets or more, the largest first. Liquid paint goes ticket by ticket. */
export function dipsTogether(tickets: readonly LineTicket[], catalogue: Catalogue): DipTogether[] {
  const byPaint = new Map<string, DipTogether>();
  for (const ticket of tickets) {
    for (const { station, key, left } of ticket.state.steps) {
      if (station !== 'paint' || left <= 0) continue;
      const route = stepBy(ticket.route, key);
      const recipe = catalogue.recipes.get(route?.recipeId ?? catalogue.product(ticket.productId)?.recipeId ?? '');
      const layers = laidOn(ticket, key, catalogue);
      const [first] = recipe?.layers ?? [];
      if (!recipe || !first || layers.some(({ form }) => form === 'liquid')) continue;
      const place = `${recipe.id} ${route?.only ?? ''}`;
      const dip = byPaint.get(place) ?? { recipeId: recipe.id, name: recipe.name, powderId: first.powderId, heads: [] };
      dip.heads.push({ ticketId: ticket.id, step: key, count: left });
      byPaint.set(place, dip);
    }
  }
  return [...byPaint.values()]
    .filter(({ heads }) => heads.length > 1)
    .sort((a, b) => headsOf(b.heads) - headsOf(a.heads));
}

/** Begins to dip them: a run, by an id of this device. Gives the path of its bench. */
export function beginDip({ powderId, name, heads }: DipTogether): string {
  const id = newId();
  sayInto(`/runs/dip/${id}`, { kind: 'begin', partId: powderId, name, heads });
  return runPath('dip', id);
}
