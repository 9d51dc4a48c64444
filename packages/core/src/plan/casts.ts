import { castsFor } from '../count/casts-for.ts';
import { throughBoth, yieldEstimate, yieldTonight, type YieldTonight } from '../count/yield.ts';
import { BLANK_CYCLE_S } from '../mold/warm-up.ts';
import { HANDLE_S_PER_SHOT, POUR_S_PER_CAVITY, shotsSeconds } from '../mold/shot-seconds.ts';
import { blankKey, castingProblem, type MoldAllocation } from './allocate.ts';
import { castKg, variantFor } from './blank.ts';
import { blanksOf, openOf, usesOf } from './mold-plan.ts';
import { SOFT_LEAD } from '../metal/alloy.ts';
import type { HouseWays, PlanCavity, PlanMold, PlanPot, PlanProduct } from './types.ts';
import { solveCasts, type CastAnswer, type CastGroup, type CastLimit, type CastProblem } from './cast-model.ts';
import type { SolveLp } from '../numeric/program.ts';

/** Heads that somebody wants cast: those of an order, good at their end, or owed to a ticket by the pot. */
export interface HeadsWanted {
  workId: string;
  product: PlanProduct;
  heads: number;
  /** What comes after the pour is in the number already. */
  fromPot: boolean;
}

export interface CastsInput {
  wanted: readonly HeadsWanted[];
  molds: readonly PlanMold[];
  pot: Pick<PlanPot, 'way'>;
  ways: HouseWays;
  /** How many molds are poured in turn, 1 or 2: a second one hides what the first takes to set. */
  atOnce: number;
  afterPour?: YieldTonight;
  /** How sure it is to be that enough come out good; left out: nineteen evenings in twenty. */
  confidence?: number;
  /** Hooks on the shelf, where they are kept count of. */
  hooksHere?: Readonly<Record<string, number>>;
  /** Clean lead on the shelf, kg; left out: enough. */
  leadHereKg?: number;
}

/** Heads of one blank from some cavities of a mold. */
export interface CastsOnMold {
  blankId: string;
  name: string;
  positions: number[];
  casts: number;
}
export interface MoldTonight {
  moldId: string;
  name: string;
  shots: number;
  blanks: number;
  openS: number;
  uses: CastsOnMold[];
  /** Metal in all its heads and sprues, kg, and in its heads alone. */
  castKg: number;
  headsKg: number;
}
export interface BlankTonight {
  id: string;
  name: string;
  /** Good heads wanted, and casts for them. */
  heads: number;
  casts: number;
  /** As many as it takes on an evening like most. */
  expected: number;
  missing: number;
  works: string[];
}
export interface CastsTonight {
  molds: MoldTonight[];
  blanks: BlankTonight[];
  /** At the pot: getting ready, warming and all shots, s; and what no plan can go below. */
  seconds: number;
  boundS: number;
  optimal: boolean;
  /** How far the casts of one evening are off from what is expected, as a share: one standard deviation. */
  castsShare: number;
  /** What decided it, in words. */
  says: string[];
  /** What cannot be cast at all, with the nearest way out. */
  problems: { workId: string; text: string }[];
}

/** Getting one mold out, its hooks counted, the iron at hand, s. Common practice, no source. */
export const READY_S = 180;
/** Yields nearer than this are of cavities that are alike. */
const ALIKE = 0.04;
/** A cavity has been tried after so many casts. Common practice, no source. */
const TRIED = 20;
/** A cavity that gives so much less than the mean of its blank is worth a word. */
const POOR = 0.85;

interface Blank {
  id: string;
  product: PlanProduct;
  name: string;
  works: string[];
  end: number;
  pot: number;
  casts: number;
  heads: number;
  expected: number;
  /** How far one evening's yield is off, as a share of it. */
  offShare: number;
  /** Yield of the cavities for it that have been cast in; null where none has. */
  tried: number | null;
}

const yieldOf = ({ good, casts }: PlanCavity) => yieldEstimate(good, casts).mean;

/** Yield of all cavities for a blank that have been cast in; null where none has. */
function yieldOfTried(cavities: readonly PlanCavity[]): number | null {
  const tried = cavities.filter(({ casts }) => casts >= TRIED);
  const sum = (of: (each: PlanCavity) => number) => tried.reduce((all, each) => all + of(each), 0);
  return tried.length > 0
    ? yieldEstimate(
        sum(({ good }) => good),
        sum(({ casts }) => casts),
      ).mean
    : null;
}

/**
 * Yield of a cavity for a blank: by its own records; where nobody has cast in it, no better than that of the others, or
 * what is not known would look better than what is.
 */
