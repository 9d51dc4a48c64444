import { nextMix, type GlueTogether } from '@schmelz/core';
import { newId } from '../../api/id.ts';
import { sayToLog } from '../../api/outbox.ts';
import { runPath } from '../../shell/line-state.ts';

/** Mixes it and begins: a run, by an id of this device. Gives the path of its bench. */
export function beginMix(glue: GlueTogether): string {
  const id = newId();
  const { partId, name, potLifeS, setS, plan } = glue;
  const mixedMl = plan?.mixes[0]?.ml;
  sayToLog(`/runs/glue/${id}`, { kind: 'begin', partId, name, heads: nextMix(glue), potLifeS, setS, mixedMl });
  return runPath('glue', id);
}
