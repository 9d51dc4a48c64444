import { countInRange, inRange } from '../quantity/check.ts';
import { seeded } from '../random/seeded.ts';

/** Heads of one pour or ticket: how many were bad, and how many one would expect of what they are. */
export interface Expected {
  heads: number;
  bad: number;
  /** Bad ones that heads like these have on the whole: by their cavity, by their product. */
  expected: number;
}

/** Points of a record, in order, from one to another, that are worse than the others beyond chance. */
export interface Stretch {
  first: number;
  last: number;
  heads: number;
  bad: number;
  expected: number;
  /** Heads and bad ones of all other points. */
  rest: { heads: number; bad: number };
  /** How often points in any other order have a stretch as bad. */
  chance: number;
}

/** So many shuffles are tried for each that may be as bad as what is found. */
const TRIES = 2;
const SEED = 20_261;
/** A stretch is a change, not an evening: that is what limits of a chart are for. */
const SHORTEST = 2;

interface Scored {
  /** What is expected to vary, heads squared, and its root. */
  variance: number[];
  spread: number[];
  /** How far each point is off what is expected, in standard deviations. */
  scores: number[];
}
/** How bad something is, by how many heads each point is off; the larger the worse. */
type Worst = (off: Float64Array) => number;

const sumOf = (values: readonly number[] | Float64Array) => {
  let sum = 0;
  for (const each of values) sum += each;
  return sum;
};

/**
 * Points by how far they are off. What is expected is brought to as many bad ones as there are, so that a record is
 * compared with itself; heads of one evening are alike, so that many of them tell less than chance would say (the
 * correlation within a group, by moments: Kleinman, J. Am. Statist. Assoc. 68, 1973; from memory).
 */
function scored(points: readonly Expected[]): Scored {
  for (const { heads, bad, expected } of points) {
    countInRange('heads', heads, 1, 1e7);
    countInRange('bad heads', bad, 0, heads);
    inRange('expected bad heads', expected, '', 0, heads);
  }
  const known = sumOf(points.map(({ expected }) => expected));
  const scale = known > 0 ? sumOf(points.map(({ bad }) => bad)) / known : 0;
  const byChance = points.map(({ heads, expected }) => {
    const own = Math.min(heads, expected * scale);
    return Math.max(1e-9, own * (1 - own / heads));
  });
  const squares = points.map(({ bad, expected }, at) => (bad - expected * scale) ** 2 / byChance[at]!);
  const others = sumOf(points.map(({ heads }) => heads - 1));
  const alike = others > 0 ? Math.max(0, (sumOf(squares) - points.length) / others) : 0;
  const variance = points.map(({ heads }, at) => byChance[at]! * (1 + (heads - 1) * alike));
  const spread = variance.map(Math.sqrt);
  return { variance, spread, scores: points.map(({ bad, expected }, at) => (bad - expected * scale) / spread[at]!) };
}

/**
 * Chance, by shuffling how far points are off, of what is as bad as they are: a Monte Carlo test (Barnard 1963), ended
 * as soon as it is no wonder.
 */
function chanceByShuffle({ spread, scores }: Scored, level: number, worst: Worst): number {
  const shuffled = Float64Array.from(scores);
  const off = new Float64Array(scores.length);
  const worstNow = () => {
    for (let at = 0; at < off.length; at++) off[at] = shuffled[at]! * spread[at]!;
    return worst(off);
  };
  const real = worstNow();
  const random = seeded(SEED);
  const tries = Math.ceil(TRIES / level);
  let asBad = 0;
  for (let tried = 1; tried <= tries; tried++) {
    for (let at = shuffled.length - 1; at > 0; at--) {
      const other = Math.floor(random() * (at + 1));
      const kept = shuffled[at]!;
      shuffled[at] = shuffled[other]!;
      shuffled[other] = kept;
    }
    if (worstNow() >= real - 1e-12) asBad += 1;
    if (asBad + 1 > level * (tries + 1)) return (asBad + 1) / (tried + 1);
  }
  return (asBad + 1) / (tries + 1);
}

