import { typicalHook, type HookSize, type Wire } from '../geometry/hook.ts';
import { quantityText } from '../quantity/said.ts';

export const BENDS = ['round', 'wide'] as const;
export type Bend = (typeof BENDS)[number];

export type Seat = 'as cut' | 'if bent' | 'with a change' | 'no';

/** What a cavity was cut for. */
export interface CavityCut {
  hookSize: HookSize;
  eyeAngleDeg: number;
  wire?: Wire;
  bend?: Bend;
}
/** A hook that is offered to it; measured dimensions outrank those that its size number stands for. */
export interface HookOffered extends CavityCut {
  lengthM?: number | null;
  wireM?: number | null;
}
export interface SeatEstimate {
  seat: Seat;
  because: string;
}

/** A groove takes a hook this much longer or shorter than it was cut for. Common practice, no source. */
const LENGTH_PLAY_SHARE = 0.045;
/** A groove takes wire this much thicker. Common practice, no source. */
const WIRE_PLAY_SHARE = 0.11;
/** Grinding makes room for a hook this much longer, not more. Common practice, no source: two sizes up. */
const GRIND_SHARE = 0.25;

const dimensions = ({ hookSize, wire, ...own }: HookOffered) => {
  const usual = typicalHook(hookSize, wire ?? 'standard');
  return { lengthM: own.lengthM ?? usual.lengthM, wireM: own.wireM ?? usual.wireM };
};
const mm = (m: number) => quantityText((m * 1000).toFixed(m < 0.01 ? 2 : 1), 'mm');

/**
 * Does a hook seat in a cavity cut for another? Length and wire are compared, the usual ones of the size where none are
 * measured; an eye within 2 degrees (30 where 28 was meant) lies in its slot; a 45 degree eye can be opened to 60 in
 * pliers; a longer or thicker hook needs its groove ground out. Common practice, no source; a maker's own trial
 * outranks it.
 * @example seatOf({ hookSize: '1', eyeAngleDeg: 28 }, { hookSize: '1', eyeAngleDeg: 30 }).seat // 'as cut'
 */
export function seatOf(cut: CavityCut, hook: HookOffered): SeatEstimate {
  const [groove, offered] = [dimensions(cut), dimensions(hook)];
  const longer = offered.lengthM / groove.lengthM - 1;
  const off = Math.abs(hook.eyeAngleDeg - cut.eyeAngleDeg);
  if (longer < -LENGTH_PLAY_SHARE) {
    return {
      seat: 'no',
      because: `${hook.hookSize}, ${mm(offered.lengthM)}, is loose in a groove cut for ${cut.hookSize}, ${mm(groove.lengthM)}`,
    };
  }
  if (longer > GRIND_SHARE)
    return { seat: 'no', because: `${hook.hookSize} is too large for a groove cut for ${cut.hookSize}` };
  if (off > 2 && !(hook.eyeAngleDeg === 45 && cut.eyeAngleDeg === 60)) {
    return { seat: 'no', because: `a ${hook.eyeAngleDeg}° eye does not lie in a slot cut for ${cut.eyeAngleDeg}°` };
  }
  if (longer > LENGTH_PLAY_SHARE)
    return {
      seat: 'with a change',
      because: `the groove for ${cut.hookSize} must be ground out to ${mm(offered.lengthM)}`,
    };
  if ((hook.bend ?? 'round') === 'wide' && (cut.bend ?? 'round') === 'round') {
    return { seat: 'with a change', because: 'its wide bend wants the groove opened at the bend' };
  }
  if (offered.wireM > groove.wireM * (1 + WIRE_PLAY_SHARE)) {
    return {
      seat: 'with a change',
      because: `${mm(offered.wireM)} wire holds a mold open that is cut for ${mm(groove.wireM)}: deepen the groove`,
    };
  }
  if (off > 2) return { seat: 'if bent', because: 'open the eye from 45° to 60° in pliers first' };
  const loose = offered.wireM < groove.wireM * (1 - WIRE_PLAY_SHARE);
  return {
    seat: 'as cut',
    because: loose
      ? `cut for ${cut.hookSize}; its thin wire lies loose: look for flash`
      : `cut for ${cut.hookSize}, ${cut.eyeAngleDeg}°`,
  };
}

export const TRIAL_PREPARED = ['as it is', 'eye bent', 'mold changed'] as const;
/** What the maker found by closing the mold on it. */
export interface SeatTrial {
  at: number;
  prepared: (typeof TRIAL_PREPARED)[number];
  /** Closed properly, the mold clicks; a thud means a hook is holding it open. */
  sound: 'click' | 'thud';
  seamFlush: boolean;
  note: string;
}
export interface SeatVerdict extends SeatEstimate {
  /** `measured`: tried; `given`: the estimate. */
  basis: 'measured' | 'given';
  estimate: SeatEstimate;
  trials: number;
}

const SEAT_OF: Record<SeatTrial['prepared'], Seat> = {
  'as it is': 'as cut',
  'eye bent': 'if bent',
  'mold changed': 'with a change',
};
const RANK: readonly Seat[] = ['as cut', 'if bent', 'with a change', 'no'];

const newestOfEachWay = (trials: readonly SeatTrial[]) => {
  const newest = new Map<Seat, SeatTrial>();
  for (const trial of [...trials].sort((a, b) => a.at - b.at)) newest.set(SEAT_OF[trial.prepared], trial);
  return newest;
};
const seated = (trial: SeatTrial) => trial.sound === 'click' && trial.seamFlush;

/**
 * Hooks that were tried in a cavity, by part: whether it closes on them in some way that was found, by the newest trial
 * of each way.
 * @example triedHooks([{ ...trial, hookId: "a", sound: "click", seamFlush: true }]) // { a: true }
 */
export function triedHooks(trials: readonly (SeatTrial & { hookId: string })[]): Record<string, boolean> {
  const hooks = new Set(trials.map(({ hookId }) => hookId));
  return Object.fromEntries(
    [...hooks].map((id) => [
      id,
      [...newestOfEachWay(trials.filter(({ hookId }) => hookId === id)).values()].some(seated),
    ]),
  );
}

/**
 * The estimate, outranked by what was tried: the easiest way that clicked with a flush seam, by the newest trial of
 * each way.
 * @example seatVerdict({ hookSize: '2/0', eyeAngleDeg: 60 }, { hookSize: '2/0', eyeAngleDeg: 60 }, []).basis
 *   // 'given'
 */
export function seatVerdict(cut: CavityCut, hook: HookOffered, trials: readonly SeatTrial[]): SeatVerdict {
  const estimate = seatOf(cut, hook);
  if (trials.length === 0) return { ...estimate, basis: 'given', estimate, trials: 0 };
  const newest = newestOfEachWay(trials);
  const seats = [...newest].filter(([, trial]) => seated(trial));
  const best = RANK.find((seat) => seats.some(([each]) => each === seat));
  const last = [...newest.values()].sort((a, b) => b.at - a.at)[0]!;
  const note = last.note ? `: ${last.note}` : '';
  if (best)
    return {
      seat: best,
      because: `tried, it clicks and the seam is flush${note}`,
      basis: 'measured',
      estimate,
      trials: trials.length,
    };
  // A way that was not tried yet may still work where the estimate says so; what was tried does not.
  const open = newest.has(estimate.seat) ? 'no' : estimate.seat;
  const because = `tried, ${last.sound === 'thud' ? 'it thuds' : 'the seam is not flush'}${note}`;
  return { seat: open === 'as cut' ? 'no' : open, because, basis: 'measured', estimate, trials: trials.length };
}
