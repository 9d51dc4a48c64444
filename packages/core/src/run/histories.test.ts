import fc from 'fast-check';
import { stepState, ticketRefusal, ticketState, ticketUndoRefusal, type TicketSetup } from '../job/ticket.ts';
import type { TicketEntry } from '../job/ticket-log.ts';
import { usualRoute } from '../job/route.ts';
import { nextRedo, nextUndo, standing, undoRefusal, type UndoEntry } from '../log/log.ts';
import { pourConflict, runConflict } from './down-the-line.ts';
import type { PourEntry, PourSetup } from './pour-log.ts';
import { pourRefusal } from './pour-refusal.ts';
import { pourState } from './pour.ts';
import { RUN_KINDS, withShares, type Run, type RunEntry } from './runs.ts';

const route = usualRoute({ painted: true, baked: true });
const TICKETS = ['t1', 't2'];
const load = (position: number, ticketIds: string[]) => ({
  moldId: 'm',
  position,
  cavityId: `c${position}`,
  ticketIds,
  hookMaterialId: null,
  inserts: [],
  leadKg: 0.01,
  hookKg: 0,
  sprueKg: 0.004,
  yieldShare: 0.9,
});
const setup: PourSetup = {
  molds: [{ moldId: 'm', plannedBlanks: 2, plannedShots: 5, openS: 5, inspectS: 2, loadS: 5 }],
  atOnce: 1,
  loads: [load(1, ['t1']), load(2, ['t1', 't2']), load(3, ['t2', 't1'])],
  needs: { t1: 6, t2: 5 },
  hooksOut: {},
};

/** A workshop of one pour, two tickets and loads of one oven, judged by core as the server judges it. */
function house() {
  const pour: (PourEntry | UndoEntry)[] = [];
  const tickets = new Map(TICKETS.map((id) => [id, [] as (TicketEntry | UndoEntry)[]]));
  const runs: (Run & { log: (RunEntry | UndoEntry)[] })[] = [];
  const setupWith = (good: number, pourClosed: boolean): TicketSetup => ({
    route,
    source: 'pour',
    poured: good,
    pourClosed,
  });
  const setupOf = (id: string) => {
    const state = pourState(setup, pour);
    return setupWith(state.goodByTicket[id] ?? 0, state.phase === 'closed');
  };
  const logWith = (id: string, instead: Pick<Run, 'id' | 'kind' | 'log'> | null) =>
    withShares<TicketEntry>(id, tickets.get(id)!, [
      ...runs.filter((run) => run.id !== instead?.id),
      ...(instead ? [instead] : []),
    ]);
  const stateOf = (id: string) => ticketState(setupOf(id), logWith(id, null));
  const line = () =>
    TICKETS.map((id) => ({
      id,
      name: id,
      setup: setupOf(id),
      setupWith,
      logWith: (instead: Pick<Run, 'id' | 'kind' | 'log'> | null) => logWith(id, instead),
    }));
  return {
    pour,
    tickets,
    runs,
    stateOf,
    sayPour(entry: PourEntry | UndoEntry): string | null {
      const why = pourRefusal(setup, pour, entry) ?? pourConflict(setup, pour, entry, line());
      if (!why) pour.push(entry);
      return why;
    },
    sayTicket(id: string, entry: TicketEntry | UndoEntry): string | null {
      const log = logWith(id, null);
      const inRun = entry.kind === 'undo' && !tickets.get(id)!.some((each) => each.id === entry.target);
      const why = inRun
        ? 'said of a run'
        : entry.kind === 'undo'
          ? ticketUndoRefusal(setupOf(id), log, entry)
          : ticketRefusal(setupOf(id), log, entry);
      if (!why) tickets.get(id)!.push(entry);
      return why;
    },
    sayRun(run: (typeof runs)[number], entry: RunEntry | UndoEntry): string | null {
      const others = runs.filter((each) => each !== run && RUN_KINDS.oven.closedAt(each.log) === null);
      const busy = others.find((each) => RUN_KINDS.oven.heads(each.log).length > 0)?.id ?? null;
      const at = (id: string, step: string) => {
        const state = stateOf(id);
        return state.closedAt === null ? stepState(state, step) : undefined;
      };
      const around = {
        busy,
        stationOf: (id: string, step: string) => at(id, step)?.station ?? null,
        waiting: (id: string, step: string) => {
          const found = at(id, step);
          return found ? found.left - found.inOven : null;
        },
      };
      const why = RUN_KINDS.oven.refusal(run.log, entry, around) ?? runConflict(run, entry, line());
      if (!why) run.log.push(entry);
      return why;
    },
  };
}
type House = ReturnType<typeof house>;

