import type { MeansOfEvening } from './place.ts';

/** The hours in which somebody is there, one after another as if there were no nights between them. */
export interface Hours {
  /** How many of them have passed by a time, s. */
  passed(atS: number): number;
  /** The first and the last time by which so many have passed, s: between them is a night, or nothing. */
  earliest(passedS: number): number;
  latest(passedS: number): number;
  /** From a time on, when first there is so much time without a night in it, s. */
  fitsFrom(atS: number, seconds: number): number;
  /** Until a time, when last such a time is over, s. */
  fitsUntil(atS: number, seconds: number): number;
}

const SAME_S = 1e-6;

/** Where somebody is always there. */
const ALWAYS: Hours = {
  passed: (atS) => atS,
  earliest: (passedS) => passedS,
  latest: (passedS) => passedS,
  fitsFrom: (atS) => atS,
  fitsUntil: (atS) => atS,
};

/**
 * Counts in the hours of some evenings. After the last of them somebody is always there, as where work goes over its
 * end.
 * @example hoursOf([{ fromS: 0, toS: 3600 }, { fromS: 86_400, toS: 90_000 }]).earliest(3601) // 86401
 */
export function hoursOf(windows: MeansOfEvening['windows']): Hours {
  if (!windows?.length) return ALWAYS;
  const sorted = [...windows].sort((a, b) => a.fromS - b.fromS);
  const open = sorted.map((window, at) => ({
    ...{ fromS: window.fromS, toS: at === sorted.length - 1 ? Infinity : window.toS },
    beforeS: sorted.slice(0, at).reduce((sum, { fromS, toS }) => sum + toS - fromS, 0),
  }));
  const lastOf = (of: (window: (typeof open)[number]) => boolean) => open.findLast(of) ?? open[0]!;
  return {
    passed: (atS) => {
      const { fromS, toS, beforeS } = lastOf((window) => window.fromS <= atS);
      return beforeS + Math.min(Math.max(0, atS - fromS), toS - fromS);
    },
    earliest: (passedS) => {
      const { fromS, beforeS } = lastOf((window) => window.beforeS < passedS);
      return fromS + Math.max(0, passedS - beforeS);
    },
    latest: (passedS) => {
      const { fromS, beforeS } = lastOf((window) => window.beforeS <= passedS);
      return fromS + passedS - beforeS;
    },
    fitsFrom: (atS, seconds) => {
      const window = open.find(({ fromS, toS }) => Math.max(atS, fromS) + seconds <= toS + SAME_S);
      return Math.max(atS, window!.fromS);
    },
    fitsUntil: (atS, seconds) => {
      const window = open.findLast(({ fromS, toS }) => Math.min(atS, toS) - fromS >= seconds - SAME_S);
      return window ? Math.min(atS, window.toS) : -Infinity;
    },
  };
}
