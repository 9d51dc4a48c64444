import { partKind } from '../job/part-kinds.ts';
import type { RouteStep } from '../job/route.ts';
import type { TicketState } from '../job/ticket.ts';
import { METAL_WANTED_NAMES } from '../metal/wanted.ts';
import { kindOfMetal } from '../plan/metal.ts';
import { stepsOf } from '../plan/product.ts';
import type { PlanLayer, PlanProduct, PlanStep } from '../plan/types.ts';
import { quantityText } from '../quantity/said.ts';
import { schoolOf, schoolsFollowed } from '../ways/house.ts';
import { STEPS, type Schools } from '../ways/school.ts';

/**
 * A product as a ticket keeps it from its release on: blank, hook, paint, bakes, parts, route and ways, all as they
 * were looked up that day. Benches, desks, Tonight, cost and stock ask this, and never what the product has become.
 */
export interface TicketProduct extends PlanProduct {
  steps: PlanStep[];
  ways: Schools;
}

/**
 * A product as a ticket takes it on at its release.
 * @param house the schools of the house on that day
 * @example productAtRelease(product(10), { sprue: 'wiggle' }).ways.sprue // 'wiggle'
 */
export const productAtRelease = (product: PlanProduct, house: Partial<Schools> | null | undefined): TicketProduct => ({
  ...product,
  steps: stepsOf(product),
  ways: schoolsFollowed(house, product.ways),
});

/**
 * The route of a kept product: its steps without what they take.
 * @example routeOf(productAtRelease(product(10), {})).map(({ key }) => key) // ['trim', 'paint', 'bake', 'finish']
 */
export const routeOf = ({ steps }: Pick<TicketProduct, 'steps'>): RouteStep[] =>
  steps.map(({ recipe: _recipe, layers: _layers, bake: _bake, ...step }) => step);

/** Something about a product that is another than it was: what, and in words how it was and is. */
interface ProductChange {
  what: string;
  was: string;
  is: string;
}

const NONE = 'none';

const layerSays = ({ powder, zone, coats, mix }: PlanLayer) =>
  `${powder.name}${mix ? ` + ${Math.round(100 * mix.share)} % ${mix.powder.name}` : ''}, ${zone}${coats > 1 ? ` × ${coats}` : ''}`;
const paintSays = ({ recipe, layers }: PlanStep) =>
  layers.length === 0 ? NONE : `${recipe?.name ? `${recipe.name}: ` : ''}${layers.map(layerSays).join('; ')}`;
const bakeSays = ({ bake }: PlanStep) =>
  bake
    ? `${quantityText(bake.setC, 'C')} for ${quantityText(bake.seconds / 60, 'min')}, ${bake.preheated ? 'oven hot first' : 'from cold'}${bake.from === 'metal' ? ', counted from warm metal' : ''}`
    : NONE;
/** What is done at a step, paint and bake left out. */
const doneSays = ({ does, task, school, handsS, wait }: PlanStep) =>
  [
    does,
    ...(task ? [`${task}${school ? `, ${school}` : ''}`] : []),
    ...(handsS ? [quantityText(handsS, 's')] : []),
    ...(wait ? [`${wait.name} ${quantityText(wait.seconds / 60, 'min')}`] : []),
  ].join('; ');
/** So many pieces, or so much of what is measured. */
const amountSays = (kind: string, quantity: number) => {
  const { unit } = partKind(kind);
  return unit === 'pieces' ? `${quantity} ×` : quantityText(quantity, unit);
};
const partsSay = ({ parts = [] }: PlanProduct, step: string) =>
  parts
    .filter((part) => part.step === step)
    .map(({ name, kind, quantity }) => `${amountSays(kind, quantity)} ${name}`)
    .join('; ') || NONE;
const castSays = ({ style, nominalMassKg, variant }: PlanProduct) =>
  `${style} ${quantityText(Math.round(nominalMassKg * 1e6) / 1000, 'g')}${variant ? `, ${variant}` : ''}`;
/** Powders that are called the same may have become others. */
const paintSign = ({ layers }: PlanStep) =>
  JSON.stringify(layers.map(({ powder, zone, coats, mix }) => [powder.materialId, powder.colour, zone, coats, mix]));