const action = fc.record({
  what: fc.constantFrom(
    'shot',
    'shot',
    'reject',
    'close pour',
    'good',
    'good',
    'good',
    'bad',
    'load',
    'unload',
    'close',
  ),
  undo: fc.constantFrom(null, null, null, null, 'pour', 't1', 't2', 'run') as fc.Arbitrary<string | null>,
  again: fc.boolean(),
  ticket: fc.constantFrom(...TICKETS),
  step: fc.nat(route.length - 1),
  count: fc.integer({ min: 1, max: 4 }),
  pick: fc.nat(1000),
  /** Where heads wait, all of them; else anything anywhere. */
  eager: fc.nat(5),
});
type Action = typeof action extends fc.Arbitrary<infer T> ? T : never;

/** The house some way into an evening: poured, then trimmed, then painted, then out of the oven. */
function begun(far: number): House {
  const of = house();
  const base = (n: number) => ({ id: `begun${n}`, at: n });
  if (far > 0) of.sayPour({ ...base(1), kind: 'charge', massKg: 2, potC: 20 });
  for (let n = 2; n < 6 && far > 0; n++) of.sayPour({ ...base(n), kind: 'shot', moldId: 'm', positions: [1, 2, 3] });
  if (far > 1) of.sayPour({ ...base(6), kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0 });
  const stations = ['trim', 'paint'].slice(0, far - 1);
  TICKETS.forEach((id, t) => {
    for (const { key, station } of of.stateOf(id).steps) {
      const count = stepState(of.stateOf(id), key)!.left;
      const good: TicketEntry = { ...base(10 + 10 * t + key.length), kind: 'good', step: key, count };
      if (stations.includes(station) && count > 0) expect(of.sayTicket(id, good)).toBeNull();
    }
  });
  return of;
}

/** Does one thing in the house, and says what became of it: refused in words, or null. */
function act(of: House, told: Action, n: number, anyUndo: boolean): string | null | undefined {
  const { what, undo, again, ticket, step, pick, eager } = told;
  const base = { id: `e${n}`, at: n * 1000 };
  const waiting = of.stateOf(ticket).steps.filter((each) => each.left > each.inOven);
  const here = eager > 0 ? waiting[pick % Math.max(1, waiting.length)] : undefined;
  const count = here ? here.left - here.inOven : told.count;
  if (undo) {
    const run = of.runs[pick % Math.max(1, of.runs.length)];
    if (undo === 'run' && !run) return undefined;
    const log: readonly (RunEntry | PourEntry | TicketEntry | UndoEntry)[] =
      undo === 'pour' ? of.pour : undo === 'run' ? run!.log : of.tickets.get(undo)!;
    const newest = again ? nextRedo(log as PourEntry[]) : nextUndo(log as PourEntry[]);
    const target = anyUndo ? log[pick % Math.max(1, log.length)]?.id : newest?.id;
    if (target === undefined) return undefined;
    const entry: UndoEntry = { ...base, kind: 'undo', target };
    if (undo === 'pour') return of.sayPour(entry);
    return undo === 'run' ? of.sayRun(run!, entry) : of.sayTicket(undo, entry);
  }
  const key = here?.key ?? route[step]!.key;
  const shots = standing<PourEntry>(of.pour).filter((entry) => entry.kind === 'shot');
  switch (what) {
    case 'shot': {
      if (of.pour.length === 0) return of.sayPour({ ...base, kind: 'charge', massKg: 2, potC: 20 });
      return of.sayPour({ ...base, kind: 'shot', moldId: 'm', positions: [1, 2, 3].slice(0, (count % 3) + 1) });
    }
    case 'reject': {
      const shot = shots[pick % Math.max(1, shots.length)];
      if (!shot) return undefined;
      return of.sayPour({
        ...base,
        kind: 'reject',
        shotId: shot.id,
        position: (pick % 3) + 1,
        cause: 'short',
        goes: 'melt',
      });
    }
    case 'close pour':
      return of.sayPour({ ...base, kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0 });
    case 'good':
      return of.sayTicket(ticket, { ...base, kind: 'good', step: key, count });
    case 'bad':
      return of.sayTicket(ticket, {
        ...base,
        kind: 'reject',
        step: key,
        count,
        cause: 'other',
        goes: pick % 2 ? 'melt' : 'back to step',
        ...(pick % 2 ? {} : { to: route[0]!.key }),
      });
    case 'load': {
      const run = { id: `r${n}`, kind: 'oven' as const, number: n, log: [] };
      const bake = of.stateOf(ticket).steps.find((each) => each.station === 'bake')!;
      const heads = [{ ticketId: ticket, step: bake.key, count: eager > 0 ? Math.max(1, bake.left) : count }];
      of.runs.push(run);
      return of.sayRun(run, { ...base, kind: 'load', ovenId: null, heads, setC: 177, seconds: 1200, preheated: true });
    }
    case 'unload': {
      const run = of.runs[pick % Math.max(1, of.runs.length)];
      return run ? of.sayRun(run, { ...base, kind: 'unload' }) : undefined;
    }
    default:
      return of.sayTicket(ticket, { ...base, kind: 'close' });
  }
}

