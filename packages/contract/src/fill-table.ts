import type { CavityPour } from './views.ts';

/** What cavities gave, pour by pour, each pour and cavity said once: a long record stays a short answer. */
export interface FillTable {
  cavityIds: string[];
  pours: { at: number; pourC: number; roomC: number }[];
  /** Place in `pours`, place in `cavityIds`, mold (C), shots since it was smoked, casts, shorts. */
  rows: number[][];
}

/** A tenth of a degree is finer than the model is. */
const tenths = (celsius: number) => Math.round(10 * celsius) / 10;

/** Records as a table; temperatures to a tenth of a degree. */
export function fillTable(records: readonly CavityPour[]): FillTable {
  const cavityIds = [...new Set(records.map(({ cavityId }) => cavityId))];
  const pours: FillTable['pours'] = [];
  const rows = records.map(({ cavityId, at, pourC, roomC, moldC, shotsSinceSmoked, casts, shorts }) => {
    const last = pours.at(-1);
    if (last?.at !== at || last.pourC !== tenths(pourC) || last.roomC !== tenths(roomC)) {
      pours.push({ at, pourC: tenths(pourC), roomC: tenths(roomC) });
    }
    return [pours.length - 1, cavityIds.indexOf(cavityId), tenths(moldC), shotsSinceSmoked, casts, shorts];
  });
  return { cavityIds, pours, rows };
}

/** The records of a table. */
export const fillRecordsIn = ({ cavityIds, pours, rows }: FillTable): CavityPour[] =>
  rows.map(([pour, cavity, moldC, shotsSinceSmoked, casts, shorts]) => ({
    cavityId: cavityIds[cavity!]!,
    ...pours[pour!]!,
    ...{ moldC: moldC!, shotsSinceSmoked: shotsSinceSmoked!, casts: casts!, shorts: shorts! },
  }));
