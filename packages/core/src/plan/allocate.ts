import { castsUntil, partOf, wholeCasts, type Casts } from '../count/casts-for.ts';
import { yieldOfBlank } from './blank-yield.ts';
import { quantityText } from '../quantity/said.ts';
import { seatOf } from '../seat/seat.ts';
import { castMassKg } from '../cast/cast-mass.ts';
import { kindOfMetal, takesMetal } from './metal.ts';
import { METAL_WANTED_NAMES } from '../metal/wanted.ts';
import { castInto, castKg, grooveOf, massesMatch, offered, variantFor } from './blank.ts';
import type { PlanCavity, PlanHook, PlanLine, PlanMold, PlanProduct } from './types.ts';

/** Lines that want the same blank: one style, mass, hook and variant, whatever colour they get. */
interface BlankKind {
  key: string;
  lines: PlanLine[];
  /** Good heads that the pot owes of it. */
  wanted: number;
  /** Of all molds that share it: what one of them gives more makes up for another; left out: `wanted`. */
  whole?: number;
}
export interface KindOnMold {
  kind: BlankKind;
  cavities: PlanCavity[];
  /** Mean share of good casts, and how sure it is for one evening; see yieldTonight. */
  yieldShare: number;
  yieldSure: number;
  casts: Casts;
}
export interface MoldAllocation {
  mold: PlanMold;
  kinds: KindOnMold[];
}

/**
 * Shots of a mold for these casts: the blank that needs most decides; once the others have enough, their cavities stay
 * empty.
 * @example shotsOf({ kinds: [{ casts: { expected: 33.4 }, cavities: [{}, {}] }] }, ({ expected }) => expected) // 17
 */
export const shotsOf = (
  { kinds }: { kinds: readonly { casts: Casts; cavities: readonly unknown[] }[] },
  which: (casts: Casts) => number = ({ expected }) => expected,
): number => Math.max(0, ...kinds.map(({ casts, cavities }) => Math.ceil(wholeCasts(which(casts)) / cavities.length)));

/**
 * Cavities that are loaded a shot, over all shots: a blank that has enough leaves its cavities empty, so that they are
 * fewer than the mold has.
 * @example cavitiesAShot({ kinds: [{ casts: { expected: 60 }, cavities: [{}, {}] }] }) // 2
 */
export const cavitiesAShot = (allocation: Parameters<typeof shotsOf>[0]): number =>
  allocation.kinds.reduce((sum, { casts }) => sum + casts.expected, 0) / Math.max(1, shotsOf(allocation));

/**
 * Why no cavity casts this product, as a sentence; null when one does.
 * @example castingProblem(product(10), []) // 'No mold has a ball cavity of 10 g; there is none of this style.'
 */
export function castingProblem(product: PlanProduct, molds: readonly PlanMold[]): string | null {
  if (product.metal === null) {
    const { wantsMetal } = product;
    return `It is cast in ${METAL_WANTED_NAMES[wantsMetal ?? 'any']}, and none is on record: add some in Stock.`;
  }
  const cavities = molds.flatMap((mold) => mold.cavities);
  const sameStyle = cavities.filter((cavity) => cavity.style === product.style);
  const shaped = sameStyle.filter((cavity) => massesMatch(cavity.nominalMassKg, product.nominalMassKg));
  const grams = (kg: number) => quantityText(Math.round(kg * 1e4) / 10, 'g');
  if (shaped.length === 0) {
    const found = [...new Set(sameStyle.map((cavity) => grams(cavity.nominalMassKg)))].join(', ');
    return `No mold has a ${product.style} cavity of ${grams(product.nominalMassKg)}; there is ${found || 'none of this style'}.`;
  }
  const open = shaped.filter((cavity) => cavity.condition === 'good');
  if (open.length === 0) return `Every ${product.style} cavity of ${grams(product.nominalMassKg)} is blocked.`;
  if (moldsCasting(product, molds).length > 0) return null;
  if (open.some((cavity) => casts(cavity, product))) {
    return `The molds that cast it are kept for another metal than ${METAL_WANTED_NAMES[kindOfMetal(product)]}.`;
  }
  const { hook, variant } = product;
  if (variant && !open.some((cavity) => cavity.variants?.some(({ name }) => name === variant))) {
    return `No ${product.style} cavity of ${grams(product.nominalMassKg)} is cast as "${variant}"; say at the mold what else it casts.`;
  }
  const [first] = open as [PlanCavity];
  if (hook && first.tried?.[hook.materialId] === false) {
    return `Hook ${hook.size} does not fit: it was tried, and the mold did not close on it.`;
  }
  const why = hook && seatOf(grooveOf(first), offered(hook)).because;
  return `Hook ${hook?.size} does not fit: ${why}.`;
}

