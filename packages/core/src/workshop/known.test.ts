import { typicalHook } from '../geometry/hook.ts';
import { fillCavityOf } from '../fill/known-cavity.ts';
import { SOFT_LEAD } from '../metal/alloy.ts';
import { knownMetal } from '../metal/known-metal.ts';
import { blockThen, cavityShotKg, fullShotKg, knownBlock } from '../mold/known-mold.ts';
import { knownOven } from '../bake/known-oven.ts';
import { knownPot } from '../pot/known-pot.ts';
import { preparePour } from '../plan/prepare-pour.ts';
import { product, workshop } from '../test/workshop.ts';

// Tried by the maker before fitted, fitted before what is on record, that before the usual.

describe('what is known', () => {
  test('of a pot: its plate, until a probe has seen it heat up', () => {
    const plate = { capacityKg: 9, powerW: 700, lossWPerK: 0.55 };
    // 60 J/K for each kg that it takes, from memory.
    const unknown = { powerSdW: 0, lossSdWPerK: 0, crucibleSdJPerK: 0, crucibleJPerK: 540, basis: 'given' };
    expect(knownPot(plate)).toEqual({ powerW: 700, lossWPerK: 0.55, ...unknown });
    const learned = { powerW: 612, lossWPerK: 0.71, powerSdW: 8, lossSdWPerK: 0.03 };
    const whole = { ...learned, crucibleJPerK: 610, crucibleSdJPerK: 40 };
    expect(knownPot({ ...plate, learned: whole })).toEqual({ ...whole, basis: 'fitted' });
    // What was learned before crucibles were reckoned with has them in its power.
    expect(knownPot({ ...plate, learned })).toMatchObject({ ...learned, crucibleJPerK: 0, basis: 'fitted' });
    expect(knownPot({ ...plate, learned: null }).basis).toBe('given');
  });
  test('of a mold: the book, until a probe was at its back', () => {
    expect(knownBlock({ bodyKg: 0.6 })).toEqual({ block: { bodyKg: 0.6, metal: 'aluminium' }, basis: 'given' });
    const learned = { lossWPerK: 0.62, capacityShare: 1.12 };
    // One that was fitted before the power was known was fitted as if there were none.
    expect(knownBlock({ bodyKg: 1.4, metal: 'iron', learned })).toEqual({
      block: { bodyKg: 1.4, metal: 'iron', ...learned, lossPower: 0 },
      basis: 'fitted',
    });
    const whole = { ...learned, lossSdWPerK: 0.031, lossPower: 0.2, lossPowerSd: 0.1, aboveK: 34 };
    expect(knownBlock({ bodyKg: 1.4, learned: whole }).block).toEqual({
      ...{ bodyKg: 1.4, metal: 'aluminium', ...learned, lossPower: 0.2 },
      doubt: { lossShare: expect.closeTo(0.05, 9), powerSd: 0.1, aboveK: 34 },
    });
  });
  test('of an oven: its dial, until it was run empty', () => {
    expect(knownOven({ lagS: 180 })).toMatchObject({ lagS: 180, offsetK: 0, basis: 'given' });
    const learned = { lagS: 240, offsetK: -12, swingK: 3 };
    expect(knownOven({ lagS: 180, learned })).toMatchObject({ ...learned, basis: 'fitted' });
    // Runs that were learned before it was looked for: a usual oven's way to its mark.
    const usual = knownOven(undefined);
    expect(knownOven({ lagS: 180, learned })).toMatchObject({
      powerRiseK: usual.powerRiseK,
      overshootK: usual.overshootK,
    });
    expect(knownOven({ lagS: 180, learned: { ...learned, overshootK: 3 } }).overshootK).toBe(3);
  });
  test('of a metal: soft lead, until something else is said; its own composition outranks the usual of its kind', () => {
    expect(knownMetal(undefined)).toBe(SOFT_LEAD);
    expect(knownMetal({ name: 'Pipe', metalId: null })).toBe(SOFT_LEAD);
    const usual = knownMetal({ name: 'Weights', metalId: 'tyre-weight' });
    expect(usual.name).toBe('Weights');
    expect(usual.liquidusC).toBeLessThan(SOFT_LEAD.liquidusC);
    const harder = knownMetal({
      name: 'Weights',
      metalId: 'tyre-weight',
      composition: { antimonyPercent: 6, tinPercent: 0.5 },
    });
    expect(harder.liquidusC).toBeLessThan(usual.liquidusC);
  });
  test('of a cavity: the wire it was cut for, heads and sprues of a whole shot', () => {
    const cavity = { style: 'ball' as const, nominalMassKg: 0.01, hookSize: '2/0' };
    expect(fillCavityOf(cavity).wireM).toBe(typicalHook('2/0').wireM);
    expect(fillCavityOf({ ...cavity, wire: 'heavy' }).wireM).toBeGreaterThan(typicalHook('2/0').wireM);
    // 10 g of lead, and a sprue of a few grams more.
    expect(cavityShotKg(cavity)).toBeGreaterThan(0.011);
    expect(cavityShotKg(cavity)).toBeLessThan(0.016);
    const [good, blocked] = ['good', 'blocked'].map((condition) => ({ ...cavity, condition }));
    expect(fullShotKg([good!, blocked!, good!])).toBeCloseTo(2 * cavityShotKg(cavity), 12);
    expect(fullShotKg([])).toBe(0);
  });
  test('a pour keeps its molds as they were known that day', () => {
    const { molds, pot, ways } = workshop();
    const [first] = molds;
    const learned = { lossWPerK: 0.8, capacityShare: 1.2 };
    const { planned } = preparePour({
      lines: [{ product: product(10), quantity: 20 }],
      molds: [{ ...first!, learned }],
      atOnce: 1,
      pot,
      ways,
    });
    expect(planned.blocks).toEqual({
      [first!.id]: {
        bodyKg: first!.bodyKg,
        metal: 'aluminium',
        ...learned,
        lossPower: 0,
        keptShare: expect.any(Number) as number,
      },
    });
    // Kept by a pour of before the power was known it is read as it was meant.
    expect(blockThen({ bodyKg: 0.5, lossWPerK: 0.8 }).lossPower).toBe(0);
    expect(blockThen({ bodyKg: 0.5 })).toEqual({ bodyKg: 0.5 });
  });
});
