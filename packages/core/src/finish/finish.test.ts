import { cavitySolid } from '../geometry/solid.ts';
import { checkRoute } from '../job/route.ts';
import { partKind } from '../job/part-kinds.ts';
import { FINISH_TASKS, finishSchool, finishTask } from '../ways/finish.ts';
import { collarOf, guardGlueMl, hairKg, windingM } from './amounts.ts';
import { finishFindings, type FinishedHead } from './checks.ts';
import { gluesTogether, nextMix, ownPace, type WaitsForGlue } from './glues.ts';
import { CARD_ML, LEAST_ML, mixPlan } from './mix.ts';
import { PRODUCT_TEMPLATES } from './templates.ts';

// Worked by hand beside each line: circles, cylinders, rule of three. What is put on which head is common practice.
describe('amounts', () => {
  test('wire and thread: turns times the circle through the middle of the strand, and the ends', () => {
    // 3 turns of 0.5 mm on 4 mm: the circle is 4.5 mm wide, 3 x 14.137 mm = 42.4 mm, and 100 mm in the hands.
    expect(1000 * windingM({ turns: 3, coreM: 0.004, strandM: 0.0005, endsM: 0.1 })).toBeCloseTo(142.41, 2);
    expect(windingM({ turns: 0, coreM: 0.004, strandM: 0.0005, endsM: 0.1 })).toBe(0.1);
    // A maker's own figure: 125 to 150 mm of wire a head, on heads of a quarter to one ounce (common practice).
    for (const kg of [0.0071, 0.0142, 0.0283]) {
      const { barbM } = collarOf(cavitySolid('football', kg));
      for (const strandM of [0.0004, 0.00065]) {
        const wire = windingM({ turns: 3, coreM: barbM, strandM, endsM: 0.09 });
        expect(wire).toBeGreaterThan(0.115);
        expect(wire).toBeLessThan(0.16);
      }
    }
    expect(() => windingM({ turns: -1, coreM: 0.004, strandM: 0.0005, endsM: 0 })).toThrow(/turns is -1/);
  });
  test('the collar grows with the cube root of the mass, its barb is wider than its neck', () => {
    const [small, large] = [collarOf(cavitySolid('ball', 0.005)), collarOf(cavitySolid('ball', 0.04))];
    expect(large.neckM / small.neckM).toBeCloseTo(2, 9);
    expect(large.lengthM / small.lengthM).toBeCloseTo(2, 9);
    expect(small.barbM).toBeGreaterThan(1.3 * small.neckM);
  });
  test('hair: a cylinder, six tenths of it keratin', () => {
    // 5.5 mm wide and 75 mm long: 1.782 cm3, 0.6 of it at 1.31 g/cm3 is 1.4 g.
    expect(1000 * hairKg({ bundleM: 0.0055, tailM: 0.075 })).toBeCloseTo(1.4, 2);
    expect(hairKg({ bundleM: 0.011, tailM: 0.075 }) / hairKg({ bundleM: 0.0055, tailM: 0.075 })).toBeCloseTo(4, 9);
  });
  test('glue around a guard: the ring beside it, and a drop that is wiped off', () => {
    // A ring of 3.2 to 3.0 mm is 0.974 mm2; 10 mm deep 9.74 mm3.
    const of = (guardM: number) => guardGlueMl({ holeM: 0.0032, guardM, depthM: 0.01 });
    expect(of(0.003) - of(0.0032)).toBeCloseTo(0.00974, 5);
    expect(of(0.0032)).toBeGreaterThan(0);
    expect(of(0.0032)).toBeLessThan(0.03);
    expect(() => of(0.004)).toThrow(/guard is 0.004\u00a0m/);
  });
});

