import { countInRange, QuantityError } from '../quantity/check.ts';

/** A sheet of labels as it is bought, m. */
export interface LabelSheet {
  id: string;
  paper: 'A4' | 'Letter';
  columns: number;
  rows: number;
  widthM: number;
  heightM: number;
  /** From the edges of the paper to the first label, and from label to label. */
  leftM: number;
  topM: number;
  acrossM: number;
  downM: number;
}

/** ISO 216 and ANSI/ASME Y14.1, m. */
export const PAPERS = { A4: { widthM: 0.21, heightM: 0.297 }, Letter: { widthM: 0.2159, heightM: 0.2794 } } as const;

const sheet = (
  id: string,
  paper: LabelSheet['paper'],
  [columns, rows]: [number, number],
  [width, height]: [number, number],
  [left, top]: [number, number],
  [across, down]: [number, number] = [width, height],
): LabelSheet => ({
  ...{ id, paper, columns, rows },
  ...{ widthM: width / 1000, heightM: height / 1000, leftM: left / 1000, topM: top / 1000 },
  ...{ acrossM: across / 1000, downM: down / 1000 },
});

/** Common sheets; what yours measures is on its pack: print one on plain paper and hold it behind. From memory. */
export const LABEL_SHEETS: readonly LabelSheet[] = [
  sheet('a4-24', 'A4', [3, 8], [70, 36], [0, 4.5]),
  sheet('a4-21', 'A4', [3, 7], [63.5, 38.1], [7.25, 15.15], [66, 38.1]),
  sheet('a4-14', 'A4', [2, 7], [99.1, 38.1], [4.65, 15.15], [101.6, 38.1]),
  sheet('letter-30', 'Letter', [3, 10], [66.7, 25.4], [4.75, 12.7], [69.85, 25.4]),
  sheet('letter-10', 'Letter', [2, 5], [101.6, 50.8], [4.1, 12.7], [106.1, 50.8]),
];

/**
 * A sheet by its id.
 * @throws QuantityError for one that is not in the table
 * @example labelSheet('a4-24').columns // 3
 */
export function labelSheet(id: string): LabelSheet {
  const found = LABEL_SHEETS.find((each) => each.id === id);
  if (!found) throw new QuantityError('sheet', id, '', LABEL_SHEETS.map((each) => each.id).join(', '));
  return found;
}

/** Bags of a ticket: so many full ones, and what is left in a last one. */
export interface Bag {
  number: number;
  count: number;
}

/**
 * Heads in bags of so many; the last holds the rest. Range: 0 to 20,000 heads, 1 to 1000 a bag.
 * @example bagsOf(7, 3) // [{ number: 1, count: 3 }, { number: 2, count: 3 }, { number: 3, count: 1 }]
 */
export function bagsOf(heads: number, perBag: number): Bag[] {
  countInRange('heads', heads, 0, 20_000);
  countInRange('heads a bag', perBag, 1, 1000);
  return Array.from({ length: Math.ceil(heads / perBag) }, (_, i) => {
    return { number: i + 1, count: Math.min(perBag, heads - i * perBag) };
  });
}

/** Where a label lies: its page, and its upper left corner on it, m. */
interface LabelPlace {
  page: number;
  xM: number;
  yM: number;
}

/**
 * Places of so many labels, row by row; a sheet that is begun goes on at its first free label. Range: up to 20,000
 * labels; the first free one 1 to all of the sheet.
 * @example labelPlaces(labelSheet('a4-24'), 1, 2) // [{ page: 0, xM: 0.07, yM: 0.0045 }]
 */
export function labelPlaces(of: LabelSheet, count: number, firstFree = 1): LabelPlace[] {
  const onSheet = of.columns * of.rows;
  countInRange('labels', count, 0, 20_000);
  countInRange('first free label', firstFree, 1, onSheet);
  return Array.from({ length: count }, (_, i) => {
    const at = i + firstFree - 1;
    const place = at % onSheet;
    return {
      page: Math.floor(at / onSheet),
      xM: of.leftM + (place % of.columns) * of.acrossM,
      yM: of.topM + Math.floor(place / of.columns) * of.downM,
    };
  });
}

/** What is on every bag of lead, whatever else is. */
export const CARE_LINE = 'Contains lead. Wash hands; keep from children. Check your local rules.';
