import type { DipTogether } from '@schmelz/core';
import { newId } from '../../api/id.ts';
import { sayToLog } from '../../api/outbox.ts';
import { runPath } from '../../shell/line-state.ts';

/** Begins to dip heads that wait for the same paint: a run, by an id of this device. Gives the path of its bench. */
export function beginDip({ powderId, name, heads }: DipTogether): string {
  const id = newId();
  sayToLog(`/runs/dip/${id}`, { kind: 'begin', partId: powderId, name, heads });
  return runPath('dip', id);
}
