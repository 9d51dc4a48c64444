import { QuantityError } from '../quantity/check.ts';

/** A powder as changing it sees it. */
export interface CupColour {
  id: string;
  name: string;
  /** 0 black to 1 white, as the eye sees it. */
  lightness: number;
  gloss: 'gloss' | 'matte' | 'metallic' | 'flake' | 'clear';
}
/** Heads of one recipe, with the powders that its layers take. */
interface DipSession {
  id: string;
  name: string;
  colourIds: readonly string[];
  heads: number;
}
export interface ColourOrderInput {
  sessions: readonly DipSession[];
  colours: readonly CupColour[];
  /** Cups beyond those that one recipe works with: each keeps a powder for the whole night. */
  spareCups: number;
}
export interface ColourOrder {
  order: string[];
  /** Powders that keep a cup of their own. */
  kept: string[];
  /** Seconds of cleaning and swapping over the night. */
  seconds: number;
  /** What each step of the order costs, the first being setting up. */
  steps: { sessionId: string; seconds: number; brings: string[]; dirty: string[] }[];
  exact: boolean;
}

/**
 * Emptying a cup and filling it again, seconds; more where dark dust would show in light powder. Common practice, no
 * source.
 */
const SWAP_S = 60;
const DARK_INTO_LIGHT_S = 240;
const SPARKLE_LEFT_S = 120;
/** A step down in lightness this small does not show. */
const SHOWS = 0.08;
export const EXACT_UP_TO = 12;
/** Up to so many recipes every choice of powders that keep a cup is tried. */
const EVERY_CUP_UP_TO = 9;
/** So many powders are tried in earnest for each cup to spare, where all cannot be. */
const CUPS_TRIED = 2;

const sparkles = (colour: CupColour) => colour.gloss === 'metallic' || colour.gloss === 'flake';

/**
 * Seconds to clean a cup of one powder for another: light before dark is cheap, sparkle in plain colour is not.
 * @example changeS({ id: 'a', lightness: 0.9 }, { id: 'a', lightness: 0.9 }) // 0
 */
export function changeS(from: CupColour | null, to: CupColour): number {
  if (from === null) return SWAP_S / 2;
  if (from.id === to.id) return 0;
  const darker = Math.max(0, to.lightness - from.lightness - SHOWS);
  return SWAP_S + DARK_INTO_LIGHT_S * darker + (sparkles(from) && !sparkles(to) ? SPARKLE_LEFT_S : 0);
}

/**
 * Seconds of the cheapest way to make one set of cups into another: what is wanted and there stays, the rest is matched
 * pair by pair.
 * @example cupsChangeS([], [{ id: 'a', lightness: 0.9 }]) // 30
 */
export function cupsChangeS(from: readonly CupColour[], to: readonly CupColour[]): number {
  const brings = to.filter((colour) => !from.some((each) => each.id === colour.id));
  const free = from.filter((colour) => !to.some((each) => each.id === colour.id));
  let best = Infinity;
  const match = (at: number, left: readonly CupColour[], sum: number) => {
    if (sum >= best) return;
    if (at === brings.length) {
      best = sum;
      return;
    }
    const colour = brings[at]!;
    if (left.length === 0) return match(at + 1, left, sum + changeS(null, colour));
    left.forEach((cup, i) => match(at + 1, [...left.slice(0, i), ...left.slice(i + 1)], sum + changeS(cup, colour)));
  };
  match(0, free, 0);
  return best;
}

/** What it takes to begin with each, and to come from one to another. */
interface Costs {
  first: readonly number[];
  between: readonly (readonly number[])[];
}

function costsOf(input: ColourOrderInput, kept: ReadonlySet<string>): Costs {
  const colour = new Map(input.colours.map((each) => [each.id, each]));
  const sets = input.sessions.map((session) =>
    session.colourIds.filter((id) => !kept.has(id)).map((id) => colour.get(id)!),
  );
  return {
    first: sets.map((set) => cupsChangeS([], set)),
    between: sets.map((from) => sets.map((to) => cupsChangeS(from, to))),
  };
}

/**
 * The shortest way through all, each once: Held and Karp's dynamic programme over subsets (1962), exact, and quick to
 * about a dozen.
 * @example shortestWay({ first: [30, 30], between: [[0, 60], [200, 0]] }).seconds // 90
 */
