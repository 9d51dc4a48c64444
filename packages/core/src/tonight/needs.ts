import { knownMetal } from '../metal/known-metal.ts';
import { pourTemperatureC } from '../metal/figures.ts';
import { castInWanted } from '../job/cast-in.ts';
import { castInto } from '../plan/blank.ts';
import { perHead, POUR_STEP } from '../job/bill.ts';
import { heatMinor, paintHeat } from '../plan/paint-heat.ts';
import { powdersByStep, stepsOf } from '../plan/product.ts';
import { loadKWh } from '../plan/timing.ts';
import { samePin } from '../plan/pins.ts';
import { holdingEnergyKWh } from '../pot/time-to-pour.ts';
import { J_PER_KWH } from '../quantity/units.ts';
import type { CastsTonight } from '../plan/casts.ts';
import { pinOf } from './rounds.ts';
import type { TonightAsked, TonightPlan, TonightWishes } from './tonight.ts';

/** What an evening takes of a material, against what is on the shelf. */
export interface NeedTonight {
  materialId: string;
  name: string;
  kind: string;
  need: number;
  have: number;
  missing: number;
}

/**
 * What the open work still takes: what is cast in by the good heads, the lost ones and one load, metal for the heads
 * that stay and what is skimmed off, powder and parts for every head that still comes through the step that uses them.
 * @example needsTonight(asked, wishes, casts).find(({ missing }) => missing > 0)?.name
 */
export function needsTonight(asked: TonightAsked, wishes: TonightWishes, casts: CastsTonight): NeedTonight[] {
  const { stock, leadId, ways } = asked;
  const needs = new Map<string, number>();
  const add = (materialId: string, quantity: number) => {
    if (quantity > 0) needs.set(materialId, (needs.get(materialId) ?? 0) + quantity);
  };
  const wanted = asked.wanted.filter(({ id }) => !wishes.leftOut.includes(id));
  // What is wanted is wanted whole: what cannot be cast for it tonight is what is short.
  for (const { heads: toCast, casts: count, load, works } of casts.blanks) {
    const product = wanted.find(({ id }) => works.includes(id))?.product;
    const pieces = castInWanted({ toCast, casts: count, load }, ways);
    for (const { materialId, perHead: each } of product ? castInto(product) : []) add(materialId, each * pieces);
  }
  // Sprues come back, and so do rejects, in the end: heads are used up, and what is skimmed off all that is cast.
  const leadOf = (works: readonly string[]) =>
    wanted.find(({ id }) => works.includes(id))?.product.metal?.materialId ?? leadId;
  for (const metal of new Set(casts.blanks.map(({ works }) => leadOf(works)))) {
    const blanks = casts.blanks.filter(({ works }) => leadOf(works) === metal);
    const molds = casts.molds.filter((mold) => (mold.metal?.materialId ?? leadId) === metal);
    const goodKg = blanks.reduce((sum, { heads, headKg }) => sum + heads * headKg, 0);
    const castKg = molds.reduce((sum, mold) => sum + mold.castKg, 0);
    const roundKg = Math.max(0, ...molds.map((mold) => mold.roundKg));
    if (goodKg > 0) add(metal, goodKg + ways.drossShare * castKg + ways.heelKg + roundKg);
  }
  for (const { product, toTake = 0 } of wanted) if (product.from) add(product.from.materialId, toTake);
  for (const { product, toCast, heads, left } of wanted) {
    let come = product.source === 'shelf' ? 0 : toCast;
    const powders = powdersByStep(product, ways);
    for (const [at, { key }] of stepsOf(product).entries()) {
      come += (left[key] ?? 0) + (product.source === 'shelf' && at === 0 ? heads : 0);
      for (const powder of powders) if (powder.step === key) add(powder.materialId, come * powder.kgPerHead);
      for (const part of product.parts ?? []) if (part.step === key) add(part.partId, come * perHead(part));
    }
  }
  return [...needs].flatMap(([materialId, need]) => {
    const there = stock.find((each) => each.materialId === materialId);
    if (!there) return [];
    const { name, kind, quantity: have } = there;
    return [{ materialId, name, kind, need, have, missing: Math.max(0, need - have) }];
  });
}

/**
 * Electricity and gas of an evening, kWh and kg, with what they cost, minor units, and the most metal that is melted at
 * once, kg.
 */
interface HeatTonight {
  potKWh: number;
  ovenKWh: number;
  gunKWh: number;
  gasKg: number;
  costMinor: number;
  meltKg: number;
}

/**
 * What pot, oven and gun draw: melting at full power, held hot while it is poured, the oven at the duty of a hot one;
 * and what a torch burns.
 * @throws QuantityError for a pot whose loss is out of range
 * @example heatTonight(asked, planTonight(asked, wishes, castsOfTonight(asked, wishes, solve),
 *   { tries: 20 })).ovenKWh > 0 // true
 */
