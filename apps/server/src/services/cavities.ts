import type { CareRecord, Cavity, Mold, TrialRecord } from '@schmelz/contract';
import { eveningSpread, triedHooks, type Evening } from '@schmelz/core';
import type { Store } from '../store/store.ts';
import { listRecords } from './records.ts';
import { listResources } from './resources.ts';

interface CavityShots {
  pourId: string;
  cavityId: string;
  moldId: string;
  at: number;
  good: number;
  casts: number;
  rejects: string;
  /** Shots of the pour, blank ones included, and its blank ones: those fill every cavity. */
  shots: number;
  blanks: number;
  shotsSinceSmoked: number | null;
  pourC: number;
  roomC: number;
}

const shotsWhere = (store: Store, pours: string) =>
  store.select<CavityShots>(
    `SELECT c.pourId, c.cavityId, m.moldId, p.startedAt AS at, c.good, c.casts, c.rejects, m.shots + m.blanks AS shots, m.blanks,
            m.shotsSinceSmoked, json_extract(p.planned, '$.pourC') AS pourC, json_extract(p.planned, '$.roomC') AS roomC
     FROM pourCavities c JOIN pours p ON p.id = c.pourId JOIN cavities v ON v.id = c.cavityId
     JOIN pourMolds m ON m.pourId = p.id AND m.moldId = v.moldId WHERE ${pours} ORDER BY p.startedAt`,
  );

/**
 * Says of closed pours, or of all pours of a mold, whether they and the molds are the same: every entry of a pour, and
 * every change of a mold, counts its version up.
 */
export async function poursSign(store: Store, moldId?: string): Promise<string> {
  const of = moldId ? 'id IN (SELECT pourId FROM pourMolds WHERE moldId = :moldId)' : 'closedAt IS NOT NULL';
  const [sign] = await store.select<Record<string, number>>(
    `SELECT COUNT(*) AS pours, SUM(version) AS said, MAX(closedAt) AS last,
            (SELECT SUM(version) FROM molds) AS molds, (SELECT COUNT(*) FROM cavities) AS cavities
     FROM pours WHERE ${of}`,
    { moldId },
  );
  return Object.values(sign!).join(' ');
}

/** What every cavity gave in every pour, oldest first. */
export const shotsOfCavities = (store: Store): Promise<readonly CavityShots[]> =>
  store.kept('shots of cavities', async () => {
    // A tap at the pot changes its own pour; those that are closed stay as they are.
    const [closed, open] = await Promise.all([
      store.keptWhile('shots of closed pours', await poursSign(store), () =>
        shotsWhere(store, 'p.closedAt IS NOT NULL'),
      ),
      shotsWhere(store, 'p.closedAt IS NULL'),
    ]);
    return open.length === 0 ? closed : [...closed, ...open].sort((a, b) => a.at - b.at);
  });

interface Soot {
  since: number;
  ever: boolean;
}

/** Follows a cavity's soot through its pours and the candle at home; calls `each` with the shots since, mid-pour. */
export function followSoot(
  pours: readonly CavityShots[],
  smokings: readonly number[],
  each: (pour: CavityShots, since: number) => void = () => {},
): Soot {
  const soot: Soot = { since: 0, ever: false };
  const smoke = [...smokings];
  const clean = (until: number) => {
    while (smoke.length && smoke[0]! <= until) {
      smoke.shift();
      soot.since = 0;
      soot.ever = true;
    }
  };
  for (const pour of pours) {
    clean(pour.at);
    const worn = pour.casts + pour.blanks;
    each(pour, soot.since + Math.round(worn / 2));
    if (pour.shotsSinceSmoked === null) soot.since += worn;
    else {
      soot.since = pour.shots ? Math.round((worn * pour.shotsSinceSmoked) / pour.shots) : 0;
      soot.ever = true;
    }
  }
  clean(Infinity);
  return soot;
}

/**
 * When a cavity was smoked beside its own pours, oldest first: at home, and with the whole mold in pours of others.
 * @param shots of the mold
 */
export function smokingsOf(
  { id, position }: { id: string; position: number },
  care: readonly (CareRecord & { struck: boolean })[],
  shots: readonly CavityShots[],
): number[] {
  const atHome = care
    .filter((each) => !each.struck && each.what === 'smoked')
    .filter((each) => each.positions.length === 0 || each.positions.includes(position));
  const itsOwn = new Set(shots.flatMap(({ cavityId, pourId }) => (cavityId === id ? [pourId] : [])));
  const atPot = shots.filter((each) => each.shotsSinceSmoked !== null && !itsOwn.has(each.pourId));
  return [...atHome, ...atPot].map(({ at }) => at).sort((one, other) => one - other);
}

/** What a mold gave, pour by pour. */
function eveningsOf(shots: readonly CavityShots[]): Evening[] {
  const evenings = new Map<string, Evening>();
  for (const { pourId, good, casts } of shots) {
    const evening = evenings.get(pourId) ?? { good: 0, casts: 0 };
    evenings.set(pourId, { good: evening.good + good, casts: evening.casts + casts });
  }
  return [...evenings.values()];
}

function shotsBy(shots: readonly CavityShots[], of: 'cavityId' | 'moldId'): Map<string, CavityShots[]> {
  const groups = new Map<string, CavityShots[]>();
  for (const each of shots) {
    const group = groups.get(each[of]);
    if (group) group.push(each);
    else groups.set(each[of], [each]);
  }
  return groups;
}

/** Molds with what their cavities gave so far, why heads were thrown back, and the shots since they were smoked. */
export async function listMolds(store: Store): Promise<Mold[]> {
  const [molds, shots, care, trials] = await Promise.all([
    listResources(store, 'molds'),
    shotsOfCavities(store),
    listRecords<CareRecord>(store, 'care'),
    listRecords<TrialRecord>(store, 'trial'),
  ]);
  const ofCavity = shotsBy(shots, 'cavityId');
  const ofMold = shotsBy(shots, 'moldId');
  return molds.map((mold) => {
    const ofThis = care.filter(({ thingId }) => thingId === mold.id);
    const cavities = mold.cavities.map((cavity): Cavity => {
      const pours = ofCavity.get(cavity.id) ?? [];
      const { since, ever } = followSoot(pours, smokingsOf(cavity, ofThis, ofMold.get(mold.id) ?? []));
      const rejects: Record<string, number> = {};
      for (const pour of pours) {
        for (const [cause, count] of Object.entries(JSON.parse(pour.rejects) as Record<string, number>)) {
          rejects[cause] = (rejects[cause] ?? 0) + count;
        }
      }
      const total = (of: (pour: CavityShots) => number) => pours.reduce((sum, pour) => sum + of(pour), 0);
      return {
        ...cavity,
        good: total((p) => p.good),
        casts: total((p) => p.casts),
        rejects,
        shotsSinceSmoked: since,
        everSmoked: ever,
        tried: triedHooks(trials.filter((trial) => trial.cavityId === cavity.id && !trial.struck)),
      };
    });
    const open = cavities.filter((cavity) => cavity.condition === 'good');
    const worn = Math.max(0, ...open.map((cavity) => cavity.shotsSinceSmoked));
    const spread = eveningSpread(eveningsOf(ofMold.get(mold.id) ?? []));
    return { ...mold, cavities, shotsSinceSmoked: worn, eveningSpread: spread };
  });
}
