import { AS_CUT, castAs, type CavityVariant, type PinCut } from '../mold/variants.ts';
import { castMassKg } from '../cast/cast-mass.ts';
import { perHead, POUR_STEP } from '../job/bill.ts';
import { QuantityError } from '../quantity/check.ts';
import type { Alloy } from '../metal/alloy.ts';
import type { Insert } from '../run/pour-log.ts';
import { seatOf, type CavityCut, type HookOffered, type Seat } from '../seat/seat.ts';
import type { PlanCavity, PlanHook, PlanProduct } from './types.ts';

const SEATS: ReadonlySet<Seat> = new Set<Seat>(['as cut', 'if bent']);
/**
 * @example massesMatch(0.01, 0.01005) // true
 */
export const massesMatch = (a: number, b: number) => Math.abs(a - b) <= 0.01 * b;
/**
 * A hook of a plan as a groove is asked of it.
 * @example offered({ materialId: 'h', name: 'Hook', size: '3/0', eyeAngleDeg: 60, massKg: 0.0006 }).hookSize // '3/0'
 */
export const offered = ({ size: hookSize, ...hook }: PlanHook): HookOffered => ({ ...hook, hookSize });

/**
 * A cavity's groove as it was cut, or as it was ground out for a variant.
 * @example grooveOf(cavity(1, 10)) // { hookSize: '2/0', eyeAngleDeg: 60 }
 */
export const grooveOf = (
  { hookSize, eyeAngleDeg, wire, bend }: PlanCavity,
  variant: CavityVariant = AS_CUT,
): CavityCut => ({
  hookSize: variant.grooveFor ?? hookSize,
  eyeAngleDeg,
  ...(wire ? { wire } : {}),
  ...(bend ? { bend } : {}),
});

/** Whether a hook goes into a groove: what the maker has tried says so before the estimate. */
function seats(cavity: PlanCavity, variant: CavityVariant, hook: PlanHook | null): boolean {
  if (!hook) return true;
  const tried = cavity.tried?.[hook.materialId];
  return tried ?? SEATS.has(seatOf(grooveOf(cavity, variant), offered(hook)).seat);
}

/**
 * What a cavity is cast as for a product: as the variant that the product names; where it names none as cut, or with
 * the groove that was ground out for its hook. Null where it casts no such head.
 * @example variantFor(cavity(1, 10), product(10)).name // 'As cut'
 */
export function variantFor(cavity: PlanCavity, product: PlanProduct): CavityVariant | null {
  if (cavity.condition !== 'good' || cavity.style !== product.style) return null;
  if (!massesMatch(cavity.nominalMassKg, product.nominalMassKg)) return null;
  const asCut = { ...AS_CUT, keeper: cavity.keeper ?? false };
  const variants = cavity.variants ?? [];
  const named = product.variant ?? null;
  const choice =
    named === null
      ? [asCut, ...variants.filter(({ grooveFor }) => grooveFor)]
      : variants.filter(({ name }) => name === named);
  return choice.find((variant) => seats(cavity, variant, product.hook)) ?? null;
}

/**
 * What a cavity casts for a product, kg: without what pin, keeper and other inserts of its variant take out.
 * @example castKg(cavity(1, 10), product(10)) // 0.01
 */
export function castKg(cavity: PlanCavity, product: PlanProduct, alloy?: Alloy): number {
  const variant = variantFor(cavity, product);
  const { nominalMassKg } = cavity;
  const whole = castMassKg({ nominalMassKg, ...(alloy ? { alloy } : {}) });
  if (!variant) return whole;
  try {
    return castAs({ ...cavity, pin: (cavity.pin as PinCut | null | undefined) ?? null }, variant, alloy).massKg;
  } catch (error) {
    // Inserts that leave no metal are refused now; a cavity that was written down so before goes by its stamp.
    if (error instanceof QuantityError) return whole;
    throw error;
  }
}

/** Opening or bending one eye in pliers, s. Common practice, no source. */
export const BEND_S = 8;

/**
 * What has to be done to a hook before it lies in a cavity, in words; null where it lies in it as it is.
 * @example bendFirst(cavity(1, 10), product(10)) // null
 */
export function bendFirst(cavity: PlanCavity, product: PlanProduct): string | null {
  const variant = variantFor(cavity, product);
  if (!variant || !product.hook) return null;
  const { seat, because } = seatOf(grooveOf(cavity, variant), offered(product.hook));
  return seat === 'if bent' ? because : null;
}

/**
 * Small things laid into a cavity before its hook, for one head.
 * @example insertsOf(cavity(1, 10), product(10)) // []
 */
export function insertsOf(cavity: PlanCavity, product: PlanProduct): Insert[] {
  const variant = variantFor(cavity, product) ?? AS_CUT;
  const pin: Insert[] =
    cavity.pin && variant.pin !== 'left out' ? [variant.pin === 'as cut' ? 'base-hole pin' : 'shortened pin'] : [];
  return [
    ...pin,
    ...(variant.keeper ? (['keeper'] as const) : []),
    ...Array<Insert>(variant.wireGuards).fill('wire guard'),
    ...(variant.insert === 'none' ? [] : [variant.insert]),
  ];
}

/** Something that is cast in: how much one head holds of it, and takes with what is wasted, in the unit of its kind. */
export interface CastIn {
  materialId: string;
  name: string;
  kind: string;
  quantity: number;
  perHead: number;
}

/**
 * What is cast into one head of a product: its hook, and the parts that its bill names for the pour.
 * @example castInto({ hook: { materialId: 'h', name: 'H' }, parts: [] })[0].perHead // 1
 */
export const castInto = ({
  hook,
  parts = [],
}: Pick<PlanProduct, 'parts'> & { hook: Pick<PlanHook, 'materialId' | 'name'> | null }): CastIn[] => [
  ...(hook ? [{ materialId: hook.materialId, name: hook.name, kind: 'hook', quantity: 1, perHead: 1 }] : []),
  ...parts.flatMap((part) => {
    const { partId: materialId, name, kind, quantity } = part;
    const own = part.step === POUR_STEP && materialId !== hook?.materialId;
    return own ? [{ materialId, name, kind, quantity, perHead: perHead(part) }] : [];
  }),
];
