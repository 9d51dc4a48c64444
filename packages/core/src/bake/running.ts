import type { Reading } from '../readings/block-codec.ts';
import { inRange } from '../quantity/check.ts';
import type { CureLaw } from './cure-law.ts';
import { WARM_WITHIN_K } from './cure.ts';
import { cureFromLog } from './from-log.ts';
import { ovenAfter, ovenAirC, ovenAtStart, type OvenHeat, type OvenNow } from './oven-air.ts';
import { airInRange, bakeStep, STEP_S, type HeadInOven } from './step.ts';

/** The door stood open from one moment to another, ms since 1970; null while it still does. */
export interface DoorOpening {
  fromAt: number;
  toAt: number | null;
}
export interface RunningBake extends OvenHeat {
  law: CureLaw;
  headLagS: number;
  ovenLagS: number;
  loadedAt: number;
  preheated: boolean;
  doors: readonly DoorOpening[];
  /** Of a probe in the oven's air, where there is one; it outranks the program. */
  readings: readonly Reading[];
  now: number;
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

const PROBE_IS_FRESH_MS = 120_000;
const LONGEST_S = 8 * 3600;

/** What the air of a bake is reckoned from. */
type ByProgram = Omit<RunningBake, 'law' | 'headLagS' | 'readings'>;

/** The oven by its program at every step: on its way or at its mark, the air down while the door stands open. */
function* ovenByProgram(input: ByProgram): Generator<{ at: number; oven: OvenNow }> {
  const { loadedAt, doors, now } = input;
  airInRange(input.airC);
  inRange('ovenLagS', input.ovenLagS, 's', 1, 3600);
  let oven = ovenAtStart(input);
  yield { at: loadedAt, oven };
  for (let at = loadedAt; at < now;) {
    const next = Math.min(now, at + STEP_S * 1000);
    const open = doors.some((door) => door.fromAt <= at && (door.toAt ?? Infinity) > at);
    oven = ovenAfter(input, oven, (next - at) / 1000, open);
    yield { at: next, oven };
    at = next;
  }
}

/**
 * Air of the oven by its program, every few seconds.
 * @example airByProgram({ airC: 177, ovenLagS: 200, loadedAt: 0, preheated: true, doors: [], now: 10_000 }).length
 * // 3
 */
export const airByProgram = (input: ByProgram): Reading[] =>
  [...ovenByProgram(input)].map(({ at, oven }) => ({ at, celsius: ovenAirC(oven) }));

/**
 * Where a bake stands now, from the metal's own heat: the air by a probe as far as it speaks and by the program where
 * it does not, the head behind it by its lag, the cure by the jar's label.
 * @example runningBake(bake()).metalC // 175.6
 */
export function runningBake(given: RunningBake): RunningState {
  const longest = given.loadedAt + LONGEST_S * 1000;
  const forgotten = given.now > longest;
  const input = forgotten ? { ...given, now: longest } : given;
  const { law, headLagS, loadedAt, now } = input;
  const heard = input.readings.filter((reading) => reading.at >= loadedAt && reading.at <= now);
  const last = heard.at(-1);
  const probed = last !== undefined && now - last.at <= PROBE_IS_FRESH_MS;
  const ovens = [...ovenByProgram(input)];
  const program = ovens.map(({ at, oven }): Reading => ({ at, celsius: ovenAirC(oven) }));
  const first = heard[0]?.at ?? Infinity;
  const air = heard.length
    ? [
        ...program.filter((reading) => reading.at < first),
        ...heard,
        ...program.filter((reading) => reading.at > last!.at && !probed),
      ]
    : program;
  // A hot oven has lost its air at the door, and not the heat of its walls.
  const { wallsC: wallsFromC } = ovens[0]!.oven;
  const until = air.at(-1)!.at < now ? [...air, { at: now, celsius: air.at(-1)!.celsius }] : air;
  const course =
    until.length > 1
      ? cureFromLog({ law, headLagS, readings: until, fromC: input.roomC ?? 20, wallsFromC, gapS: 1e9 })
      : null;
  const points = course?.points ?? [{ at: now, airC: program[0]!.celsius, metalC: input.roomC ?? 20, share: 0 }];
  const end = points.at(-1)!;
  const warm = points.find((point) => point.metalC >= input.airC - WARM_WITHIN_K);
  const full = points.find((point) => point.share >= 1);
  return {
    airC: end.airC,
    metalC: end.metalC,
    cure: end.share,
    warmAt: warm?.at ?? null,
    fullAt: full?.at ?? forecast(input, ovens.at(-1)!.oven, end),
    probed,
    forgotten,
    points,
  };
}

/**
 * When a load comes out: a count from the door runs from there; one from the metal waits as long as the metal does, and
 * at least as long as was reckoned.
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

/** When the rest of the cure will be had: the oven going on as it is, the metal behind. */
function forecast(input: RunningBake, byProgram: OvenNow, now: { airC: number; metalC: number; share: number }) {
  // By a probe the walls are as warm as their air, unless a door has just let that out.
  const openedLately = input.doors.some((door) => input.now - (door.toAt ?? input.now) < 1000 * input.ovenLagS);
  const wallsC = openedLately ? byProgram.wallsC : Math.min(byProgram.wallsC, now.airC);
  let oven: OvenNow = { ...byProgram, wallsC, belowK: wallsC - now.airC };
  const step = bakeStep(input);
  let metal: HeadInOven = { ...now, wallsC };
  for (let seconds = 0; seconds < LONGEST_S; seconds += STEP_S) {
    if (metal.share >= 1) return input.now + seconds * 1000;
    const fromC = ovenAirC(oven);
    oven = ovenAfter(input, oven, STEP_S, false);
    metal = step(metal, { fromC, toC: ovenAirC(oven), seconds: STEP_S });
  }
  return null;
}
