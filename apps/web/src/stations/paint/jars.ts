import type { JarView } from '@schmelz/contract';
import { jarEfficiency, type JarEfficiency } from '@schmelz/core';
import { useMemo } from 'react';
import { useJars } from '../../api/queries.ts';

/** All stretches between weighings, of every jar; one in which nothing went teaches nothing. */
export const stretchesOf = (jars: readonly JarView[]) =>
  jars.flatMap((jar) => jar.intervals).filter(({ usedKg, onHeadsKg }) => usedKg > 0 && onHeadsKg > 0);

/** What stays on the heads, by every jar that was weighed. */
export function useKnownEfficiency(): JarEfficiency | undefined {
  const { data: jars } = useJars();
  return useMemo(() => jars && jarEfficiency(stretchesOf(jars)), [jars]);
}