const yieldIn = (cavity: PlanCavity, { tried }: Pick<Blank, 'tried'>): number =>
  cavity.casts >= TRIED ? yieldOf(cavity) : Math.min(yieldOf(cavity), tried ?? 1);

function wantedBlanks(input: CastsInput): Blank[] {
  const blanks = new Map<string, Blank>();
  for (const { workId, product, heads, fromPot } of input.wanted) {
    if (heads <= 0) continue;
    const id = blankKey(product);
    const known = blanks.get(id);
    const fresh = { end: 0, pot: 0, casts: 0, heads: 0, expected: 0, offShare: 0, tried: null };
    const blank: Blank = known ?? { id, product, name: product.name, works: [], ...fresh };
    blank.works.push(workId);
    blank.heads += heads;
    if (fromPot) blank.pot += heads;
    else blank.end += heads;
    blanks.set(id, blank);
  }
  return [...blanks.values()];
}

const fitting = (product: PlanProduct, molds: readonly PlanMold[]) =>
  molds.flatMap((mold) =>
    mold.cavities.filter((cavity) => variantFor(cavity, product)).map((cavity) => ({ mold, cavity })),
  );

/** Casts that give enough, at the mean yield of all cavities that cast it. */
function castsWanted(blank: Blank, { molds, afterPour = { mean: 1 }, confidence }: CastsInput) {
  const here = fitting(blank.product, molds);
  blank.tried = yieldOfTried(here.map(({ cavity }) => cavity));
  const mean = here.reduce((sum, { cavity }) => sum + yieldIn(cavity, blank), 0) / here.length;
  const casts = here.reduce((sum, { cavity }) => sum + cavity.casts, 0);
  const spread = here.reduce((most, { mold }) => Math.max(most, mold.eveningSpread ?? 0), 0);
  const tonight = yieldTonight({ mean, casts, ...(spread > 0 ? { spread } : {}) });
  blank.casts =
    castsFor(blank.end, throughBoth(tonight, afterPour), confidence) + castsFor(blank.pot, tonight, confidence);
  blank.expected = Math.min(blank.casts, blank.end / (mean * afterPour.mean) + blank.pot / mean);
  blank.offShare = Math.sqrt((1 - mean) / mean / (tonight.sure + 1));
  return mean;
}

/** Cavities of a mold that are alike for all blanks that are wanted. */
function groupsOf(mold: PlanMold, blanks: readonly Blank[], mean: ReadonlyMap<string, number>) {
  const groups: (CastGroup & { positions: number[] })[] = [];
  const keys = new Map<string, (typeof groups)[number]>();
  const idOf = (position: number) => `${mold.id} ${position}`;
  const kept = new Set<number>();
  const castsOf = (cavity: PlanCavity) =>
    blanks.flatMap((blank) => {
      const { id, product } = blank;
      const variant = variantFor(cavity, product);
      return variant ? [{ id, weight: yieldIn(cavity, blank) / mean.get(id)!, blocks: variant.blocks }] : [];
    });
  for (const cavity of mold.cavities) for (const { blocks } of castsOf(cavity)) blocks.forEach((at) => kept.add(at));
  for (const cavity of mold.cavities) {
    const casts = castsOf(cavity);
    if (casts.length === 0 && !kept.has(cavity.position)) continue;
    // What keeps others empty, or is kept empty, stands by itself.
    const single = kept.has(cavity.position) || casts.some(({ blocks }) => blocks.length > 0);
    const key = casts.map(({ id, weight }) => `${id} ${Math.round(weight / ALIKE)}`).join('|');
    const known = single ? undefined : keys.get(key);
    if (known) {
      known.cavities += 1;
      known.positions.push(cavity.position);
      continue;
    }
    const group = {
      ...{ id: idOf(cavity.position), moldId: mold.id, cavities: 1, positions: [cavity.position] },
      casts: casts.map(({ id: blankId, weight, blocks }) => ({ blankId, weight, keepsEmpty: blocks.map(idOf) })),
    };
    groups.push(group);
    if (!single) keys.set(key, group);
  }
  return groups;
}

/** What a mold does when these of its cavities cast these blanks. */
function allocationOf(
  mold: PlanMold,
  shots: number,
  uses: readonly CastsOnMold[],
  blanks: readonly Blank[],
): MoldAllocation {
  return {
    ...{ mold, shots },
    kinds: uses.map(({ blankId, positions, casts }) => {
      const { product, heads } = blanks.find(({ id }) => id === blankId)!;
      const cavities = mold.cavities.filter(({ position }) => positions.includes(position));
      const kind = { key: blankId, lines: [{ product, quantity: Math.max(1, heads) }], wanted: heads };
      return { kind, cavities, yieldShare: 1, yieldSure: Infinity, casts, shots };
    }),
  };
}

