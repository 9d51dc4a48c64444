import { countInRange, inRange } from '../quantity/check.ts';
import { logFactorial } from './binomial.ts';

/** Heads that share something (a lot, a cavity, a month), and those of them that were thrown back. */
export interface Group {
  heads: number;
  bad: number;
}

interface StandOut<G extends Group> {
  group: G;
  /** All other groups together. */
  rest: Group;
  /** Chance of so many bad ones or more, were it like the rest. */
  chance: number;
  standsOut: boolean;
}

/** ln of n over k. */
const lnChoose = (n: number, k: number) => logFactorial(n) - logFactorial(k) - logFactorial(n - k);

/**
 * Chance that so many or more of a group are bad, where bad ones fall upon all heads alike: the upper tail of the
 * hypergeometric distribution, Fisher's exact test (Fisher 1922), one-sided.
 * @param group heads and bad ones of the group, up to 1e7
 * @param rest of everything else
 * @example chanceOfMore({ heads: 8, bad: 7 }, { heads: 7, bad: 2 }) // 0.035
 */
export function chanceOfMore(group: Group, rest: Group): number {
  for (const [name, { heads, bad }] of Object.entries({ group, rest })) {
    countInRange(`heads of the ${name}`, heads, 0, 1e7);
    countInRange(`bad heads of the ${name}`, bad, 0, heads);
  }
  const all = group.heads + rest.heads;
  const bad = group.bad + rest.bad;
  const most = Math.min(bad, group.heads);
  let sum = 0;
  for (let k = most; k >= group.bad; k--) {
    sum += Math.exp(lnChoose(bad, k) + lnChoose(all - bad, group.heads - k) - lnChoose(all, group.heads));
  }
  return Math.min(1, sum);
}

/**
 * Which groups have more bad heads than chance would give any of them: each against all others, and as many groups must
 * not make a finding out of nothing, by the step-down of Holm (1979), so that in `level` of all years of pure chance
 * anything is found at all.
 * @param groups two or more; fewer find nothing
 * @param level family-wise, 0 to 1: common practice 1 %, no source
 * @returns in the order of `groups`
 * @example standOuts([{ heads: 100, bad: 12 }, { heads: 900, bad: 9 }])[0].standsOut // true
 */
export function standOuts<G extends Group>(groups: readonly G[], level = 0.01): StandOut<G>[] {
  inRange('level', level, '', 0, 1);
  const all = groups.reduce((sum, { heads, bad }) => ({ heads: sum.heads + heads, bad: sum.bad + bad }), {
    heads: 0,
    bad: 0,
  });
  const judged = groups.map((group) => {
    const rest = { heads: all.heads - group.heads, bad: all.bad - group.bad };
    const chance = rest.heads === 0 ? 1 : chanceOfMore({ heads: group.heads, bad: group.bad }, rest);
    return { group, rest, chance, standsOut: false };
  });
  const byChance = [...judged].sort((a, b) => a.chance - b.chance);
  for (const [at, each] of byChance.entries()) {
    if (each.chance > level / (byChance.length - at)) break;
    each.standsOut = true;
  }
  return judged;
}

/**
 * Which groups stand out among those that are like them: a cavity against those of its mold that cast the same head.
 * @param likeOf what makes two of them alike; one that is like no other never stands out
 * @returns in the order of `groups`
 * @example standOutsAmong([{ heads: 100, bad: 12 }, { heads: 900, bad: 9 }], () => 'ball') // [true, false]
 */
export function standOutsAmong<G extends Group>(
  groups: readonly G[],
  likeOf: (group: G) => string,
  level = 0.01,
): boolean[] {
  const worse = new Set(
    [...new Set(groups.map(likeOf))].flatMap((like) =>
      standOuts(
        groups.filter((group) => likeOf(group) === like),
        level,
      ).flatMap(({ group, standsOut }) => (standsOut ? group : [])),
    ),
  );
  return groups.map((group) => worse.has(group));
}
