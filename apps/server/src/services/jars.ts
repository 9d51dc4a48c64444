import type { JarView } from '@schmelz/contract';
import { rowsOf, type Store } from '../store/store.ts';
import { struck } from './part-lots.ts';
import { readSettings } from './settings.ts';
import { movesSign } from './stock.ts';

interface Move {
  materialId: string;
  at: number;
  reason: string;
  quantity: number;
  efficiency: number | null;
}

/**
 * Every powder with its weighings: what went between two of them by the scale, and what of it lies on heads by the
 * coverage formula (what tickets were charged, times the efficiency that they were planned with).
 */
export async function listJars(store: Store): Promise<JarView[]> {
  const [powders, weighings, moves, { settings }] = await Promise.all([
    rowsOf(store.models.materials, { where: { kind: 'powder' } }),
    rowsOf(store.models.records, { where: { kind: 'jar', struck: false }, order: [['at', 'ASC']] }),
    store.select<Move>(
      `SELECT m.materialId, m.at, m.reason, m.quantity, json_extract(t.planned, '$.transferEfficiency') AS efficiency
       FROM stockMoves m JOIN materials a ON a.id = m.materialId LEFT JOIN tickets t ON t.id = m.ticketId
       WHERE a.kind = 'powder' AND m.strikes IS NULL AND NOT ${struck('m')} ORDER BY m.at`,
    ),
    readSettings(store),
  ]);
  const usual = settings.ways.transferEfficiency;
  return powders.map(({ id }) => {
    const own = moves.filter((move) => move.materialId === id);
    const between = (fromAt: number, toAt: number) => own.filter((move) => move.at > fromAt && move.at <= toAt);
    const sum = (of: Move[], value: (move: Move) => number) => of.reduce((total, move) => total + value(move), 0);
    const received = (of: Move[]) =>
      sum(
        of.filter((move) => move.reason === 'received'),
        (move) => move.quantity,
      );
    const onHeads = (of: Move[]) =>
      sum(
        of.filter((move) => move.reason === 'powder'),
        (move) => -move.quantity * (move.efficiency ?? usual),
      );
    const weighed = weighings
      .filter((record) => record.thingId === id)
      .map((record) => ({ at: record.at, massKg: Number(record.body['massKg']) }));
    const intervals = weighed.slice(1).map((after, i) => {
      const before = weighed[i]!;
      const of = between(before.at, after.at);
      return {
        fromAt: before.at,
        toAt: after.at,
        usedKg: before.massKg + received(of) - after.massKg,
        onHeadsKg: onHeads(of),
      };
    });
    const last = weighed.at(-1) ?? null;
    const since = between(last?.at ?? 0, Infinity);
    return { materialId: id, last, intervals, receivedKg: received(since), onHeadsKg: onHeads(since) };
  });
}

/** The same, kept while no powder has moved, no jar was weighed and the house ways are the same. */
export async function jarsKept(store: Store): Promise<JarView[]> {
  const [weighed] = await store.select<Record<string, number>>(
    `SELECT COUNT(*) AS notes, SUM(struck) AS struck, (SELECT version FROM settings) AS ways
     FROM records WHERE kind = 'jar'`,
  );
  const sign = `${await movesSign(store, 'powder')} ${Object.values(weighed!).join(' ')}`;
  return store.keptWhile('jars', sign, () => listJars(store));
}