/**
 * Whether this cavity casts this product tonight: open, same head, and its hook goes in.
 * @example casts(cavity(1, 10), product(14)) // false
 */
export const casts = (cavity: PlanCavity, product: PlanProduct): boolean => variantFor(cavity, product) !== null;

/**
 * Molds that cast a product tonight, the one with most cavities for it first: the one rule of which mold is taken.
 * @example moldsCasting(product(10), workshop().molds)[0].cavities.length // 3
 */
export function moldsCasting<M extends Pick<PlanMold, 'cavities' | 'keptFor'>>(
  product: PlanProduct,
  molds: readonly M[],
): { mold: M; cavities: M['cavities'] }[] {
  return molds
    .filter((mold) => takesMetal(mold, product))
    .map((mold) => ({ mold, cavities: mold.cavities.filter((cavity) => casts(cavity, product)) }))
    .filter(({ cavities }) => cavities.length > 0)
    .sort((a, b) => b.cavities.length - a.cavities.length);
}

/**
 * Soft lead in one head of a product, kg: as the mold casts it that has most cavities for it; by its stamp where none
 * has.
 * @example productKg(product(10), []) // 0.01
 */
export function productKg(product: PlanProduct, molds: readonly Pick<PlanMold, 'cavities' | 'keptFor'>[]): number {
  const [best] = moldsCasting(product, molds);
  return best ? castKg(best.cavities[0]!, product) : castMassKg({ nominalMassKg: product.nominalMassKg });
}

type ToldApart = Pick<PlanProduct, 'style' | 'nominalMassKg' | 'variant' | 'parts' | 'metal'> & {
  hook: Pick<PlanHook, 'materialId' | 'name'> | null;
};

/**
 * What tells one blank from another: style, mass, variant, hook, what else is cast in and the kind of metal, whatever
 * colour it gets.
 * @example blankKey({ style: 'ball', nominalMassKg: 0.01, hook: null }) // 'ball 0.01000 no hook '
 */
export function blankKey(product: ToldApart): string {
  const { style, nominalMassKg, hook, variant } = product;
  const others = castInto({ ...product, hook: null }).map(({ materialId, perHead }) => `${perHead} ${materialId}`);
  const kind = kindOfMetal(product);
  const metal = kind === 'soft' ? [] : [kind];
  const told = [style, nominalMassKg.toFixed(5), hook?.materialId ?? 'no hook', variant ?? '', ...others.sort()];
  return [...told, ...metal].join(' ');
}

function kindsOf(lines: readonly PlanLine[]): BlankKind[] {
  const kinds = new Map<string, BlankKind>();
  for (const line of lines) {
    const key = blankKey(line.product);
    const kind = kinds.get(key) ?? { key, lines: [], wanted: 0 };
    kind.lines.push(line);
    kind.wanted += line.quantity;
    kinds.set(key, kind);
  }
  return [...kinds.values()];
}

/** What a kind takes on some cavities of a mold: of all its casts this mold's part. */
function onCavities(kind: BlankKind, cavities: PlanCavity[], mold: PlanMold, molds: readonly PlanMold[]): KindOnMold {
  const { mean: yieldShare, sure: yieldSure } = yieldOfBlank(cavities, [mold], fitting(kind.lines[0]!.product, molds));
  const { wanted, whole = wanted } = kind;
  const casts = partOf(castsUntil(whole, { mean: yieldShare, sure: yieldSure }), wanted / whole);
  return { kind, cavities, yieldShare, yieldSure, casts };
}

/**
 * Cavities of all molds that cast a product tonight.
 * @example fitting(product(10), workshop().molds).length // 3
 */
export const fitting = (product: PlanProduct, molds: readonly PlanMold[]): PlanCavity[] =>
  molds
    .filter((mold) => takesMetal(mold, product))
    .flatMap((mold) => mold.cavities.filter((cavity) => casts(cavity, product)));

/** A mold that casts a blank, with its cavities for it. */
export type Casting = ReturnType<typeof moldsCasting<PlanMold>>[number];
/** Which molds cast a kind of blank: the parts of its heads by mold, those with most cavities first. */
export type MoldShares = (kind: BlankKind, casting: readonly Casting[]) => readonly number[];

/**
 * All of it on the mold with most cavities: the plain rule, which a maker can follow.
 * @example onBestMold({}, [{}, {}]) // [1, 0]
 */
