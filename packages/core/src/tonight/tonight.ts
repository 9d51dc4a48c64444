import { wholeCasts } from '../count/casts-for.ts';
import { knownMetal } from '../metal/known-metal.ts';
import { pourTemperatureC } from '../metal/figures.ts';
import { alloyOfProduct, CHANGE_METAL_S } from '../plan/metal.ts';
import { byMetal } from '../plan/metal-runs.ts';
import { castInto } from '../plan/blank.ts';
import { doorS, knownOven, loadHeat } from '../bake/known-oven.ts';
import { meltTime } from '../pot/time-to-pour.ts';
import { stepSeconds } from '../plan/minutes.ts';
import { productBakedJK, productLagS, stepsOf } from '../plan/product.ts';
import { blankKey } from '../plan/allocate.ts';
import { dryWaitS } from '../plan/timing.ts';
import { paceWith } from '../ways/pace.ts';
import { cupsOf } from '../paint/cups.ts';
import { finishSchool } from '../ways/finish.ts';
import type {
  Pins,
  KnownWays,
  PlanMold,
  PlanOven,
  PlanPot,
  PlanProduct,
  PlanStep,
  StockOnHand,
} from '../plan/types.ts';
import type { SolveLp } from '../numeric/program.ts';
import { castsTonight, pourSeconds, type CastsTonight, type MoldTonight } from '../plan/casts.ts';
import { eveningTasks, type PourOfEvening, type StepGlue, type Work, type WorkStep } from './evening.ts';
import { inRounds, pinOf, type PourRound } from './rounds.ts';
import type { Person, Schedule, MeansOfEvening } from './place.ts';
import type { Task } from './task.ts';
import { provedS } from './proof.ts';
import { endsOf, schedule, type Due, type SearchOptions } from './schedule.ts';

/** Heads that are wanted of one product: a line of an order, or a ticket that is under way. */
export interface Wanted {
  id: string;
  name: string;
  customer: string;
  orderNumber: number;
  /** Null: a line of an order that is not released. */
  ticketNumber: number | null;
  orderId: string;
  /** By the end of this day, ms; null: whenever. */
  dueMs: number | null;
  product: PlanProduct;
  /** Good heads that are wanted beyond those that are on the way. */
  heads: number;
  /** Heads that are still to be taken off the shelf; left out: none. */
  toTake?: number;
  /** Of what is cast, good heads that the pot owes for them; 0 off the shelf. */
  toCast: number;
  /** Heads that wait at its steps, by key. */
  left: Readonly<Record<string, number>>;
}

/** Everything that is open in the workshop, and what there is to do it with. */
export interface TonightAsked {
  wanted: readonly Wanted[];
  molds: readonly PlanMold[];
  pot: PlanPot;
  oven: PlanOven;
  ways: KnownWays;
  hooksHere: Readonly<Record<string, number>>;
  leadHereKg: number;
  leadId: string;
  /** Everything on the shelf. */
  stock: readonly StockOnHand[];
  /** Base-hole pins that there are, by diameter, and how many of them are in heads under way. */
  pins?: readonly Pins[];
  pinsInWork?: readonly Pins[];
  /** What labels of glues say, by part: how long a mix can be worked, s. */
  potLifeS?: Readonly<Record<string, number>>;
}

/** How the maker wants to go about it. */
export interface TonightWishes {
  /** Evenings from now on, ms; the first begins the plan. */
  evenings: readonly { fromMs: number; toMs: number }[];
  /** An evening like those that follow, where the last of these has begun already; left out: like that one. */
  usual?: { fromMs: number; toMs: number };
  people: readonly Person[];
  guns: number;
  /** Molds poured in turn, 1 or 2. */
  atOnce: number;
  /** Wanted that is left for another day, by id. */
  leftOut: readonly string[];
  /** Tasks that begin at a time, s from the first evening's beginning. */
  pinned: Readonly<Record<string, number>>;
}

export interface TonightPlan {
  casts: CastsTonight;
  pours: (PourOfEvening & PourRound & { works: string[] })[];
  tasks: Task[];
  schedule: Schedule;
  /** When the first evening begins, ms. */
  startMs: number;
  /** When each wanted is done, ms, and by how much it is late, s; not of what cannot be made whole. */
  ends: { id: string; endMs: number; lateS: number }[];
  /** Good heads that cannot be cast, by what is wanted, and what there is too little of. */
  notMade: { id: string; heads: number; lacks: string }[];
  windows: { fromS: number; toS: number }[];
}

