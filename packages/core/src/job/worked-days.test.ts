import { ovenShares, type OvenLog } from '../run/oven.ts';
import { pourWork } from '../run/pour-work.ts';
import type { PourEntry } from '../run/pour-log.ts';
import { sessionShares, type SessionLog } from '../run/session.ts';
import type { SharedEntry } from '../run/heads-in-run.ts';
import { stepWork } from './work.ts';
import type { TicketEntry } from './ticket-log.ts';

/*
 * Worked days as somebody with a watch would have written them down: who was at which bench from when to when, what was
 * tapped, and the seconds of work. Invented; what a watch says is added up here by hand, never by what is checked.
 */

/** A device as the bench has it: what it says carries for how long its hands were free for it. */
class Device {
  private from = 0;
  readonly said: TicketEntry[] = [];
  private readonly name: string;
  private readonly who: string | undefined;
  constructor(name: string, who?: string) {
    this.name = name;
    this.who = who;
  }
  opens(at: number): void {
    this.from = Math.max(at, this.from);
  }
  says<Entry extends object>(at: number, entry: Entry): Entry & { id: string; at: number; sinceS: number } {
    const sinceS = at - this.from;
    this.from = at;
    const who = this.who === undefined ? {} : { who: this.who };
    return { id: `${this.name} ${at}`, at: 1000 * at, sinceS, ...who, ...entry };
  }
  taps(at: number, kind: string, more: object = {}): void {
    this.said.push(this.says(at, { kind, step: 'step', ...more }) as unknown as TicketEntry);
  }
  good(at: number, count = 1): void {
    this.taps(at, 'good', { count });
  }
}
const MIN = 60;
const HOUR = 3600;
/** Within five parts in a hundred of the watch, with nothing left that nobody timed. */
function seen(entries: readonly TicketEntry[], paceS: number, watchS: number): void {
  const { workS, notTimed } = stepWork(entries, paceS);
  expect(notTimed).toBe(0);
  expect(Math.abs(workS / watchS - 1)).toBeLessThan(0.05);
}
/** Seconds a head, uneven as hands are. */
const uneven = (mean: number, nth: number) => mean * [0.8, 1.3, 0.9, 1.1, 0.7, 1.2][nth % 6]!;

test('single taps, by somebody half as slow again as the ways say', () => {
  const device = new Device('a');
  device.opens(100);
  let at = 100;
  for (let nth = 0; nth < 24; nth++) device.good((at += uneven(18, nth)));
  seen(device.said, 12, at - 100);
});

test('in bulk: forty trimmed, then one key for all of them', () => {
  const device = new Device('a');
  device.opens(0);
  device.good(9 * MIN, 40);
  seen(device.said, 11, 9 * MIN);
});

test('done first and tapped afterwards, one by one: ten taps in ten seconds are ten heads of two minutes', () => {
  const device = new Device('a');
  device.opens(0);
  for (let nth = 0; nth < 10; nth++) device.good(2 * MIN + nth);
  seen(device.said, 11, 2 * MIN + 9);
});

test('two sittings: what lies between them is nobody’s', () => {
  const device = new Device('a');
  device.opens(0);
  for (const at of [14, 27, 41, 52]) device.good(at);
  device.opens(20 * HOUR);
  device.good(20 * HOUR + 75, 6);
  seen(device.said, 12, 52 + 75);
});

test('one bad first, then all the rest', () => {
  const device = new Device('a');
  device.opens(0);
  device.taps(12, 'reject', { count: 1, cause: 'nick', goes: 'melt' });
  device.good(4 * MIN, 19);
  seen(device.said, 11, 4 * MIN);
});

test('a night between, the bench left open: the first head of the morning takes what the others took', () => {
  const device = new Device('a');
  device.opens(0);
  let at = 0;
  for (let nth = 0; nth < 15; nth++) device.good((at += uneven(12, nth)));
  const evening = at;
  at += 9 * HOUR;
  device.good(at);
  for (let nth = 0; nth < 14; nth++) device.good((at += uneven(12, nth)));
  // 30 heads of 12 s, of which the watch missed the first of the morning: 12 s more.
  seen(device.said, 11, evening + (at - evening - 9 * HOUR) + 12);
});

test('four coats of vinyl: six minutes of dipping each, half an hour of drying between, the page open all the time', () => {
  const device = new Device('a');
  device.opens(0);
  let at = 0;
  for (let coat = 1; coat <= 4; coat++) {
    at += 6 * MIN;
    device.taps(at, 'coat', { coat, paint: 'vinyl', dryS: 30 * MIN });
    at += 30 * MIN;
  }
  device.good(at + 20, 30);
  seen(device.said, 50, 24 * MIN + 20);
});

