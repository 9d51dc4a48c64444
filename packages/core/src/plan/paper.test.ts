import { wilson } from '../count/wilson.ts';
import { individuals } from '../count/individuals.ts';
import { currencyDigits, writeMoney } from '../quantity/format.ts';
import { pchip } from '../numeric/pchip.ts';
import { auditBake } from '../bake/audit.ts';
import { cureLaw } from '../bake/cure-law.ts';
import { knownOven } from '../bake/known-oven.ts';
import { parseMass } from '../quantity/parse.ts';
import { LEAD_ACTION_LEVEL_UG_M3, LEAD_LIMIT_UG_M3 } from '../pot/fume.ts';
import { cavity, product, workshop } from '../test/workshop.ts';
import { unitCostStack } from './cost.ts';
import { planOrder } from './plan.ts';
import { preparePour } from './prepare-pour.ts';
import { DEFAULT_WAYS } from './ways.ts';

/** Reckoned with pencil and paper, from prices and rules that are written beside each line; not by this program. */
describe('one head on paper', () => {
  // A sheet of its own: 12 g of lead at 3.00 a kilogram is 3.6 cents; 1.5 % of 12.8 g cast is skimmed off, 0.0576; a
  // hook at 19; 0.11 g of powder at 55.00 a kilogram is 0.605; a ring at 4; 0.021 kWh at 31 is 0.651; 96 s of a person
  // at 15.00 an hour are 40.
  test('what it costs, part by part and as a whole', () => {
    const stack = unitCostStack({
      leadKg: 0.012,
      leadMinorPerKg: 300,
      drossKg: 0.000192,
      hookMinor: 19,
      powderMinor: 0.605,
      partsMinor: 4,
      energyKWh: 0.021,
      energyMinorPerKWh: 31,
      workS: 96,
      labourMinorPerHour: 1500,
    });
    const paper = { lead: 3.6, hook: 19, powder: 0.605, parts: 4, dross: 0.0576, energy: 0.651, work: 40 };
    for (const [part, minor] of Object.entries(paper)) {
      expect([part, stack[part as keyof typeof stack]]).toEqual([part, expect.closeTo(minor, 9)]);
    }
    expect(Object.values(stack).reduce((sum, each) => sum + each, 0)).toBeCloseTo(67.9136, 9);
  });

  /** One mold with one good cavity of 20 g and enough records that its yield is nine in ten. */
  const one = (more: Partial<ReturnType<typeof workshop>> = {}) => {
    const input = workshop();
    const heads = product(20, {
      hook: { materialId: 'hook-3/0', name: 'Hook', size: '3/0', eyeAngleDeg: 60, massKg: 0.0006 },
      parts: [
        { partId: 'ring', name: 'Ring', kind: 'ring', quantity: 1, waste: 0.25, step: 'finish' },
      ] as unknown as ReturnType<typeof product>['parts'],
    });
    const ring = { ...input.stock[1]!, materialId: 'ring', name: 'ring', kind: 'ring' as const, priceMinor: 8 };
    const molds = [
      {
        id: 'm',
        name: 'One',
        bodyKg: 0.5,
        shotsSinceSmoked: 0,
        eveningSpread: 0,
        cavities: [cavity(1, 20, { good: 9e5, casts: 1e6 })],
      },
    ];
    return { ...input, molds, lines: [{ product: heads, quantity: 40 }], stock: [...input.stock, ring], ...more };
  };

  test('an order of forty: lead, hook, parts, dross and powder of a head, from prices on the shelf', () => {
    const input = one();
    const [line] = planOrder(input).lines;
    // 2.50 a kilogram: 5 cents for 20 g. Dross by what is cast, not by what is sold.
    expect(line!.stack.lead).toBeCloseTo(5, 2);
    expect(line!.stack.dross / line!.stack.lead).toBeCloseTo(0.015 / 0.9, 5);
    expect(line!.stack.hook).toBe(18);
    // A ring at 8, and a quarter of one lost a head.
    expect(line!.stack.parts).toBeCloseTo(10, 9);
    // Coverage: a ball of 20 g is 15 mm across, 7.1 cm2; 100 um of film at 1.5 g/cm3 is 0.106 g, over 0.7 that stays.
    expect(line!.powders.reduce((sum, each) => sum + each.kgPerHead, 0)).toBeGreaterThan(0.000106);
    expect(line!.powders.reduce((sum, each) => sum + each.kgPerHead, 0)).toBeLessThan(0.00035);
    expect(line!.stack.powder).toBeCloseTo(6000 * line!.powders[0]!.kgPerHead, 9);
    // Forty good ones at nine in ten take 44.4 casts. Binomial, summed term by term: P(X >= 40) is 0.907 of 47 and
    // 0.954 of 48: that is laid out for.
    expect(line!.casts).toMatchObject({ value: 44, high: 48 });
  });

  test('work of a head: its share of the pour and its own seconds at the rate of the hour', () => {
    const paid = planOrder(one()).lines[0]!;
    const own = { ...DEFAULT_WAYS, trimS: 10, coatS: 20, hangS: 3, finishS: 6, labourMinorPerHour: 3600 };
    const timed = planOrder(one({ ways: own })).lines[0]!;
    const slower = planOrder(one({ ways: { ...own, trimS: 15, finishS: 8 } })).lines[0]!;
    // At 3600 an hour a second is one minor unit.
    expect(slower.stack.work - timed.stack.work).toBeCloseTo(7, 9);
    expect(timed.stack.work).toBeCloseTo(timed.workS, 9);
    // The rate is a factor and nothing else.
    const dear = planOrder(one({ ways: { ...DEFAULT_WAYS, labourMinorPerHour: 2 * DEFAULT_WAYS.labourMinorPerHour } }));
    expect(dear.lines[0]!.stack.work).toBeCloseTo(2 * paid.stack.work, 9);
  });

  test('electricity: dearer by half, the head pays half more; a smaller pot loss, less of it', () => {
    const base = one();
    const energy = (input: ReturnType<typeof one>) => planOrder(input).lines[0]!.stack.energy;
    const dear = { ...DEFAULT_WAYS, energyMinorPerKWh: 1.5 * DEFAULT_WAYS.energyMinorPerKWh };
    expect(energy(one({ ways: dear }))).toBeCloseTo(1.5 * energy(base), 9);
    expect(energy({ ...base, pot: { ...base.pot, lossWPerK: 0.3 } })).toBeLessThan(energy(base));
  });

  test('what is needed of powder and parts is for all heads, of every line that takes it', () => {
    const { lines, needs } = planOrder(workshop());
    const white = needs.find((each) => each.materialId === 'white')!;
    const byHand = lines.reduce((sum, line) => sum + line.quantity * line.powders[0]!.kgPerHead, 0);
    expect(white.need.value).toBeCloseTo(byHand, 12);
    expect(white.need.value).toBeGreaterThan(60 * lines[0]!.powders[0]!.kgPerHead);
    const rings = planOrder(one()).needs.find((each) => each.materialId === 'ring')!;
    expect(rings.need.value).toBe(50); // 40 and a quarter lost
  });

  test('the charge leaves the heel in the pot: no dry spout', () => {
    const input = one();
    const { charge, chargeParts } = planOrder(input);
    const without = planOrder(one({ ways: { ...DEFAULT_WAYS, heelKg: 0.0001 } })).charge.value;
    expect(charge.value - without).toBeCloseTo(0.7999, 6);
    expect(chargeParts.find((part) => part.label === 'heel')!.kg).toBe(0.8);
    const wanted = { ...input, atOnce: 1 };
    const poured = (heelKg: number) => preparePour({ ...wanted, ways: { ...DEFAULT_WAYS, heelKg } }).planned.chargeKg;
    expect(poured(0.8) - poured(0.3)).toBeCloseTo(0.5, 9);
  });

  test('what was learned of pot and oven reaches the plan', () => {
    const input = workshop();
    const cure = (offsetK: number) => {
      const learned = { lagS: 180, offsetK, swingK: 5 };
      return planOrder({ ...input, oven: { ...input.oven, learned } as typeof input.oven }).lines[0]!.bake!.cure.value;
    };
    expect(cure(-12)).toBeLessThan(cure(0));
    expect(cure(12)).toBeGreaterThan(cure(0));
    const melt = (powerW: number) => planOrder({ ...input, pot: { ...input.pot, powerW } }).melt.value;
    expect(melt(500)).toBeGreaterThan(melt(700));
  });
});

