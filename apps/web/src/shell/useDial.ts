import type { DialMark } from '@schmelz/contract';
import { PROBE_SD_K, SKIN_SD_K, tableOfMarks, type DialPair } from '@schmelz/core';
import { useEffect, useMemo } from 'react';
import { useRecords } from '../api/queries.ts';
import { moment } from '../units/dates.ts';
import { useFit } from '../workers/useFit.ts';

/** Standing marks as pairs with the doubt that goes with how they were read. */
export const pairsOf = (marks: readonly DialMark[]): (DialPair & { how: string })[] =>
  marks
    .filter((mark) => !mark.struck)
    .map(({ dial, temperatureC, at, how }) => ({
      dial,
      temperatureC,
      at,
      how,
      sdK: how === 'probe' ? PROBE_SD_K : SKIN_SD_K,
    }));

/**
 * A pot's dial as it reads today, fitted in a worker from its pairs: a dial that drifts is not the dial of last winter.
 * `table` is null while there are too few marks or the fit is under way.
 */
export function useDial(potId: string | undefined) {
  const { data: marks } = useRecords('dial', potId);
  const pairs = useMemo(() => pairsOf(marks ?? []), [marks]);
  const { state, run, stop } = useFit('dial');
  useEffect(() => {
    if (pairs.length > 0) void run({ pairs, at: moment() });
  }, [pairs, run]);
  const fit = state.status === 'done' && pairs.length > 0 ? state.result : null;
  const table = useMemo(() => (fit?.marks ? tableOfMarks(fit.marks) : null), [fit]);
  return { marks, pairs, table, drift: fit?.drift ?? null, state, stop };
}
