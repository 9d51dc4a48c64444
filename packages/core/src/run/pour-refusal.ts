import type { UndoEntry } from '../log/log.ts';
import type { PourEntry, PourLog, PourSetup } from './pour-log.ts';
import { loadsOf, pourState } from './pour.ts';

/**
 * What a new entry of a pour may not do, in words; null when it may. The server asks it before it takes an entry, the
 * bench
 * before it says one.
 */
export function pourRefusal(setup: PourSetup, log: PourLog, entry: PourEntry | UndoEntry): string | null {
  if (entry.kind === 'undo') {
    return log.some((each) => each.id === entry.target) ? null : 'There is no such entry in this pour.';
  }
  const state = pourState(setup, log);
  if (state.phase === 'closed') return 'This pour is closed. Undo the closing first.';
  if ('moldId' in entry && !setup.molds.some((mold) => mold.moldId === entry.moldId)) {
    return `moldId is ${entry.moldId}; allowed: the molds of this pour`;
  }
  if (entry.kind === 'shot') {
    const loaded = loadsOf(setup, entry.moldId);
    const unused = entry.positions.find((position) => !loaded.some((load) => load.position === position));
    if (unused !== undefined) return `positions names cavity ${unused}; allowed: the cavities loaded for this pour`;
  }
  if (entry.kind === 'blocked' || entry.kind === 'weighed') {
    if (!loadsOf(setup, entry.moldId).some((load) => load.position === entry.position)) {
      return `position is ${entry.position}; allowed: the cavities loaded for this pour`;
    }
  }
  if (entry.kind === 'hooks' && setup.hooksOut[entry.materialId] === undefined) {
    return `materialId is ${entry.materialId}; allowed: the hooks counted out for this pour`;
  }
  if (entry.kind === 'reject') {
    const shot = state.shots.find((each) => each.id === entry.shotId);
    if (!shot?.heads.some((head) => head.position === entry.position)) {
      return `cavity ${entry.position} was not filled in that shot`;
    }
  }
  if (entry.kind === 'close' && state.chargedKg <= 0) return 'Nothing was charged in this pour yet.';
  return null;
}
