/** Why a head is thrown back, by where it is seen. Words of the trade; the key is what a bench hand types. */
export const POUR_CAUSES = [
  'short',
  'flash',
  'void',
  'loose hook',
  'eye full',
  'no pin',
  'wrong hook',
  'other',
] as const;
export type PourCause = (typeof POUR_CAUSES)[number];

/** Where a head is short, as it is looked at. */
export const SHORT_WHERE = ['barb', 'shank', 'nose'] as const;
export type ShortWhere = (typeof SHORT_WHERE)[number];

export const COUNT_STATIONS = ['trim', 'paint', 'bake', 'finish'] as const;
export type CountStation = (typeof COUNT_STATIONS)[number];
export const STATIONS = ['pour', ...COUNT_STATIONS] as const;
export type Station = (typeof STATIONS)[number];

export const STATION_CAUSES: Record<CountStation, readonly string[]> = {
  trim: ['divot', 'void', 'loose hook', 'bent hook', 'flash', 'other'],
  paint: ['runs', 'bubbles', 'thin', 'dull', 'eye closed', 'hole filled', 'colour bled', 'other'],
  bake: ['runs', 'soft', 'browned hook', 'drip', 'chipped', 'other'],
  finish: ['chipped', 'eye closed', 'loose hook', 'rusty hook', 'other'],
};
