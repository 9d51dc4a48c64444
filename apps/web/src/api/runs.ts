import type { RunView } from '@schmelz/contract';
import { hasBegun, type RunEntry, type RunKindId, type UndoEntry } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { ApiProblem, call } from './client.ts';
import { useSaidUnder } from './outbox.ts';

/** A run that was begun on this device may not have reached the server yet: null, and no error. */
export const useRunOnServer = (kind: RunKindId, id: string) =>
  useQuery({
    queryKey: ['runs', kind, id],
    queryFn: () =>
      call('GET /runs/:kind/:id', { params: { kind, id } }).catch((error: unknown) => {
        if (error instanceof ApiProblem && error.problem.status === 404) return null;
        throw error;
      }),
    refetchInterval: 5000,
  });

const mergedLog = (onServer: readonly (RunEntry | UndoEntry)[], here: readonly unknown[]): RunView['log'] => {
  const all = new Map<string, RunEntry | UndoEntry>(onServer.map((entry) => [entry.id, entry]));
  for (const entry of here as (RunEntry | UndoEntry)[]) all.set(entry.id, entry);
  return [...all.values()];
};

/**
 * Runs of a kind as this device knows them: what the server has, what was said here since, and runs that were begun
 * here and have not reached the server yet.
 */
export function useRuns(onServer: readonly RunView[] | undefined, kind: RunKindId = 'oven'): RunView[] {
  const said = useSaidUnder(`/runs/${kind}/`);
  return useMemo(() => {
    const known = (onServer ?? []).map((run) => {
      const here = run.kind === kind ? said.get(run.id) : undefined;
      return here ? { ...run, log: mergedLog(run.log, here) } : run;
    });
    const begun = [...said]
      .filter(([id]) => !known.some((run) => run.id === id))
      .map(([id, here]): RunView => ({ id, kind, number: 0, version: 0, log: mergedLog([], here) }));
    return [...known, ...begun].filter(hasBegun);
  }, [onServer, kind, said]);
}
