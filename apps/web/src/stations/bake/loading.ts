import type { Oven } from '@schmelz/contract';
import { loadSaid, type HeadsInRun, type HungHead, type PlanBake } from '@schmelz/core';
import { newId } from '../../api/id.ts';
import { sayToLog } from '../../api/outbox.ts';

/** The door is shut on heads of one ticket or of several: a run begins, by an id of this device. */
export function loadOven(
  heads: HeadsInRun[],
  hung: readonly HungHead[],
  program: PlanBake,
  oven: Oven | undefined,
): string {
  const id = newId();
  sayToLog(`/runs/oven/${id}`, loadSaid(heads, hung, program, oven));
  return id;
}
