import fc from 'fast-check';
import { heatProblems, perHead, placeOf, type BillLine } from './bill.ts';
import { disposition, DISPOSITION_IDS, DISPOSITIONS } from './dispositions.ts';
import { checkDetails, PART_KINDS, partKind } from './part-kinds.ts';
import { ticketPostings, type TicketUse } from './postings.ts';
import { checkRoute, lookBefore, ROUTE_TEMPLATES, usualRoute } from './route.ts';
import { stationOf, STATIONS, stepStations, usualDisposition } from './stations.ts';
import { AT, stepAtStation, stepState, ticketRefusal, ticketState, type TicketSetup } from './ticket.ts';
import type { TicketEntry, TicketLog } from './ticket-log.ts';
import type { UndoEntry } from '../log/log.ts';

describe('the tables', () => {
  test('every kind has its unit, its part of the cost, and fields with a range', () => {
    expect(new Set(PART_KINDS.map((kind) => kind.id)).size).toBe(PART_KINDS.length);
    for (const { fields } of PART_KINDS) for (const { low, high } of fields) expect(low).toBeLessThan(high);
    expect(partKind('wire').unit).toBe('m');
    expect(() => partKind('string')).toThrow(/kind is string; allowed: lead, hook, powder, guard/);
    expect(() => checkDetails('guard', { diameterM: 0.003 })).not.toThrow();
    expect(() => checkDetails('guard', { diameterM: 3 })).toThrow(
      /diameterM is 3\u00a0m; allowed: 0.0005\u00a0m to 0.01/,
    );
    expect(() => checkDetails('guard', { length: 1 })).toThrow(
      /detail of a guard is length; allowed: diameterM, lengthM/,
    );
  });
  test('seven stations in working order; each cause has a way out that is in the table', () => {
    expect(STATIONS.map((station) => station.name)).toEqual([
      'Lead',
      'Molds',
      'Pour',
      'Trim',
      'Paint',
      'Bake',
      'Finish',
    ]);
    for (const { causes } of STATIONS) for (const { goes } of causes) expect(DISPOSITION_IDS).toContain(goes);
    expect(usualDisposition('paint', 'dull')).toBe('back to step');
    expect(usualDisposition('bake', 'browned hook')).toBe('hook lost');
    expect(usualDisposition('trim', 'something nobody has seen')).toBe('melt');
    expect(() => stationOf('dye')).toThrow(/station is dye; allowed: lead, molds, pour/);
  });
  // Common practice, no source: what comes back of a head.
  test('dispositions: melted, lead and hook come back; scrapped, nothing does; sent back, it stays', () => {
    const row = (id: (typeof DISPOSITION_IDS)[number]) => {
      const { lead, parts, stays } = disposition(id);
      return [lead, parts, stays];
    };
    expect(row('melt')).toEqual([true, true, false]);
    expect(row('hook lost')).toEqual([true, false, false]);
    expect(row('second grade')).toEqual([false, false, false]);
    expect(row('scrap')).toEqual([false, false, false]);
    expect(row('back to step')).toEqual([false, false, true]);
    expect(DISPOSITIONS.filter((each) => each.atOnce).map((each) => each.id)).toEqual(['parts back']);
  });
});

describe('routes', () => {
  test.each(ROUTE_TEMPLATES.map((template) => [template.name, template] as const))(
    '%s can be walked',
    (_, template) => {
      expect(checkRoute(template.steps)).toBe(template.steps);
      const setup: TicketSetup = { route: template.steps, source: 'pour', poured: 3, pourClosed: true };
      const log: TicketEntry[] = template.steps.map(({ key }, i) => ({
        id: `e${i}`,
        at: i * 1e6,
        kind: 'good',
        step: key,
        count: 3,
      }));
      const state = ticketState(setup, log);
      expect(state.at).toBe(AT.close);
      expect(state.good).toBe(3);
    },
  );
  test('what is wrong with a route is said', () => {
    const [trim] = usualRoute({ painted: false, baked: false });
    expect(() => checkRoute([])).toThrow(/steps of the route is 0; allowed: 1 to 20/);
    expect(() => checkRoute([trim!, trim!])).toThrow(/key of a step is trim; allowed: one that no other step/);
    expect(() => checkRoute([{ ...trim!, station: 'pour' }])).toThrow(
      /station of a step is pour; allowed: trim, paint/,
    );
  });
  test('a head looks as the last step that changed it has left it', () => {
    const { steps } = ROUTE_TEMPLATES.find((each) => each.id === 'rigged first')!;
    expect(steps.map((step) => lookBefore(steps, step.key))).toEqual(['cast', 'blank', 'blank', 'powder', 'baked']);
    expect(lookBefore(usualRoute({ painted: true, baked: true, fromShelf: true }), 'paint')).toBe('blank');
  });
  test('a part that stands less than a later step is said, before anything is made', () => {
    const { steps } = ROUTE_TEMPLATES.find((each) => each.id === 'rigged first')!;
    const line = (name: string, kind: string, step: string, limitC: number | null) => {
      return { partId: name, name, kind, quantity: 1, waste: 0, step, limitC };
    };
    const heats = [{ step: 'bake', heatC: 177 }];
    const says = heatProblems(
      steps,
      [
        line('rubber skirt', 'banded skirt', 'rig', 90),
        line('bronze hook', 'hook', 'pour', 175),
        line('tail', 'feather', 'finish', 60),
        line('ring', 'ring', 'rig', null),
      ],
      heats,
    );
    expect(says).toHaveLength(2);
    expect(says[0]).toMatch(/Bake is at 177\u00a0°C, and the rubber skirt .* stands 90\u00a0°C: put it on after/);
    expect(says[1]).toMatch(/bronze hook .* 175\u00a0°C: it may brown/);
  });
});

