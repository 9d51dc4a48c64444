import { blames, stationOf, standOuts } from '@schmelz/core';
import type { LotQuality } from '@schmelz/contract';
import type { Store } from '../store/store.ts';
import { thrownByTicket } from './ticket-figures.ts';
import { grouped } from './tickets.ts';

/** Kinds whose lots are compared, with the station where heads meet them. */
const COMPARED = { hook: 'pour', powder: 'paint' } as const;
/** In so many workshops where all lots are alike one is found all the same, over all parts of a kind. */
const LEVEL = 0.01;
/** A ticket says something of a lot when so much of what it took of the part came from it. */
const MAINLY = 0.9;

interface Use {
  ticketId: string;
  materialId: string;
  lotId: number;
  lot: string;
  at: number;
  quantity: number;
}

type Counted = Omit<LotQuality, 'rest' | 'chance' | 'standsOut'>;

/** Of each ticket and part the lot that nearly all of it came from; tickets of two lots say nothing of either. */
async function mainLots(store: Store, kind: string): Promise<Use[]> {
  const uses = await store.select<Use>(
    `SELECT m.ticketId, m.materialId, r.id AS lotId, r.lot, r.at, SUM(u.quantity) AS quantity
     FROM lotUses u JOIN stockMoves m ON m.id = u.moveId JOIN stockMoves r ON r.id = u.receiptId
     JOIN materials a ON a.id = m.materialId
     WHERE m.ticketId IS NOT NULL AND a.kind = :kind GROUP BY m.ticketId, r.id HAVING SUM(u.quantity) > 1e-9`,
    { kind },
  );
  const all = new Map<string, number>();
  const keyOf = ({ ticketId, materialId }: Use) => `${ticketId} ${materialId}`;
  for (const use of uses) all.set(keyOf(use), (all.get(keyOf(use)) ?? 0) + use.quantity);
  return uses.filter((use) => use.quantity >= MAINLY * all.get(keyOf(use))!);
}

/**
 * Every lot of hooks and powder that tickets were made of, with the heads that were thrown back for a cause that the
 * part may be to blame for; which stand out is told by {@link standOuts}, lots of one part against each other.
 */
export async function lotQuality(store: Store): Promise<LotQuality[]> {
  const tickets = new Map((await thrownByTicket(store)).map((each) => [each.ticketId, each]));
  const found: LotQuality[] = [];
  for (const [kind, from] of Object.entries(COMPARED)) {
    const lots = new Map<number, Counted>();
    for (const { ticketId, materialId, lotId, lot, at } of await mainLots(store, kind)) {
      const ticket = tickets.get(ticketId);
      if (!ticket) continue;
      const blank: Counted = { lotId, materialId, kind, lot, at, tickets: 0, heads: 0, bad: 0, causes: {} };
      const group = lots.get(lotId) ?? blank;
      group.tickets += 1;
      const heads = ticket.came[stationOf(from).id] ?? 0;
      group.heads += heads;
      let bad = 0;
      for (const { station, cause, heads: thrown } of ticket.thrown) {
        if (!blames(station, cause, kind)) continue;
        bad += thrown;
        group.causes[cause] = (group.causes[cause] ?? 0) + thrown;
      }
      // A head that was sent back may be thrown back twice: it is one head.
      group.bad += Math.min(heads, bad);
      lots.set(lotId, group);
    }
    // A hook that sits badly in its cavity is no bad lot: lots of one part are compared with each other.
    const parts = grouped([...lots.values()], ({ materialId }) => materialId);
    for (const own of parts.values()) {
      const judged = standOuts(own, LEVEL / parts.size);
      found.push(...judged.map(({ group, rest, chance, standsOut }) => ({ ...group, rest, chance, standsOut })));
    }
  }
  return found;
}
