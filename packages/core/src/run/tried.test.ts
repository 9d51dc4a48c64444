import type { PourEntry, PourSetup } from './pour-log.ts';
import { triedIn, triedSays } from './tried.ts';

const load = (position: number, moldId = 'm') => ({
  ...{ moldId, position, cavityId: `${moldId}${position}`, ticketIds: ['t'], hookMaterialId: null, hookKg: 0 },
  ...{ inserts: [], leadKg: 0.01, sprueKg: 0.003, yieldShare: 0.9 },
});
const setup: PourSetup = {
  molds: ['m', 'n'].map((moldId) => ({
    ...{ moldId, plannedBlanks: 0, plannedShots: 20, openS: 2, inspectS: 5, loadS: 20 },
  })),
  atOnce: 1,
  loads: [load(1), load(2), load(1, 'n')],
  needs: { t: 100 },
  hooksOut: {},
};
let count = 0;
const shot = (at: number, shorts: number[], moldId = 'm'): PourEntry[] => {
  const id = `s${(count += 1)}`;
  const positions = moldId === 'm' ? [1, 2] : [1];
  return [
    { id, at, kind: 'shot', moldId, positions },
    ...shorts.map((position): PourEntry => {
      return { id: `${id}-${position}`, at, kind: 'reject', shotId: id, position, cause: 'short', goes: 'melt' };
    }),
  ];
};
const said = (at: number, what: 'injected' | 'tilted'): PourEntry => ({ id: `d${at}`, at, kind: 'done', what });

test('the shorts before and after what was tried, as far as the next thing that was tried', () => {
  const log = [
    ...[1, 2, 3].flatMap((at) => shot(at, [1])),
    said(4, 'injected'),
    ...shot(5, [2]),
    ...shot(6, []),
    said(7, 'tilted'),
    ...shot(8, []),
  ];
  expect(triedIn(setup, log)).toEqual([
    { what: 'injected', at: 4, before: { shorts: 3, casts: 6 }, after: { shorts: 1, casts: 4 } },
    { what: 'tilted', at: 7, before: { shorts: 1, casts: 4 }, after: { shorts: 0, casts: 2 } },
  ]);
});

test('no more than six shots on either side, and nothing where there is none', () => {
  const many = [...Array(10).keys()].flatMap((at) => shot(at, at < 4 ? [1] : []));
  const log = [...many, said(20, 'tilted'), ...[...Array(9).keys()].flatMap((at) => shot(30 + at, []))];
  expect(triedIn(setup, log)).toEqual([
    { what: 'tilted', at: 20, before: { shorts: 0, casts: 12 }, after: { shorts: 0, casts: 12 } },
  ]);
  expect(triedIn(setup, [said(1, 'injected'), ...shot(2, [1])])).toEqual([]);
  expect(triedIn(setup, [...shot(2, [1]), said(3, 'injected')])).toEqual([]);
});

test('a mold that was smoked is held against its own shots; what was taken back was not tried', () => {
  const log: PourEntry[] = [
    ...shot(1, [1], 'n'),
    ...shot(2, [1, 2]),
    { id: 'smoke', at: 3, kind: 'smoked', moldId: 'n' },
    ...shot(4, [], 'n'),
    ...shot(5, [1, 2]),
  ];
  expect(triedIn(setup, log)).toEqual([
    { what: 'smoked', at: 3, before: { shorts: 1, casts: 1 }, after: { shorts: 0, casts: 1 } },
  ]);
  expect(triedIn(setup, [...log, { id: 'u', at: 6, kind: 'undo', target: 'smoke' }])).toEqual([]);
});

test('only what chance would hardly do is called fewer or more', () => {
  const says = (a: number, b: number, casts = 12) =>
    triedSays({ before: { shorts: a, casts }, after: { shorts: b, casts } });
  expect(says(6, 0)).toBe('fewer');
  expect(says(0, 6)).toBe('more');
  // One short less of twelve, or none of three: nobody can tell.
  expect(says(2, 1)).toBe('may be chance');
  expect(says(1, 0, 3)).toBe('may be chance');
});