function limitsOf(blanks: readonly Blank[], mean: ReadonlyMap<string, number>, input: CastsInput): CastLimit[] {
  const limits: CastLimit[] = [];
  const hooks = new Map(blanks.flatMap(({ product: { hook } }) => (hook ? [[hook.materialId, hook] as const] : [])));
  for (const [id, hook] of hooks) {
    const here = input.hooksHere?.[id];
    if (here === undefined) continue;
    // A hook is used up by a good head; from one that is not it comes back.
    const own = blanks.filter(({ product }) => product.hook?.materialId === id);
    limits.push({
      ...{ id, name: hook.name, most: Math.max(0, here) },
      takes: Object.fromEntries(own.map((blank) => [blank.id, mean.get(blank.id)!])),
    });
  }
  if (input.leadHereKg !== undefined) {
    const kgOf = ({ id, product }: Blank) => {
      const [best] = fitting(product, input.molds);
      return best ? castKg(best.cavity, product) * mean.get(id)! * (1 + input.ways.drossShare) : 0;
    };
    limits.push({
      ...{ id: 'lead', name: 'lead', most: Math.max(0, input.leadHereKg - input.ways.heelKg) },
      takes: Object.fromEntries(blanks.map((blank) => [blank.id, kgOf(blank)])),
    });
  }
  return limits;
}

/**
 * Which molds are poured tonight, how often, and what goes into which cavity: the least time at the pot that gives
 * enough of everything, by an integer program.
 * @throws QuantityError for counts and yields out of range
 * @example castsTonight({ ...asked, wanted: [{ workId: 'w', product: product(10), heads: 60, fromPot: true }],
 *   pot: {}, atOnce: 1 }, solve).molds[0].shots // 25
 */
export function castsTonight(input: CastsInput, solve: SolveLp): CastsTonight {
  const problems = input.wanted.flatMap(({ workId, product, heads }) => {
    const text = heads > 0 ? castingProblem(product, input.molds) : null;
    return text ? [{ workId, text }] : [];
  });
  const stuck = new Set(problems.map(({ workId }) => workId));
  const blanks = wantedBlanks({ ...input, wanted: input.wanted.filter(({ workId }) => !stuck.has(workId)) });
  const mean = new Map(blanks.map((blank) => [blank.id, castsWanted(blank, input)]));
  const { ways, pot, atOnce } = input;
  const molds = input.molds.filter((mold) => blanks.some(({ product }) => fitting(product, [mold]).length > 0));
  const groups = molds.flatMap((mold) => groupsOf(mold, blanks, mean));
  const warmed = new Map(molds.map((mold) => [mold.id, blanksOf(mold, ways, pot)]));
  const problem: CastProblem = {
    blanks: blanks.map(({ id, name, casts }) => ({ id, name, casts })),
    molds: molds.map((mold) => {
      const all = groups
        .filter(({ moldId, casts }) => moldId === mold.id && casts.length > 0)
        .map(({ casts, positions }) => ({ blankId: casts[0]!.blankId, name: '', positions, casts: 1 }));
      const openS = openOf(allocationOf(mold, 1, all, blanks), ways, pot);
      return {
        ...{ id: mold.id, setupS: READY_S + warmed.get(mold.id)! * BLANK_CYCLE_S },
        shotS: HANDLE_S_PER_SHOT + (atOnce > 1 && molds.length > 1 ? 0 : openS),
        castS: ways.loadS + ways.inspectS + POUR_S_PER_CAVITY,
      };
    }),
    groups,
    limits: limitsOf(blanks, mean, input),
  };
  const solved = solveCasts(problem, solve);
  const used = molds.flatMap((mold): MoldTonight[] => {
    const shots = solved.shots[mold.id] ?? 0;
    if (shots === 0) return [];
    const uses = new Map<string, CastsOnMold>();
    for (const { groupId, blankId, casts, moldId } of solved.uses) {
      if (moldId !== mold.id) continue;
      const { positions } = groups.find(({ id }) => id === groupId)!;
      const name = blanks.find(({ id }) => id === blankId)!.name;
      const before = uses.get(blankId) ?? { blankId, name, positions: [], casts: 0 };
      uses.set(blankId, {
        ...before,
        positions: [...new Set([...before.positions, ...positions])].sort((a, b) => a - b),
        casts: before.casts + casts,
      });
    }
    const own = [...uses.values()];
    const allocation = allocationOf(mold, shots, own, blanks);
    const filled = usesOf(allocation.kinds, SOFT_LEAD);
    // A cavity has its sprue whenever it is filled.
    const sprueEach = filled.reduce((sum, use) => sum + use.sprueKg, 0) / Math.max(1, filled.length);
    const sprueKg = sprueEach * own.reduce((sum, { casts }) => sum + casts, 0);
    const headsKg = own.reduce((sum, { blankId, casts }) => {
      const { product } = blanks.find(({ id }) => id === blankId)!;
      const cavity = mold.cavities.find((each) => variantFor(each, product))!;
      return sum + casts * castKg(cavity, product);
    }, 0);
    return [
      {
        ...{ moldId: mold.id, name: mold.name, shots, uses: own, castKg: headsKg + sprueKg, headsKg },
        ...{ blanks: warmed.get(mold.id)!, openS: openOf(allocation, ways, pot) },
      },
    ];
  });
  return {
    molds: used,
    blanks: blanks.map(({ id, name, heads, casts, expected, works }) => {
      return { id, name, heads, casts, expected, missing: solved.missing[id] ?? 0, works };
    }),
    castsShare:
      blanks.reduce((sum, { expected, offShare }) => sum + expected * offShare, 0) /
      Math.max(
        1,
        blanks.reduce((sum, { expected }) => sum + expected, 0),
      ),
    ...{ seconds: solved.seconds, boundS: solved.boundS, optimal: solved.optimal, problems },
    says: saysOf(blanks, solved, problem, groups, molds),
  };
}