describe('a mix of glue', () => {
  const five = { heads: 60, mlPerHead: 0.06, potLifeS: 240, secondsPerHead: 30, mixingS: 60 };
  test('no more heads than hands do before it is stiff, and all mixes alike', () => {
    // 240 s less 60 s of mixing are 180 s: six heads of 30 s; sixty heads are ten mixes.
    const plan = mixPlan(five);
    expect(plan.headsPerMix).toBe(6);
    expect(plan.mixes.map(({ heads }) => heads)).toEqual(Array(10).fill(6));
    // 62 heads in mixes of 30 at most: 21, 21, 20 and not 30, 30, 2.
    const slow = mixPlan({ ...five, heads: 62, potLifeS: 960 });
    expect(slow.mixes.map(({ heads }) => heads)).toEqual([21, 21, 20]);
    for (const { heads, startsS, endsS } of [...plan.mixes, ...slow.mixes]) {
      expect(endsS - startsS).toBe(60 + 30 * heads);
      expect(endsS - startsS).toBeLessThanOrEqual(heads > 6 ? 960 : 240);
    }
    expect(slow.mixes[1]!.startsS).toBe(slow.mixes[0]!.endsS);
  });
  test('what is mixed is what heads take and what stays on the card, and never less than can be mixed true', () => {
    const plan = mixPlan(five);
    expect(plan.mixes[0]!.ml).toBeCloseTo(Math.max(LEAST_ML, 0.36 + CARD_ML), 12);
    expect(plan.usedMl).toBeCloseTo(3.6, 12);
    expect(plan.usedMl + plan.wastedMl).toBeCloseTo(
      plan.mixes.reduce((sum, { ml }) => sum + ml, 0),
      12,
    );
    // One mix for the evening wastes less than ten of them.
    expect(mixPlan({ ...five, potLifeS: 3600 }).wastedMl).toBeLessThan(0.3 * plan.wastedMl);
    expect(mixPlan({ ...five, heads: 1 }).mixes[0]!.ml).toBe(LEAST_ML);
  });
  test('one to one by volume is half and half; by weight the volumes come to the mix', () => {
    const [even] = mixPlan(five).mixes;
    expect(even!.resin).toBeCloseTo(even!.hardener, 12);
    expect(even!.resin + even!.hardener).toBeCloseTo(even!.ml, 12);
    const [heavy] = mixPlan({ ...five, by: 'weight', ratio: 0.5, resinKgL: 1.2, hardenerKgL: 0.96 }).mixes;
    expect(heavy!.hardener).toBeCloseTo(heavy!.resin / 2, 12);
    expect(heavy!.resin / 1.2 + heavy!.hardener / 0.96).toBeCloseTo(heavy!.ml, 12);
  });
  test('where not one head is done before it is stiff, it says so', () => {
    expect(() => mixPlan({ ...five, potLifeS: 80 })).toThrow(/seconds a head is 30 s; allowed: 1 to 20/);
    expect(() => mixPlan({ ...five, heads: 0 })).toThrow(/heads is 0/);
    // Stiff before it is mixed: refused, whatever the pace.
    expect(() => mixPlan({ ...five, potLifeS: 30, secondsPerHead: 1 })).toThrow(
      /pot life is 30 s; allowed: more than the 60 s/,
    );
  });
});

describe('what waits for one glue', () => {
  const guards: WaitsForGlue = {
    ...{ partId: 'epoxy', name: 'Epoxy', mlPerHead: 0.06, potLifeS: 240, setS: 3600, usualS: 28 },
    heads: { ticketId: 'a', step: 'guard', count: 20 },
    timed: { heads: 0, seconds: 0 },
  };
  const eyes: WaitsForGlue = {
    ...{ ...guards, mlPerHead: 0.02, potLifeS: 300, setS: 7200, usualS: 14 },
    heads: { ticketId: 'a', step: 'eyes', count: 40 },
  };
  test('two steps of one ticket are one mix: 20 heads of 0.06 and 40 of 0.02 ml', () => {
    const [glue, ...others] = gluesTogether([guards, eyes]);
    expect(others).toEqual([]);
    // (20 × 0.06 + 40 × 0.02) / 60 = 1/30 ml; (20 × 28 + 40 × 14) / 60 = 56/3 s. The quicker glue decides when it is
    // stiff.
    expect(glue!.mlPerHead).toBeCloseTo(1 / 30, 12);
    expect(glue!.secondsPerHead).toBeCloseTo(56 / 3, 12);
    expect([glue!.potLifeS, glue!.setS, glue!.own]).toEqual([240, 7200, false]);
    // (240 - 45) / (56 / 3) = 10.4 heads: six mixes of ten.
    expect(glue!.plan!.mixes.map(({ heads }) => heads)).toEqual(Array(6).fill(10));
    expect(nextMix(glue!)).toEqual([{ ticketId: 'a', step: 'guard', count: 10 }]);
    // Where fewer guards are left, the mix goes on to the eyes.
    const few = { ...glue!, heads: [{ ...guards.heads, count: 4 }, eyes.heads] };
    expect(nextMix(few)).toEqual([
      { ticketId: 'a', step: 'guard', count: 4 },
      { ticketId: 'a', step: 'eyes', count: 6 },
    ]);
  });
  test('another glue is another mix; one that is stiff before a head is done says so', () => {
    const slow = { ...guards, partId: 'slow', potLifeS: 1800 };
    const stiff = { ...guards, partId: 'stiff', potLifeS: 50 };
    const glues = gluesTogether([guards, slow, stiff, { ...eyes, heads: { ...eyes.heads, count: 0 } }]);
    expect(glues.map(({ partId, plan }) => [partId, plan?.headsPerMix ?? null])).toEqual([
      ['epoxy', 6],
      ['slow', 62],
      ['stiff', null],
    ]);
    expect(glues[2]!.why).toMatch(/seconds a head is 28 s; allowed: 1 to 5/);
    expect(nextMix(glues[2]!)).toEqual([]);
  });
  test('a pace is one from the fifth timed head on', () => {
    expect(ownPace({ heads: 4, seconds: 40 }, 28)).toEqual({ secondsPerHead: 28, own: false });
    expect(ownPace({ heads: 5, seconds: 50 }, 28)).toEqual({ secondsPerHead: 10, own: true });
    expect(ownPace({ heads: 9, seconds: 0 }, 28).own).toBe(false);
    // Thirty keys in half a second are no thirty guards.
    expect(ownPace({ heads: 30, seconds: 0.5 }, 24)).toEqual({ secondsPerHead: 24, own: false });
    const own = gluesTogether([{ ...guards, timed: { heads: 10, seconds: 200 } }]);
    expect([own[0]!.own, own[0]!.secondsPerHead, own[0]!.plan!.headsPerMix]).toEqual([true, 20, 9]);
  });
});

