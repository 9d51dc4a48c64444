import * as core from '@schmelz/core';
import { choice, list, number, record, text, whole } from '../field.ts';
import { POWDER_FINISHES } from '../workshop.ts';
import { calculation, label, nominalMassKg, style, type Calculation } from './calculation.ts';

const cupColour = () =>
  record({
    id: text(60),
    name: text(80),
    lightness: number('', 0, 1),
    finish: choice(POWDER_FINISHES),
  });
const bakedHead = () =>
  record({
    name: text(80),
    headLagS: number('s', 1, 7200),
    powder: text(80),
    label: label(),
    hook: text(80),
    finishLimitC: number('C', 80, 320),
  });

/** Plans of paint and bake: seconds under the gun, order of colours, the shortest program, a log, a rack. */
export const FINISH_PLANS: Record<string, Calculation> = {
  'heat-seconds': calculation(
    'Seconds under a heat gun, torch or lighter until powder flows',
    'One lump: head, the steel in it, 15 mm of shank; a gun that is not warm yet lags itself',
    record({
      style: style(),
      nominalMassKg: nominalMassKg(),
      wireM: number('m', 1e-4, 0.005),
      tool: choice(core.HEAT_TOOLS),
      roomC: number('C', -20, 50).optional(),
      fromC: number('C', -20, 320).optional(),
      targetC: number('C', 60, 320).optional(),
      gunWM2K: number('W/m2K', 10, 1000).optional(),
      gunOnS: number('s', 0, 3600).optional(),
    }),
    ({ style: styleId, nominalMassKg: kg, wireM, roomC = 20, ...input }) => {
      const leadKg = core.castMassKg({ nominalMassKg: kg });
      const head = { leadKg, areaM2: core.coldHeadSolid(styleId, leadKg).cooledAreaM2, wireM, embeddedM: core.headWidthM(leadKg) }; // prettier-ignore
      return { seconds: core.heatingS({ head, roomC, ...input }), heatJK: core.headHeatJK(head) };
    },
  ),
  'colour-order': calculation(
    'The order of recipes with the fewest and cleanest changes of colour',
    'Held and Karp to twelve, nearest first and moved pieces beyond; seconds of a change are common practice',
    record({
      batches: list(record({ id: text(60), name: text(80), heads: whole('heads', 0, 100_000), colourIds: list(text(60), 1, 6) }), 1, 60), // prettier-ignore
      colours: list(cupColour(), 1, 60),
      spareCups: whole('cups', 0, 3),
    }),
    (input) => core.colourOrder(input),
  ),
  'jar-efficiency': calculation(
    'Share of the powder taken that stays on the heads, from weighing the jar',
    'All on heads over all used, leaning on the usual',
    record({ weighings: list(record({ usedKg: number('kg', 0, 5), onHeadsKg: number('kg', 0, 5) }), 0, 500) }),
    ({ weighings }) => core.jarEfficiency(weighings),
  ),
  'bake-program': calculation(
    'The shortest program that fully cures the slowest head, over-bakes none and spares every hook',
    "Arrhenius law through the jar's label, first-order lags; over-baked is common practice",
    record({
      heads: list(bakedHead(), 1, 40),
      ovenLagS: number('s', 0, 3600),
      longestS: whole('s', 600, 36_000).optional(),
    }),
    ({ heads, ...input }) =>
      core.bakeProgram({ ...input, heads: heads.map(({ powder, label: points, ...head }) => ({ ...head, laws: [{ powder, law: core.cureLaw(points as core.LabelPoint[]) }] })) }), // prettier-ignore
  ),
  'cure-from-log': calculation(
    'How far a bake went, by the log of its oven',
    'Arrhenius law, a head that lags its air; straight lines between readings',
    record({
      label: label(),
      headLagS: number('s', 0, 7200),
      finishLimitC: number('C', 60, 400),
      readings: list(record({ at: number('ms', 0, 1e14), celsius: number('C', -60, 400) }), 2, 20_000),
    }),
    ({ label: points, finishLimitC, ...input }) => {
      const { points: course, ...cure } = core.cureFromLog({
        ...input,
        law: core.cureLaw(points as core.LabelPoint[]),
      });
      return { ...cure, damage: core.finishDamage(course, finishLimitC) };
    },
  ),
  'oven-loads': calculation(
    'Oven loads by program on a rack',
    'First fit, widest first',
    record({
      rack: record({ bars: whole('bars', 1, 40), barM: number('m', 0.02, 2), clearM: number('m', 0.01, 1) }),
      batches: list(record({ id: text(60), program: text(60), heads: whole('heads', 0, 100_000), widthM: number('m', 0.001, 0.2), hangsM: number('m', 0.001, 0.5) }), 1, 60), // prettier-ignore
    }),
    ({ rack, batches }) => ({ loads: core.packLoads(rack, batches.map(({ widthM, ...batch }) => ({ ...batch, pitchM: core.pitchOf(widthM) }))) }), // prettier-ignore
  ),
  individuals: calculation(
    'Individuals and moving-range chart of weights, with what it signals',
    'NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2',
    record({ values: list(number('', -1e9, 1e9), 2, 10_000), baseline: whole('values', 2, 10_000).optional() }),
    ({ values, baseline }) => core.individuals(values, baseline),
  ),
};
