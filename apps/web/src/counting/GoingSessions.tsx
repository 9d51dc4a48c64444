import type { RunView } from '@schmelz/contract';
import { headsOf, sessionState, type SessionLog } from '@schmelz/core';
import { Link } from 'react-router';
import { useRuns } from '../api/runs.ts';
import { Button } from '../design/Button.tsx';
import { runPath } from '../shell/line-state.ts';

/** Sessions of a kind that are under way, and the tickets that are in one of them. */
export function useGoing(runs: readonly RunView[] | undefined, kind: 'dip' | 'glue') {
  const going = useRuns(runs, kind)
    .filter((run) => run.kind === kind)
    .map((run) => ({ id: run.id, kind, state: sessionState(run.log as SessionLog) }))
    .filter(({ state }) => state.endedAt === null);
  return { going, busy: new Set(going.flatMap(({ state }) => state.heads.map(({ ticketId }) => ticketId))) };
}

/** A row each, with the way back to its bench. */
export const GoingSessions = ({ going }: Pick<ReturnType<typeof useGoing>, 'going'>) =>
  going.map(({ id, kind, state }) => (
    <li key={id} className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule py-3">
      <b className="font-medium">{state.name}</b>
      <span className="quiet">
        {state.done} of {headsOf(state.heads)} done
      </span>
      <Button look="main" asChild className="ml-auto">
        <Link to={runPath(kind, id)}>Go on</Link>
      </Button>
    </li>
  ));