/** What is wrong at this moment, counted from the figures of each step; nothing when all holds. */
function wrong(of: House): string[] {
  const pour = pourState(setup, of.pour);
  const found: string[] = [];
  const must = (holds: boolean, what: string) => {
    if (!holds) found.push(what);
  };
  let inOvens = 0;
  for (const id of TICKETS) {
    const state = of.stateOf(id);
    let arrived = pour.goodByTicket[id] ?? 0;
    for (const step of state.steps) {
      must(step.left >= 0, `${id} ${step.key}: ${step.left} left`);
      must(step.inOven <= step.left, `${id} ${step.key}: ${step.inOven} of ${step.left} in the oven`);
      must(step.arrived >= arrived, `${id} ${step.key}: ${step.arrived} of ${arrived} arrived`);
      must(state.closedAt === null || step.left + step.inOven === 0, `${id} closed, ${step.left} left at ${step.key}`);
      inOvens += step.inOven;
      arrived = step.good;
    }
    must(state.closedAt === null || pour.phase === 'closed', `${id} closed, its pour is ${pour.phase}`);
  }
  const baking = of.runs.filter((run) => {
    return RUN_KINDS.oven.closedAt(run.log) === null && RUN_KINDS.oven.heads(run.log).length > 0;
  });
  must(baking.length <= 1, `${baking.length} loads in one oven`);
  const loaded = baking.flatMap((run) => RUN_KINDS.oven.heads(run.log)).reduce((sum, { count }) => sum + count, 0);
  must(inOvens === loaded, `${inOvens} heads in the oven by tickets, ${loaded} by loads`);
  return found;
}

const closed = (of: House) => pourState(setup, of.pour).phase === 'closed';

describe.each([
  ['as the benches do it: the newest is taken back, the last undo brought back', false],
  ['any undo of anything, undos among it', true],
])('2,000 histories, %s', (_kind, anyUndo) => {
  test('no station below zero, no oven overfull, no closed ticket with heads left; refusals have words', () => {
    const reached = { closed: 0, out: 0, undone: 0 };
    fc.assert(
      fc.property(fc.nat(3), fc.array(action, { minLength: 10, maxLength: 60, size: 'max' }), (far, told) => {
        const of = begun(far);
        const found: string[] = [];
        told.forEach((each, n) => {
          const wasClosed = closed(of);
          const inPour = of.pour.length;
          const why = act(of, each, n, anyUndo);
          if (typeof why === 'string' && why.length < 8) found.push(`refused with ${why}`);
          // Into a closed pour comes nothing but the taking back of its closing.
          if (wasClosed && of.pour.length > inPour && closed(of)) found.push('said in a closed pour');
          if (why === null && each.undo) reached.undone += 1;
          if (why === null) found.push(...wrong(of));
        });
        expect(found).toEqual([]);
        for (const { closedAt } of TICKETS.map(of.stateOf)) reached.closed += closedAt === null ? 0 : 1;
        reached.out += of.runs.filter((run) => RUN_KINDS.oven.closedAt(run.log) !== null).length;
      }),
      { numRuns: 2000 },
    );
    // The histories come so far that the rules have something to hold.
    expect(reached.out).toBeGreaterThan(30);
    expect(reached.closed).toBeGreaterThan(10);
    expect(reached.undone).toBeGreaterThan(2000);
  });
});