/** Whether two steps, by their products, do the same to a head. */
const sameStep = (was: PlanStep, of: PlanProduct, is: PlanStep | undefined, then: PlanProduct): boolean =>
  is?.key === was.key &&
  is.station === was.station &&
  doneSays(is) === doneSays(was) &&
  paintSign(is) === paintSign(was) &&
  bakeSays(is) === bakeSays(was) &&
  partsSay(then, is.key) === partsSay(of, was.key);

/**
 * What a product has become since a ticket took it on, each in words; nothing where all of it is as it was.
 * @example productChanges(kept, { ...kept, name: 'Ball' }).map(({ what }) => what) // ['its name']
 */
export function productChanges(kept: TicketProduct, now: TicketProduct): ProductChange[] {
  const changes: ProductChange[] = [];
  const tell = (what: string, was: string, is: string) => {
    if (was !== is) changes.push({ what, was, is });
  };
  tell('its name', kept.name, now.name);
  tell('its head', castSays(kept), castSays(now));
  tell('its metal', METAL_WANTED_NAMES[kindOfMetal(kept)], METAL_WANTED_NAMES[kindOfMetal(now)]);
  tell('its hook', kept.hook?.name ?? NONE, now.hook?.name ?? NONE);
  const way = ({ steps }: TicketProduct) => steps.map(({ does }) => does).join(', ');
  tell('its way', way(kept), way(now));
  for (const is of now.steps) {
    const was = kept.steps.find(({ key }) => key === is.key);
    if (!was) continue;
    tell(is.does, paintSays(was), paintSays(is));
    if (paintSays(was) === paintSays(is) && paintSign(was) !== paintSign(is)) {
      const looks = ({ layers }: PlanStep) => layers.map(({ powder }) => powder.colour ?? '').join(' ');
      tell(`${is.does}, its colours`, looks(was) || 'as they were', looks(is) || 'others');
    }
    tell(is.does, bakeSays(was), bakeSays(is));
    tell(`${is.does}, how`, doneSays(was), doneSays(is));
    tell(`${is.does}, parts`, partsSay(kept, is.key), partsSay(now, is.key));
  }
  tell('cast in', partsSay(kept, 'pour'), partsSay(now, 'pour'));
  for (const { id, name } of STEPS) tell(name, schoolOf(id, kept.ways).name, schoolOf(id, now.ways).name);
  return changes;
}

/**
 * Why a ticket that is under way cannot take on what its product has become, as a sentence; null when it can. What is
 * done stays as it was done: a head that is cast keeps its blank, a step that has begun and all before it theirs.
 * @param cast whether a pour was begun for it, or heads were taken off the shelf
 * @example productRefusal(kept, kept, ticketState(twoSteps, []), false) // null
 */
export function productRefusal(
  kept: TicketProduct,
  now: TicketProduct,
  state: Pick<TicketState, 'steps' | 'coats' | 'at'>,
  cast: boolean,
): string | null {
  if (state.at === 'closed') return 'The ticket is closed.';
  if ((kept.source ?? 'pour') !== (now.source ?? 'pour')) {
    return 'Its heads come from elsewhere now: a ticket keeps the pour or the shelf that it began with.';
  }
  const hookOf = ({ hook }: TicketProduct) => hook?.materialId ?? null;
  const sameHead = castSays(kept) === castSays(now) && kindOfMetal(kept) === kindOfMetal(now);
  if (cast && (!sameHead || hookOf(kept) !== hookOf(now))) {
    return 'Its heads are being cast, or are cast already: head and hook stay as they were.';
  }
  if (cast && partsSay(kept, 'pour') !== partsSay(now, 'pour')) {
    return 'Its heads are being cast, or are cast already: what is cast in stays as it was.';
  }
  const begun = state.steps.findLastIndex(
    ({ key, good, rejected, inOven }) => good + rejected + inOven > 0 || state.coats.some((coat) => coat.step === key),
  );
  for (const [at, was] of kept.steps.slice(0, begun + 1).entries()) {
    if (sameStep(was, kept, now.steps[at], now)) continue;
    return `“${was.does}” has begun and is another step now: what is done up to there stays as it was.`;
  }
  return null;
}