export const onBestMold: MoldShares = (_kind, casting) => casting.map((_, at) => (at === 0 ? 1 : 0));

/**
 * All molds that cast it share it, by their cavities.
 * @example byCavities({}, [{ cavities: [{}, {}] }, { cavities: [{}] }]) // [2, 1]
 */
export const byCavities: MoldShares = (_kind, casting) => casting.map(({ cavities }) => cavities.length);

/**
 * As many on each mold as somebody has planned; by the plain rule where nobody has.
 * @param castsOf casts of a line on a mold: `castsOf(line, moldId)`
 * @example asPlanned(() => 12)({ lines: [{}] }, [{ mold: {} }, { mold: {} }]) // [12, 12]
 */
export const asPlanned =
  (castsOf: (line: PlanLine, moldId: string) => number): MoldShares =>
  (kind, casting) => {
    const shares = casting.map(({ mold }) => kind.lines.reduce((sum, line) => sum + castsOf(line, mold.id), 0));
    return shares.some((share) => share > 0) ? shares : onBestMold(kind, casting);
  };

/**
 * Gives each kind of blank its molds and cavities. Where kinds with other hooks want the same cavities of a mold, each
 * next cavity goes to the kind that would need most shots: a cavity keeps its hook through a pour.
 * @param lines good heads that the pot owes
 * @param shares which molds cast it; left out: the one with most cavities for it
 * @example shotsOf(allocate(workshop().lines, workshop().molds)[0]) // 22
 */
export function allocate(
  lines: readonly PlanLine[],
  molds: readonly PlanMold[],
  shares: MoldShares = onBestMold,
): MoldAllocation[] {
  const byMold = new Map<string, { mold: PlanMold; kinds: BlankKind[] }>();
  for (const kind of kindsOf(lines)) {
    const casting = moldsCasting(kind.lines[0]!.product, molds);
    const parts = shares(kind, casting);
    const total = parts.reduce((sum, part) => sum + part, 0);
    let [before, given] = [0, 0];
    casting.forEach(({ mold }, at) => {
      before += parts[at]!;
      const upTo = Math.round((kind.wanted * before) / total);
      const wanted = upTo - given;
      given = upTo;
      if (wanted === 0) return;
      const entry = byMold.get(mold.id) ?? { mold, kinds: [] };
      entry.kinds.push({ ...kind, wanted, whole: kind.wanted });
      byMold.set(mold.id, entry);
    });
  }
  return [...byMold.values()].flatMap(({ mold, kinds }) => poursOn(mold, kinds, molds));
}

/** One pour of a mold, and another one for the kinds that found no cavity free in the first. */
function poursOn(mold: PlanMold, kinds: readonly BlankKind[], molds: readonly PlanMold[]): MoldAllocation[] {
  const taken = shareCavities(mold, kinds);
  const cavitiesOf = (kind: BlankKind) => taken.get(kind.key) ?? [];
  const placed = kinds
    .filter((kind) => cavitiesOf(kind).length > 0)
    .map((kind) => onCavities(kind, cavitiesOf(kind), mold, molds));
  const waiting = kinds.filter((kind) => cavitiesOf(kind).length === 0);
  const first = { mold, kinds: placed };
  return placed.length && waiting.length ? [first, ...poursOn(mold, waiting, molds)] : [first];
}

/**
 * Each next cavity goes to the kind that would need most shots; a kind without any comes before all others. What is
 * cast in a groove that was ground out keeps its neighbours empty.
 */
function shareCavities(mold: PlanMold, kinds: readonly BlankKind[]): Map<string, PlanCavity[]> {
  const taken = new Map<string, PlanCavity[]>(kinds.map((kind) => [kind.key, []]));
  const urgency = (kind: BlankKind) => {
    const cavities = taken.get(kind.key)!.length;
    return cavities === 0 ? 1e9 + kind.wanted : kind.wanted / cavities;
  };
  const used = new Set<number>();
  const empty = new Set<number>();
  for (const cavity of mold.cavities) {
    if (empty.has(cavity.position)) continue;
    const takers = kinds.filter((kind) => {
      const variant = variantFor(cavity, kind.lines[0]!.product);
      return variant !== null && !variant.blocks.some((position) => used.has(position));
    });
    const neediest = takers.sort((a, b) => urgency(b) - urgency(a))[0];
    if (!neediest) continue;
    taken.get(neediest.key)!.push(cavity);
    used.add(cavity.position);
    for (const position of variantFor(cavity, neediest.lines[0]!.product)!.blocks) empty.add(position);
  }
  return taken;
}
