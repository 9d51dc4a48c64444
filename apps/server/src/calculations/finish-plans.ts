import * as core from '@schmelz/core';
import { choice, colour, flag, list, number, record, text, whole } from '@schmelz/contract/field';
import { schoolsSchema } from '@schmelz/contract';
import { POWDER_GLOSSES } from '@schmelz/contract';
import { calculation, label, nominalMassKg, style } from './calculation.ts';

const cupColour = () =>
  record({
    id: text(60),
    name: text(80),
    lightness: number('', 0, 1),
    gloss: choice(POWDER_GLOSSES),
  });
const probeReading = () => record({ at: number('ms', 0, 1e14), celsius: number('C', -60, 400) });
const bakedHead = () =>
  record({
    name: text(80),
    headLagS: number('s', 1, 7200),
    /** What has to be warmed of one, and how many hang there: they take of the oven's power. */
    heatJK: number('J/K', 0, 5000).optional(),
    count: whole('heads', 0, 100_000).optional(),
    powder: text(80),
    label: label(),
    hook: text(80),
    limitC: number('C', 40, 400).nullable().defined(),
  });

/** Plans of paint and bake: seconds under the gun, order of colours, the shortest program, a log, a rack. */
export const FINISH_PLANS = {
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
      const head = {
        leadKg,
        areaM2: core.coldHeadSolid(styleId, leadKg).cooledAreaM2,
        wireM,
        embeddedM: core.headWidthM(leadKg),
      };
      return { seconds: core.heatingS({ head, roomC, ...input }), heatJK: core.headHeatJK(head) };
    },
  ),
  'colour-order': calculation(
    'The order of recipes with the fewest and cleanest changes of colour',
    'Held and Karp to twelve, nearest first and moved pieces beyond; seconds of a change are common practice',
    record({
      sessions: list(
        record({ id: text(60), name: text(80), heads: whole('heads', 0, 100_000), colourIds: list(text(60), 1, 6) }),
        1,
        60,
      ),
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
      /** 0 where the oven is hot first. */
      ovenLagS: number('s', 0, 3600),
      /** What the oven holds above its mark, and how far it swings about that. */
      offsetK: number('K', -80, 80).optional(),
      swingK: number('K', 0, 80).optional(),
      powerW: number('W', 100, 20_000).optional(),
      longestS: whole('s', 600, 36_000).optional(),
    }),
    ({ heads, ovenLagS: lagS, offsetK, swingK, powerW, ...input }) =>
      core.bakeProgram({
        ...input,
        oven: {
          ...core.knownOven({ lagS: Math.max(1, lagS), ...(powerW === undefined ? {} : { powerW }) }),
          ...(offsetK ? { offsetK } : {}),
          ...(swingK === undefined ? {} : { swingK }),
        },
        preheated: lagS === 0,
        load: core.loadHeat(heads.map(({ headLagS, heatJK = 0, count = 0 }) => ({ headLagS, heatJK, count }))),
        heads: heads.map(({ powder, label: points, count: _count, heatJK = 0, ...head }) => ({
          ...head,
          heatJK,
          laws: [{ powder, law: core.cureLaw(points as core.LabelPoint[]) }],
        })),
      }),
  ),
  'cure-from-log': calculation(
    'How far a bake went, by the log of its oven',
    'Arrhenius law, a head that lags its air; straight lines between readings',
    record({
      label: label(),
      headLagS: number('s', 0, 7200),
      limitC: number('C', 60, 400),
      readings: list(probeReading(), 2, 20_000),
    }),
    ({ label: points, limitC, ...input }) => {
      const { points: course, ...cure } = core.cureFromLog({
        ...input,
        law: core.cureLaw(points as core.LabelPoint[]),
      });
      return { ...cure, damage: core.platingDamage(course, limitC) };
    },
  ),
  'oven-loads': calculation(
    'Oven loads by program on a rack',
    'First fit, widest first',
    record({
      rack: record({ bars: whole('bars', 1, 40), barM: number('m', 0.02, 2), clearM: number('m', 0.01, 1) }),
      groups: list(
        record({
          id: text(60),
          program: text(60),
          heads: whole('heads', 0, 100_000),
          widthM: number('m', 0.001, 0.2),
          hangsM: number('m', 0.001, 0.5),
        }),
        1,
        60,
      ),
    }),
    ({ rack, groups }) => ({
      loads: core.packLoads(
        rack,
        groups.map(({ widthM, ...group }) => ({ ...group, pitchM: core.pitchOf(widthM) })),
      ),
    }),
  ),
  'mixed-colour': calculation(
    'How two powders look that were shaken together dry',
    'Their light adds up: IEC 61966-2-1',
    record({ first: colour(), second: colour(), share: number('share', 0, 1) }),
    ({ first, second, share }) => ({ colour: core.mixedColour(first, second, share) }),
  ),
  'trim-and-paint-seconds': calculation(
    'Hands-on seconds a head at trim and paint, by the schools that are followed',
    'Heating by the model; the seconds of each school are common practice',
    record({
      style: style(),
      nominalMassKg: nominalMassKg(),
      hookSize: choice(core.HOOK_SIZES),
      roomC: number('C', -20, 45),
      ways: schoolsSchema(),
      layers: list(
        record({
          zone: choice(Object.keys(core.ZONE_SHARE) as core.PaintZone[]),
          coats: whole('coats', 1, 3),
          form: choice(core.PAINT_FORMS),
        }),
        0,
        6,
      ),
    }),
    ({ hookSize, roomC, ways, layers, ...head }) => {
      const finish = core.schoolsFollowed(ways);
      const steps = core.paintSteps(
        core.heatingS({
          head: core.productHeated({ ...head, hook: { size: hookSize } }),
          tool: finish.tool,
          roomC,
          targetC: core.targetOf(finish),
        }),
        finish,
      );
      return {
        trimS: core.trimSeconds(finish),
        paintS: core.paintSeconds(layers, core.productHeated({ ...head, hook: { size: hookSize } }), finish, { roomC }),
        firstDip: steps,
        spoiledShare: { trim: core.spoiledShare('trim', finish), paint: core.spoiledShare('paint', finish) },
      };
    },
  ),
  'jar-level': calculation(
    'What a jar of powder holds since it was weighed',
    'Last weighing, what came, less what lies on heads over the share that stays on',
    record({
      lastKg: number('kg', 0, 1000),
      receivedKg: number('kg', 0, 1000),
      onHeadsKg: number('kg', 0, 100),
      weighings: list(record({ usedKg: number('kg', 0, 5), onHeadsKg: number('kg', 0, 5) }), 0, 500),
    }),
    ({ weighings, ...moves }) => core.jarLevel(moves, core.jarEfficiency(weighings)),
  ),
  'oven-fit': calculation(
    'Lag, offset and swing of an oven from an empty run with a probe in it',
    'Weighted least squares on a first-order rise; mean and spread of the held stretch',
    record({ setC: number('C', 60, 260), readings: list(probeReading(), 20, 20_000) }),
    ({ readings, setC }) => core.fitOven(readings, setC),
  ),
  'running-bake': calculation(
    'Where a bake stands, from the metal’s own heat: door openings and a probe in its air counted in',
    'Arrhenius law, a head that lags its air; the air while the door is open is common practice',
    record({
      label: label(),
      headLagS: number('s', 1, 7200),
      airC: number('C', 40, 300),
      ovenLagS: number('s', 1, 3600),
      preheated: flag(),
      loadedAt: number('ms', 0, 1e14),
      now: number('ms', 0, 1e14),
      doors: list(record({ fromAt: number('ms', 0, 1e14), toAt: number('ms', 0, 1e14).nullable().defined() }), 0, 100),
      readings: list(probeReading(), 0, 20_000),
    }).test(
      'times',
      'must not end before it began, nor after a day',
      (bake) => !bake || (bake.now >= bake.loadedAt && bake.now - bake.loadedAt <= 86_400_000),
    ),
    ({ label: points, ...input }) => {
      const { points: _course, ...state } = core.runningBake({
        ...input,
        law: core.cureLaw(points as core.LabelPoint[]),
      });
      return state;
    },
  ),
  individuals: calculation(
    'Individuals and moving-range chart of weights, with what it signals',
    'NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2',
    record({ values: list(number('', -1e9, 1e9), 2, 10_000), baseline: whole('values', 2, 10_000).optional() }),
    ({ values, baseline }) => core.individuals(values, baseline),
  ),
};