const TWO_COATS = ROUTE_TEMPLATES.find((each) => each.id === 'two coats')!.steps;
let clock = 0;
const base = () => ({ id: `j${(clock += 1)}`, at: clock * 1000 });
const good = (step: string, count: number): TicketEntry => ({ ...base(), kind: 'good', step, count });
const bad = (step: string, goes: (typeof DISPOSITION_IDS)[number], more: object = {}): TicketEntry =>
  ({ ...base(), kind: 'reject', step, cause: 'other', count: 1, goes, ...more }) as TicketEntry;

describe('a ticket on its route', () => {
  const setup: TicketSetup = { route: TWO_COATS, source: 'pour', poured: 10, pourClosed: true };
  test('a station that stands twice keeps its two steps apart', () => {
    const log: TicketLog = [good('trim', 10), good('paint', 10), good('bake', 10), good('paint-2', 4)];
    const state = ticketState(setup, log);
    expect(stepState(state, 'paint')).toMatchObject({ status: 'done', good: 10 });
    expect(stepState(state, 'paint-2')).toMatchObject({ status: 'running', left: 6 });
    expect(stepAtStation(state, 'paint')!.key).toBe('paint-2');
    expect(state.at).toBe('paint-2');
  });
  test('stripped and dipped again: it comes to its step once more, and no head is lost on the way', () => {
    const log: TicketLog = [
      good('trim', 10),
      good('paint', 10),
      good('bake', 9),
      bad('bake', 'back to step', { to: 'paint' }),
    ];
    const state = ticketState(setup, log);
    expect(stepState(state, 'paint')).toMatchObject({ arrived: 11, good: 10, left: 1 });
    expect(state.at).toBe('paint');
    const again = ticketState(setup, [...log, good('paint', 1), good('bake', 1)]);
    expect(stepState(again, 'bake')).toMatchObject({ arrived: 11, good: 10, rejected: 1, left: 0 });
    const forward = bad('trim', 'back to step', { to: 'bake' });
    expect(ticketRefusal(setup, [], forward)).toMatch(
      /to is "bake"; allowed: trim, a step that they have come through/,
    );
    expect(ticketRefusal(setup, [], bad('trim', 'melt', { to: 'trim' }))).toMatch(/only where heads are sent back/);
  });
  test('heads off the shelf: taken first, and no pour is waited for', () => {
    const shelf: TicketSetup = { ...setup, source: 'shelf', poured: 0, pourClosed: false };
    expect(ticketState(shelf, []).at).toBe(AT.take);
    expect(ticketRefusal(shelf, [], good('trim', 1))).toMatch(/allowed: none, as no head waits/);
    const taken: TicketLog = [{ ...base(), kind: 'take', count: 6 }];
    expect(ticketState(shelf, taken)).toMatchObject({ at: 'trim', taken: 6 });
    expect(ticketRefusal(setup, [], { ...base(), kind: 'take', count: 1 })).toMatch(/are poured, not taken/);
  });
  test('what sets before the next step is waited for, and says when', () => {
    const { steps } = ROUTE_TEMPLATES.find((each) => each.id === 'guard and skirt')!;
    const glued = { ...setup, route: steps };
    const log: TicketLog = [good('trim', 10), good('paint', 10), good('bake', 10), good('guard', 10)];
    const skirt = stepState(ticketState(glued, log), 'skirt')!;
    expect(skirt.readyAt).toBe(log.at(-1)!.at + 3600_000);
  });
});