/** One load stands for all: the heat that a full oven of this head takes. */
function bakeS(product: PlanProduct, step: ReturnType<typeof stepsOf>[number], oven: PlanOven): WorkStep['bake'] {
  const { bake } = step;
  if (!bake || bake.seconds <= 0) return null;
  const lagS = productLagS(product);
  const load = loadHeat([{ heatJK: productBakedJK(product), headLagS: lagS, count: oven.places }]);
  const program = `${bake.setC} ${bake.seconds} ${bake.preheated} ${bake.from ?? 'door'}`;
  return { program, seconds: doorS(bake, knownOven(oven), lagS, load) };
}

/** What is mixed for a step: what its bottle says outranks what such glue usually does. */
function glueOf(product: PlanProduct, step: PlanStep, potLifeS: TonightAsked['potLifeS']): StepGlue | null {
  const part = (product.parts ?? []).find((each) => each.step === step.key && each.kind === 'glue');
  const usual = step.task ? finishSchool(step.task, step.school).potLifeS : undefined;
  if (!part || !usual) return null;
  const { partId, name, quantity: mlPerHead } = part;
  return { partId, name, mlPerHead, potLifeS: potLifeS?.[partId] ?? usual };
}

function workOf(wanted: Wanted, asked: TonightAsked): Work {
  const { oven, ways, molds, potLifeS } = asked;
  const { id, product, heads, toCast, left, ticketNumber } = wanted;
  const cast = product.source !== 'shelf';
  const steps = stepsOf(product).map((step, at): WorkStep => ({
    ...{ key: step.key, station: step.station, does: step.does, bake: bakeS(product, step, oven) },
    secondsPerHead: stepSeconds(step, ways, product),
    waitS: (step.wait?.seconds ?? 0) + dryWaitS(step.layers),
    colour: step.layers.map(({ powder }) => powder.name).join(', ') || null,
    cups: cupsOf(step.layers),
    glue: glueOf(product, step, potLifeS),
    // Heads off the shelf wait at the first step.
    left: (left[step.key] ?? 0) + (!cast && at === 0 && ticketNumber === null ? heads : 0),
  }));
  return {
    ...{ id, name: wanted.name, toCast, blankId: cast ? blankKey(product) : null, steps },
    head: { style: product.style, massKg: product.nominalMassKg, hookSize: product.hook?.size ?? null },
    pin: pinOf(product, molds, ways.schools),
  };
}

/** Molds that are poured together, as often as pins come back, with the metal that is melted for them. */
function poursOf(casts: CastsTonight, { atOnce }: TonightWishes, asked: TonightAsked): TonightPlan['pours'] {
  const { pot, ways } = asked;
  const groups = casts.molds.reduce<MoldTonight[][]>((all, mold) => {
    const last = all.at(-1);
    if (last && last.length < atOnce && metalOf(last) === metalOf([mold])) last.push(mold);
    else all.push([mold]);
    return all;
  }, []);
  const pinOfBlank = new Map(
    asked.wanted.flatMap(({ product }) => {
      const pin = product.source === 'shelf' ? null : pinOf(product, asked.molds, ways.schools);
      const blankId = blankKey(product);
      const blank = casts.blanks.find((each) => each.id === blankId);
      if (!pin || !blank) return [];
      return [
        [
          blankId,
          { diameterM: pin.diameterM, goodShare: blank.heads / Math.max(1, wholeCasts(blank.casts.expected)) },
        ] as const,
      ];
    }),
  );
  const rounds = inRounds(groups, pinOfBlank, asked);
  return rounds.map(({ molds, pins, round, rounds: of, shares }, nth) => {
    const { metal } = molds[0]!;
    const alloy = knownMetal(metal);
    const pourC = pourTemperatureC(alloy, ways.pourC);
    const changes = nth > 0 && metalOf(rounds[nth - 1]!.molds) !== metalOf(molds);
    const castKg = molds.reduce((sum, mold) => sum + mold.castKg, 0);
    const kg = Math.min(pot.capacityKg, castKg * (1 + ways.drossShare) + (nth === 0 || changes ? ways.heelKg : 0));
    const melt = meltTime({
      leadKg: Math.max(0.05, kg),
      ...{ powerW: pot.powerW, lossWPerK: pot.lossWPerK, toC: pourC, roomC: ways.roomC, fromC: ways.roomC, alloy },
      // A pot that was poured from is hot itself.
      crucibleJPerK: nth === 0 ? pot.crucibleJPerK : 0,
    });
    const blankIds = [...new Set(molds.flatMap(({ uses }) => uses.map(({ blankId }) => blankId)))];
    const works = casts.blanks.filter(({ id }) => blankIds.includes(id)).flatMap((blank) => blank.works);
    return {
      ...{ id: String(nth + 1), name: pourName(molds, round, of), works },
      ...{ molds, pins, shares, round, rounds: of },
      ...(changes ? { change: { to: metal?.name ?? 'soft lead', seconds: CHANGE_METAL_S } } : {}),
      ...{ moldIds: molds.map(({ moldId }) => moldId), blankIds },
      ...{ seconds: pourSeconds(molds, ways, atOnce), meltS: melt.seconds },
    };
  });
}

