import { QuantityError } from '../quantity/check.ts';
import { finishSchool } from '../ways/finish.ts';
import { stationOf, stepStations } from './stations.ts';

/** What paint is: powder, which is cured, or liquid, which dries. */
export const PAINT_FORMS = ['powder', 'liquid'] as const;
export type PaintForm = (typeof PAINT_FORMS)[number];

/** A step of a route: what is done, where, and what has to pass before the next one. */
export interface RouteStep {
  /** Its name in logs; kept for good once a ticket was released with it. */
  key: string;
  station: string;
  /** What is done, in a few words. */
  does: string;
  /** Paint: the recipe of this step; the product's own where none is named. */
  recipeId?: string | null;
  /** Paint: of its recipe only what is powder, or only what is liquid; all of it where nothing is said. */
  only?: PaintForm | null;
  /** Bake: the program of this step; the product's own where none is named. */
  programId?: string | null;
  /** Finish: the task that is done, and the school that is followed in it; see ways/finish.ts. */
  task?: string | null;
  school?: string | null;
  /** The maker's own seconds of hands a head; null: by the ways that are followed. */
  handsS?: number | null;
  /** To dry, cure, set or cool before the next step. */
  wait?: { name: string; seconds: number } | null;
}

/** The longest route that is made, in steps. */
export const MOST_STEPS = 20;

const USUAL_NAMES: Record<string, string> = { trim: 'Trim', paint: 'Paint', bake: 'Bake', finish: 'Finish' };
const usual = (station: string): RouteStep => ({ key: station, station, does: USUAL_NAMES[station]! });

/** A route to start from. */
interface RouteTemplate {
  id: string;
  name: string;
  suits: string;
  steps: readonly RouteStep[];
}

const step = (key: string, station: string, does: string, more: Partial<RouteStep> = {}): RouteStep => ({
  key,
  station,
  does,
  ...more,
});

/** Routes that makers follow. Common practice, no source. A maker takes one and changes it. */
export const ROUTE_TEMPLATES: readonly RouteTemplate[] = [
  {
    id: 'painted',
    name: 'Painted and baked',
    suits: 'the usual jig head',
    steps: ['trim', 'paint', 'bake', 'finish'].map(usual),
  },
  {
    id: 'gloss',
    name: 'Painted, heated to gloss, not baked',
    suits: 'heads that meet no rock',
    steps: ['trim', 'paint', 'finish'].map(usual),
  },
  { id: 'bare', name: 'Bare', suits: 'clear water, or heads for the shelf', steps: ['trim', 'finish'].map(usual) },
  {
    id: 'two coats',
    name: 'Two coats, a bake between',
    suits: 'a tougher coat, or a clear one on top',
    steps: [
      usual('trim'),
      step('paint', 'paint', 'First coat'),
      step('bake', 'bake', 'Bake the first coat'),
      step('paint-2', 'paint', 'Second coat'),
      step('bake-2', 'bake', 'Bake the second coat'),
      usual('finish'),
    ],
  },
  {
    id: 'rigged first',
    name: 'Hook and ring before the paint',
    suits: 'balls with a swivel or a ring',
    steps: [usual('trim'), step('rig', 'finish', 'Hook and ring on'), usual('paint'), usual('bake'), usual('finish')],
  },
  {
    id: 'treble last',
    name: 'Treble after the bake',
    suits: 'spinners and heads with no hook in the lead',
    steps: [
      usual('trim'),
      usual('paint'),
      usual('bake'),
      step('rig', 'finish', 'Treble and blade on'),
      usual('finish'),
    ],
  },
  {
    id: 'guard and skirt',
    name: 'Guard glued in, skirt on',
    suits: 'heads with a guard hole',
    steps: [
      usual('trim'),
      usual('paint'),
      usual('bake'),
      step('guard', 'finish', 'Glue the guard in', { wait: { name: 'glue sets', seconds: 3600 } }),
      step('skirt', 'finish', 'Skirt on'),
      usual('finish'),
    ],
  },
  {
    id: 'from the shelf',
    name: 'From bare heads',
    suits: 'heads that were cast ahead or bought',
    steps: ['paint', 'bake', 'finish'].map(usual),
  },
  {
    id: 'won back',
    name: 'Won back from used ones',
    suits: 'worn jigs: cut off, sharpened, done again',
    steps: [step('strip', 'trim', 'Cut off, clean, sharpen'), usual('paint'), usual('bake'), usual('finish')],
  },
];

/**
 * The route of a product that names none: painted or not, baked or not; a lacquer over powder that is baked comes after
 * the oven.
 * @example usualRoute({ painted: true, baked: false }).map((each) => each.key) // ['trim', 'paint', 'finish']
 */
export function usualRoute(product: {
  painted: boolean;
  baked: boolean;
  fromShelf?: boolean;
  lacquered?: boolean;
}): RouteStep[] {
  if (product.painted && product.baked && product.lacquered) {
    const rest = usualRoute({ ...product, lacquered: false });
    return rest.flatMap((step): RouteStep[] => {
      if (step.key === 'paint') return [{ ...step, only: 'powder' }];
      if (step.key !== 'bake') return [step];
      return [step, { key: 'lacquer', station: 'paint', does: 'Lacquer', only: 'liquid' }];
    });
  }
  const stations = [
    ...(product.fromShelf ? [] : ['trim']),
    ...(product.painted ? ['paint'] : []),
    ...(product.painted && product.baked ? ['bake'] : []),
    'finish',
  ];
  return stations.map(usual);
}

/**
 * Takes a route as it was written, or says what is wrong with it.
 * @example checkRoute(usualRoute({ painted: false, baked: false })).length // 2
 * @throws QuantityError for a key that stands twice, an unknown station, no step or too many
 */
export function checkRoute(route: readonly RouteStep[]): readonly RouteStep[] {
  if (route.length < 1 || route.length > MOST_STEPS) {
    throw new QuantityError('steps of the route', route.length, '', `1 to ${MOST_STEPS}`);
  }
  const keys = new Set<string>();
  for (const step of route) {
    const { key, station } = step;
    if (keys.has(key)) throw new QuantityError('key of a step', key, '', 'one that no other step of the route has');
    keys.add(key);
    if (step.task) finishSchool(step.task, step.school);
    if (!stepStations().some((each) => each.id === station)) {
      throw new QuantityError(
        'station of a step',
        station,
        '',
        stepStations()
          .map((each) => each.id)
          .join(', '),
      );
    }
  }
  return route;
}

/**
 * The step of a route by its key; undefined where it has none of that name.
 * @example stepOfRoute(usualRoute({ painted: false, baked: false }), 'trim')?.station // 'trim'
 */
export const stepOfRoute = <Step extends Pick<RouteStep, 'key'>>(
  route: readonly Step[],
  key: string,
): Step | undefined => route.find((each) => each.key === key);

/**
 * How the head looks when it comes to a step: as the last step before it that changes its look has left it.
 * @example lookBefore(usualRoute({ painted: true, baked: false }), 'paint') // 'blank'
 */
export function lookBefore(route: readonly RouteStep[], key: string) {
  const at = route.findIndex((each) => each.key === key);
  const before = route.slice(0, Math.max(0, at)).map((each) => stationOf(each.station));
  const changed = before.findLast((station) => station.before !== station.after);
  return changed?.after ?? (before.length > 0 ? 'blank' : stationOf(route[at]?.station ?? 'trim').before);
}