/** What a shared run says to each of its tickets. */
const ofTicket = (shares: readonly SharedEntry[], id: string) =>
  shares.filter(({ ticketId }) => ticketId === id).map(({ entry }) => entry);

test('a shared load: hung up in five minutes, baked, taken down and looked at ticket by ticket', () => {
  const device = new Device('a');
  device.opens(0);
  const heads = ['a', 'b', 'c'].map((ticketId) => ({ ticketId, step: 'step', count: 20 }));
  const program = { setC: 177, seconds: 1200, preheated: true, ovenId: null };
  const load = device.says(5 * MIN, { kind: 'load' as const, heads, ...program });
  const unload = device.says(26 * MIN, { kind: 'unload' as const });
  const shares = ovenShares([load, unload] as OvenLog);
  ['a', 'b', 'c'].forEach((id, nth) => {
    const looked = device.says(26 * MIN + 100 * (nth + 1), { kind: 'good' as const, step: 'step', count: 20 });
    // A third of five minutes, and a hundred seconds of its own.
    seen([...ofTicket(shares, id), looked as TicketEntry], 10, 100 + 100);
  });
});

test('a bake counted from warm metal: hanging up and looking are work, warming, baking and cooling are none', () => {
  const device = new Device('a');
  device.opens(0);
  device.taps(110, 'load', { count: 20, setC: 177, seconds: 1200, preheated: true, from: 'metal', warmS: 420 });
  device.said.push({ id: 'w', at: 9 * MIN * 1000, kind: 'warm', step: 'step', by: 'model' } as TicketEntry);
  device.taps(30 * MIN, 'unload', { coolS: 180 });
  device.good(33 * MIN + 90, 20);
  seen(device.said, 10, 110 + 90);
});

test('a phone call of twenty minutes that nobody said', () => {
  const device = new Device('a');
  device.opens(0);
  let at = 0;
  for (let nth = 0; nth < 25; nth++) device.good((at += uneven(12, nth) + (nth === 10 ? 20 * MIN : 0)));
  seen(device.said, 11, at - 20 * MIN);
});

test('two people at one step, each with a device: the hands of both', () => {
  const [jo, al] = [new Device('jo', 'Jo'), new Device('al', 'Al')];
  jo.opens(0);
  al.opens(30);
  let [atJo, atAl] = [0, 30];
  for (let nth = 0; nth < 15; nth++) {
    jo.good((atJo += uneven(20, nth)));
    al.good((atAl += uneven(26, nth + 3)));
  }
  const log = [...jo.said, ...al.said].sort((a, b) => a.at - b.at);
  seen(log, 22, atJo + (atAl - 30));
});

test('two benches and one pair of hands: nobody works at both at once', () => {
  const device = new Device('a');
  device.opens(0);
  const [trim, paint]: TicketEntry[][] = [[], []];
  let at = 0;
  for (let nth = 0; nth < 12; nth++) {
    trim!.push(device.says((at += uneven(11, nth)), { kind: 'good', step: 'step', count: 1 }) as TicketEntry);
    paint!.push(device.says((at += uneven(24, nth)), { kind: 'good', step: 'step', count: 1 }) as TicketEntry);
  }
  const [trimmed, painted] = [stepWork(trim!, 11), stepWork(paint!, 24)];
  expect(Math.abs((trimmed.workS + painted.workS) / at - 1)).toBeLessThan(0.05);
  seen(trim!, 11, 12 * 11);
  seen(paint!, 24, 12 * 24);
});

test('a mix for two tickets, from the word that it is mixed: each its own heads, and none twice', () => {
  const device = new Device('a');
  const heads = ['a', 'b'].map((ticketId) => ({ ticketId, step: 'step', count: 4 }));
  device.opens(0);
  const log = [
    device.says(45, { kind: 'begin' as const, partId: 'epoxy', name: 'Epoxy', heads, mixedMl: 1 }),
  ] as object[];
  let at = 45;
  for (const ticketId of ['a', 'a', 'a', 'a', 'b', 'b', 'b', 'b']) {
    log.push(device.says((at += 31), { kind: 'good' as const, ticketId, step: 'step', count: 1 }));
  }
  const shares = sessionShares(log as unknown as SessionLog);
  for (const id of ['a', 'b']) {
    const own = ofTicket(shares, id).filter(({ kind }) => kind !== 'mixed');
    seen(own, 28, 4 * 31);
  }
});

