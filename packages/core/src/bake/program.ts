import { inRange, QuantityError } from '../quantity/check.ts';
import type { CureLaw } from './cure-law.ts';
import { cureShare, FULL_ENOUGH, timeToFullCureS } from './cure.ts';
import { airIn, type KnownOven, type OvenLoadHeat } from './known-oven.ts';
import { quantityText } from '../quantity/said.ts';

/** One kind of head in the oven, with the powders on it. */
export interface BakedHead {
  name: string;
  headLagS: number;
  /** What has to be warmed of one, J/K; see bakedHeatJK. */
  heatJK: number;
  laws: readonly { powder: string; law: CureLaw }[];
  /** The part on it that stands the least heat, and how much; null where no limit is on record. */
  hook: string;
  limitC: number | null;
}
interface ProgramInput {
  heads: readonly BakedHead[];
  oven: KnownOven;
  preheated: boolean;
  /** All that hangs there with them; left out, they are few. */
  load?: OvenLoadHeat | undefined;
  /** What the oven can be set to. */
  fromC?: number;
  toC?: number;
  longestS?: number;
}
export interface SolvedProgram {
  /** The oven's mark, which is not what this oven holds. */
  setC: number;
  seconds: number;
  /** Last to be full, and most baked, at the end. */
  slowest: { name: string; powder: string };
  fastest: { name: string; powder: string; cure: number };
}
export interface ProgramAnswer {
  program: SolvedProgram | null;
  /** Where nothing satisfies both: what must give way, in words, with the program each way out would be. */
  conflict: { says: string; ways: { gives: string; program: SolvedProgram | null }[] } | null;
}

/** Twice a full cure only deepens; beyond three times powders yellow and turn brittle. Common practice, no source. */
export const OVER_BAKED = 3;
const LONGEST_S = 90 * 60;

/** The shortest full cure at one mark, with who decides it, or why there is none. */
function programAt(input: ProgramInput, setC: number, longestS: number): SolvedProgram | 'too slow' | 'over-baked' {
  const air = airIn(input.oven, { setC, preheated: input.preheated }, input.load);
  let slowest: { name: string; powder: string; seconds: number } | null = null;
  for (const head of input.heads) {
    for (const { powder, law } of head.laws) {
      const seconds = timeToFullCureS({ law, headLagS: head.headLagS, ...air }, longestS);
      if (seconds === null) return 'too slow';
      if (!slowest || seconds > slowest.seconds) slowest = { name: head.name, powder, seconds };
    }
  }
  if (!slowest) return 'too slow';
  const seconds = Math.ceil(slowest.seconds / 60) * 60;
  let fastest = { name: '', powder: '', cure: 0 };
  for (const head of input.heads) {
    for (const { powder, law } of head.laws) {
      const cure = cureShare({ law, headLagS: head.headLagS, ...air }, seconds);
      if (cure > fastest.cure) fastest = { name: head.name, powder, cure };
    }
  }
  return fastest.cure > OVER_BAKED ? 'over-baked' : { setC, seconds, slowest, fastest };
}

/** The hottest mark at which nothing is over-baked: cooler ones only take longer. Null where there is none in time. */
function shortest(input: ProgramInput, toC: number, longestS: number): SolvedProgram | null {
  for (let setC = Math.floor(toC); setC >= (input.fromC ?? 90); setC--) {
    const program = programAt(input, setC, longestS);
    if (program === 'too slow') return null;
    if (program !== 'over-baked') return program;
  }
  return null;
}

/**
 * The shortest program that fully cures the slowest head, over-bakes none and stays under every hook's limit; where
 * there is none, which of them must give way and what that would be.
 * @throws QuantityError without a painted head
 * @example bakeProgram({ heads: [head], oven, preheated: true }).program.setC // 185
 */
export function bakeProgram(input: ProgramInput): ProgramAnswer {
  const { heads } = input;
  if (heads.length === 0 || heads.some((head) => head.laws.length === 0)) {
    throw new QuantityError('heads', heads.length, '', 'one painted head or more');
  }
  inRange('lag of the oven', input.oven.lagS, 's', 0, 3600);
  const toC = inRange('toC', input.toC ?? 230, 'C', 90, 260);
  const longestS = input.longestS ?? LONGEST_S;
  const limitOf = (head: BakedHead) => head.limitC ?? Infinity;
  const tightest = heads.reduce((a, b) => (limitOf(b) < limitOf(a) ? b : a));
  // The air swings about what it holds, and it holds more or less than its mark.
  const aboveK = input.oven.offsetK + inRange('swing of the oven', input.oven.swingK, 'K', 0, 80);
  const capC = Math.min(toC, limitOf(tightest) - aboveK);
  const program = shortest(input, capC, longestS);
  if (program) return { program, conflict: null };
  const least = leastOver(input, capC, toC, longestS);
  const patient = shortest(input, capC, 8 * 3600);
  return {
    program: null,
    conflict: {
      says: because(input, tightest, patient, least, longestS),
      ways: [
        { gives: 'the hook’s plating: it may colour', program: least },
        { gives: 'the time: a long bake under the limit', program: patient },
        { gives: 'the paint: bake them apart, or take a powder that cures cooler', program: null },
      ],
    },
  };
}

/** The coolest mark above a limit at which all is full in time: what the plating has to bear at the least. */
function leastOver(input: ProgramInput, capC: number, toC: number, longestS: number): SolvedProgram | null {
  for (let setC = Math.max(input.fromC ?? 90, Math.floor(capC) + 1); setC <= toC; setC++) {
    const program = programAt(input, setC, longestS);
    if (program === 'over-baked') return null;
    if (program !== 'too slow') return program;
  }
  return null;
}

/** Why there is no program, by what binds: the limit of a hook, powders that do not go together, or time alone. */
function because(
  { oven }: ProgramInput,
  tightest: BakedHead,
  patient: SolvedProgram | null,
  least: SolvedProgram | null,
  longestS: number,
): string {
  const minutes = (seconds: number) => `${Math.round(seconds / 60)} minutes`;
  const none = `None within ${minutes(longestS)}, because`;
  if (tightest.limitC === null || (!least && !patient)) {
    return `${none} what is full for the slowest powder is too much for the quickest. One of them must give way.`;
  }
  const swing = oven.offsetK + oven.swingK;
  const under = `under the ${quantityText(Math.round(tightest.limitC), '°C')} of ${tightest.hook}${swing > 0 ? `, less ${quantityText(Math.round(swing), 'K')} that this oven goes above its mark,` : ''}`;
  const slowest = patient
    ? `${patient.slowest.powder} on ${patient.slowest.name} takes ${minutes(patient.seconds)}`
    : 'it is not full in eight hours';
  return `${none} ${under} ${slowest}. One of them must give way.`;
}

/** Schedules that are passed on from bench to bench. Common practice, no source. */
export const COMMON_SCHEDULES = [
  { setC: 177, seconds: 1200 },
  { setC: 149, seconds: 1500 },
  { setC: 121, seconds: 1200 },
] as const;

/**
 * What a share of a full cure is worth, plainly. Never forbidden: heads that were only reheated to gloss have survived.
 * @example cureWords(0.5) // 'about half: it chips on the first rock'
 */
export function cureWords(share: number): string {
  if (share >= OVER_BAKED) return 'over-baked: it may yellow and turn brittle';
  if (share >= FULL_ENOUGH) return 'full';
  if (share >= 0.7) return 'nearly: it may chip on rock';
  if (share >= 0.3) return 'about half: it chips on the first rock';
  return 'hardly begun: dry to the touch, not cured';
}