describe('past bakes', () => {
  const quick = cureLaw([{ metalC: 177, seconds: 600 }]);
  const slow = cureLaw([{ metalC: 177, seconds: 1200 }]);
  const bake = (seconds: number, more = {}) =>
    auditBake({
      id: 'b',
      at: 0,
      name: 'Load',
      heads: 40,
      setC: 177,
      preheated: true,
      seconds,
      doors: [],
      oven: knownOven({ lagS: 180 }),
      headLagS: 60,
      heatJK: 1,
      laws: [
        { powder: 'quick', law: quick },
        { powder: 'slow', law: slow },
      ],
      limitC: null,
      ...more,
    });

  test('are judged by the powder that cured least', () => {
    const audited = bake(1400);
    expect(audited.powder).toBe('slow');
    expect(audited.cure).toBeCloseTo(bake(1400, { laws: [{ powder: 'slow', law: slow }] }).cure, 12);
    expect(bake(1400, { laws: [{ powder: 'quick', law: quick }] }).cure).toBeGreaterThan(1.5 * audited.cure);
  });

  test('full from nine tenths of a cure, a habit of the trade: 0.87 is too little, 0.95 is enough', () => {
    // Warm at once, a label of 1200 s is cured by its share of the seconds.
    const at = (share: number) =>
      bake(1200 * share, {
        headLagS: 1,
        heatJK: 0,
        oven: knownOven({ lagS: 1 }),
        laws: [{ powder: 'slow', law: slow }],
      });
    expect([0.87, 0.95].map((share) => at(share).underCured)).toEqual([true, false]);
    expect(at(0.87).cure).toBeCloseTo(0.87, 1);
  });

  test('an oven that holds less than its mark cures less, one that holds more, more', () => {
    const at = (offsetK: number) =>
      bake(1200, { oven: knownOven({ lagS: 180, learned: { lagS: 180, offsetK, swingK: 5 } }) }).cure;
    expect(at(-12)).toBeLessThan(0.8 * at(0));
    expect(at(12)).toBeGreaterThan(1.2 * at(0));
  });
});