export function heatTonight({ pot, oven, ways, wanted }: TonightAsked, { pours, tasks }: TonightPlan): HeatTonight {
  const sum = (values: readonly number[]) => values.reduce((all, each) => all + each, 0);
  const potKWh = sum(
    pours.map(({ meltS, seconds, molds }) => {
      const potC = pourTemperatureC(knownMetal(molds[0]?.metal), ways.pourC);
      const holding = { lossWPerK: pot.lossWPerK, potC, roomC: ways.roomC, seconds };
      return (pot.powerW * meltS) / J_PER_KWH + holdingEnergyKWh(holding);
    }),
  );
  const bakingS = sum(tasks.map(({ holds, seconds }) => (holds.includes('oven') ? seconds : 0)));
  const ovenKWh = loadKWh(oven, bakingS);
  const painting = tasks.flatMap(({ station, step, works, heads }) => {
    const product = station === 'paint' ? wanted.find(({ id }) => works.includes(id))?.product : undefined;
    if (!product) return [];
    const own = stepsOf(product).find(({ key }) => key === step);
    const { electricKWh, gasKg } = paintHeat(ways, product, own?.layers);
    return [{ electricKWh: heads * electricKWh, gasKg: heads * gasKg }];
  });
  const paint = {
    electricKWh: sum(painting.map(({ electricKWh }) => electricKWh)),
    gasKg: sum(painting.map(({ gasKg }) => gasKg)),
  };
  const meltsKg = pours.map(({ molds }) => sum(molds.map(({ castKg }) => castKg)) * (1 + ways.drossShare));
  return {
    ...{ potKWh, ovenKWh, gunKWh: paint.electricKWh, gasKg: paint.gasKg },
    costMinor: (potKWh + ovenKWh) * ways.energyMinorPerKWh + heatMinor(ways, paint),
    meltKg: meltsKg.length > 0 ? Math.min(pot.capacityKg, Math.max(...meltsKg) + ways.heelKg) : 0,
  };
}

/**
 * When each material is wanted first, s from the beginning: its step begins then, the pot a while before.
 * @example wantedFirst(asked, planTonight(asked, wishes, castsOfTonight(asked, wishes, solve),
 *   { tries: 20 })).size > 1 // true
 */
export function wantedFirst({ wanted, ways, leadId }: TonightAsked, plan: TonightPlan): Map<string, number> {
  const first = new Map<string, number>();
  const note = (materialId: string, atS: number) =>
    first.set(materialId, Math.min(first.get(materialId) ?? Infinity, atS));
  plan.tasks.forEach(({ works, step, leadS = 0 }, at) => {
    const atS = plan.schedule.placed[at]!.startS - leadS;
    for (const { id, product } of wanted) {
      if (!works.includes(id)) continue;
      if (step === POUR_STEP) {
        note(product.metal?.materialId ?? leadId, atS);
        if (product.hook) note(product.hook.materialId, atS);
      }
      for (const part of product.parts ?? []) if (part.step === step) note(part.partId, atS);
      for (const powder of powdersByStep(product, ways)) if (powder.step === step) note(powder.materialId, atS);
    }
  });
  return first;
}

/** Pins of a diameter that an evening's pours want, against those that are free; fewer means more rounds. */
interface PinNeed {
  diameterM: number;
  need: number;
  free: number;
  /** How often they have to come back and go in again; 1: all are there at once. */
  rounds: number;
}

/**
 * Pins that stay in heads after the pour: one a good head, against those that were counted and are in no head. Of a
 * diameter that nobody has counted there are enough.
 * @example pinsTonight(asked, planTonight(asked, wishes, castsOfTonight(asked, wishes, solve), { tries: 20 })) // []
 */
export function pinsTonight(asked: TonightAsked, { casts, pours }: TonightPlan): PinNeed[] {
  const { wanted, molds, ways, pins = [], pinsInWork = [] } = asked;
  const withPin = casts.blanks.flatMap(({ id, heads: count, works }) => {
    const product = wanted.find((each) => works.includes(each.id))?.product;
    const pin = product ? pinOf(product, molds, ways.schools) : null;
    return pin ? [{ id, count, diameterM: pin.diameterM }] : [];
  });
  return pins.flatMap(({ diameterM, count }): PinNeed[] => {
    const own = withPin.filter((each) => samePin(each.diameterM, diameterM));
    if (own.length === 0) return [];
    const inHeads = pinsInWork.filter((each) => samePin(each.diameterM, diameterM));
    const free = Math.max(0, count - inHeads.reduce((sum, each) => sum + each.count, 0));
    const rounds = pours.flatMap((pour) => (own.some(({ id }) => pour.blankIds.includes(id)) ? [pour.rounds] : []));
    return [{ diameterM, need: own.reduce((sum, each) => sum + each.count, 0), free, rounds: Math.max(1, ...rounds) }];
  });
}