test('where a time cannot be told it is not invented: what passed is kept, for somebody to say', () => {
  const device = new Device('a');
  device.opens(0);
  // Ninety-four skirts at a minute each, in 2 h 57: supper lay between, or did not.
  device.good(2 * HOUR + 57 * MIN, 94);
  const found = stepWork(device.said, 60);
  expect(found).toEqual({ workS: 0, notTimed: 94, notTimedS: 2 * HOUR + 57 * MIN });
  device.taps(5 * HOUR, 'minutes', { seconds: 100 * MIN });
  expect(stepWork(device.said, 60)).toEqual({ workS: 100 * MIN, notTimed: 0, notTimedS: 0 });
});

/** Thirty shots of a pour on one device, of which the watch says what was work; `between` says what came before one. */
function poured(device: Device, between: (nth: number, at: number) => { at: number; watchS: number }) {
  device.opens(0);
  device.taps(20, 'charge');
  // Twenty minutes of melting: nobody's work.
  let at = 20 * MIN;
  let watchS = 0;
  device.taps(at, 'blank');
  for (let nth = 0; nth < 30; nth++) {
    const came = between(nth, at);
    at = came.at + uneven(50, nth);
    watchS += came.watchS + uneven(50, nth);
    device.taps(at, 'shot');
  }
  return { log: device.said as unknown as PourEntry[], watchS };
}

test('a pour with a call of twenty minutes that nobody said: the call is no work, and is known as what held it up', () => {
  const { log, watchS } = poured(new Device('a'), (nth, at) => ({ at: at + (nth === 14 ? 20 * MIN : 0), watchS: 0 }));
  const { workS, heldUp } = pourWork(log);
  expect(Math.abs(workS / watchS - 1)).toBeLessThan(0.05);
  expect(heldUp.times).toBe(1);
  expect(Math.abs(heldUp.seconds / (20 * MIN) - 1)).toBeLessThan(0.05);
});

test('what is set up at the bench before the first word is work; a bench that stood open since noon is not', () => {
  const setUp = new Device('a');
  setUp.opens(0);
  setUp.taps(6 * MIN, 'charge');
  setUp.taps(30 * MIN, 'blank');
  setUp.taps(30 * MIN + 40, 'blank');
  expect(pourWork(setUp.said as unknown as PourEntry[]).workS).toBe(6 * MIN + 40);
  const open = new Device('b');
  open.opens(0);
  open.taps(5 * HOUR, 'charge');
  open.taps(5 * HOUR + 25 * MIN, 'blank');
  expect(pourWork(open.said as unknown as PourEntry[]).workS).toBe(0);
});

test('a pour with a pause that was said, and a head that stuck for two minutes: the one is no work, the other is', () => {
  const device = new Device('a');
  const { log, watchS } = poured(device, (nth, at) => {
    if (nth === 9) return { at: at + 2 * MIN, watchS: 2 * MIN };
    if (nth !== 20) return { at, watchS: 0 };
    device.taps(at + 1, 'pause');
    device.taps(at + 10 * MIN, 'resume');
    return { at: at + 10 * MIN, watchS: 1 };
  });
  const { workS, heldUp } = pourWork(log);
  expect(Math.abs(workS / watchS - 1)).toBeLessThan(0.05);
  expect(heldUp).toEqual({ times: 1, seconds: 10 * MIN - 1 });
});

test('five heads trimmed between two shots: the hands were at one bench at a time, and nothing held them up', () => {
  const device = new Device('a');
  const trimmed: TicketEntry[] = [];
  const { log, watchS } = poured(device, (nth, at) => {
    if (nth % 6 !== 5) return { at, watchS: 0 };
    device.opens(at + 2);
    trimmed.push(device.says(at + 62, { kind: 'good', step: 'trim', count: 5 }) as unknown as TicketEntry);
    device.opens(at + 64);
    return { at: at + 64, watchS: 0 };
  });
  const { workS, heldUp } = pourWork(log);
  expect(Math.abs(workS / watchS - 1)).toBeLessThan(0.05);
  expect(heldUp.times).toBe(0);
  seen(trimmed, 12, 5 * 60);
});

test('a pour that was logged before devices told of their hands is read as it was', () => {
  const { log } = poured(new Device('a'), (nth, at) => ({ at: at + (nth === 14 ? 20 * MIN : 0), watchS: 0 }));
  const before = log.map(({ sinceS: _, ...entry }) => entry as PourEntry);
  // A gap of more than a quarter of an hour counts as one.
  let watchS = 15 * MIN;
  for (let nth = 0; nth < 30; nth++) if (nth !== 14) watchS += uneven(50, nth);
  expect(pourWork(before)).toEqual({ workS: expect.closeTo(watchS, 6), heldUp: { times: 0, seconds: 0 } });
});