/** The darkest of its colours: dips go from light to dark. */
const darknessOf = ({ steps }: Work) =>
  Math.max(0, ...steps.flatMap(({ cups = [] }) => cups.map(({ lightness }) => 1 - lightness)));
const coloursOf = ({ steps }: Work) => steps.flatMap(({ colour }) => colour ?? []).join(', ');

/** Which metal these molds are poured with. */
const metalOf = ([first]: readonly MoldTonight[]) => first?.metal?.kind ?? 'soft';

const pourName = (molds: readonly MoldTonight[], round: number, rounds: number) =>
  `Pour ${molds.map(({ name }) => name).join(' and ')}${rounds > 1 ? `, round ${round + 1} of ${rounds}` : ''}`;

const MS = 1000;

/** The ways of tonight: at the pace of those who are here. */
const hereTonight = (asked: TonightAsked, { people }: TonightWishes): TonightAsked => {
  const { pace, ...ways } = asked.ways;
  return pace
    ? {
        ...asked,
        ways: {
          ...ways,
          pace: paceWith(
            pace,
            people.map(({ name }) => name),
          ),
        },
      }
    : asked;
};

/** What of the open work is wanted tonight. */
const wantedTonight = ({ wanted }: TonightAsked, { leftOut }: TonightWishes) =>
  wanted.filter(({ id }) => !leftOut.includes(id));

/**
 * Which molds are poured for what is open, and how often: see {@link castsTonight}.
 * @throws QuantityError for counts out of range
 * @example castsOfTonight(asked, wishes, solve).optimal // true
 */
export function castsOfTonight(asked: TonightAsked, wishes: TonightWishes, solve: SolveLp): CastsTonight {
  const wanted = wantedTonight(asked, wishes)
    .filter(({ toCast }) => toCast > 0)
    .map(({ id, product, toCast }) => ({ workId: id, product, heads: toCast }));
  const { molds, pot, ways, stock } = hereTonight(asked, wishes);
  const hooksHere = { ...asked.hooksHere };
  const runs = byMetal(wanted, ({ product }) => product).map((own): CastsTonight => {
    const { metal } = own[0]!.product;
    const alloy = alloyOfProduct({ metal });
    const there = stock.find(({ materialId }) => materialId === metal?.materialId)?.quantity ?? asked.leadHereKg;
    const hot = { ...ways, pourC: pourTemperatureC(alloy, ways.pourC) };
    const casts = castsTonight(
      { wanted: own, molds, pot, ways: hot, atOnce: wishes.atOnce, hooksHere, leadHereKg: there, alloy },
      solve,
    );
    // What goes into these heads is not there for those of the next metal.
    for (const { works, heads, missingHeads } of casts.blanks) {
      const { product } = own.find(({ workId }) => works.includes(workId))!;
      for (const { materialId, perHead } of castInto(product)) {
        const here = hooksHere[materialId];
        if (here !== undefined) hooksHere[materialId] = Math.max(0, here - perHead * (heads - missingHeads));
      }
    }
    return metal ? { ...casts, molds: casts.molds.map((mold) => ({ ...mold, metal })) } : casts;
  });
  return inOne(runs);
}

/** Casts in several metals as those of one evening. */
function inOne(runs: readonly CastsTonight[]): CastsTonight {
  const all = (casts: CastsTonight) => casts.blanks.reduce((sum, blank) => sum + blank.casts.expected, 0);
  const count = runs.reduce((sum, casts) => sum + all(casts), 0);
  const changesS = CHANGE_METAL_S * Math.max(0, runs.filter(({ molds }) => molds.length > 0).length - 1);
  const sum = (of: (casts: CastsTonight) => number) => runs.reduce((total, casts) => total + of(casts), 0);
  return {
    molds: runs.flatMap(({ molds }) => molds),
    blanks: runs.flatMap(({ blanks }) => blanks),
    seconds: sum(({ seconds }) => seconds) + changesS,
    boundS: sum(({ boundS }) => boundS) + changesS,
    optimal: runs.every(({ optimal }) => optimal),
    castsShare: sum((casts) => casts.castsShare * all(casts)) / Math.max(1, count),
    says: runs.flatMap(({ says }) => says),
    problems: runs.flatMap(({ problems }) => problems),
  };
}

