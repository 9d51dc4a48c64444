import { figure, fitted, given, measured, type Figure, type WhyInput } from '../quantity/figure.ts';
import { fumeCeilingUgM3, LEAD_ACTION_LEVEL_UG_M3, LEAD_LIMIT_UG_M3 } from './fume.ts';
import { aboveZero, productRange90, range90, Z_90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { PROBE_SD_K } from './dial.ts';
import { knownPot, usualCrucibleJPerK } from './known-pot.ts';
import { afterAdding, largestRefill, recoverS, type Refill, type RefillInput } from './refill.ts';

/**
 * The feed adviser's answer with its why. `potC` measured or set says what it rests on.
 * @example refillFigures({ potKg: 4, potC: 385, capacityKg: 9, pot: { powerW: 700, lossWPerK: 0.55 },
 *   keepAboveC: 345, pourC: 371, roomC: 20 }, 'measured').add.value // 0.3507
 */
export function refillFigures(input: RefillInput, potTemperature: 'measured' | 'given') {
  const refill = largestRefill(input);
  const inputs: WhyInput[] = [
    given('In the pot', input.potKg, 'kg'),
    (potTemperature === 'measured' ? measured : given)('It is at', input.potC, 'C'),
    given('Not to fall below', input.keepAboveC, 'C'),
    given('Added metal is at', input.addC ?? 20, 'C'),
    given('Pot holds', input.capacityKg, 'kg'),
  ];
  const words: Record<Refill['limit'], string> = {
    heat: 'More would take it below the temperature you chose.',
    'room in the pot': 'More would fill it to the brim: it drips and spills.',
    'too cold to feed': 'It is below the temperature you chose already: wait.',
  };
  const source = 'Enthalpy balance; heats of lead from the CRC Handbook, from memory';
  const potC = {
    value: input.potC,
    sd: potTemperature === 'measured' ? PROBE_SD_K : SPREAD.metalK,
    least: 20,
    most: 600,
  };
  const { powerW, lossWPerK } = input.pot;
  const { addKg } = refill;
  const { crucibleJPerK } = input.pot;
  const mixedC = (ofPotC: number) => afterAdding({ ...input, potC: ofPotC, addKg, crucibleJPerK }).temperatureC;
  const recovers = ([ofPotC, ofPowerW, ofLossWPerK]: readonly number[]) => {
    const pot = { ...input.pot, powerW: ofPowerW!, lossWPerK: ofLossWPerK! };
    return recoverS({ ...input, pot }, input.potKg + addKg, mixedC(ofPotC!));
  };
  // However little it has, a pot that is poured from gets there.
  const holdsW = 1.1 * lossWPerK * (input.pourC - input.roomC);
  return {
    refill,
    add: figure(
      refill.addKg,
      'kg',
      { rule: words[refill.limit], formula: 'm = M (h(T) − h(T_keep)) / (h(T_keep) − h(T_add))', source, inputs },
      range90(([each]) => largestRefill({ ...input, potC: each! }).addKg, [potC]),
    ),
    after: figure(
      refill.afterC,
      'C',
      {
        rule: 'What is there and what is added come to one heat: melting takes the most of it.',
        formula: 'M h(T) + m h(T_add) = (M + m) h(T_after)',
        source,
        inputs: [...inputs, given('Added', refill.addKg, 'kg')],
      },
      range90(([each]) => mixedC(each!), [potC]),
    ),
    recover: figure(
      refill.recoverS,
      's',
      {
        rule: 'At full power, back to where you pour.',
        formula: 'dH/dt = P − UA (T − T_room)',
        source,
        inputs: [...inputs, given('Power', input.pot.powerW, 'W'), given('Pour at', input.pourC, 'C')],
      },
      range90(recovers, [
        potC,
        { ...aboveZero(powerW, SPREAD.potPowerShare), least: Math.min(powerW, holdsW) },
        { ...aboveZero(lossWPerK, SPREAD.potLossShare), most: Math.max(lossWPerK, (lossWPerK * powerW) / holdsW) },
      ]),
    ),
  };
}

/**
 * Ceiling of lead vapour over the melt, with what it does and does not say.
 * @example Math.round(fumeFigure(371).value) // 0
 */
export const fumeFigure = (metalC: number): Figure =>
  figure(fumeCeilingUgM3(metalC), 'ug/m3', {
    rule: 'Air saturated with lead vapour at the heat of the melt: real air stays below. Dust, dross and smoke are not in it. No measurement, and no clearance.',
    formula: 'log₁₀ p = 9.917 − 9701/T; c = p M / (R T)',
    source: `Alcock, Itkin & Horrigan 1984, from memory. For comparison 29 CFR 1910.1025: action level ${LEAD_ACTION_LEVEL_UG_M3}, limit ${LEAD_LIMIT_UG_M3} µg/m³ over a working day`,
    inputs: [given('Metal', metalC, 'C')],
  });

interface LearnedPot {
  powerW: number;
  powerSdW: number;
  lossWPerK: number;
  lossSdWPerK: number;
  crucibleJPerK?: number;
  crucibleSdJPerK?: number;
  readings: number;
}

/**
 * A pot's power, loss or crucible, as its plate says or as it was learned.
 * @example potFigure('crucible', { capacityKg: 9, powerW: 700, lossWPerK: 0.41 }, null).value // 540
 */
export function potFigure(
  what: 'power' | 'loss' | 'crucible',
  pot: { capacityKg: number; powerW: number; lossWPerK: number },
  learned: LearnedPot | null,
): Figure {
  const of = knownPot({ ...pot, learned });
  const usual = usualCrucibleJPerK(pot.capacityKg);
  const [unit, plate, value, sd] = (
    {
      power: ['W', pot.powerW, of.powerW, of.powerSdW],
      loss: ['W/K', pot.lossWPerK, of.lossWPerK, of.lossSdWPerK],
      crucible: ['J/K', usual, of.crucibleJPerK, of.crucibleSdJPerK],
    } as const
  )[what];
  if (!learned) {
    const { potPowerShare, potLossShare, crucibleShare } = SPREAD;
    const share = { power: potPowerShare, loss: potLossShare, crucible: crucibleShare }[what];
    return figure(
      plate,
      unit,
      {
        rule:
          what === 'crucible'
            ? 'By the size of the pot; a heat-up with a probe in it tells more.'
            : 'As you gave it; nobody has checked it against a probe.',
        formula: what === 'crucible' ? '60 J/K for each kg it takes' : 'as given',
        source: what === 'crucible' ? 'From memory' : 'Setup',
        inputs: [given('Given', plate, unit)],
      },
      productRange90(plate, [share]),
    );
  }
  return figure(
    value,
    unit,
    {
      rule: "Least squares on this pot's own readings, leaning on what was given.",
      formula: 'min Σ (T_probe − T_model)² / σ² + prior',
      source: 'Levenberg-Marquardt; your probe',
      inputs: [given('Given', plate, unit), fitted('Readings', learned.readings, 'count')],
    },
    { low: Math.max(0, value - Z_90 * sd), high: value + Z_90 * sd, basis: 'fitted' },
  );
}
