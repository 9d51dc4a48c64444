import { castsFor } from '../count/casts-for.ts';
import { throughBoth, yieldEstimate, yieldTonight, type YieldTonight } from '../count/yield.ts';
import { seatOf, type CavityCut, type HookOffered, type Seat } from '../seat/seat.ts';
import type { PlanCavity, PlanHook, PlanLine, PlanMold, PlanProduct } from './types.ts';

/** Lines that want the same blank: one style, mass and hook, whatever colour they get. */
export interface BlankKind {
  key: string;
  lines: PlanLine[];
  wanted: number;
}
export interface KindOnMold {
  kind: BlankKind;
  cavities: PlanCavity[];
  /** Mean share of good casts, and how sure it is for one evening; see yieldTonight. */
  yieldShare: number;
  yieldSure: number;
  casts: number;
  shots: number;
}
export interface MoldAllocation {
  mold: PlanMold;
  kinds: KindOnMold[];
  shots: number;
}

const massesMatch = (a: number, b: number) => Math.abs(a - b) <= 0.01 * b;

/** Why no cavity casts this product, as a sentence; null when one does. */
export function castingProblem(product: PlanProduct, molds: readonly PlanMold[]): string | null {
  const cavities = molds.flatMap((mold) => mold.cavities);
  const sameStyle = cavities.filter((cavity) => cavity.style === product.style);
  const shaped = sameStyle.filter((cavity) => massesMatch(cavity.nominalMassKg, product.nominalMassKg));
  const grams = (kg: number) => `${Math.round(kg * 1e4) / 10} g`;
  if (shaped.length === 0) {
    const found = [...new Set(sameStyle.map((cavity) => grams(cavity.nominalMassKg)))].join(', ');
    return `No mold has a ${product.style} cavity of ${grams(product.nominalMassKg)}; there is ${found || 'none of this style'}.`;
  }
  const open = shaped.filter((cavity) => cavity.condition === 'good');
  if (open.length === 0) return `Every ${product.style} cavity of ${grams(product.nominalMassKg)} is blocked.`;
  if (open.some((cavity) => casts(cavity, product))) return null;
  const { hook } = product;
  const [first] = open as [PlanCavity];
  if (hook && first.tried?.[hook.materialId] === false) {
    return `Hook ${hook.size} does not fit: it was tried, and the mold did not close on it.`;
  }
  const why = hook && seatOf(groovesOf(first)[0]!, offered(hook)).because;
  return `Hook ${hook?.size} does not fit: ${why}.`;
}

const SEATS: ReadonlySet<Seat> = new Set<Seat>(['as cut', 'if bent']);

/** A cavity's groove as it was cut, and as it was ground out since. */
const groovesOf = ({ hookSize, eyeAngleDeg, wire, bend, variants = [] }: PlanCavity): CavityCut[] => {
  const cut: CavityCut = { hookSize, eyeAngleDeg, ...(wire ? { wire } : {}), ...(bend ? { bend } : {}) };
  return [cut, ...variants.flatMap(({ grooveFor }) => (grooveFor ? [{ ...cut, hookSize: grooveFor }] : []))];
};
const offered = ({ size: hookSize, ...hook }: PlanHook): HookOffered => ({ ...hook, hookSize });

/**
 * Whether a hook goes into a cavity: what the maker has tried says so before anything else, then a groove that was
 * ground out for it, then the estimate. Without a hook there is nothing to seat.
 */
function seats(cavity: PlanCavity, hook: PlanHook | null): boolean {
  if (!hook) return true;
  const tried = cavity.tried?.[hook.materialId];
  if (tried !== undefined) return tried;
  return groovesOf(cavity).some((cut) => SEATS.has(seatOf(cut, offered(hook)).seat));
}

/** Whether this cavity casts this product tonight: open, same head, and its hook goes in. */
export function casts(cavity: PlanCavity, product: PlanProduct): boolean {
  if (cavity.condition !== 'good' || cavity.style !== product.style) return false;
  if (!massesMatch(cavity.nominalMassKg, product.nominalMassKg)) return false;
  return seats(cavity, product.hook);
}

/** Molds that cast a product tonight, the one with most cavities for it first: the one rule of which mold is taken. */
export function moldsCasting<M extends Pick<PlanMold, 'cavities'>>(
  product: PlanProduct,
  molds: readonly M[],
): { mold: M; cavities: M['cavities'] }[] {
  return molds
    .map((mold) => ({ mold, cavities: mold.cavities.filter((cavity) => casts(cavity, product)) }))
    .filter(({ cavities }) => cavities.length > 0)
    .sort((a, b) => b.cavities.length - a.cavities.length);
}