/**
 * What an evening leaves undone because something is short, in words, what is scarce by itself each.
 * @example notMadeSay([{ id: 'a', heads: 53, lacks: 'no hook 1/0' }], [{ id: 'a', name: 'Fry 7 g' }])
 *   // ['all but 53 Fry 7 g: no hook 1/0']
 */
export function notMadeSay(notMade: TonightPlan['notMade'], wanted: readonly Pick<Wanted, 'id' | 'name'>[]): string[] {
  const nameOf = (id: string) => wanted.find((each) => each.id === id)?.name ?? '';
  return [...new Set(notMade.map(({ lacks }) => lacks))].map((lacks) => {
    const own = notMade.filter((each) => each.lacks === lacks);
    return `all but ${own.map(({ id, heads }) => `${heads} ${nameOf(id)}`).join(' and ')}: ${lacks}`;
  });
}

/** Heads that cannot be cast fall to what is due last of those that want the same blank. */
function notMadeOf(wanted: readonly Wanted[], { blanks }: CastsTonight): TonightPlan['notMade'] {
  return blanks.flatMap(({ missingHeads, lacks, works }) => {
    let left = missingHeads;
    const due = ({ dueMs }: Wanted) => dueMs ?? Infinity;
    const own = wanted
      .filter(({ id }) => works.includes(id))
      .sort((a, b) => (due(b) > due(a) ? 1 : due(b) < due(a) ? -1 : 0));
    return own.flatMap(({ id, toCast }) => {
      const heads = Math.min(left, toCast);
      left -= heads;
      return heads > 0 && lacks !== null ? [{ id, heads, lacks }] : [];
    });
  });
}

interface PlanOptions extends Pick<SearchOptions, 'tries' | 'seed' | 'patience' | 'mayGoOn'> {
  /** Asked whether more may be proved of what was found. */
  mayProve?: () => boolean;
  /** Only lots by urgency, for an answer at once; else also by number, by colour, shared out, or apart by pour. */
  quick?: boolean;
  /** Told how far the search is, 0 to 1, with the best so far where that is a better one than was told before. */
  tell?: (share: number, better: TonightPlan | null) => void;
}

/**
 * Tonight, from what is open and what is cast for it to who does what when: searched for the order that is done first
 * and late with nothing.
 * @throws QuantityError for counts out of range; RangeError where an evening ends before it begins, or nobody is there
 * @example planTonight(asked, wishes, castsOfTonight(asked, wishes, solve),
 *   { tries: 20 }).tasks.map(({ station }) => station) // ['pour', 'trim', 'paint', 'bake', 'bake', 'bake',
 *   'finish']
 */
