import { pchip } from '../numeric/pchip.ts';
import { inRange, QuantityError } from '../quantity/check.ts';

/** One measured pair: the dial stood at `dial`, the metal settled at `temperatureC`. */
export interface DialPair {
  dial: number;
  temperatureC: number;
  /** When, ms since 1970: a dial drifts. */
  at: number;
  /** A probe is good to a few kelvin, a colour read off the skin to about fifteen. */
  sdK: number;
}

/** A probe in molten lead, K. Type K thermocouples, class 2 (IEC 60584-1): 0.75 % of 370 C is 2.8 K. */
export const PROBE_SD_K = 3;
/** A pot settles within its thermostat's swing even where nothing drifts, K. */
const REPEAT_SD_K = 4;
/** Between two marks the curve may bow by this share of the step between them. */
const BOW_SHARE = 0.08;

interface DialReading {
  temperatureC: number;
  /** Standard deviation, K. */
  sdK: number;
  /** True outside the measured marks: the end value is held, and that must be said. */
  outside: boolean;
}
/** One mark of the dial as its pairs say together: plain data, so that it crosses from a worker. */
export interface FittedMark {
  dial: number;
  temperatureC: number;
  sdK: number;
  pairs: number;
}
export interface DialTable {
  marks: readonly FittedMark[];
  from: number;
  to: number;
  at(dial: number): DialReading;
  /** The dial mark for a temperature, or null where no measured mark reaches it. */
  dialFor(temperatureC: number): number | null;
}

interface Block {
  dial: number;
  weight: number;
  mean: number;
}

/** Weighted isotonic means by pooling adjacent violators: a hotter mark never reads colder. */
function pooled(groups: readonly Block[]): number[] {
  const stack: (Block & { size: number })[] = [];
  for (const group of groups) {
    stack.push({ ...group, size: 1 });
    while (stack.length > 1 && stack.at(-2)!.mean > stack.at(-1)!.mean) {
      const b = stack.pop()!;
      const a = stack.pop()!;
      const weight = a.weight + b.weight;
      stack.push({
        dial: b.dial,
        weight,
        mean: (a.mean * a.weight + b.mean * b.weight) / weight,
        size: a.size + b.size,
      });
    }
  }
  return stack.flatMap(({ mean, size }) => new Array<number>(size).fill(mean));
}

/**
 * The marks of a dial fitted to a maker's own pairs: those measured more than once are averaged by their precision,
 * then made monotone. Range: dial 0 to 100, 20 to 600 C; pairs at two marks or more.
 * @example fitDialMarks([{ dial: 5, temperatureC: 340, sdK: 3 }, { dial: 7, temperatureC: 400, sdK: 3
 *   }])[1].temperatureC // 400
 * @throws QuantityError with fewer than two marks
 */
export function fitDialMarks(pairs: readonly DialPair[]): FittedMark[] {
  const groups = new Map<number, DialPair[]>();
  for (const pair of pairs) {
    inRange('dial', pair.dial, '', 0, 100);
    inRange('temperatureC', pair.temperatureC, 'C', 20, 600);
    inRange('sdK', pair.sdK, 'K', 0.1, 100);
    groups.set(pair.dial, [...(groups.get(pair.dial) ?? []), pair]);
  }
  if (groups.size < 2) throw new QuantityError('dial marks', groups.size, '', 'pairs at two marks or more');
  const blocks = [...groups.entries()]
    .sort(([a], [b]) => a - b)
    .map(([dial, group]) => {
      const weights = group.map((pair) => 1 / pair.sdK ** 2);
      const weight = weights.reduce((sum, each) => sum + each, 0);
      const mean = group.reduce((sum, pair, i) => sum + weights[i]! * pair.temperatureC, 0) / weight;
      return { dial, weight, mean, group };
    });
  const means = pooled(blocks);
  return blocks.map(({ dial, weight, group, mean }, i) => {
    const spread = group.reduce((sum, pair) => sum + (pair.temperatureC - mean) ** 2, 0) / group.length;
    const sdK = Math.sqrt(
      1 / weight + REPEAT_SD_K ** 2 / group.length + (group.length > 1 ? spread / group.length : 0),
    );
    return { dial, temperatureC: means[i]!, sdK, pairs: group.length };
  });
}

/**
 * The curve through fitted marks, joined by {@link pchip}. Its uncertainty is that of the marks on either side, plus
 * how far it may bow between them.
 * @example tableOfMarks([{ dial: 5, temperatureC: 340, sdK: 3 }, { dial: 7, temperatureC: 400, sdK: 3
 *   }]).at(6).temperatureC // 370
 */
