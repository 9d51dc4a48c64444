import type { CavityLoad, PourEntry, PourSetup } from './pour-log.ts';
import type { Shot } from './shot.ts';

export interface CavityRecord {
  good: number;
  /** Kept as second grade. */
  kept: number;
  rejects: Record<string, number>;
}

/**
 * Pieces that one head of a cavity takes of what was counted out: its hook, and what else is cast in.
 * @example piecesIn(pour.setup.loads[0])[0].quantity // 1
 */
export const piecesIn = ({
  hookMaterialId,
  castIn = [],
}: Pick<CavityLoad, 'hookMaterialId' | 'castIn'>): { materialId: string; quantity: number }[] =>
  hookMaterialId === null ? castIn : [{ materialId: hookMaterialId, quantity: 1 }, ...castIn];

/**
 * Hooks counted out, or counted again since: how many, and from when on heads take of them.
 * @example hooksCounted(pour.setup, twoShots).size // 2
 */
export function hooksCounted(setup: PourSetup, entries: readonly PourEntry[]): Map<string, HookCount> {
  const counts = new Map<string, HookCount>();
  for (const [materialId, left] of Object.entries(setup.hooksOut)) counts.set(materialId, { left, since: -Infinity });
  for (const entry of entries) {
    if (entry.kind === 'hooks') counts.set(entry.materialId, { left: entry.left, since: entry.at });
  }
  return counts;
}

interface HookCount {
  left: number;
  since: number;
}
interface Slot {
  load: CavityLoad;
  cavity: CavityRecord;
  /** What a head takes of what was counted out: its hook, and other pieces that are cast in. */
  takes: { count: HookCount; quantity: number }[];
}
interface Tally {
  good: number;
  kept: number;
  rejects: number;
  causes: Record<string, number>;
  hooksLost: number;
}

/**
 * Heads of the run by cavity and by ticket, with the metal in them and the hooks they took.
 * @example counted(pour.setup, pourState(pour.setup, twoShots).shots, hooksCounted(pour.setup,
 *   twoShots)).byCavity['cavity-1'].good // 2
 */
export function counted(setup: PourSetup, shots: readonly Shot[], hooks: Map<string, HookCount>) {
  const byCavity: Record<string, CavityRecord> = {};
  // What a head is counted into, looked up once a cavity and not once a head.
  const slots = new Map<string, Slot[]>();
  for (const load of setup.loads) {
    const cavity: CavityRecord = (byCavity[load.cavityId] = { good: 0, kept: 0, rejects: {} });
    const takes = piecesIn(load).flatMap(({ materialId, quantity }) => {
      const count = hooks.get(materialId);
      return count ? [{ count, quantity }] : [];
    });
    const own = slots.get(load.moldId) ?? [];
    own[load.position] = { load, cavity, takes };
    slots.set(load.moldId, own);
  }
  const tallies = new Map<string, Tally>();
  let [tally, tallyId]: [Tally | undefined, string] = [undefined, ''];
  const kg = { heads: 0, rejects: 0, redipped: 0, sprues: 0 };
  for (const { at, moldId, heads } of shots) {
    const own = slots.get(moldId)!;
    for (const head of heads) {
      const { load, cavity, takes } = own[head.position]!;
      if (!tally || tallyId !== head.ticketId) {
        tallyId = head.ticketId;
        tally = tallies.get(tallyId) ?? { good: 0, kept: 0, rejects: 0, causes: {}, hooksLost: 0 };
        tallies.set(tallyId, tally);
      }
      kg.sprues += load.sprueKg;
      const { verdict, goes } = head;
      const kept = goes === 'second grade';
      const hookLost = goes === 'hook lost';
      if (verdict === 'good') {
        cavity.good += 1;
        tally.good += 1;
        kg.heads += load.leadKg;
      } else if (kept) {
        cavity.kept += 1;
        tally.kept += 1;
        kg.heads += load.leadKg;
      } else {
        cavity.rejects[verdict] = (cavity.rejects[verdict] ?? 0) + 1;
        tally.rejects += 1;
        tally.causes[verdict] = (tally.causes[verdict] ?? 0) + 1;
        if (hookLost) tally.hooksLost += 1;
        kg.rejects += load.leadKg;
        if (goes === 'parts back') kg.redipped += load.leadKg;
      }
      if (verdict !== 'good' && !kept && !hookLost) continue;
      for (const { count, quantity } of takes) if (at > count.since) count.left -= quantity;
    }
  }
  /** One count by ticket; tickets without any are left out. */
  const by = (what: Exclude<keyof Tally, 'causes'>) =>
    Object.fromEntries([...tallies].flatMap(([id, tally]) => (tally[what] ? [[id, tally[what]]] : []))) as Record<
      string,
      number
    >;
  const hooksLeft = Object.fromEntries([...hooks].map(([id, { left }]) => [id, Math.max(0, left)]));
  return {
    byCavity,
    good: by('good'),
    kept: by('kept'),
    rejects: by('rejects'),
    causes: Object.fromEntries([...tallies].map(([id, { causes }]) => [id, causes])),
    hooksLost: by('hooksLost'),
    kg,
    hooksLeft,
  };
}
