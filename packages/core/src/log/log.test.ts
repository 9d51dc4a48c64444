import {
  LONGEST_WORK_GAP_S,
  nextRedo,
  nextUndo,
  partOfLog,
  standing,
  undoRefusal,
  workSeconds,
  type Entry,
  type UndoEntry,
} from './log.ts';

const said = (id: string, at = 0, kind = 'tap'): Entry => ({ id, at, kind });
const undo = (id: string, target: string, at = 0): UndoEntry => ({ id, at, kind: 'undo', target });
const ids = (log: readonly Entry[]) => standing<Entry>(log as (Entry | UndoEntry)[]).map((entry) => entry.id);

describe('what stands in a log', () => {
  test('all that was said, in order of time, each once, however often it was delivered', () => {
    const log = [said('b', 2000), said('a', 1000), said('b', 2000), said('c', 3000), said('a', 1000)];
    expect(ids(log)).toEqual(['a', 'b', 'c']);
    expect(ids([])).toEqual([]);
    // Of one moment they stay as they came.
    expect(ids([said('y', 5), said('x', 5)])).toEqual(['y', 'x']);
  });

  test('not what was taken back; and again what was brought back, at any depth', () => {
    const log: (Entry | UndoEntry)[] = [said('a'), said('b')];
    const steps: [UndoEntry, string[]][] = [
      [undo('u1', 'b'), ['a']],
      [undo('u2', 'u1'), ['a', 'b']],
      [undo('u3', 'u2'), ['a']],
      [undo('u4', 'u3'), ['a', 'b']],
      [undo('u5', 'a'), ['b']],
      [undo('u6', 'b'), []],
      [undo('u7', 'u5'), ['a']],
    ];
    for (const [entry, left] of steps) {
      log.push(entry);
      expect([entry.id, ids(log)]).toEqual([entry.id, left]);
    }
    // Delivered once more, the undos take nothing back that was brought back since.
    expect(ids([...log, ...log])).toEqual(['a']);
  });

  test('taken back twice is taken back; one of the two undone leaves it so', () => {
    const log = [said('a'), undo('u1', 'a'), undo('u2', 'a'), undo('u3', 'u2')];
    expect(ids(log)).toEqual([]);
  });
});

describe('what the keys mean', () => {
  test('undo takes the newest that stands; bring back, the newest undo, until something new is said', () => {
    const log: (Entry | UndoEntry)[] = [said('a', 1), said('b', 2)];
    expect([nextUndo(log)?.id, nextRedo(log)]).toEqual(['b', undefined]);
    log.push(undo('u1', 'b', 3), undo('u2', 'a', 4));
    expect([nextUndo(log), nextRedo(log)?.id]).toEqual([undefined, 'u2']);
    log.push(undo('r1', 'u2', 5));
    expect([nextUndo(log)?.id, nextRedo(log)?.id]).toEqual(['a', 'u1']);
    log.push(undo('r2', 'u1', 6));
    expect([nextUndo(log)?.id, nextRedo(log)]).toEqual(['b', undefined]);
    expect(nextRedo([said('a'), undo('u', 'a'), said('c')])).toBeUndefined();
    expect(nextRedo([])).toBeUndefined();
  });

  test('a part of a log has what was taken back of it, and of nothing else', () => {
    const log = [said('a', 1, 'here'), said('b', 2, 'there'), undo('u', 'b'), undo('v', 'a'), undo('w', 'v')];
    const part = partOfLog<Entry>(log, (entry) => entry.kind === 'here');
    expect(part.map((entry) => entry.id)).toEqual(['a', 'v', 'w']);
    expect(nextRedo(partOfLog<Entry>(log, (entry) => entry.kind === 'there'))?.id).toBe('u');
  });

  test('what is not there, or was taken back, may not be taken back', () => {
    const log = [said('a'), undo('u', 'a')];
    expect(undoRefusal(log, undo('x', 'nothing'))).toBe('There is no such entry here to take back.');
    expect(undoRefusal(log, undo('x', 'a'))).toBe('That was taken back already.');
    expect(undoRefusal(log, undo('x', 'u'))).toBeNull();
    expect(undoRefusal([said('a')], undo('x', 'a'))).toBeNull();
  });
});

describe('seconds at work', () => {
  const at = (seconds: number, kind = 'good', more = {}) => ({
    ...said(`${kind}${seconds}`, seconds * 1000, kind),
    ...more,
  });

  test('from each to the next; what leads up to an entry of a run is shared', () => {
    expect(workSeconds([at(0), at(10), at(25)])).toBe(25);
    expect(workSeconds([at(0), at(10, 'unload', { share: 0.25 }), at(14)])).toBeCloseTo(2.5 + 4, 12);
    expect(workSeconds([at(5)])).toBe(0);
    expect(workSeconds([])).toBe(0);
  });

  test.each(['pause', 'charge', 'load', 'coat'])('not after a %s: that runs by itself', (kind) => {
    expect(workSeconds([at(0), at(10, kind), at(70), at(75)])).toBe(15);
  });

  test('a gap in which somebody went away counts a quarter of an hour; a clock that went back nothing', () => {
    expect(LONGEST_WORK_GAP_S).toBe(15 * 60);
    expect(workSeconds([at(0), at(900)])).toBe(900);
    expect(workSeconds([at(0), at(7200)])).toBe(900);
    expect(workSeconds([at(100), at(40)])).toBe(0);
  });
});