describe('published constants, by what follows from them', () => {
  test('Wilson interval: 8 of 10 is 0.490 to 0.943 at 95 % (Newcombe, Statist. Med. 17 (1998) 857, method 3)', () => {
    const { low, high } = wilson(0.8, 10, 1.96);
    expect([low, high]).toEqual([expect.closeTo(0.4902, 4), expect.closeTo(0.9433, 4)]);
    // Newcombe's own example: 81 of 263, 0.2553 to 0.3662.
    expect(wilson(81 / 263, 263, 1.96).low).toBeCloseTo(0.2553, 4);
    expect(wilson(81 / 263, 263, 1.96).high).toBeCloseTo(0.3662, 4);
  });

  test('individuals chart: the flow rates of the NIST/SEMATECH e-Handbook, 6.3.2.2', () => {
    const flow = [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1];
    const { mean, lower, upper, meanRange, rangeUpper } = individuals(flow);
    // The handbook: centre 50.81, mean range 1.8778, limits 45.817 and 55.8041.
    expect([mean, meanRange]).toEqual([expect.closeTo(50.81, 4), expect.closeTo(1.8778, 4)]);
    expect([lower, upper]).toEqual([expect.closeTo(45.8168, 2), expect.closeTo(55.8041, 2)]);
    expect(rangeUpper).toBeCloseTo(6.1348, 3); // 3.267 x 1.8778, D4 for n = 2 (Montgomery, table VI)
  });

  test('PCHIP on paper: (0, 0), (1, 1), (3, 2) at 2', () => {
    // Inner slope 9 / (5/1 + 4/0.5) = 9/13, end slope ((2*2 + 1)*0.5 - 2*1) / 3 = 1/6 (Fritsch & Butland 1984); the
    // middle of a cubic is the mean of its ends and h/8 of the difference of its slopes.
    expect(pchip([0, 1, 3], [0, 1, 2]).at(2)).toBeCloseTo(1.5 + 0.25 * (9 / 13 - 1 / 6), 12);
    expect(pchip([0, 1, 3], [0, 1, 2]).at(0.5)).toBeCloseTo(0.5 + (1 / 8) * ((4 * 1 - 0.5) / 3 - 9 / 13), 12);
  });

  test('lead in air: 30 ug/m3 asks for action, 50 is the limit (29 CFR 1910.1025(b) and (c)(1))', () => {
    expect([LEAD_ACTION_LEVEL_UG_M3, LEAD_LIMIT_UG_M3]).toEqual([30, 50]);
  });

  test('minor units: two for the euro, none for the yen, three for the dinar of Kuwait (ISO 4217)', () => {
    expect(['EUR', 'JPY', 'KWD'].map(currencyDigits)).toEqual([2, 0, 3]);
    expect(writeMoney(1234, 'JPY')).toContain('1,234');
    expect(writeMoney(1234, 'EUR')).toContain('12.34');
  });

  test('milligrams are milligrams, and a grain of doubt is none', () => {
    expect(parseMass('250 mg', 'g')).toBeCloseTo(0.00025, 12);
    expect(parseMass('0.25', 'g')).toBeCloseTo(0.00025, 12);
    expect(parseMass('1 lb', 'g')).toBeCloseTo(0.45359237, 9); // international pound, exact
  });
});