/** Part of what varies, and one over the spread of such a part against the rest; 0 where there is no rest. */
function against(variance: number, all: number): { share: number; perSpread: number } {
  const rest = all - variance;
  return { share: variance / all, perSpread: rest > 0 ? 1 / Math.sqrt((variance * rest) / all) : 0 };
}

/** The worst stretch of points, whatever each is off: the room of every stretch is reckoned once. */
function stretches(variance: readonly number[]) {
  const many = variance.length;
  const all = sumOf(variance);
  const shares = new Float64Array(many * many);
  const perSpreads = new Float64Array(many * many);
  for (let first = 0; first < many; first++) {
    let own = 0;
    for (let last = first; last < many; last++) {
      own += variance[last]!;
      const { share, perSpread } = against(own, all);
      shares[first * many + last] = share;
      perSpreads[first * many + last] = perSpread;
    }
  }
  return (off: Float64Array) => {
    const total = sumOf(off);
    let [from, to, far] = [0, -1, -Infinity];
    for (let first = 0; first <= many - SHORTEST; first++) {
      const row = first * many;
      const end = Math.min(many, first + many - SHORTEST);
      let sum = off[first]!;
      for (let last = first + 1; last < end; last++) {
        sum += off[last]!;
        const own = (sum - shares[row + last]! * total) * perSpreads[row + last]!;
        if (own > far) [from, to, far] = [first, last, own];
      }
    }
    return { first: from, last: to, far };
  };
}

/**
 * The stretch of a record in which more came out bad than in the rest of it, beyond what the same points give in any
 * other order: what changed, and when. Null where nothing did. The scan for a stretch is that of segmentation by
 * likelihood (Olshen et al., Circular binary segmentation, Biostatistics 5, 2004), its chance is found by shuffling
 * (Fisher 1935), from memory. Evenings differ more than heads do; as whole points are shuffled, that makes no finding.
 * @param points in the order in which they were made; four or more, fewer find nothing
 * @param level a record of pure chance finds something in so many of all years
 * @throws QuantityError for counts out of range
 * @example worstStretch([1, 0, 1, 0, 9, 8, 9, 1, 0, 1, 0, 1].map((bad) => ({ heads: 50, bad, expected: 2 })),
 *   0.05)?.first // 4
 */
export function worstStretch(points: readonly Expected[], level = 0.01): Stretch | null {
  inRange('level', level, '', 1e-6, 1);
  if (points.length < 2 * SHORTEST || points.every(({ bad }) => bad === 0)) return null;
  const all = scored(points);
  const worst = stretches(all.variance);
  const chance = chanceByShuffle(all, level, (off) => worst(off).far);
  if (chance > level) return null;
  const { first, last } = worst(Float64Array.from(all.scores, (score, at) => score * all.spread[at]!));
  const inside = summed(points.slice(first, last + 1));
  const { heads, bad } = summed([...points.slice(0, first), ...points.slice(last + 1)]);
  return { first, last, ...inside, rest: { heads, bad }, chance };
}

/** Points of which one group has a hand in each: a person, a way. */
export interface OfGroup extends Expected {
  group: string;
}
interface GroupJudged {
  group: string;
  points: number;
  heads: number;
  bad: number;
  expected: number;
  chance: number;
  standsOut: boolean;
}

/** A group says something of itself from so many points on. */
const FEWEST = 3;

/**
 * Groups of points against each other, each by what its heads are expected to give: who pours the hard mold is not
 * worse for it. Which are worse than any other way to share out the points would make them is found by shuffling.
 * @param points each of one group; groups of fewer than three points, or alone, never stand out
 * @param level over all groups, by the step-down of Holm (1979)
 * @throws QuantityError for counts out of range
 * @example judgeGroups([{ group: 'A', heads: 9, bad: 1, expected: 1 }])[0].standsOut // false
 */
