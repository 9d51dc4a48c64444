import { castsSay, castsUntil, wholeCasts, type Casts } from '../count/casts-for.ts';
import { cavityYield, yieldIn, yieldOfBlank } from './blank-yield.ts';
import { massShareOfLead, SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import type { CastMetal } from '../metal/wanted.ts';
import { BLANK_CYCLE_S } from '../mold/warm-up.ts';
import { HANDLE_S_PER_SHOT, POUR_S_PER_CAVITY, shotsSeconds } from '../mold/shot-seconds.ts';
import { blankKey, castingProblem, fitting, type MoldAllocation } from './allocate.ts';
import { castInto, castKg, variantFor } from './blank.ts';
import { roundKgOf, throughMoldsKg } from './charge.ts';
import { blanksOf, openOf } from './mold-plan.ts';
import type { KnownWays, PlanCavity, PlanMold, PlanPot, PlanProduct } from './types.ts';
import { solveCasts, type CastAnswer, type CastGroup, type CastLimit, type CastProblem } from './cast-model.ts';
import { paceOf } from '../ways/pace.ts';
import { quantityText } from '../quantity/said.ts';
import type { SolveLp } from '../numeric/program.ts';

/** Good heads that the pot owes a line of an order or a ticket. */
interface HeadsWanted {
  workId: string;
  product: PlanProduct;
  heads: number;
}

export interface CastsInput {
  wanted: readonly HeadsWanted[];
  molds: readonly PlanMold[];
  pot: Pick<PlanPot, 'way'>;
  ways: KnownWays;
  /** How many molds are poured in turn, 1 or 2: a second one hides what the first takes to set. */
  atOnce: number;
  /** Hooks and other parts on the shelf, where they are kept count of. */
  hooksHere?: Readonly<Record<string, number>>;
  /** Clean metal on the shelf, kg; left out: enough. */
  leadHereKg?: number;
  /** The metal that all of it is cast in; left out: soft lead. */
  alloy?: Alloy;
}

/** Casts of one blank in some cavities of a mold, as many as are expected. */
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
  /** What it is poured with; left out: the usual. */
  metal?: CastMetal;
  /** Metal in all its heads and sprues, kg, and what is under way in its largest shot. */
  castKg: number;
  roundKg: number;
}
interface BlankTonight {
  id: string;
  name: string;
  /** Good heads that the pot owes, and casts until they are there. */
  heads: number;
  casts: Casts;
  /** Metal in one, kg, and cavities that are loaded at once for it. */
  headKg: number;
  load: number;
  /** Of the casts that are expected, those that cannot be made; and the good heads that are missing for it. */
  missing: number;
  missingHeads: number;
  /** What there is too little of for them, in words; null where nothing is missing. */
  lacks: string | null;
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
/** A cavity that gives so much less than the mean of its blank is worth a word. */
const POOR = 0.85;

interface Blank {
  id: string;
  product: PlanProduct;
  name: string;
  works: string[];
  heads: number;
  casts: Casts;
  /** Mean yield of all cavities that cast it, and how far one evening's is off, as a share of it. */
  mean: number;
  offShare: number;
  /** Those cavities, of all molds. */
  cavities: PlanCavity[];
}

function wantedBlanks({ wanted, molds }: Pick<CastsInput, 'wanted' | 'molds'>): Blank[] {
  const blanks = new Map<string, Pick<Blank, 'id' | 'product' | 'works' | 'heads'>>();
  for (const { workId, product, heads } of wanted) {
    if (heads <= 0) continue;
    const id = blankKey(product);
    const blank = blanks.get(id) ?? { id, product, works: [], heads: 0 };
    blank.works.push(workId);
    blank.heads += heads;
    blanks.set(id, blank);
  }
  return [...blanks.values()].map((blank) => {
    const { product, heads } = blank;
    const cavities = fitting(product, molds);
    const casting = molds.filter((mold) => fitting(product, [mold]).length > 0);
    const tonight = yieldOfBlank(cavities, casting, cavities);
    const { mean, sure } = tonight;
    const offShare = Math.sqrt((1 - mean) / mean / (sure + 1));
    return { ...blank, name: product.name, casts: castsUntil(heads, tonight), mean, offShare, cavities };
  });
}

/** Cavities of a mold that are alike for all blanks that are wanted. */
function groupsOf(mold: PlanMold, blanks: readonly Blank[]) {
  const groups: (CastGroup & { positions: number[] })[] = [];
  const keys = new Map<string, (typeof groups)[number]>();
  const idOf = (position: number) => `${mold.id} ${position}`;
  const kept = new Set<number>();
  const castsOf = (cavity: PlanCavity) =>
    blanks.flatMap(({ id, product, mean, cavities }) => {
      const variant = variantFor(cavity, product);
      return variant ? [{ id, weight: yieldIn(cavity, cavities) / mean, blocks: variant.blocks }] : [];
    });
  for (const cavity of mold.cavities) for (const { blocks } of castsOf(cavity)) blocks.forEach((at) => kept.add(at));
  for (const cavity of mold.cavities) {
    const casts = castsOf(cavity);
    if (casts.length === 0 && !kept.has(cavity.position)) continue;
    // What keeps others empty, or is kept empty, stands by itself.
    const single = kept.has(cavity.position) || casts.some(({ blocks }) => blocks.length > 0);
    const key = casts.map(({ id, weight }) => `${id} ${weight.toFixed(6)}`).join('|');
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
function allocationOf(mold: PlanMold, uses: readonly CastsOnMold[], blanks: readonly Blank[]): MoldAllocation {
  return {
    mold,
    kinds: uses.map(({ blankId, positions, casts }) => {
      const { product, heads } = blanks.find(({ id }) => id === blankId)!;
      const cavities = mold.cavities.filter(({ position }) => positions.includes(position));
      const kind = { key: blankId, lines: [{ product, quantity: Math.max(1, heads) }], wanted: heads };
      const made = { expected: casts, provision: casts, least: casts };
      return { kind, cavities, yieldShare: 1, yieldSure: Infinity, casts: made };
    }),
  };
}

function limitsOf(blanks: readonly Blank[], input: CastsInput): CastLimit[] {
  const limits: CastLimit[] = [];
  const castIn = new Map(
    blanks.flatMap(({ product }) => castInto(product).map((each) => [each.materialId, each.name])),
  );
  for (const [id, name] of castIn) {
    const here = input.hooksHere?.[id];
    if (here === undefined) continue;
    // A hook is used up by a good head; from one that is not it comes back.
    const takes = blanks.flatMap((blank) => {
      const own = castInto(blank.product).find(({ materialId }) => materialId === id);
      return own ? [[blank.id, own.perHead * blank.mean] as const] : [];
    });
    limits.push({ ...{ id, name, most: Math.max(0, here) }, takes: Object.fromEntries(takes) });
  }
  if (input.leadHereKg !== undefined) {
    const kgOf = ({ product, mean, cavities: [best] }: Blank) =>
      best ? castKg(best, product, input.alloy) * mean * (1 + input.ways.drossShare) : 0;
    limits.push({
      ...{ id: LEAD, name: 'lead', most: Math.max(0, input.leadHereKg - input.ways.heelKg) },
      takes: Object.fromEntries(blanks.map((blank) => [blank.id, kgOf(blank)])),
    });
  }
  return limits;
}

/**
 * Which molds are poured tonight, how often, and what goes into which cavity: the least time at the pot that gives
 * enough of everything, by an integer program.
 * @throws QuantityError for counts and yields out of range
 * @example castsTonight({ ...asked, wanted: [{ workId: 'w', product: product(10), heads: 60 }],
 *   pot: {}, atOnce: 1 }, solve).molds[0].shots // 22
 */
export function castsTonight(input: CastsInput, solve: SolveLp): CastsTonight {
  const problems = input.wanted.flatMap(({ workId, product, heads }) => {
    const text = heads > 0 ? castingProblem(product, input.molds) : null;
    return text ? [{ workId, text }] : [];
  });
  const stuck = new Set(problems.map(({ workId }) => workId));
  const blanks = wantedBlanks({ ...input, wanted: input.wanted.filter(({ workId }) => !stuck.has(workId)) });
  const { ways, pot, atOnce, alloy = SOFT_LEAD } = input;
  const metalShare = massShareOfLead(alloy);
  const pace = paceOf(ways.pace, 'pour').factor;
  const molds = input.molds.filter((mold) => blanks.some(({ product }) => fitting(product, [mold]).length > 0));
  const groups = molds.flatMap((mold) => groupsOf(mold, blanks));
  const warmed = new Map(molds.map((mold) => [mold.id, blanksOf(mold, ways, pot, alloy)]));
  const problem: CastProblem = {
    blanks: blanks.map(({ id, name, casts }) => ({ id, name, casts: wholeCasts(casts.expected) })),
    molds: molds.map((mold) => {
      const all = groups
        .filter(({ moldId, casts }) => moldId === mold.id && casts.length > 0)
        .map(({ casts, positions }) => ({ blankId: casts[0]!.blankId, name: '', positions, casts: 1 }));
      const openS = openOf(allocationOf(mold, all, blanks), ways, pot, alloy);
      return {
        ...{ id: mold.id, setupS: pace * (READY_S + warmed.get(mold.id)! * BLANK_CYCLE_S) },
        shotS: pace * (HANDLE_S_PER_SHOT + (atOnce > 1 && molds.length > 1 ? 0 : openS)),
        castS: pace * (ways.loadS + ways.inspectS + POUR_S_PER_CAVITY),
      };
    }),
    groups,
    limits: limitsOf(blanks, input),
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
    const allocation = allocationOf(mold, own, blanks);
    const { headsKg, spruesKg } = throughMoldsKg(allocation.kinds);
    return [
      {
        ...{ moldId: mold.id, name: mold.name, shots, uses: own, castKg: metalShare * (headsKg + spruesKg) },
        ...{ blanks: warmed.get(mold.id)!, openS: openOf(allocation, ways, pot, alloy) },
        roundKg: metalShare * roundKgOf(allocation.kinds),
      },
    ];
  });
  return {
    molds: used,
    blanks: blanks.map(({ id, name, heads, casts, works, mean, product, cavities: [first] }) => {
      const missing = solved.missing[id] ?? 0;
      const load = used.reduce((sum, { uses }) => {
        return sum + uses.reduce((all, use) => all + (use.blankId === id ? use.positions.length : 0), 0);
      }, 0);
      const missingHeads = Math.min(heads, Math.ceil(missing * mean));
      const lacks = missing > 0 ? lacksOf(id, solved, problem) : null;
      return {
        id,
        name,
        heads,
        casts,
        headKg: castKg(first!, product, alloy),
        load,
        missing,
        missingHeads,
        lacks,
        works,
      };
    }),
    castsShare:
      blanks.reduce((sum, { casts, offShare }) => sum + casts.expected * offShare, 0) /
      Math.max(
        1,
        blanks.reduce((sum, { casts }) => sum + casts.expected, 0),
      ),
    ...{ seconds: solved.seconds, boundS: solved.boundS, optimal: solved.optimal, problems },
    says: saysOf(blanks, solved, groups, molds),
  };
}

/** What a maker would ask about the plan, answered. */
function saysOf(
  blanks: readonly Blank[],
  { missing }: Pick<CastAnswer, 'missing'>,
  groups: readonly (CastGroup & { positions: number[] })[],
  molds: readonly PlanMold[],
): string[] {
  const spare = blanks.flatMap(({ id, name, heads, casts }) =>
    missing[id] || casts.provision <= heads ? [] : [`${name}, ${heads} good: ${castsSay(casts)}.`],
  );
  const poor = groups.flatMap(({ moldId, positions, casts }) => {
    const worst = Math.min(1, ...casts.map(({ weight }) => weight));
    if (casts.length === 0 || worst >= POOR) return [];
    const mold = molds.find(({ id }) => id === moldId)!;
    const [cavity] = mold.cavities.filter(({ position }) => positions.includes(position));
    const bad = Math.round(100 * (1 - cavityYield(cavity!)));
    return [`${mold.name}, cavity ${positions.join(' and ')}: bad ${bad} times in a hundred, and reckoned so.`];
  });
  return [...poor, ...spare];
}

/** What there is too little of for a blank, in words: of what limits it, that which is used up most of. */
function lacksOf(blankId: string, { uses }: Pick<CastAnswer, 'uses'>, { limits }: CastProblem): string {
  const usedUp = ({ takes, most }: CastLimit) =>
    uses.reduce((sum, use) => sum + use.casts * (takes[use.blankId] ?? 0), 0) / Math.max(1e-9, most);
  const [scarce] = limits.filter(({ takes }) => takes[blankId]).sort((a, b) => usedUp(b) - usedUp(a));
  if (!scarce) return 'no cavity is free for it';
  const metal = scarce.id === LEAD;
  if (scarce.most < 1) return metal ? 'no lead beyond the heel' : `no ${scarce.name}`;
  return metal
    ? `only ${quantityText(Math.round(10 * scarce.most) / 10, 'kg')} of lead`
    : `only ${Math.floor(scarce.most)} ${scarce.name}`;
}
const LEAD = 'lead';

/**
 * Seconds of a pour of these molds together: ready, warm, and the shots that are expected, one mold after another or
 * two in turn.
 * @example pourSeconds([], ways, 1) // 0
 */
export function pourSeconds(molds: readonly MoldTonight[], ways: KnownWays, atOnce: number): number {
  const ready = molds.reduce((sum, mold) => sum + READY_S + mold.blanks * BLANK_CYCLE_S, 0);
  const pours = molds.map(({ shots, uses, openS }) => {
    const casts = uses.reduce((sum, use) => sum + use.casts, 0);
    return { shots, cavities: casts / Math.max(1, shots), openS };
  });
  return paceOf(ways.pace, 'pour').factor * (ready + shotsSeconds(ways, pours, atOnce));
}
