import type { ColourOrder } from './colour-order.ts';
import { figure, fitted, given, type Figure } from '../quantity/figure.ts';
import { productRange90, range90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import {
  GUN_AIR_C,
  GUN_W_M2K,
  headHeatJK,
  heatingS,
  headTemperatureC,
  MELTS_C,
  TARGET_C,
  TOO_COLD_C,
  TOO_HOT_C,
  type HeatInput,
} from './head-heat.ts';
import { quantityText } from '../quantity/said.ts';

/** Seconds nine times in ten: by the gun, which a count makes known, its air, and how the head lies in the stream. */
function heatingRange(input: HeatInput) {
  const { tool, gunWM2K = GUN_W_M2K } = input;
  const share = tool === 'heat gun' && input.gunWM2K !== undefined ? SPREAD.handsShare / 2 : SPREAD.gunShare;
  return range90(
    ([strength, room]) => {
      const { head } = input;
      const roomC = Math.min(50, room!);
      const from = input.fromC === undefined ? {} : { fromC: input.fromC };
      if (tool === 'heat gun') return heatingS({ ...input, ...from, roomC, gunWM2K: gunWM2K * strength! });
      // A flame that gives more heats as if the head had more surface.
      return heatingS({ ...input, ...from, roomC, head: { ...head, areaM2: head.areaM2 * strength! } });
    },
    [
      { value: 1, sd: share, least: 0.3 },
      { value: input.roomC, sd: SPREAD.roomK, least: -20, most: 50 },
    ],
  );
}

/**
 * Seconds under the tool; where it may stop is said beside it, and is no doubt of the model's.
 * @example heatingFigure({ head: { leadKg: 0.01, areaM2: 0.0005, wireM: 0.0012, embeddedM: 0.012 },
 *   tool: 'heat gun', targetC: 170, roomC: 20 }, 'Ball').value // 13.42
 */
export function heatingFigure(input: HeatInput, what: string): Figure {
  const at = (targetC: number) => heatingS({ ...input, targetC });
  const own = input.gunWM2K !== undefined && Math.abs(input.gunWM2K - GUN_W_M2K) > 1e-9;
  const seconds = heatingS(input);
  return figure(
    seconds,
    's',
    {
      rule: `${what}. It may stop from ${Math.round(at(TOO_COLD_C + 20))} to ${Math.round(at(TOO_HOT_C))} s: below ${quantityText(TOO_COLD_C, '°C')} powder does not wet, above ${quantityText(TOO_HOT_C, '°C')} it smokes and runs, ${quantityText(MELTS_C, '°C')} melts the head.`,
      formula:
        input.tool === 'heat gun' ? '(m c + m_steel c) dT/dt = h A (T_air − T)' : '(m c + m_steel c) dT/dt = q A / 2',
      source: 'One lump; the bounds are common practice',
      inputs: [
        given('Head', input.head.leadKg, 'head-kg'),
        given(
          'Takes',
          `${headHeatJK(input.head).toFixed(2)} J/K`,
          'text',
          `lead, the steel in it, ${quantityText(15, 'mm')} of shank`,
        ),
        ...(input.tool === 'heat gun'
          ? [(own ? fitted : given)('Gun gives', input.gunWM2K ?? GUN_W_M2K, 'W/m2K'), given('Its air', GUN_AIR_C, 'C')]
          : []),
        given('From', headTemperatureC(input, 0), 'C'),
        given('To', input.targetC ?? TARGET_C, 'C'),
      ],
    },
    {
      ...heatingRange(input),
      basis: own ? 'fitted' : 'given',
    },
  );
}

/**
 * What changing colours takes over a night.
 * @example changingFigure([{ sessionId: 's', seconds: 30, brings: ['w'], dirty: [] }], (id) => id).value // 30
 */
export const changingFigure = (steps: ColourOrder['steps'], name: (sessionId: string) => string): Figure => {
  const seconds = steps.reduce((sum, step) => sum + step.seconds, 0);
  return figure(
    seconds,
    's',
    {
      rule: 'What each recipe brings is emptied, wiped and filled in; dark dust before a light powder, and sparkle before a plain one, takes a thorough cleaning.',
      formula: 'Σ changes: 60 s + 240 s · lighter by + 120 s after sparkle',
      source: 'Common practice, no source',
      inputs: steps.map((step) =>
        given(
          name(step.sessionId),
          step.seconds,
          's',
          step.brings.length ? `brings ${step.brings.length}` : 'same cups',
        ),
      ),
    },
    productRange90(seconds, [SPREAD.handsShare]),
  );
};