export function tableOfMarks(marks: readonly FittedMark[]): DialTable {
  const means = marks.map((mark) => mark.temperatureC);
  const curve = pchip(
    marks.map((mark) => mark.dial),
    means,
  );
  const at = (dial: number): DialReading => {
    const outside = dial < curve.from || dial > curve.to;
    const held = Math.min(curve.to, Math.max(curve.from, dial));
    const i = Math.max(
      1,
      marks.findIndex((mark) => mark.dial >= held),
    );
    const [a, b] = [marks[i - 1]!, marks[i]!];
    const share = (held - a.dial) / (b.dial - a.dial);
    const bow = BOW_SHARE * (b.temperatureC - a.temperatureC) * 4 * share * (1 - share);
    const sdK = Math.hypot((1 - share) * a.sdK, share * b.sdK, bow);
    return { temperatureC: curve.at(held), sdK, outside };
  };
  return {
    marks,
    from: curve.from,
    to: curve.to,
    at,
    dialFor(temperatureC) {
      // A mark that was measured at what is asked reaches it, as well as it is known.
      const [first, last] = [marks[0]!, marks.at(-1)!];
      if (temperatureC < first.temperatureC) return first.temperatureC - temperatureC <= first.sdK ? first.dial : null;
      if (temperatureC > last.temperatureC) return temperatureC - last.temperatureC <= last.sdK ? last.dial : null;
      let [low, high] = [curve.from, curve.to];
      for (let i = 0; i < 60; i++) {
        const middle = (low + high) / 2;
        if (curve.at(middle) < temperatureC) low = middle;
        else high = middle;
      }
      return (low + high) / 2;
    },
  };
}

/**
 * A dial's table from a maker's own pairs: {@link fitDialMarks}, joined by {@link tableOfMarks}.
 * @throws QuantityError with fewer than two marks
 * @example dialTable(dialPairs).at(6).temperatureC // 352
 */
export const dialTable = (pairs: readonly DialPair[]): DialTable => tableOfMarks(fitDialMarks(pairs));

const MONTH_MS = 30.4375 * 86_400_000;

export interface Drift {
  /** Kelvin a month that the same mark reads hotter. */
  kPerMonth: number;
  sdKPerMonth: number;
  /** Beyond twice its uncertainty: not chance. */
  real: boolean;
  pairs: number;
}

/**
 * How a dial drifts: a straight line through time, common to all marks, each mark with a mean of its own (least squares
 * with group means taken out). Null where no mark was measured twice on different days.
 * @example dialDrift([]) // null
 */
export function dialDrift(pairs: readonly DialPair[]): Drift | null {
  const groups = new Map<number, DialPair[]>();
  for (const pair of pairs) groups.set(pair.dial, [...(groups.get(pair.dial) ?? []), pair]);
  const within = [...groups.values()].flatMap((group) => {
    const mean = (of: (pair: DialPair) => number) => group.reduce((sum, pair) => sum + of(pair), 0) / group.length;
    const [t0, y0] = [mean((pair) => pair.at), mean((pair) => pair.temperatureC)];
    return group.map((pair) => ({ t: (pair.at - t0) / MONTH_MS, y: pair.temperatureC - y0 }));
  });
  const stt = within.reduce((sum, { t }) => sum + t * t, 0);
  const freedom = pairs.length - groups.size - 1;
  if (stt < 1e-6 || freedom < 1) return null;
  const kPerMonth = within.reduce((sum, { t, y }) => sum + t * y, 0) / stt;
  const rss = within.reduce((sum, { t, y }) => sum + (y - kPerMonth * t) ** 2, 0);
  const noise = Math.max(rss / freedom, REPEAT_SD_K ** 2 / 4);
  const sdKPerMonth = Math.sqrt(noise / stt);
  return { kPerMonth, sdKPerMonth, real: Math.abs(kPerMonth) > 2 * sdKPerMonth, pairs: pairs.length };
}

/**
 * Pairs as they would read on another day: where the dial really drifts, old ones are moved along, and doubted the more
 * the older they are. Without a real drift they stay as they are.
 * @example pairsOnDay(dialPairs, 0).length // 3
 */
export function pairsOnDay<P extends DialPair>(pairs: readonly P[], at: number): P[] {
  const drift = dialDrift(pairs);
  if (!drift?.real) return [...pairs];
  return pairs.map((pair) => {
    const months = (at - pair.at) / MONTH_MS;
    const sdK = Math.hypot(pair.sdK, drift.sdKPerMonth * months);
    return { ...pair, temperatureC: pair.temperatureC + drift.kPerMonth * months, sdK };
  });
}
