import * as core from '@schmelz/core';
import { flag, list, number, record, whole } from '@schmelz/contract/field';
import { calculation, label, nominalMassKg, style } from './calculation.ts';

/** What else is known of an oven that is on its way to its mark, and what hangs in it. */
const ovenHeat = {
  ovenLagS: number('s', 0, 7200).optional(),
  powerRiseK: number('K', 50, 3000).optional(),
  overshootK: number('K', 0, 120).optional(),
  load: record({ share: number('ratio', 0, 5), lagS: number('s', 1, 7200) }).optional(),
};

/** Calculations of paint and bake. */
export const FINISH_CALCULATIONS = {
  'powder-per-head': calculation(
    'Powder for one coat on one head',
    'Coverage formula of the powder-coating industry',
    record({
      style: style(),
      nominalMassKg: nominalMassKg(),
      filmM: number('m', 1e-6, 2e-3),
      specificGravity: number('', 0.5, 5),
      transferEfficiency: number('share', 0.05, 1).optional(),
    }),
    (input) => {
      const { paintedAreaM2 } = core.coldHeadSolid(input.style, core.castMassKg(input));
      return { paintedAreaM2, powderKg: core.powderKg({ ...input, paintedAreaM2 }) };
    },
  ),
  cure: calculation(
    'Share of a full cure after a time in the oven, and the time to full cure',
    "Arrhenius law through the jar's label; an oven at full power to its mark, heads behind it by their lag",
    record({
      label: label(),
      setC: number('C', 40, 300),
      seconds: whole('s', 0, 86_400),
      headLagS: number('s', 1, 7200),
      ...ovenHeat,
      preheated: flag().optional(),
    }),
    ({ label: points, seconds, setC: airC, ...input }) => {
      const law = core.cureLaw(points as core.LabelPoint[]);
      const bake = { law, airC, ...input };
      return { law, cureShare: core.cureShare(bake, seconds), timeToFullCureS: core.timeToFullCureS(bake) };
    },
  ),
  'head-lag': calculation(
    'How far a head lags behind the air of an oven',
    'Lumped head in still air',
    record({ style: style(), nominalMassKg: nominalMassKg(), hookKg: number('kg', 0, 0.1) }),
    (input) => {
      const leadKg = core.castMassKg(input);
      const { cooledAreaM2: areaM2 } = core.coldHeadSolid(input.style, leadKg);
      return { headLagS: core.headLagS({ leadKg, hookKg: input.hookKg, areaM2 }) };
    },
  ),
  'bake-temperatures': calculation(
    'Oven air and metal at times after the door was closed',
    'The oven at full power to its mark, a little over it and about it; the head behind it by its lag',
    record({
      setC: number('C', 40, 300),
      headLagS: number('s', 1, 7200),
      ...ovenHeat,
      preheated: flag().optional(),
      fromC: number('C', -20, 300).optional(),
      atS: list(number('s', 0, 86_400), 1, 2000),
    }),
    ({ atS, setC: airC, fromC: roomC = 20, ...input }) => ({
      points: core.bakeTemperaturesC({ airC, roomC, ...input }, atS),
    }),
  ),
};