describe('what a ticket moves on the shelf', () => {
  const line = (partId: string, kind: string, step: string, quantity = 1, waste = 0): BillLine => {
    return { partId, name: partId, kind, quantity, waste, step };
  };
  const route = ROUTE_TEMPLATES.find((each) => each.id === 'treble last')!.steps;
  const setup: TicketSetup = { route, source: 'pour', poured: 60, pourClosed: true };
  const cast = { leadMaterialId: 'lead', good: 60, secondGrade: 2, hooksLost: 1, drossKg: 0.02, unexplainedKg: 0 };
  const use = (log: TicketLog, more: Partial<TicketUse> = {}): TicketUse => ({
    bill: [line('hook', 'hook', 'pour'), line('white', 'powder', 'paint', 1e-4), line('treble', 'treble', 'rig')],
    leadKgPerHead: 0.01,
    cast,
    source: 'pour',
    sourceId: null,
    becomesId: null,
    state: ticketState(setup, log),
    ...more,
  });
  const of = (postings: ReturnType<typeof ticketPostings>, part: string) =>
    postings.filter((each) => each.materialId === part).reduce((sum, each) => sum + each.quantity, 0);

  // By hand: 60 good and 2 kept leave the shelf, 3 come back, 0.02 kg is skimmed; one hook was lost at the pot, one
  // later.
  test('rejects give their lead and hooks back, lost hooks stay away, second grade takes both along', () => {
    const postings = ticketPostings(
      use([good('trim', 58), bad('trim', 'melt'), bad('trim', 'hook lost'), good('paint', 57), bad('paint', 'melt')]),
    );
    expect(of(postings, 'lead')).toBeCloseTo(-(62 * 0.01 - 0.03 + 0.02), 12);
    expect(of(postings, 'hook')).toBe(-(60 + 2 + 1 - 2));
    expect(of(postings, 'white')).toBeCloseTo(-58e-4, 12);
    expect(of(postings, 'treble')).toBe(0);
  });
  test('what is scrapped or sold as second grade takes all that is in it along', () => {
    const melted = ticketPostings(use([good('trim', 59), bad('trim', 'melt')]));
    const scrapped = ticketPostings(use([good('trim', 59), bad('trim', 'scrap')]));
    expect(of(scrapped, 'lead') - of(melted, 'lead')).toBeCloseTo(-0.01, 12);
    expect(of(scrapped, 'hook') - of(melted, 'hook')).toBe(-1);
  });
  test('a part is used at its step, by every head that is done there; melted later it is won back, powder never', () => {
    const upTo = [good('trim', 60), good('paint', 60), good('bake', 60)];
    const rigged = ticketPostings(use([...upTo, good('rig', 58), bad('rig', 'melt'), bad('rig', 'scrap')]));
    expect(of(rigged, 'treble')).toBe(-(60 - 1));
    const again = [...upTo, good('rig', 59), bad('rig', 'back to step'), good('rig', 1)];
    expect(of(ticketPostings(use(again)), 'treble')).toBe(-61);
  });
  test('nothing is moved for a pour that is still open; bare heads go out when taken, and come in when closed', () => {
    expect(ticketPostings(use([good('trim', 10)], { cast: null }))).toEqual([]);
    const shelf: TicketSetup = {
      route: usualRoute({ painted: false, baked: false }),
      source: 'shelf',
      poured: 0,
      pourClosed: false,
    };
    const log: TicketLog = [
      { ...base(), kind: 'take', count: 5 },
      good('trim', 5),
      good('finish', 5),
      { ...base(), kind: 'close' },
    ];
    const state = ticketState(shelf, log);
    const postings = ticketPostings(use([], { state, cast: null, bill: [], sourceId: 'bare', becomesId: 'clean' }));
    expect(postings).toEqual([
      { materialId: 'bare', reason: 'off the shelf', quantity: -5 },
      { materialId: 'clean', reason: 'made', quantity: 5 },
    ]);
  });
  test('quantities with waste, and where on the way a step stands', () => {
    expect(perHead({ quantity: 0.14, waste: 0.1 })).toBeCloseTo(0.154, 12);
    expect([placeOf(route, 'pour'), placeOf(route, 'paint'), placeOf(route, 'nowhere')]).toEqual([-1, 1, route.length]);
  });
});

