import {
  gathered,
  judgeGroups,
  mainHand,
  meanwhile,
  STATIONS,
  summed,
  worstStretch,
  type Expected,
  type HandsByWho,
  type OfGroup,
} from '@schmelz/core';
import type { ChangesView, ChangeView, PersonView } from '@schmelz/contract';
import type { Store } from '../store/store.ts';
import { shotsOfCavities } from './cavities.ts';
import { thrownByTicket, type Period } from './ticket-figures.ts';
import { grouped } from './tickets.ts';

/** In so many years in which nothing changed something is found all the same, over all causes; of people likewise. */
const LEVEL = 0.01;
/** Fewer bad heads, or points, of a cause say nothing of when. */
const FEWEST_BAD = 12;
const FEWEST_POINTS = 8;
/** A long record is looked at in so many parts. */
const PARTS = 60;
/** What is like something has its own share of bad heads, and leans on that of all as on so many bad ones. */
const LEANS = 8;

/** What was made of something in one go: a cavity in a pour, a ticket. */
interface Made {
  /** What it is compared with by itself: its cavity, its product. */
  like: string;
  heads: number;
  causes: Record<string, number>;
}
/** A pour or a ticket at a station, in the order in which they were made. */
interface Point {
  number: number;
  at: number;
  made: readonly Made[];
  /** Whose work it mainly was, and what that hand's part of it came to. */
  who: string | null;
  tags: readonly string[];
}
interface Series {
  station: string;
  points: readonly Point[];
}

const headsOf = ({ made }: Point) => made.reduce((sum, { heads }) => sum + heads, 0);
/** Of a cause, or of any where none is named. A head sent back twice is one head. */
const badOf = ({ causes, heads }: Made, cause: string | null) =>
  Math.min(heads, cause === null ? Object.values(causes).reduce((sum, each) => sum + each, 0) : (causes[cause] ?? 0));

/** Points with the bad heads of a cause, and as many as heads like these have on the whole. */
function expectedOf(points: readonly Point[], cause: string | null): Expected[] {
  const all = { heads: 0, bad: 0 };
  const likes = new Map<string, { heads: number; bad: number }>();
  for (const made of points.flatMap((point) => point.made)) {
    const like = likes.get(made.like) ?? { heads: 0, bad: 0 };
    for (const sum of [all, like]) {
      sum.heads += made.heads;
      sum.bad += badOf(made, cause);
    }
    likes.set(made.like, like);
  }
  const share = all.heads > 0 ? all.bad / all.heads : 0;
  const shareOf = (like: string) => {
    const { heads, bad } = likes.get(like)!;
    return share === 0 ? 0 : Math.min(1, (bad + LEANS) / (heads + LEANS / share));
  };
  return points.map((point) => ({
    heads: headsOf(point),
    bad: point.made.reduce((sum, made) => sum + badOf(made, cause), 0),
    expected: point.made.reduce((sum, made) => sum + made.heads * shareOf(made.like), 0),
  }));
}

/** Causes of a station that came often enough to say when. */
function causesOf({ points }: Series): string[] {
  if (points.length < FEWEST_POINTS) return [];
  const counts: Record<string, number> = {};
  for (const made of points.flatMap((point) => point.made)) {
    for (const cause of Object.keys(made.causes)) counts[cause] = (counts[cause] ?? 0) + badOf(made, cause);
  }
  return Object.keys(counts).filter((cause) => counts[cause]! >= FEWEST_BAD);
}

/** The stretch in which a cause came more often than before and after; null where it always came alike. */
function changeOf({ station, points }: Series, cause: string, level: number): Omit<ChangeView, 'lots'> | null {
  const expected = expectedOf(points, cause);
  const parts = gathered(
    points.map((point, at) => ({ ...expected[at]!, point })),
    PARTS,
  );
  const found = worstStretch(parts.map(summed), level);
  if (!found) return null;
  const inside = parts.slice(found.first, found.last + 1).flat();
  const [first, last] = [inside[0]!.point, inside.at(-1)!.point];
  const { heads, bad, rest, chance } = found;
  return {
    ...{ station, cause, heads, bad, rest, chance },
    from: { number: first.number, at: first.at },
    to: { number: last.number, at: last.at },
    fromFirst: found.first === 0,
    toLast: found.last === parts.length - 1,
    meanwhile: meanwhile(
      points.map(({ at, tags }, nth) => ({ ...expected[nth]!, inside: at >= first.at && at <= last.at, tags })),
    ).map(({ tag, ...shares }) => {
      const [kind, ...key] = tag.split(' ');
      return { kind: kind as ChangeView['meanwhile'][number]['kind'], key: key.join(' '), ...shares };
    }),
  };
}

/** People at a station by what went through their hands, each against what such heads give on the whole. */
function peopleAt({ station, points }: Series, level: number): PersonView[] {
  const expected = expectedOf(points, null);
  const named = points.flatMap(({ who }, at): OfGroup[] => (who === null ? [] : [{ ...expected[at]!, group: who }]));
  return judgeGroups(named, level).map(({ group: who, ...judged }) => ({ station, who, ...judged }));
}