/** What a maker would ask about the plan, answered. */
function saysOf(
  blanks: readonly Blank[],
  { missing, uses }: Pick<CastAnswer, 'missing' | 'uses'>,
  problem: CastProblem,
  groups: readonly (CastGroup & { positions: number[] })[],
  molds: readonly PlanMold[],
): string[] {
  const spare = blanks.flatMap(({ id, name, heads, casts }) =>
    missing[id] || casts <= heads
      ? []
      : [`${name}: ${casts} casts for ${heads} good heads; ${casts - heads} more, so that enough are left at the end.`],
  );
  const poor = groups.flatMap(({ moldId, positions, casts }) => {
    const worst = Math.min(1, ...casts.map(({ weight }) => weight));
    if (casts.length === 0 || worst >= POOR) return [];
    const mold = molds.find(({ id }) => id === moldId)!;
    const [cavity] = mold.cavities.filter(({ position }) => positions.includes(position));
    const bad = Math.round(100 * (1 - yieldOf(cavity!)));
    return [`${mold.name}, cavity ${positions.join(' and ')}: bad ${bad} times in a hundred, and reckoned so.`];
  });
  const short = blanks.flatMap(({ id, name }) => {
    if (!missing[id]) return [];
    // What is used up most of is what stops it.
    const usedUp = ({ takes, most }: CastLimit) =>
      uses.reduce((sum, { blankId, casts }) => sum + casts * (takes[blankId] ?? 0), 0) / Math.max(1e-9, most);
    const scarce = problem.limits.filter(({ takes }) => takes[id]).sort((a, b) => usedUp(b) - usedUp(a))[0];
    const why = scarce
      ? `; ${Math.floor(scarce.most)} ${scarce.id === 'lead' ? 'kg of lead' : scarce.name} are here`
      : '';
    return [`${name}: ${missing[id]} casts cannot be made${why}.`];
  });
  return [...short, ...poor, ...spare];
}

/**
 * Seconds of a pour of these molds together on an evening like most: ready, warm, and as many shots as it takes until
 * enough are good, one mold after another or two in turn.
 * @example pourSeconds([], { blanks: [] }, ways, 1) // 0
 */
export function pourSeconds(
  molds: readonly MoldTonight[],
  { blanks }: Pick<CastsTonight, 'blanks'>,
  ways: HouseWays,
  atOnce: number,
): number {
  const ready = molds.reduce((sum, mold) => sum + READY_S + mold.blanks * BLANK_CYCLE_S, 0);
  const pours = molds.map(({ shots, uses, openS }) => {
    const planned = uses.reduce((sum, { casts }) => sum + casts, 0);
    const likely = uses.reduce((sum, { blankId, casts }) => {
      const blank = blanks.find(({ id }) => id === blankId);
      return sum + (blank && blank.casts > 0 ? (casts * blank.expected) / blank.casts : casts);
    }, 0);
    const cavities = planned / Math.max(1, shots);
    return { shots: Math.max(1, Math.round((shots * likely) / Math.max(1, planned))), cavities, openS };
  });
  return ready + shotsSeconds(ways, pours, atOnce);
}