describe('ways of the finish', () => {
  test('every school says its seconds, what lies ready and, where it can hurt, a caution; glue has its times', () => {
    for (const { id, does, schools, uses } of FINISH_TASKS) {
      expect(does.length).toBeGreaterThan(3);
      uses.forEach((kind) => expect(partKind(kind).id).toBe(kind));
      for (const school of schools) {
        expect(school.seconds).toBeGreaterThan(0);
        expect(school.needs.length).toBeGreaterThan(0);
        const followed = finishSchool(id, school.id);
        if (followed.potLifeS) expect(followed.wait!.seconds).toBeGreaterThan(followed.potLifeS);
        if (/glue|epoxy|lacquer|paint/i.test(school.name)) expect(followed.caution).toBeTruthy();
      }
    }
    expect(finishSchool('guard').id).toBe('epoxy 5');
    expect(() => finishSchool('guard', 'tape')).toThrow(/way of guard is "?tape.*epoxy 30/);
    expect(() => finishTask('varnish')).toThrow(/task is "?varnish/);
  });
  test('slow epoxy gives a whole tray in one mix where the quick one gives a handful', () => {
    const per = (id: string) => {
      const { potLifeS, ml, seconds } = finishSchool('guard', id);
      return mixPlan({ heads: 60, mlPerHead: ml!, potLifeS: potLifeS!, secondsPerHead: seconds }).headsPerMix;
    };
    // A practised hand mixes for two to eight heads of five-minute epoxy (common practice, no source).
    expect(per('epoxy 5')).toBeGreaterThanOrEqual(2);
    expect(per('epoxy 5')).toBeLessThanOrEqual(8);
    expect(per('epoxy 30')).toBeGreaterThan(30);
    expect(per('epoxy slow')).toBeGreaterThan(100);
  });
});

describe('checks by figures', () => {
  const head: FinishedHead = {
    ...{ style: 'football', nominalMassKg: 0.0142, hookSize: '4/0' },
    ...{ pin: { diameterM: 0.0032, lengthM: 0.01 }, route: [], parts: [], painted: true },
  };
  const part = (kind: string, details: Record<string, number> | null = null, more = {}) => ({
    ...{ name: `The ${kind}`, kind, step: kind, quantity: 1, details, ...more },
  });
  const says = (more: Partial<FinishedHead>) => finishFindings({ ...head, ...more }).map((each) => each.says);

  test('a guard goes into the hole that its pin left, or there is none', () => {
    const of = (diameterM: number, more: Partial<FinishedHead> = {}) =>
      says({ parts: [part('guard', { diameterM })], ...more });
    expect(of(0.003)).toEqual([]);
    expect(of(0.0036)[0]).toMatch(/3.6\u00a0mm thick and its hole 3.2\u00a0mm: it does not go in/);
    expect(of(0.002)[0]).toMatch(/leans while glue sets/);
    expect(of(0.003, { pin: null })[0]).toMatch(/casts no hole/);
    expect(of(0.003, { pinWay: 'cut short' })[0]).toMatch(/no hole is cast, because its pin is cut short/);
    expect(of(0.003, { pinWay: 'left out' })[0]).toMatch(/left out/);
    expect(of(0.003, { pin: { diameterM: 0.0032, lengthM: 0.003 } })[0]).toMatch(/only 3.0\u00a0mm deep/);
  });
  test('an eye no wider than its place, two turns of wire, a blade that clears the treble, a ring that goes through', () => {
    expect(says({ parts: [part('eye', { diameterM: 0.002 })] })).toEqual([]);
    expect(says({ parts: [part('eye', { diameterM: 0.009 })] })[0]).toMatch(/its edge stands off/);
    const tied = { key: 'skirt', station: 'finish', does: 'Skirt', task: 'skirt', school: 'wire' };
    const wire = (quantity: number) =>
      says({ route: [tied], parts: [part('wire', { diameterM: 0.0005 }, { quantity })] });
    expect(wire(0.14)).toEqual([]);
    expect(wire(0.1)[0]).toMatch(/less than two turns.*cuts the strands/);
    const spinner = (blade: number) =>
      says({
        parts: [part('wire form', { lengthM: 0.032 }), part('treble'), part('blade', { lengthM: blade })],
      });
    expect(spinner(0.024)).toEqual([]);
    expect(spinner(0.04)[0]).toMatch(/strikes the treble/);
    const ring = (diameterM: number) =>
      says({ hookSize: '8', nominalMassKg: 0.002, parts: [part('ring', { diameterM })] });
    expect(ring(0.003)).toEqual([]);
    expect(ring(0.02)[0]).toMatch(/the eye is/);
  });
  test('lacquer before the soft parts and after the eyes; a wait as long as what has to set', () => {
    const step = (task: string, more = {}) => ({
      key: task,
      station: 'finish',
      does: finishTask(task).does,
      task,
      ...more,
    });
    const { wait } = finishSchool('lacquer');
    expect(says({ route: [step('eyes'), step('lacquer', { wait }), step('skirt')] })).toEqual([]);
    expect(says({ route: [step('skirt'), step('lacquer', { wait })] })[0]).toMatch(/soaks into it/);
    expect(says({ route: [step('lacquer', { wait }), step('eyes')] })[0]).toMatch(/not sealed/);
    expect(says({ route: [step('guard', { school: 'epoxy 30' })] })[0]).toMatch(
      /sets in 8 h, and the next step waits 0 min/,
    );
  });
});

describe('templates', () => {
  test.each(PRODUCT_TEMPLATES.map((template) => [template.name, template] as const))(
    '%s: a way that can be gone, parts at its steps, and nothing that the figures object to',
    (_name, template) => {
      const { steps, parts, cast, style, nominalMassKg, hookSize } = template;
      expect(checkRoute(steps)).toBe(steps);
      const keys = ['pour', ...steps.map(({ key }) => key)];
      for (const { kind, step, quantity, details } of parts) {
        expect(keys).toContain(step);
        expect(quantity).toBeGreaterThan(0);
        const { fields } = partKind(kind);
        for (const [name, value] of Object.entries(details ?? {})) {
          const field = fields.find((each) => each.name === name)!;
          expect(value).toBeGreaterThanOrEqual(field.low);
          expect(value).toBeLessThanOrEqual(field.high);
        }
      }
      const pin = cast.pin ? { diameterM: 0.0032, lengthM: 0.01 } : null;
      const painted = steps.some(({ station }) => station === 'paint');
      expect(finishFindings({ style, nominalMassKg, hookSize, pin, route: steps, parts, painted })).toEqual([]);
      expect(steps.at(-1)!.does).toMatch(/bag/);
    },
  );
  test('they cover what the trade makes', () => {
    const ids = PRODUCT_TEMPLATES.map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids.length).toBeGreaterThanOrEqual(12);
    const kinds = new Set(PRODUCT_TEMPLATES.flatMap(({ parts }) => parts.map(({ kind }) => kind as string)));
    for (const kind of [
      'guard',
      'banded skirt',
      'wire',
      'thread',
      'hair',
      'feather',
      'tinsel',
      'eye',
      'bead',
      'blade',
      'treble',
    ]) {
      expect(kinds).toContain(kind);
    }
  });
});
