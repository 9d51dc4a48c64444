import { standing, undoRefusal, type UndoEntry } from '../log/log.ts';
import type { PourEntry, PourLog, PourSetup } from './pour-log.ts';
import { quantityText } from '../quantity/said.ts';
import { inPotKg, loadsOf, pourState, type PourState } from './pour.ts';

/** What must be taken back before: a closed pour is opened first, rejects go before their shot, shots before metal. */
function pourUndoRefusal(log: PourLog, state: PourState, entry: UndoEntry): string | null {
  const why = undoRefusal(log, entry);
  if (why) return why;
  const kept = standing<PourEntry>(log);
  const target = kept.find((each) => each.id === entry.target);
  if (state.phase === 'closed' && target?.kind !== 'close') return 'This pour is closed. Take back its closing first.';
  if (target?.kind === 'shot') {
    const reject = kept.find((each) => each.kind === 'reject' && each.shotId === target.id);
    if (reject?.kind === 'reject') return `Take back first that cavity ${reject.position} of this shot was not good.`;
  }
  if (target?.kind === 'charge' && state.shots.length > 0 && state.chargedKg - target.massKg <= 0) {
    return `Take back first the shots that were poured of this metal: ${state.shots.length}.`;
  }
  return null;
}

/** A pot takes a little more than it is said to hold. Common practice, no source. */
const HEAPED = 1.1;
/** What would run over the rim; of what is in the pot only that counts which is there even with every sprue outside. */
function overfilled({ potHoldsKg = Infinity }: PourSetup, state: PourState, massKg: number): string | null {
  const thereKg = Math.max(0, inPotKg(state) - state.spruesKg);
  if (thereKg + massKg <= HEAPED * potHoldsKg) return null;
  const kg = (mass: number) => quantityText(Math.round(mass * 100) / 100, 'kg');
  const there = thereKg >= 0.005 ? `, and ${kg(thereKg)} are in it` : '';
  return `${kg(massKg)} do not go into this pot: it holds ${kg(potHoldsKg)}${there}.`;
}

/**
 * What a new entry of a pour may not do, in words; null when it may. The server asks it before it takes an entry, the
 * bench before it says one.
 * @example pourRefusal(pour.setup, [], { id: 's', at: 0, kind: 'shot', moldId: 'mold', positions: [1] }) // null
 */
export function pourRefusal(setup: PourSetup, log: PourLog, entry: PourEntry | UndoEntry): string | null {
  const state = pourState(setup, log);
  if (entry.kind === 'undo') return pourUndoRefusal(log, state, entry);
  if (state.phase === 'closed') return 'This pour is closed. Undo the closing first.';
  if (entry.kind === 'charge' || entry.kind === 'feed') return overfilled(setup, state, entry.massKg);
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
    const head = shot?.heads.find((each) => each.position === entry.position);
    if (!head) return `cavity ${entry.position} was not filled in that shot`;
    const { cause, where = null, goes } = entry;
    if (head.verdict === cause && head.where === where && head.goes === goes) {
      return `Cavity ${entry.position} of that shot is marked so already.`;
    }
  }
  const mold = 'moldId' in entry ? state.molds.find((each) => each.moldId === entry.moldId) : undefined;
  if (entry.kind === 'blocked' && mold?.blockedPositions.includes(entry.position)) {
    return `Cavity ${entry.position} is given up already.`;
  }
  if (entry.kind === 'mold' && mold?.away === entry.away) {
    return entry.away ? 'This mold is put away already.' : 'This mold is at the pot already.';
  }
  if (entry.kind === 'pause' && state.phase === 'paused') return 'This pour rests already.';
  if (entry.kind === 'resume' && state.phase !== 'paused') return 'This pour goes on already.';
  if (entry.kind === 'close' && state.chargedKg <= 0) return 'Nothing was charged in this pour yet.';
  return null;
}