test('what was undone and brought back is as it was', () => {
  fc.assert(
    fc.property(fc.array(action, { minLength: 10, maxLength: 40 }), (told) => {
      const of = house();
      told.forEach((each, n) => act(of, each, n, false));
      const before = JSON.stringify([pourState(setup, of.pour), TICKETS.map(of.stateOf)]);
      const target = nextUndo<PourEntry>(of.pour)?.id;
      if (!target || of.sayPour({ id: 'u', at: 1e6, kind: 'undo', target }) !== null) return;
      expect(nextRedo(of.pour)?.id).toBe('u');
      expect(of.sayPour({ id: 'uu', at: 1e6 + 1, kind: 'undo', target: 'u' })).toBeNull();
      expect(JSON.stringify([pourState(setup, of.pour), TICKETS.map(of.stateOf)])).toBe(before);
      expect(of.sayPour({ id: 'again', at: 1e6 + 2, kind: 'undo', target: 'u' })).toBe('That was taken back already.');
    }),
  );
});

describe('what must be taken back first is said', () => {
  const base = (n: number) => ({ id: `s${n}`, at: n * 1000 });
  const poured = () => {
    const of = house();
    of.sayPour({ ...base(1), kind: 'charge', massKg: 2, potC: 20 });
    for (const n of [2, 3]) of.sayPour({ ...base(n), kind: 'shot', moldId: 'm', positions: [1, 2, 3] });
    return of;
  };
  const close = { kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0 } as const;
  const undo = (target: string): UndoEntry => ({ id: `u ${target}`, at: 1e6, kind: 'undo', target });

  test('heads that were trimmed hold their shot; a reject of one of them is refused as well', () => {
    const of = poured();
    expect(of.sayTicket('t1', { ...base(4), kind: 'good', step: 'trim', count: 4 })).toBeNull();
    expect(of.sayPour(undo('s3'))).toBe(
      't1: Not possible: 2 heads too few would be at trim. Take back first: 4 good at trim.',
    );
    const reject = { kind: 'reject', shotId: 's2', position: 1, cause: 'short', goes: 'melt' } as const;
    expect(of.sayPour({ ...base(5), ...reject })).toMatch(/1 heads too few would be at trim/);
  });

  test('metal, shots and rejects go in their order; a closed pour is opened first', () => {
    const of = poured();
    expect(of.sayPour(undo('s1'))).toBe('Take back first the shots that were poured of this metal: 2.');
    of.sayPour({ ...base(4), kind: 'reject', shotId: 's3', position: 2, cause: 'void', goes: 'melt' });
    expect(of.sayPour(undo('s3'))).toBe('Take back first that cavity 2 of this shot was not good.');
    of.sayPour({ ...base(5), ...close });
    expect(of.sayPour(undo('s4'))).toBe('This pour is closed. Take back its closing first.');
    expect(of.sayPour(undo('s5'))).toBeNull();
    expect(of.sayPour(undo('s4'))).toBeNull();
  });

  test('no such entry, and what has no effect, is refused with a word', () => {
    const of = poured();
    expect(undoRefusal(of.pour, undo('nothing'))).toBe('There is no such entry here to take back.');
    expect(of.sayPour({ ...base(4), kind: 'resume' })).toBe('This pour goes on already.');
    expect(of.sayPour({ ...base(5), kind: 'pause' })).toBeNull();
    expect(of.sayPour({ ...base(6), kind: 'pause' })).toBe('This pour rests already.');
    const blocked = { kind: 'blocked', moldId: 'm', position: 1 } as const;
    expect([of.sayPour({ ...base(7), ...blocked }), of.sayPour({ ...base(8), ...blocked })]).toEqual([
      null,
      'Cavity 1 is given up already.',
    ]);
    const away = { kind: 'mold', moldId: 'm', away: true } as const;
    expect([of.sayPour({ ...base(9), ...away }), of.sayPour({ ...base(10), ...away })]).toEqual([
      null,
      'This mold is put away already.',
    ]);
  });
});