/** Logs as two devices make them: what each says, when it is refused, said twice, or taken back. */
describe('the rules that always hold, over 2,000 random histories', () => {
  const action = fc.record({
    what: fc.constantFrom('good', 'reject', 'load', 'unload', 'take', 'close', 'undo', 'again'),
    step: fc.nat(9),
    count: fc.integer({ min: 1, max: 7 }),
    goes: fc.constantFrom(...DISPOSITION_IDS),
    to: fc.nat(9),
    pick: fc.nat(1000),
  });
  const history = fc.record({
    template: fc.nat(ROUTE_TEMPLATES.length - 1),
    source: fc.constantFrom('pour' as const, 'shelf' as const),
    poured: fc.nat(30),
    actions: fc.array(action, { maxLength: 40 }),
  });
  type History = (typeof history extends fc.Arbitrary<infer T> ? T : never) & object;

  function play({ template, source, poured, actions }: History) {
    const route = ROUTE_TEMPLATES[template]!.steps;
    const setup: TicketSetup = { route, source, poured: source === 'pour' ? poured : 0, pourClosed: true };
    const log: (TicketEntry | UndoEntry)[] = [];
    let n = 0;
    for (const { what, step, count, goes, to, pick } of actions) {
      const { key } = route[step % route.length]!;
      const at = { id: `h${(n += 1)}`, at: n * 1000 };
      if (what === 'again') {
        // Delivered twice: it must count once.
        if (log.length) log.push(log[pick % log.length]!);
        continue;
      }
      if (what === 'undo') {
        if (log.length) log.push({ ...at, kind: 'undo', target: log[pick % log.length]!.id });
        continue;
      }
      const said = {
        good: { ...at, kind: 'good', step: key, count },
        reject: {
          ...at,
          kind: 'reject',
          step: key,
          cause: 'other',
          count,
          goes,
          ...(goes === 'back to step' && to % 2 ? { to: route[to % route.length]!.key } : {}),
        },
        load: { ...at, kind: 'load', step: key, count, setC: 177, seconds: 1200, preheated: true },
        unload: { ...at, kind: 'unload', step: key },
        take: { ...at, kind: 'take', count },
        close: { ...at, kind: 'close' },
      }[what] as TicketEntry;
      if (ticketRefusal(setup, log, said) === null) log.push(said);
    }
    return { setup, log, state: ticketState(setup, log) };
  }

  test('heads: at each step what came is good, gone or here; over the route what was started is finished, gone or on its way', () => {
    fc.assert(
      fc.property(history, (told) => {
        const { setup, state } = play(told);
        let [gone, sentBack, here] = [0, 0, 0];
        for (const step of state.steps) {
          const by = Object.entries(step.gone) as [(typeof DISPOSITION_IDS)[number], number][];
          expect(step.arrived).toBe(step.good + by.reduce((sum, [, count]) => sum + count, 0) + step.left);
          expect(Object.values(step.rejects).reduce((sum, count) => sum + count, 0)).toBe(step.rejected);
          gone += step.rejected;
          sentBack += step.gone['back to step'] ?? 0;
          here += step.left;
        }
        expect(setup.poured + state.taken + sentBack).toBe(state.good + gone + here);
      }),
      { numRuns: 2000 },
    );
  });

  test('stock: what a log asks for is the same however it arrived, and nothing once all of it is taken back', () => {
    const bill: BillLine[] = [
      { partId: 'hook', name: 'Hook', kind: 'hook', quantity: 1, waste: 0, step: 'pour' },
      { partId: 'white', name: 'White', kind: 'powder', quantity: 1e-4, waste: 0, step: 'paint' },
      { partId: 'ring', name: 'Ring', kind: 'ring', quantity: 1, waste: 0.1, step: 'rig' },
      { partId: 'bag', name: 'Bag', kind: 'bag', quantity: 1, waste: 0, step: 'finish' },
    ];
    fc.assert(
      fc.property(history, (told) => {
        const { setup, log, state } = play(told);
        const cast =
          setup.source === 'pour'
            ? { leadMaterialId: 'lead', good: setup.poured, secondGrade: 0, hooksLost: 0, drossKg: 0, unexplainedKg: 0 }
            : null;
        const use = { bill, leadKgPerHead: 0.01, cast, source: setup.source, sourceId: 'bare', becomesId: 'made' };
        const asked = ticketPostings({ ...use, state });
        // Restarted, and everything delivered once more.
        expect(ticketPostings({ ...use, state: ticketState(setup, [...log, ...log]) })).toEqual(asked);
        const of = (part: string) =>
          asked.filter((each) => each.materialId === part).reduce((sum, each) => sum + each.quantity, 0);
        // By hand: lead and hooks that are out are those of heads that are not melted down.
        const melted = state.steps.reduce(
          (sum, { gone }) => sum + (gone.melt ?? 0) + (gone['hook lost'] ?? 0) + (gone['parts back'] ?? 0),
          0,
        );
        expect(of('lead')).toBeCloseTo(cast ? -(setup.poured - melted) * 0.01 : 0, 9);
        const undone: TicketLog = [
          ...log,
          ...log.map((entry, i): UndoEntry => ({ id: `u${i}`, at: 1e9 + i, kind: 'undo', target: entry.id })),
        ];
        const nothing = ticketPostings({ ...use, cast: null, state: ticketState(setup, undone) });
        expect(nothing).toEqual([]);
      }),
      { numRuns: 2000 },
    );
  });
});

test('stations that count are those that a step can be done at', () => {
  expect(stepStations().map((station) => station.id)).toEqual(['trim', 'paint', 'bake', 'finish']);
});