export function shortestWay({ first, between }: Costs): { order: number[]; seconds: number } {
  const n = first.length;
  const full = 1 << n;
  const cost = new Float64Array(full * n).fill(Infinity);
  const came = new Int8Array(full * n).fill(-1);
  for (let i = 0; i < n; i++) cost[(1 << i) * n + i] = first[i]!;
  for (let mask = 1; mask < full; mask++) {
    for (let last = 0; last < n; last++) {
      const here = cost[mask * n + last]!;
      if (here === Infinity) continue;
      for (let next = 0; next < n; next++) {
        if (mask & (1 << next)) continue;
        const to = (mask | (1 << next)) * n + next;
        const sum = here + between[last]![next]!;
        if (sum < cost[to]! - 1e-9) {
          cost[to] = sum;
          came[to] = last;
        }
      }
    }
  }
  let [mask, last] = [full - 1, 0];
  for (let i = 1; i < n; i++) if (cost[mask * n + i]! < cost[mask * n + last]!) last = i;
  const seconds = cost[mask * n + last]!;
  const order: number[] = [];
  while (last >= 0) {
    order.unshift(last);
    const before = came[mask * n + last]!;
    mask &= ~(1 << last);
    last = before;
  }
  return { order, seconds };
}

const lengthOf = ({ first, between }: Costs, order: readonly number[]) =>
  order.reduce((sum, at, i) => sum + (i ? between[order[i - 1]!]![at]! : first[at]!), 0);

/** Nearest first from every start, then pieces are moved and turned while that helps. */
function goodOrder(costs: Costs): { order: number[]; seconds: number } {
  const n = costs.first.length;
  let best: { order: number[]; seconds: number } | null = null;
  for (let start = 0; start < n; start++) {
    const order = [start];
    const left = new Set(Array.from({ length: n }, (_, i) => i).filter((i) => i !== start));
    while (left.size) {
      const from = costs.between[order.at(-1)!]!;
      const next = [...left].reduce((a, b) => (from[b]! < from[a]! ? b : a));
      left.delete(next);
      order.push(next);
    }
    const seconds = lengthOf(costs, order);
    if (!best || seconds < best.seconds) best = { order, seconds };
  }
  let { order, seconds } = best!;
  for (let better = true; better;) {
    better = false;
    for (let size = 1; size <= 3; size++) {
      for (let from = 0; from + size <= n; from++) {
        const piece = order.slice(from, from + size);
        const rest = [...order.slice(0, from), ...order.slice(from + size)];
        for (let to = 0; to <= rest.length; to++) {
          for (const laid of size > 1 ? [piece, [...piece].reverse()] : [piece]) {
            const tried = [...rest.slice(0, to), ...laid, ...rest.slice(to)];
            const sum = lengthOf(costs, tried);
            if (sum < seconds - 1e-9) [order, seconds, better] = [tried, sum, true];
          }
        }
      }
    }
  }
  return { order, seconds };
}

/** Every way to choose k of n. */
function* choices<T>(of: readonly T[], k: number, from = 0): Generator<T[]> {
  if (k === 0) yield [];
  else
    for (let i = from; i <= of.length - k; i++) for (const more of choices(of, k - 1, i + 1)) yield [of[i]!, ...more];
}

/**
 * What an order costs step by step, with given cups kept: what a dragged order is judged by.
 * @example orderCost({ sessions: [{ id: 's', name: 's', heads: 10, colourIds: ['w'] }], colours: [{ id: 'w',
 *   name: 'White', lightness: 0.9, gloss: 'gloss' }], spareCups: 0 }, ['s'], [])[0].seconds // 30
 */
export function orderCost(
  input: ColourOrderInput,
  order: readonly string[],
  kept: readonly string[],
): ColourOrder['steps'] {
  const colour = new Map(input.colours.map((each) => [each.id, each]));
  const keeps = new Set(kept);
  const setOf = (sessionId: string) => {
    const session = input.sessions.find((each) => each.id === sessionId);
    if (!session) throw new QuantityError('order', sessionId, '', 'sessions of this night');
    return session.colourIds.filter((id) => !keeps.has(id)).map((id) => colour.get(id)!);
  };
  return order.map((sessionId, i) => {
    const to = setOf(sessionId);
    const from = i ? setOf(order[i - 1]!) : [];
    const brings = to.filter((each) => !from.some((other) => other.id === each.id));
    const freed = from.filter((each) => !to.some((other) => other.id === each.id));
    const dirty = brings.filter((each) => freed.length > 0 && freed.every((cup) => changeS(cup, each) > SWAP_S + 1));
    return {
      sessionId,
      seconds: cupsChangeS(from, to),
      brings: brings.map((each) => each.name),
      dirty: dirty.map((each) => each.name),
    };
  });
}

/** An order, and the powders that keep a cup of their own. */
interface Night {
  kept: readonly string[];
  order: number[];
  seconds: number;
}

