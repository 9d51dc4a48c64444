import { lengthText } from '../quantity/format.ts';
import type { MassUnit } from '../quantity/parse.ts';
import type { TicketState } from '../job/ticket.ts';
import { schoolsFollowed } from '../ways/house.ts';
import { variantFor } from './blank.ts';
import { stepsOf } from './product.ts';
import type { PinCut } from '../mold/variants.ts';
import type { HouseWays, PinLimit, Pins, PlanInput, PlanLine, PlanMold, PlanProduct } from './types.ts';

/** What the limit is found from. */
type PinsKnown = Pick<PlanInput, 'molds' | 'pins' | 'pinsInWork'> & { ways: Pick<HouseWays, 'schools'> };

/**
 * The station after which a pin is out of its head, by the way of the guard's hole; else it is pulled at the pot. PTFE
 * does not stand molten lead: it goes in before the paint, in the place of the steel pin.
 */
const OUT_AFTER: Readonly<Record<string, 'paint'>> = {
  'pulled one by one': 'paint',
  'pulled together': 'paint',
};
/** Two pins nearer than this are of one diameter, m. */
const SAME_M = 5e-5;
export const samePin = (a: number, b: number): boolean => Math.abs(a - b) < SAME_M;

/**
 * The diameter of the pin that stays in a product's heads after the pour, m; null where none does.
 * @example pinInWorkM({ ...product, ways: { hole: 'drilled' } }, molds, {}) // null
 */
export function pinInWorkM(
  product: PlanProduct,
  molds: readonly PlanMold[],
  house: HouseWays['schools'],
): number | null {
  if (!OUT_AFTER[schoolsFollowed(house, product.ways).hole]) return null;
  for (const cavity of molds.flatMap((mold) => mold.cavities)) {
    const variant = variantFor(cavity, product);
    const pin = cavity.pin as PinCut | null | undefined;
    if (variant && pin) return variant.pin === 'as cut' ? pin.diameterM : null;
  }
  return null;
}

/**
 * The step after which a product's pins are out of its heads; null where they are pulled at the pot.
 * @example pinOutAfter({ steps: [{ key: 'coat', station: 'paint' }], ways: { hole: 'pulled one by one' } }, {})
 *   // 'coat'
 */
export function pinOutAfter(
  product: Pick<PlanProduct, 'steps' | 'ways' | 'layers' | 'bake' | 'source'>,
  house: HouseWays['schools'],
): string | null {
  const station = OUT_AFTER[schoolsFollowed(house, product.ways).hole];
  return stepsOf(product).findLast((step) => step.station === station)?.key ?? null;
}

/**
 * Heads of a ticket that have their pin in: everything before the step after which it is out.
 * @example headsWithPin({ steps: [] }, product, {}) // 0
 */
export function headsWithPin(
  { steps }: Pick<TicketState, 'steps'>,
  product: PlanProduct,
  house: HouseWays['schools'],
): number {
  const station = OUT_AFTER[schoolsFollowed(house, product.ways).hole];
  const last = steps.findLastIndex((step) => step.station === station);
  return steps.slice(0, last + 1).reduce((sum, { left }) => sum + left, 0);
}

/** Small tools that hold a guard's hole open. */
const HOLE_PIN = 'base-hole pin';

/**
 * Pins that there are, by diameter, from the small tools on record.
 * @example pinsOf([{ kind: 'base-hole pin', diameterM: 0.0032, owned: 12 }]) // [{ diameterM: 0.0032, count: 12 }]
 */
export function pinsOf(tools: readonly { kind: string; diameterM: number | null; owned: number }[]): Pins[] {
  const pins: Pins[] = [];
  for (const { kind, diameterM, owned } of tools) {
    if (diameterM === null || kind !== HOLE_PIN) continue;
    const there = pins.find((each) => samePin(each.diameterM, diameterM));
    if (there) there.count += owned;
    else pins.push({ diameterM, count: owned });
  }
  return pins;
}

/**
 * What is wanted against the pins that there are; diameters of which nobody has counted the pins are left out.
 * @example pinLimits(workshop().lines, workshop()) // []
 */
export function pinLimits(
  lines: readonly PlanLine[],
  { molds, ways, pins: here = [], pinsInWork = [] }: PinsKnown,
): PinLimit[] {
  return here.flatMap((pins) => {
    const wanted = lines
      .filter(({ product }) => samePin(pinInWorkM(product, molds, ways.schools) ?? -1, pins.diameterM))
      .reduce((sum, { quantity }) => sum + quantity, 0);
    const under = pinsInWork.filter(({ diameterM }) => samePin(diameterM, pins.diameterM));
    return wanted === 0 ? [] : [{ ...pins, wanted, inWork: under.reduce((sum, { count }) => sum + count, 0) }];
  });
}

/**
 * Heads that can be cast before a pin has to come back.
 * @example pinsFree({ diameterM: 0.0032, count: 12, inWork: 5, wanted: 40 }) // 7
 */
export const pinsFree = ({ count, inWork }: PinLimit): number => Math.max(0, count - inWork);

/**
 * What the pins allow, in words.
 * @example pinsSay({ diameterM: 0.0032, count: 12, inWork: 12, wanted: 40 })
 * // 'All 12 pins of 3.2 mm are in heads under way: pull them first.'
 */
export function pinsSay(limit: PinLimit, unit: MassUnit = 'g'): string {
  const { count, inWork, wanted, diameterM } = limit;
  const free = pinsFree(limit);
  const pins = `${count} ${count === 1 ? 'pin' : 'pins'} of ${lengthText(diameterM, unit)}`;
  if (free === 0) return `${count === 1 ? 'The' : 'All'} ${pins} are in heads under way: pull them first.`;
  const under = inWork > 0 ? `, ${inWork} of them in heads under way` : '';
  if (wanted <= free) return `${pins}${under}: enough for these ${wanted} heads.`;
  return `${pins}${under}: ${free} of ${wanted} heads can be cast, then pins have to come back; ${Math.ceil((wanted - free) / count) + 1} rounds.`;
}

/**
 * Lines cut down to the pins that are free, in their order: never more heads in work than pins.
 * @example withinPins(workshop().lines, workshop()).length // 2
 */
export function withinPins(lines: readonly PlanLine[], known: PinsKnown): PlanLine[] {
  const limits = pinLimits(lines, known).map((limit) => ({ ...limit, free: pinsFree(limit) }));
  return lines.flatMap((line) => {
    const pinM = pinInWorkM(line.product, known.molds, known.ways.schools);
    const limit = pinM === null ? undefined : limits.find(({ diameterM }) => samePin(diameterM, pinM));
    if (!limit) return [line];
    const quantity = Math.min(line.quantity, limit.free);
    limit.free -= quantity;
    return quantity > 0 ? [{ ...line, quantity }] : [];
  });
}
