import { bagsOf, LABEL_SHEETS, labelPlaces, labelSheet, PAPERS } from './labels.ts';

test.each(LABEL_SHEETS.map((sheet) => [sheet.id, sheet] as const))(
  '%s lies on its paper, label beside label',
  (_name, sheet) => {
    // ISO 216: A4 is 210 x 297 mm; ANSI/ASME Y14.1: letter is 8.5 x 11 inches.
    const paper = { A4: [0.21, 0.297], Letter: [8.5 * 0.0254, 11 * 0.0254] }[sheet.paper];
    expect([PAPERS[sheet.paper].widthM, PAPERS[sheet.paper].heightM]).toEqual([
      expect.closeTo(paper[0]!, 9),
      expect.closeTo(paper[1]!, 9),
    ]);
    const places = labelPlaces(sheet, sheet.columns * sheet.rows);
    for (const { xM, yM, page } of places) {
      expect(page).toBe(0);
      expect(xM).toBeGreaterThanOrEqual(0);
      expect(xM + sheet.widthM).toBeLessThanOrEqual(paper[0]! + 1e-9);
      expect(yM + sheet.heightM).toBeLessThanOrEqual(paper[1]! + 1e-9);
    }
    // No two overlap.
    expect(sheet.acrossM).toBeGreaterThanOrEqual(sheet.widthM);
    expect(sheet.downM).toBeGreaterThanOrEqual(sheet.heightM);
    // About as much paper on the right as on the left: die-cut sheets lie in the middle (common practice).
    const right = paper[0]! - (sheet.leftM + (sheet.columns - 1) * sheet.acrossM + sheet.widthM);
    expect(Math.abs(right - sheet.leftM)).toBeLessThan(0.002);
  },
);

test('a sheet that is begun goes on where it is free, and over its end on the next', () => {
  const sheet = labelSheet('a4-24');
  const places = labelPlaces(sheet, 4, 23);
  expect(places.map(({ page }) => page)).toEqual([0, 0, 1, 1]);
  expect(1000 * places[0]!.xM).toBeCloseTo(70, 9);
  expect(1000 * places[0]!.yM).toBeCloseTo(4.5 + 7 * 36, 9);
  expect([places[2]!.xM, 1000 * places[2]!.yM]).toEqual([0, 4.5]);
  expect(() => labelPlaces(sheet, 1, 25)).toThrow(/first free label is 25; allowed: a whole number from 1 to 24/);
  expect(() => labelSheet('a5')).toThrow(/sheet is "?a5.*letter-30/);
});

test('bags: all heads, none twice, the rest in the last', () => {
  expect(bagsOf(28, 5).map(({ count }) => count)).toEqual([5, 5, 5, 5, 5, 3]);
  expect(bagsOf(30, 5)).toHaveLength(6);
  expect(bagsOf(0, 5)).toEqual([]);
  expect(() => bagsOf(10, 0)).toThrow(/heads a bag is 0/);
});