export function planTonight(
  open: TonightAsked,
  wishes: TonightWishes,
  casts: CastsTonight,
  options: PlanOptions = {},
): TonightPlan {
  const asked = hereTonight(open, wishes);
  const { evenings, people, guns, pinned } = wishes;
  const [first] = evenings;
  if (!first) throw new RangeError('evenings is none; allowed: one or more');
  if (people.length === 0) throw new RangeError('people is nobody; allowed: one or more');
  for (const { fromMs, toMs } of evenings) {
    if (!(toMs > fromMs)) throw new RangeError('an evening ends before it begins; allowed: an end that is later');
  }
  const startMs = first.fromMs;
  const wanted = wantedTonight(asked, wishes);
  const stuck = new Set(casts.problems.map(({ workId }) => workId));
  const pours = poursOf(casts, wishes, asked);
  const poured = new Set(pours.flatMap(({ works }) => works));
  const notMade = notMadeOf(wanted, casts);
  const lacking = new Map(notMade.map(({ id, heads }) => [id, heads]));
  const works = wanted
    .filter(({ id }) => !stuck.has(id))
    .map((each) => workOf(each, asked))
    // What cannot be cast tonight, because hooks or metal are short, waits with what it has.
    .map((work) => {
      const toCast = poured.has(work.id) ? Math.max(0, work.toCast - (lacking.get(work.id) ?? 0)) : 0;
      return { ...work, toCast, blankId: toCast > 0 ? work.blankId : null };
    });
  const due: Due = Object.fromEntries(
    wanted.flatMap(({ id, dueMs }) => (dueMs === null ? [] : [[id, (dueMs - startMs) / MS]])),
  );
  const windows = evenings.map(({ fromMs, toMs }) => ({ fromS: (fromMs - startMs) / MS, toS: (toMs - startMs) / MS }));
  // Later than the last evening there is always another one.
  const { fromMs, toMs } = wishes.usual ?? evenings.at(-1)!;
  const last = { fromS: (fromMs - startMs) / MS, toS: (toMs - startMs) / MS };
  const more = Array.from({ length: MORE_EVENINGS }, (_, nth) => ({
    ...{ fromS: last.fromS + DAY_S * (nth + 1), toS: last.toS + DAY_S * (nth + 1) },
  }));
  const shop = { people, tools: { gun: guns }, windows: [...windows, ...more] };
  const input = { works, pours, oven: asked.oven };
  const dueOf = (id: string) => due[id] ?? Infinity;
  const ids = works.map(({ id }) => id);
  const sorted = (by: (a: Work, b: Work) => number) => [...works].sort(by).map(({ id }) => id);
  const urgent = eveningTasks(
    input,
    sorted((a, b) => dueOf(a.id) - dueOf(b.id)),
  );
  const otherwise = () => [
    eveningTasks(
      input,
      sorted((a, b) => b.toCast - a.toCast),
    ),
    ...(people.length > 1 ? [eveningTasks({ ...input, people: people.length, guns }, ids)] : []),
    ...(pours.length > 1 ? [eveningTasks({ ...input, apart: true }, ids)] : []),
    // The same colours one after another: fewer sessions, fewer cups to clean.
    eveningTasks(
      input,
      sorted((a, b) => darknessOf(a) - darknessOf(b) || coloursOf(a).localeCompare(coloursOf(b))),
    ),
  ];
  const structures = options.quick ? [urgent] : [urgent, ...otherwise()];
  const asPlan = (tasks: Task[], found: Schedule): TonightPlan => ({
    ...{ casts, pours, notMade, schedule: found, startMs, windows: shop.windows },
    // Changing the cups is part of a task, now that it is known what stood in them.
    tasks: tasks.map((task, at) => ({ ...task, seconds: task.seconds + found.placed[at]!.changeS })),
    ends: [...endsOf(tasks, found.placed)].flatMap(([id, endS]) => {
      return lacking.has(id) ? [] : [{ id, endMs: startMs + MS * endS, lateS: Math.max(0, endS - dueOf(id)) }];
    }),
  });
  const { tries = 3000, seed, patience, mayGoOn, mayProve, tell } = options;
  const lateOf = ({ ends }: TonightPlan) => ends.reduce((sum, { lateS }) => sum + lateS, 0);
  const better = (a: TonightPlan, b: TonightPlan) =>
    lateOf(b) < lateOf(a) - 1 || (lateOf(b) <= lateOf(a) + 1 && b.schedule.endS < a.schedule.endS) ? b : a;
  let best: TonightPlan | null = null;
  let bestTasks = urgent;
  structures.forEach((tasks, nth) => {
    const known = new Set(tasks.map(({ id }) => id));
    const held = Object.fromEntries(Object.entries(pinned).filter(([id]) => known.has(id)));
    const found = schedule(tasks, shop, {
      ...{ due, pinned: held, tries: Math.ceil(tries / structures.length), ...(seed === undefined ? {} : { seed }) },
      ...{ ...(patience === undefined ? {} : { patience }), ...(mayGoOn ? { mayGoOn } : {}) },
      tell: (share, now) => {
        const plan = now && asPlan(tasks, now);
        const isBetter = plan && (best === null || better(best, plan) === plan);
        tell?.((nth + share) / structures.length, isBetter ? plan : null);
      },
    });
    const plan = asPlan(tasks, found);
    best = best ? better(best, plan) : plan;
    if (best === plan) bestTasks = tasks;
  });
  const found = best!;
  return options.quick ? found : { ...found, schedule: proved(bestTasks, shop, found.schedule, mayProve) };
}

/** Where the quick bound leaves doubt about what was found, more is proved of it. */
function proved(tasks: readonly Task[], shop: MeansOfEvening, schedule: Schedule, mayGoOn?: () => boolean): Schedule {
  if (schedule.endS - schedule.boundS < DOUBT_S) return schedule;
  return { ...schedule, boundS: provedS(tasks, shop, { ...schedule, ...(mayGoOn ? { mayGoOn } : {}) }) };
}
const DOUBT_S = 60;

const DAY_S = 86_400;
/** Evenings like the last one that are reckoned with behind it, for what does not fit. */
const MORE_EVENINGS = 14;
