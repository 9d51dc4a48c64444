import type { Reading } from '../readings/block-codec.ts';
import { inRange } from '../quantity/check.ts';
import type { CureLaw } from './cure-law.ts';
import { WARM_WITHIN_K } from './cure.ts';
import { cureFromLog } from './from-log.ts';
import { airInRange, bakeStep, STEP_S, type Metal } from './step.ts';

/** The door stood open from one moment to another, ms since 1970; null while it still does. */
export interface DoorOpening {
  fromAt: number;
  toAt: number | null;
}
export interface RunningBake {
  law: CureLaw;
  headLagS: number;
  /** What the air really holds: the mark and the oven's own offset. */
  airC: number;
  ovenLagS: number;
  loadedAt: number;
  preheated: boolean;
  doors: readonly DoorOpening[];
  /** Of a probe in the oven's air, where there is one; it outranks the program. */
  readings: readonly Reading[];
  now: number;
  roomC?: number;
}
export interface RunningState {
  airC: number;
  metalC: number;
  cure: number;
  /** When the metal came within {@link WARM_WITHIN_K} of the oven's heat; null while it is not there. */
  warmAt: number | null;
  /** When the cure will be full if the door stays shut; null where it never is. */
  fullAt: number | null;
  /** The last word on the air is a probe's, not older than two minutes. */
  probed: boolean;
  /** The load has been in so long that nobody can have meant it; it is followed for its first eight hours only. */
  forgotten: boolean;
  points: { at: number; airC: number; metalC: number; share: number }[];
}

/** With the door open the air falls this fast, and to this share of the way to the room. Common practice, no source. */
const DOOR_LAG_S = 15;
const DOOR_SHARE = 0.6;
/**
 * Walls stay hot: after the door the air is back in this share of the time that it takes from cold. Common practice,
 * no source.
 */
const RECOVERY_SHARE = 0.25;
const PROBE_IS_FRESH_MS = 120_000;
const LONGEST_S = 8 * 3600;

/**
 * Walls of the oven `seconds` after it was shut: hot already, or on their way from the room; a door moves them
 * little.
 */
const wallsC = (
  { airC, ovenLagS, preheated, roomC = 20 }: Pick<RunningBake, 'airC' | 'ovenLagS' | 'preheated' | 'roomC'>,
  seconds: number,
) => (preheated ? airC : airC + (roomC - airC) * Math.exp(-seconds / ovenLagS));

/**
 * Air of the oven by its program, every few seconds: as warm as its walls, down while the door stands open, and back.
 */
export function airByProgram(input: Omit<RunningBake, 'law' | 'headLagS' | 'readings'>): Reading[] {
  const { loadedAt, doors, now } = input;
  const roomC = input.roomC ?? 20;
  airInRange(input.airC);
  inRange('ovenLagS', input.ovenLagS, 's', 1, 3600);
  // How far the air is below its walls: nothing until a door is opened.
  let below = 0;
  const readings: Reading[] = [{ at: loadedAt, celsius: wallsC(input, 0) }];
  for (let at = loadedAt; at < now;) {
    const next = Math.min(now, at + STEP_S * 1000);
    const walls = wallsC(input, (next - loadedAt) / 1000);
    const open = doors.some((door) => door.fromAt <= at && (door.toAt ?? Infinity) > at);
    const toBelow = open ? DOOR_SHARE * (walls - roomC) : 0;
    const lagS = open ? DOOR_LAG_S : input.ovenLagS * RECOVERY_SHARE;
    below = toBelow + (below - toBelow) * Math.exp(-(next - at) / 1000 / lagS);
    readings.push({ at: next, celsius: walls - below });
    at = next;
  }
  return readings;
}

/**
 * Where a bake stands now, from the metal's own heat: the air by a probe as far as it speaks and by the program where
 * it
 * does not, the head behind it by its lag, the cure by the jar's label.
 */
