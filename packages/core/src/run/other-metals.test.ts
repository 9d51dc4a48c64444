import { alloyOf, SOFT_LEAD } from '../metal/alloy.ts';
import { fillCavityOf } from '../fill/known-cavity.ts';
import { product, workshop } from '../test/workshop.ts';
import { preparePour } from '../plan/prepare-pour.ts';
import { castsByHeat } from './casts-by-heat.ts';
import { coach } from './coach.ts';
import { heatThen } from './known-then.ts';
import { pourState } from './pour.ts';
import { pourShares } from './pour-shares.ts';
import type { PourEntry } from './pour-log.ts';
import { sessionHeat, sessionMold } from './session-heat.ts';

// A pour in any metal that can be chosen at the desk, from whatever pot: its bench has an answer to everything.
describe.each(['soft-lead', 'tyre-weight', 'bismuth-tin'] as const)('a pour in %s', (id) => {
  test.each([undefined, 'ladle', 'tipping pot'] as const)('by %s: heat, coach, record of shorts and shares', (way) => {
    const alloy = alloyOf(id);
    const { molds, pot, ways } = workshop();
    const mold = molds[0]!;
    const lines = [{ product: product(10), quantity: 12 }];
    // A house that pours as cool as lead just runs.
    const cool = { ...ways, pourC: 335 };
    const at = { lines, molds: [mold], atOnce: 1, alloy, pot: { ...pot, ...(way ? { way } : {}) } };
    const { setup, planned } = preparePour({ ...at, ways: cool });
    const [moldId, positions] = [mold.id, setup.loads.map(({ position }) => position)];
    const log = [
      { kind: 'charge', massKg: 2.5, potC: 20 },
      { kind: 'blank', moldId },
      ...[1, 2, 3, 4].map(() => ({ kind: 'shot', moldId, positions })),
    ].map((entry, i) => ({ ...entry, id: `e${i}`, at: i === 0 ? 0 : 1_200_000 + 120_000 * i })) as PourEntry[];
    const heat = heatThen(planned);
    expect(heat.metalC).toBeGreaterThanOrEqual(alloy.liquidusC);
    const session = sessionMold(mold, setup, planned.blocks);
    const now = log.at(-1)!.at + 60_000;
    const { moldC, potC, potKg } = sessionHeat({ setup, log, ...heat, molds: [session], now });
    expect(moldC[mold.id]).toBeGreaterThan(22);
    expect(moldC[mold.id]).toBeLessThan(heat.metalC);
    // The pot holds what this metal is poured at, and the coach does not call that frozen.
    expect(Math.abs(potC! - heat.pourC)).toBeLessThan(15);
    const state = pourState(setup, log);
    const cavities = mold.cavities.map(({ style, nominalMassKg, hookSize, position }) => {
      return {
        position,
        fill: fillCavityOf({ style, nominalMassKg, hookSize }),
        shotsSinceSmoked: 9,
        everSmoked: true,
      };
    });
    // Gone cold, and three shorts in a cavity: it asks for blank shots, and says what to try.
    const shorts = [2, 3, 4].map((shot) => {
      const said = { kind: 'reject', shotId: `e${shot}`, position: positions[0], cause: 'short', goes: 'melt' };
      return { ...said, id: `r${shot}`, at: now - 1000 };
    }) as PourEntry[];
    const short = [...log, ...shorts];
    const cold = {
      ...{ moldId, name: 'Five', moldC: 24, block: { bodyKg: 0.5 }, fullShotKg: 0.07 },
      ...{ sootSchool: 'fifty' as const, coldBelowC: 40, cavities },
    };
    const advice = coach({
      ...{
        setup,
        log: short,
        state: pourState(setup, short),
        molds: [cold],
        ...heat,
        potWay: way,
        potC: heat.pourC + 20,
        potKg,
        capacityKg: 9,
      },
      ...{ heelKg: 0.3, now },
    });
    expect(advice.map(({ kind }) => kind)).not.toContain('cold metal');
    expect(advice.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['blank', 'shorts']));
    expect(castsByHeat({ setup, log, mold: session, ...heat }).length).toBeGreaterThan(0);
    for (const { energyKWh } of pourShares(state, setup, planned)) expect(energyKWh).toBeGreaterThan(0);
    // Soft lead is what nothing has to be said of.
    expect(planned.alloy === undefined).toBe(alloy.liquidusC === SOFT_LEAD.liquidusC);
  });
});
