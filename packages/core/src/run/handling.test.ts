import { handledSays, handlingOf, settledLevers, workedIn } from './handling.ts';
import type { PourEntry, PourSetup, RoutineWork } from './pour-log.ts';

const load = (position: number, moldId = 'm') => ({
  ...{ moldId, position, cavityId: `${moldId}${position}`, ticketIds: ['t'], hookMaterialId: null, hookKg: 0 },
  ...{ inserts: [], leadKg: 0.01, sprueKg: 0.003, yieldShare: 0.9 },
});
const setup: PourSetup = {
  molds: ['m', 'n'].map((moldId) => ({
    ...{ moldId, plannedBlanks: 0, plannedShots: 50, openS: 2, inspectS: 5, loadS: 20 },
  })),
  atOnce: 1,
  loads: [load(1), load(2), load(1, 'n')],
  needs: { t: 500 },
  hooksOut: {},
};

/** A pour as it is told: blank shots, shots with the cavities that came short, what was tried. */
function poured(...told: (RoutineWork | 'blank' | number[] | { in: 'n'; short: number[] })[]) {
  const log = told.flatMap((each, i): PourEntry[] => {
    const [id, at] = [`e${i}`, 1000 * (i + 1)];
    if (each === 'blank') return [{ id, at, kind: 'blank', moldId: 'm' }];
    if (typeof each === 'string') return [{ id, at, kind: 'done', what: each }];
    const [moldId, short] = Array.isArray(each) ? ['m', each] : [each.in, each.short];
    const positions = moldId === 'm' ? [1, 2] : [1];
    return [
      { id, at, kind: 'shot', moldId, positions },
      ...short.map((position): PourEntry => {
        return { id: `${id}-${position}`, at, kind: 'reject', shotId: id, position, cause: 'short', goes: 'melt' };
      }),
    ];
  });
  return { setup, log };
}
const times = <T>(count: number, each: T): T[] => Array.from({ length: count }, () => each);

test('what was tried is added up over pours, the surest first; another mold says nothing of this one', () => {
  // By hand: twice six shots with 1 and 2 short, then pressed: none; once tipped with nothing to tell it by.
  const pours = [
    poured(...times(6, [1, 2]), 'injected', ...times(6, []), 'last cavity low', ...times(6, [])),
    poured(...times(6, [1, 2]), { in: 'n', short: [1] }, 'injected', ...times(6, []), { in: 'n', short: [1] }),
  ];
  const { handled } = handlingOf('m', pours);
  expect(handled[0]).toEqual({
    ...{ what: 'injected', position: null, times: 2, says: 'fewer' },
    ...{ before: { shorts: 24, casts: 24 }, after: { shorts: 0, casts: 24 } },
  });
  const tipped = handled.find(({ what, position }) => what === 'last cavity low' && position === null)!;
  expect(tipped).toMatchObject({ says: 'may be chance', before: { shorts: 0, casts: 12 } });
  expect(handlingOf('n', pours).handled).toEqual([
    expect.objectContaining({ what: 'injected', says: 'may be chance', before: { shorts: 1, casts: 1 } }),
  ]);
  expect(handledSays(handled[0]!)).toBe('Pressed against the spout: 24 of 24 short, then 0 of 24');
});

test('a cavity of its own: what helps one and harms the other is told apart', () => {
  const { handled } = handlingOf('m', times(3, poured(...times(6, [1]), 'first cavity low', ...times(6, [2]))));
  expect(handled.map(({ position, says }) => [position, says])).toEqual([
    [1, 'fewer'],
    [null, 'may be chance'],
    [2, 'more'],
  ]);
  expect(workedIn(handled, 1).map(({ what }) => what)).toEqual(['first cavity low']);
  expect(workedIn(handled, 2)).toEqual([]);
  // It is not asked for again in either: once because it is said as it was tried, once because it made it worse.
  expect(settledLevers(handled, 1)).toEqual(['tilt']);
  expect(settledLevers(handled, 2)).toEqual(['tilt']);
  expect(settledLevers(handled, 3)).toEqual([]);
});

describe('blank shots that are sure', () => {
  const evening = (blanks: number, short: number[]) => poured(...times(blanks, 'blank' as const), short, short, []);

  test('the fewest from which on the first heads came good', () => {
    const pours = [evening(2, [1, 2]), evening(3, [1]), evening(4, []), evening(4, []), evening(5, [])];
    // By hand: from four on three evenings of four first heads, none short.
    expect(handlingOf('m', pours).blanks).toEqual({ blanks: 4, first: { shorts: 0, casts: 12 }, pours: 3 });
  });
  test('too few heads, or none that came good, say nothing', () => {
    expect(handlingOf('m', [evening(4, []), evening(4, [])]).blanks).toBeNull();
    expect(handlingOf('m', times(5, evening(4, [1]))).blanks).toBeNull();
    expect(handlingOf('m', []).blanks).toBeNull();
  });
});