export function runningBake(given: RunningBake): RunningState {
  const longest = given.loadedAt + LONGEST_S * 1000;
  const forgotten = given.now > longest;
  const input = forgotten ? { ...given, now: longest } : given;
  const { law, headLagS, loadedAt, now } = input;
  const heard = input.readings.filter((reading) => reading.at >= loadedAt && reading.at <= now);
  const last = heard.at(-1);
  const probed = last !== undefined && now - last.at <= PROBE_IS_FRESH_MS;
  const program = airByProgram(input);
  const first = heard[0]?.at ?? Infinity;
  const air = heard.length
    ? [
        ...program.filter((reading) => reading.at < first),
        ...heard,
        ...program.filter((reading) => reading.at > last!.at && !probed),
      ]
    : program;
  const until = air.at(-1)!.at < now ? [...air, { at: now, celsius: air.at(-1)!.celsius }] : air;
  const course =
    until.length > 1 ? cureFromLog({ law, headLagS, readings: until, fromC: input.roomC ?? 20, gapS: 1e9 }) : null;
  const points = course?.points ?? [{ at: now, airC: program[0]!.celsius, metalC: input.roomC ?? 20, share: 0 }];
  const end = points.at(-1)!;
  const warm = points.find((point) => point.metalC >= input.airC - WARM_WITHIN_K);
  const full = points.find((point) => point.share >= 1);
  return {
    airC: end.airC,
    metalC: end.metalC,
    cure: end.share,
    warmAt: warm?.at ?? null,
    fullAt: full?.at ?? forecast(input, end),
    probed,
    forgotten,
    points,
  };
}

/**
 * When a load comes out: a count from the door runs from there; one from the metal waits as long as the metal does,
 * and at
 * least as long as was reckoned.
 * @example programEndsAt({ from: 'door', seconds: 1200, warmS: 300, loadedAt: 0, warmAt: null, endsAt: 1_200_000 },
 *   null, 0) // 1200000
 */
export function programEndsAt(
  load: {
    from: 'door' | 'metal';
    seconds: number;
    warmS: number;
    loadedAt: number;
    warmAt: number | null;
    endsAt: number;
  },
  warmByModelAt: number | null,
  now: number,
): number {
  if (load.from === 'door') return load.endsAt;
  const warmAt = load.warmAt ?? warmByModelAt ?? Math.max(now, load.loadedAt + 1000 * load.warmS);
  return warmAt + 1000 * load.seconds;
}

/** A probe that reads less than this is not in a hot oven. Common practice, no source. */
export const IN_AN_OVEN_C = 60;

/**
 * When the rest of the cure will be had: the air going on toward its walls, these toward the mark, the metal behind.
 */
function forecast(input: RunningBake, now: { airC: number; metalC: number; share: number }): number | null {
  const { ovenLagS, loadedAt } = input;
  const passedS = (input.now - loadedAt) / 1000;
  // By a probe the walls are as warm as their air, unless a door has just let that out.
  const openedLately = input.doors.some((door) => input.now - (door.toAt ?? input.now) < 1000 * ovenLagS);
  const byProgram = wallsC(input, passedS);
  const walls = openedLately ? byProgram : Math.min(byProgram, now.airC);
  const [slow, quick] = [ovenLagS, ovenLagS * RECOVERY_SHARE].map((lagS) => Math.exp(-STEP_S / lagS)) as [
    number,
    number,
  ];
  let left = input.airC - walls;
  let below = walls - now.airC;
  let { airC } = now;
  let metal: Metal = now;
  for (let seconds = 0; seconds < LONGEST_S; seconds += STEP_S) {
    if (metal.share >= 1) return input.now + seconds * 1000;
    left *= slow;
    below *= quick;
    const toC = input.airC - left - below;
    metal = bakeStep(input, metal, { fromC: airC, toC, seconds: STEP_S });
    airC = toC;
  }
  return null;
}