/** Lots that tickets took from, as tags. */
async function lotTags(store: Store): Promise<Map<string, string[]>> {
  const rows = await store.select<{ ticketId: string; lotId: number }>(
    `SELECT m.ticketId, u.receiptId AS lotId FROM lotUses u JOIN stockMoves m ON m.id = u.moveId
     WHERE m.ticketId IS NOT NULL GROUP BY m.ticketId, u.receiptId HAVING SUM(u.quantity) > 1e-9`,
  );
  return new Map(
    [...grouped(rows, ({ ticketId }) => ticketId)].map(([id, own]) => [id, own.map(({ lotId }) => `lot ${lotId}`)]),
  );
}

/** Pours of a period, cavity by cavity. */
async function poursAsSeries(store: Store, { from, to }: Period, lots: Map<string, string[]>): Promise<Series> {
  const shots = (await shotsOfCavities(store)).filter(({ at, casts }) => at >= from && at < to && casts > 0);
  const rows = await store.select<{
    id: string;
    number: number;
    leadId: string;
    hands: string | null;
    tickets: string;
  }>(
    `SELECT p.id, p.number, p.leadId, p.hands, json_group_array(pt.ticketId) AS tickets
     FROM pours p LEFT JOIN pourTickets pt ON pt.pourId = p.id WHERE p.startedAt >= :from AND p.startedAt < :to GROUP BY p.id`,
    { from, to },
  );
  const pours = new Map(rows.map((row) => [row.id, row]));
  const points = [...grouped(shots, ({ pourId }) => pourId)].map(([pourId, own]): Point => {
    const { number, leadId, hands, tickets } = pours.get(pourId)!;
    const heads = own.reduce((sum, { casts }) => sum + casts, 0);
    const who = hands === null ? null : mainHand(JSON.parse(hands) as HandsByWho, heads);
    const tags = new Set([
      ...own.map(({ moldId }) => `mold ${moldId}`),
      ...(JSON.parse(tickets) as string[]).flatMap((id) => lots.get(id) ?? []),
      `metal ${leadId}`,
      ...(who === null ? [] : [`who ${who}`]),
    ]);
    const made = own.map(({ cavityId, casts, rejects }): Made => {
      return { like: cavityId, heads: casts, causes: JSON.parse(rejects) as Record<string, number> };
    });
    return { number, at: own[0]!.at, made, who, tags: [...tags] };
  });
  return { station: 'pour', points };
}

/** Closed tickets of a period at each station after the pour. */
async function ticketsAsSeries(store: Store, period: Period, lots: Map<string, string[]>): Promise<Series[]> {
  const tickets = [...(await thrownByTicket(store, period))].sort((a, b) => a.closedAt - b.closedAt);
  return STATIONS.map(({ id }) => id)
    .filter((station) => station !== 'pour')
    .map((station) => ({
      station,
      points: tickets.flatMap(({ ticketId, number, productId, closedAt, came, thrown, hands, setC }): Point[] => {
        const heads = came[station] ?? 0;
        if (heads === 0) return [];
        const causes: Record<string, number> = {};
        for (const each of thrown) {
          if (each.station === station) causes[each.cause] = (causes[each.cause] ?? 0) + each.heads;
        }
        const own = hands.filter((each) => each.station === station);
        const who = mainHand(Object.fromEntries(own.map(({ who: name, ...counts }) => [name, counts])), heads);
        const tags = [
          `product ${productId}`,
          ...(lots.get(ticketId) ?? []),
          ...[...new Set(setC)].map((each) => `set ${each}`),
          ...(who === null ? [] : [`who ${who}`]),
        ];
        return [{ number, at: closedAt, made: [{ like: productId, heads, causes }], who, tags }];
      }),
    }));
}

/**
 * What changed, and when: causes that came more often for a while than before and after, beyond chance, with what went
 * with it; and who does the work of a station worse than it is done otherwise. Both by shuffling, so that in all but
 * one of a hundred years in which nothing changes nothing is found.
 */
export async function changesOf(store: Store, period: Period): Promise<ChangesView> {
  const lots = await lotTags(store);
  const all = [await poursAsSeries(store, period, lots), ...(await ticketsAsSeries(store, period, lots))];
  const causes = all.flatMap((series) => causesOf(series).map((cause) => ({ series, cause })));
  const found = causes.flatMap(({ series, cause }) => changeOf(series, cause, LEVEL / causes.length) ?? []);
  const named = all.filter(({ points }) => points.some(({ who }) => who !== null));
  const wanted = found.flatMap((change) => change.meanwhile.filter(({ kind }) => kind === 'lot').map(({ key }) => key));
  const known = wanted.length === 0 ? [] : await lotsById(store, wanted);
  return {
    changes: found.map((change) => ({ ...change, lots: known.filter(({ lotId }) => isIn(change, lotId)) })),
    people: named.flatMap((series) => peopleAt(series, LEVEL / named.length)),
  };
}

const isIn = ({ meanwhile: went }: Omit<ChangeView, 'lots'>, lotId: number) =>
  went.some(({ kind, key }) => kind === 'lot' && key === String(lotId));

const lotsById = (store: Store, ids: readonly string[]) =>
  store.select<ChangeView['lots'][number]>(
    `SELECT r.id AS lotId, r.materialId, a.kind, r.lot, r.at FROM stockMoves r JOIN materials a ON a.id = r.materialId
     WHERE r.id IN (:ids)`,
    { ids: ids.map(Number) },
  );