function kindsOf(lines: readonly PlanLine[]): BlankKind[] {
  const kinds = new Map<string, BlankKind>();
  for (const line of lines) {
    const { style, nominalMassKg, hook } = line.product;
    const key = `${style} ${nominalMassKg.toFixed(5)} ${hook?.materialId ?? 'no hook'}`;
    const kind = kinds.get(key) ?? { key, lines: [], wanted: 0 };
    kind.lines.push(line);
    kind.wanted += line.quantity;
    kinds.set(key, kind);
  }
  return [...kinds.values()];
}

const meanYield = (cavities: readonly PlanCavity[]) =>
  cavities.reduce((sum, cavity) => sum + yieldEstimate(cavity.good, cavity.casts).mean, 0) / cavities.length;

const onCavities = (
  kind: BlankKind,
  cavities: PlanCavity[],
  { eveningSpread }: PlanMold,
  after: YieldTonight,
): KindOnMold => {
  const casts = cavities.reduce((sum, cavity) => sum + cavity.casts, 0);
  const spread = eveningSpread === undefined ? {} : { spread: eveningSpread };
  const tonight = yieldTonight({ mean: meanYield(cavities), casts, ...spread });
  const needed = castsFor(kind.wanted, throughBoth(tonight, after));
  const { mean: yieldShare, sure: yieldSure } = tonight;
  return { kind, cavities, yieldShare, yieldSure, casts: needed, shots: Math.ceil(needed / cavities.length) };
};

/**
 * Gives each kind of blank a mold and its cavities: the mold with most fitting cavities, and where kinds with other
 * hooks
 * want the same cavities, each next cavity goes to the kind that would need most shots. A plain rule that a maker can
 * follow; the optimal mix of molds is a later planner's work.
 * @param after what the steps after the pour leave of good heads; left out: all of them
 */
export function allocate(
  lines: readonly PlanLine[],
  molds: readonly PlanMold[],
  after: YieldTonight = { mean: 1 },
): MoldAllocation[] {
  const byMold = new Map<string, { mold: PlanMold; kinds: BlankKind[] }>();
  for (const kind of kindsOf(lines)) {
    const [best] = moldsCasting(kind.lines[0]!.product, molds);
    if (!best) continue;
    const entry = byMold.get(best.mold.id) ?? { mold: best.mold, kinds: [] };
    entry.kinds.push(kind);
    byMold.set(best.mold.id, entry);
  }
  return [...byMold.values()].flatMap(({ mold, kinds }) => poursOn(mold, kinds, after));
}

/** One pour of a mold, and another one for the kinds that found no cavity free in the first. */
function poursOn(mold: PlanMold, kinds: readonly BlankKind[], after: YieldTonight): MoldAllocation[] {
  const taken = shareCavities(mold, kinds);
  const cavitiesOf = (kind: BlankKind) => taken.get(kind.key) ?? [];
  const placed = kinds
    .filter((kind) => cavitiesOf(kind).length > 0)
    .map((kind) => onCavities(kind, cavitiesOf(kind), mold, after));
  const waiting = kinds.filter((kind) => cavitiesOf(kind).length === 0);
  const first = { mold, kinds: placed, shots: Math.max(0, ...placed.map((each) => each.shots)) };
  return placed.length && waiting.length ? [first, ...poursOn(mold, waiting, after)] : [first];
}

/** Each next cavity goes to the kind that would need most shots; a kind without any comes before all others. */
function shareCavities(mold: PlanMold, kinds: readonly BlankKind[]): Map<string, PlanCavity[]> {
  const taken = new Map<string, PlanCavity[]>(kinds.map((kind) => [kind.key, []]));
  const urgency = (kind: BlankKind) => {
    const cavities = taken.get(kind.key)!.length;
    return cavities === 0 ? 1e9 + kind.wanted : kind.wanted / cavities;
  };
  for (const cavity of mold.cavities) {
    const takers = kinds.filter((kind) => casts(cavity, kind.lines[0]!.product));
    const neediest = takers.sort((a, b) => urgency(b) - urgency(a))[0];
    if (neediest) taken.get(neediest.key)!.push(cavity);
  }
  return taken;
}