export function judgeGroups(points: readonly OfGroup[], level = 0.01): GroupJudged[] {
  inRange('level', level, '', 1e-6, 1);
  const names = [...new Set(points.map(({ group }) => group))].sort();
  if (names.length === 0) return [];
  const all = scored(points);
  const judged = names.map((group): GroupJudged => {
    const own = points.filter((point) => point.group === group);
    const inIt = points.map((point) => point.group === group);
    const ofGroup = (values: readonly number[] | Float64Array) => {
      let sum = 0;
      for (let at = 0; at < values.length; at++) if (inIt[at]) sum += values[at]!;
      return sum;
    };
    const { share, perSpread } = against(ofGroup(all.variance), sumOf(all.variance));
    const far: Worst = (off) => (ofGroup(off) - share * sumOf(off)) * perSpread;
    const told = names.length > 1 && own.length >= FEWEST && own.some(({ bad }) => bad > 0);
    const chance = told ? chanceByShuffle(all, level / names.length, far) : 1;
    return { group, points: own.length, ...summed(own), chance, standsOut: false };
  });
  const byChance = [...judged].sort((a, b) => a.chance - b.chance);
  for (const [at, each] of byChance.entries()) {
    if (each.chance > level / (byChance.length - at)) break;
    each.standsOut = true;
  }
  return judged;
}

/** So many consecutive points as one, that a long record does not take longer than a year's. */
export function gathered<P extends Expected>(points: readonly P[], most: number): P[][] {
  const each = Math.max(1, Math.ceil(points.length / most));
  return Array.from({ length: Math.ceil(points.length / each) }, (_, at) => points.slice(at * each, (at + 1) * each));
}

/**
 * Points as one.
 * @example summed([{ heads: 3, bad: 1, expected: 0.5 }, { heads: 4, bad: 0, expected: 0.7 }]).heads // 7
 */
export function summed(points: readonly Expected[]): Expected {
  return points.reduce<Expected>(
    (sum, { heads, bad, expected }) => ({
      heads: sum.heads + heads,
      bad: sum.bad + bad,
      expected: sum.expected + expected,
    }),
    { heads: 0, bad: 0, expected: 0 },
  );
}

/** Heads of a point, whether the stretch has them, and what was theirs: a lot, a program, a mold, a person. */
interface Tagged {
  heads: number;
  bad: number;
  inside: boolean;
  tags: readonly string[];
}
interface Meanwhile {
  tag: string;
  /** Of the bad heads inside, and of all heads outside, how many had it. */
  badShare: number;
  outsideShare: number;
}

/** What tells a stretch from the rest: so much more of its bad heads had it. Common practice, no source. */
const TELLS = 0.5;
/** It came with the stretch: so many times as much of all heads had it there. Common practice, no source. */
const CAME = 2;

/** What tells as much but for so little is told beside it. Common practice, no source. */
const NEARLY = 0.1;
const apart = ({ badShare, outsideShare }: Meanwhile) => badShare - outsideShare;

/**
 * What went with a stretch and not with the rest, most telling first; nothing, where nothing that is on record did.
 * What always had the bad heads, such as a hard mold, is nothing that changed.
 * @example meanwhile([{ heads: 9, bad: 3, inside: true, tags: ['a'] }, { heads: 9, bad: 0, inside: false,
 *   tags: ['b'] }])[0].tag // 'a'
 */
export function meanwhile(points: readonly Tagged[]): Meanwhile[] {
  const [inside, outside] = [points.filter((point) => point.inside), points.filter((point) => !point.inside)];
  const shareOf = (own: readonly Tagged[], of: 'heads' | 'bad', tag: string) => {
    const all = own.reduce((sum, point) => sum + point[of], 0);
    return all === 0 ? 0 : own.reduce((sum, each) => sum + (each.tags.includes(tag) ? each[of] : 0), 0) / all;
  };
  return [...new Set(inside.flatMap(({ tags }) => tags))]
    .filter((tag) => shareOf(inside, 'heads', tag) >= CAME * shareOf(outside, 'heads', tag))
    .map((tag) => ({ tag, badShare: shareOf(inside, 'bad', tag), outsideShare: shareOf(outside, 'heads', tag) }))
    .filter((each, _, all) => apart(each) >= Math.max(TELLS, Math.max(...all.map(apart)) - NEARLY))
    .sort((a, b) => apart(b) - apart(a));
}