/** The cups given away one by one, each to the powder that saves most: the night with none, with one, and so on. */
function cupByCup(
  input: ColourOrderInput,
  ids: readonly string[],
  spare: number,
  solve: (kept: readonly string[]) => Night,
  exactOrders: boolean,
): Night[] {
  const nights = [solve([])];
  for (let cup = 0; cup < spare; cup++) {
    const now = nights.at(-1)!;
    // What each would save in the order as it stands says which few are worth an order of their own.
    const stands = now.order.map((at) => input.sessions[at]!.id);
    const inOrder = (id: string) =>
      orderCost(input, stands, [...now.kept, id]).reduce((sum, step) => sum + step.seconds, 0);
    const worth = ids
      .filter((id) => !now.kept.includes(id))
      .map((id) => ({ id, seconds: inOrder(id) }))
      .sort((x, y) => x.seconds - y.seconds)
      .slice(0, CUPS_TRIED);
    const next = worth.map(({ id }): Night => {
      const kept = [...now.kept, id];
      if (exactOrders) return solve(kept);
      const costs = costsOf(input, new Set(kept));
      const fresh = goodOrder(costs);
      // The order as it stands may be better than one that is sought anew.
      const standing = { order: now.order, seconds: lengthOf(costs, now.order) };
      return { kept, ...(fresh.seconds <= standing.seconds ? fresh : standing) };
    });
    nights.push(next.reduce((x, y) => (y.seconds < x.seconds ? y : x)));
  }
  return nights;
}

/**
 * The order of a night's recipes with the fewest and cleanest changes: exact to {@link EXACT_UP_TO} recipes, with cups
 * to spare to nine, good beyond. A spare cup may keep one powder all night; which, and whether any, is part of the
 * answer. Range: 1 to 60 sessions, 0 to 3 spare cups.
 * @throws QuantityError for an unknown powder, or none
 * @example colourOrder({ sessions: [{ id: 'b', name: 'b', heads: 10, colourIds: ['b'] }, { id: 'w', name: 'w',
 *   heads: 10, colourIds: ['w'] }], colours: [{ id: 'b', name: 'Black', lightness: 0.1, gloss: 'gloss' },
 *   { id: 'w', name: 'White', lightness: 0.9, gloss: 'gloss' }], spareCups: 0 }).order // ['w', 'b']
 */
export function colourOrder(input: ColourOrderInput): ColourOrder {
  const { sessions, colours, spareCups } = input;
  if (sessions.length === 0 || sessions.length > 60)
    throw new QuantityError('sessions', sessions.length, '', '1 to 60');
  const unknown = sessions
    .flatMap((session) => session.colourIds)
    .find((id) => !colours.some((each) => each.id === id));
  if (unknown !== undefined) throw new QuantityError('colour', unknown, '', 'powders of this night');
  const used = colours.filter((each) => sessions.some((session) => session.colourIds.includes(each.id)));
  const spare = Math.min(spareCups, 3, Math.max(0, used.length - 1));
  const ids = used.map((each) => each.id);
  const exactOrders = sessions.length <= EXACT_UP_TO;
  const solve = (kept: readonly string[]): Night => {
    const costs = costsOf(input, new Set(kept));
    return { kept, ...(exactOrders ? shortestWay(costs) : goodOrder(costs)) };
  };
  const allCups = sessions.length <= EVERY_CUP_UP_TO;
  const nights = allCups
    ? Array.from({ length: spare + 1 }, (_, k) => [...choices(ids, k)].map(solve)).flat()
    : cupByCup(input, ids, spare, solve, exactOrders);
  // A powder that keeps its cup takes that cup from the others: keeping fewer, or none, can be the better night.
  const best = nights.reduce((x, y) => (y.seconds < x.seconds - 1e-9 ? y : x));
  const exact = exactOrders && (allCups || spare === 0);
  const order = best.order.map((at) => sessions[at]!.id);
  return { order, kept: [...best.kept], seconds: best.seconds, steps: orderCost(input, order, best.kept), exact };
}

/**
 * How light a colour looks: relative luminance of sRGB (WCAG 2.2), through CIE L* to 0 to 1.
 * @example lightnessOf('#ffffff') // 1
 */
export function lightnessOf(hex: string): number {
  const [, r, g, b] = /^#?([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex) ?? [];
  if (r === undefined)
    throw new QuantityError('colour', JSON.stringify(hex), '', 'six hexadecimal digits such as #8a2be2');
  const linear = [r, g!, b!]
    .map((part) => Number.parseInt(part, 16) / 255)
    .map((v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4));
  const y = 0.2126 * linear[0]! + 0.7152 * linear[1]! + 0.0722 * linear[2]!;
  return y > 216 / 24389 ? 1.16 * Math.cbrt(y) - 0.16 : (24389 / 2700) * y;
}
