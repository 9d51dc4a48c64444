import { massShareOfLead, SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { pourTemperatureC } from '../metal/figures.ts';
import { workingBlock } from '../freeze/opening.ts';
import { BLANK_CYCLE_S } from '../mold/warm-up.ts';
import { shotsSeconds } from '../mold/shot-seconds.ts';
import { meltTime } from '../pot/time-to-pour.ts';
import type { CavityLoad, PourPlanned, PourSetup } from '../run/pour-log.ts';
import { allocate, castingProblem, cavitiesAShot, type MoldAllocation, type MoldShares } from './allocate.ts';
import { chargeKgOf, chargeParts, leadNeedKg } from './charge.ts';
import { moldPlan } from './mold-plan.ts';
import { partKind } from '../job/part-kinds.ts';
import { bendFirst, castInto, insertsOf, variantFor, type CastIn } from './blank.ts';
import { castsOfLine } from './line.ts';
import { castInNeeds } from './needs.ts';
import { pinInWorkM } from './pins.ts';
import { paceOf, type PaceRecord } from '../ways/pace.ts';
import { sumOfCasts, type Casts } from '../count/casts-for.ts';
import type { KnownWays, MoldPlan, PlanLine, PlanMold, PlanPot } from './types.ts';

interface PourWanted {
  /** What is wanted, by ticket: in a pour a ticket stands in the product's place, its id in the product's. */
  lines: readonly PlanLine[];
  /** In the order in which they come to the pot. */
  molds: readonly PlanMold[];
  /** How many of them are poured in turn. */
  atOnce: number;
  /** Which molds cast a head; left out: the one with most cavities for it. */
  shares?: MoldShares;
  pot: PlanPot;
  ways: KnownWays;
  /** What is poured; soft lead where nothing is said. */
  alloy?: Alloy;
  /** Hooks on the shelf by material, as far as they are kept count of: no more can be counted out. */
  hooksHere?: Readonly<Record<string, number>>;
}

/** What a pour takes, before it is begun. */
interface PourTakes {
  casts: Casts;
  /** Of its tickets: good heads to cast, and casts for them. */
  tickets: { id: string; toCast: number; casts: Casts }[];
  /** Pieces of what is cast in that are wanted, by material. */
  castIn: { materialId: string; pieces: number }[];
  /** Metal that must be there, kg. */
  leadKg: number;
}
interface PreparedPour {
  setup: PourSetup;
  planned: PourPlanned;
  takes: PourTakes;
}

/** What these pours take of what is laid out, ticket by ticket and together. */
function takesOf(
  allocations: readonly MoldAllocation[],
  lines: readonly PlanLine[],
  ways: KnownWays,
  metalShare: number,
): PourTakes {
  const kinds = allocations.flatMap((allocation) => allocation.kinds);
  const tickets = lines.map((line) => {
    const own = kinds.filter(({ kind }) => kind.lines.includes(line));
    return { id: line.product.id, toCast: line.quantity, casts: castsOfLine(line, own) };
  });
  return {
    tickets,
    casts: sumOfCasts(kinds.map(({ casts }) => casts)),
    castIn: [...castInNeeds(kinds, ways)].map(([materialId, { pieces }]) => ({ materialId, pieces })),
    leadKg: leadNeedKg(allocations, ways, metalShare),
  };
}

/**
 * Open cavities of a mold that nobody casts in and that may be filled all the same: without its pin one that was cut
 * for it leaks, and what a ground groove keeps empty stays so.
 */
function idleIn({ mold, kinds }: MoldAllocation): number[] {
  const used = new Set(
    kinds.flatMap(({ kind, cavities }) =>
      cavities.flatMap((cavity) => [cavity.position, ...(variantFor(cavity, kind.lines[0]!.product)?.blocks ?? [])]),
    ),
  );
  return mold.cavities
    .filter(({ position, condition, pin }) => condition === 'good' && !pin && !used.has(position))
    .map(({ position }) => position);
}

/** Base-hole pins to lay out: those that stay in good heads until the paint or the bake, and one load of the molds. */
const pinsOutOf = (allocations: readonly MoldAllocation[], { molds, ways }: PourWanted): number =>
  allocations
    .flatMap((allocation) => allocation.kinds)
    .reduce((sum, { kind, cavities }) => {
      const { product } = kind.lines[0]!;
      const load = cavities.filter((cavity) => insertsOf(cavity, product).includes('base-hole pin')).length;
      if (load === 0) return sum;
      return sum + load + (pinInWorkM(product, molds, ways.schools) === null ? 0 : kind.wanted);
    }, 0);

/** Hooks that have to be bent before they lie in their cavities, each way once. */
function bentOf(allocations: readonly MoldAllocation[]): NonNullable<PourSetup['bent']> {
  const bent = new Map<string, { materialId: string; says: string }>();
  for (const { kind, cavities } of allocations.flatMap((allocation) => allocation.kinds)) {
    const { product } = kind.lines[0]!;
    for (const cavity of cavities) {
      const says = bendFirst(cavity, product);
      if (says) bent.set(`${product.hook!.materialId} ${says}`, { materialId: product.hook!.materialId, says });
    }
  }
  return [...bent.values()];
}

function loadsOf(plans: readonly MoldPlan[], { lines, molds }: PourWanted): CavityLoad[] {
  const productOf = new Map(lines.map(({ product }) => [product.id, product]));
  return plans.flatMap(({ moldId, uses }) => {
    const { cavities } = molds.find((mold) => mold.id === moldId)!;
    return uses.map(({ position, cavityId, productIds, leadKg, sprueKg, yieldShare, yieldSure }): CavityLoad => {
      const product = productOf.get(productIds[0]!)!;
      const { hook } = product;
      const inserts = insertsOf(
        cavities.find((cavity) => cavity.id === cavityId)!,
        product,
      );
      const hooked = { hookMaterialId: hook?.materialId ?? null, hookKg: hook?.massKg ?? 0 };
      const castIn = castInto({ ...product, hook: null }).filter(isCounted);
      return {
        moldId,
        position,
        cavityId,
        ticketIds: productIds,
        ...hooked,
        ...(castIn.length > 0
          ? { castIn: castIn.map(({ materialId, quantity: each }) => ({ materialId, quantity: each })) }
          : {}),
        inserts,
        leadKg,
        sprueKg,
        yieldShare,
        yieldSure,
      };
    });
  });
}

/** What is cast in is counted out piece by piece; wire off a spool is not. */
const isCounted = ({ kind }: CastIn) => partKind(kind).unit === 'pieces';

/** Hooks and other pieces to count out: for the provision, as far as there are any. */
function hooksOut(
  allocations: readonly MoldAllocation[],
  here: Readonly<Record<string, number>> = {},
): Record<string, number> {
  const out: Record<string, number> = {};
  for (const { kind, casts } of allocations.flatMap((allocation) => allocation.kinds)) {
    for (const { materialId, perHead } of castInto(kind.lines[0]!.product).filter(isCounted)) {
      out[materialId] = (out[materialId] ?? 0) + perHead * casts.provision;
    }
  }
  for (const [id, pieces] of Object.entries(out)) {
    out[id] = Math.min(Math.ceil(pieces - 1e-9), Math.max(0, Math.floor(here[id] ?? Infinity)));
  }
  return out;
}

/**
 * Why these lines cannot be poured on these molds, in words; null when they can.
 * @example pourProblem({ lines: workshop().lines, molds: [] })
 *   // 'No mold has a ball cavity of 10 g; there is none of this style.'
 */
export const pourProblem = ({ lines, molds }: Pick<PourWanted, 'lines' | 'molds'>): string | null =>
  lines.map((line) => castingProblem(line.product, molds)).find((text) => text !== null) ?? null;

/**
 * One pour of several tickets, on the molds named, with all that the bench goes by. Where several hooks want the same
 * cavities, the others wait for a pour of their own. Call it when {@link pourProblem} is null.
 * @example preparePour({ ...workshop(), atOnce: 1 }).setup.molds[0].plannedShots // 22
 */
export function preparePour(wanted: PourWanted): PreparedPour {
  const { lines, molds, atOnce, pot, ways, alloy = SOFT_LEAD } = wanted;
  const metalShare = massShareOfLead(alloy);
  const all = allocate(lines, molds, wanted.shares);
  const allocations = molds.flatMap((mold) => all.find((each) => each.mold.id === mold.id) ?? []);
  const pourC = pourTemperatureC(alloy, ways.pourC);
  const plans = allocations.map((allocation) => moldPlan(allocation, { ...ways, pourC }, pot, alloy));
  const kinds = allocations.flatMap((allocation) => allocation.kinds);
  const chargeKg = Math.min(pot.capacityKg, chargeKgOf(chargeParts(kinds, ways, metalShare)));
  const { powerW, lossWPerK, crucibleJPerK } = pot;
  const { roomC, inspectS, loadS } = ways;
  const melt = meltTime({
    leadKg: Math.max(0.05, chargeKg),
    powerW,
    lossWPerK,
    crucibleJPerK,
    toC: pourC,
    roomC,
    fromC: roomC,
    alloy,
  });
  const shots = plans.map((plan, at) => {
    return { shots: plan.shots.value, cavities: cavitiesAShot(allocations[at]!), openS: plan.openS.value };
  });
  const blanksS = BLANK_CYCLE_S * plans.reduce((sum, plan) => sum + plan.blanks.value, 0);
  const pace = paceOf(ways.pace, 'pour').factor;
  const taken = kinds.flatMap((each) => each.kind.lines);
  const pinsOut = pinsOutOf(allocations, wanted);
  const bent = bentOf(allocations);
  return {
    setup: {
      molds: plans.map(({ moldId, blanks, shots: planned, openS, solidS, rodS, hookHeldS }, at) => {
        const counts = { plannedBlanks: blanks.value, plannedShots: planned.value };
        const idle = idleIn(allocations[at]!);
        return {
          ...{ moldId, ...counts, openS: openS.value, solidS, inspectS, loadS },
          ...(rodS ? { rodS } : {}),
          ...(hookHeldS === undefined ? {} : { hookHeldS }),
          ...(idle.length > 0 ? { idle } : {}),
        };
      }),
      atOnce,
      ...(metalShare === 1 ? {} : { metalShare }),
      loads: loadsOf(plans, wanted),
      needs: Object.fromEntries(taken.map(({ product, quantity }) => [product.id, quantity])),
      hooksOut: hooksOut(allocations, wanted.hooksHere),
      potHoldsKg: pot.capacityKg,
      ...(pinsOut > 0 ? { pinsOut } : {}),
      ...(bent.length > 0 ? { bent } : {}),
    },
    takes: takesOf(allocations, lines, ways, metalShare),
    planned: {
      meltS: melt.seconds,
      chargeKg,
      plannedS: melt.seconds + pace * (blanksS + shotsSeconds(ways, shots, atOnce)),
      ...(pace === 1 ? {} : { pace }),
      pourC,
      ...(alloy === SOFT_LEAD || metalShare === 1 ? {} : { alloy }),
      ...(pot.way ? { potWay: pot.way } : {}),
      roomC,
      potPowerW: powerW,
      potLossWPerK: lossWPerK,
      potCrucibleJPerK: crucibleJPerK,
      blocks: Object.fromEntries(molds.map((mold) => [mold.id, workingBlock(mold).block])),
    },
  };
}

/**
 * What the hands took at a closed pour against what its ways alone say for as many blanks and shots; null where nothing
 * was planned that it could be held against.
 * @param of.molds blanks and shots that were poured, by mold
 * @example pourPace(pour.setup, pour.planned, { workS: 1800, molds: [{ shots: 0, blanks: 0 }] }) // null
 */
export function pourPace(
  setup: Pick<PourSetup, 'molds'>,
  { plannedS, meltS, pace = 1 }: Pick<PourPlanned, 'plannedS' | 'meltS' | 'pace'>,
  of: Pick<PaceRecord, 'at' | 'who'> & { workS: number; molds: readonly { shots: number; blanks: number }[] },
): PaceRecord | null {
  const sum = (all: readonly number[]) => all.reduce((total, each) => total + each, 0);
  const plannedShots = sum(setup.molds.map((mold) => mold.plannedShots));
  const blanksS = BLANK_CYCLE_S * sum(setup.molds.map((mold) => mold.plannedBlanks));
  const shotS = ((plannedS - meltS) / pace - blanksS) / plannedShots;
  const shots = sum(of.molds.map((mold) => mold.shots));
  if (!(shotS > 0) || shots === 0 || of.workS <= 0) return null;
  const waysS = BLANK_CYCLE_S * sum(of.molds.map((mold) => mold.blanks)) + shots * shotS;
  const { workS: seconds, molds: _molds, ...known } = of;
  return { ...known, station: 'pour', seconds, waysS };
}
