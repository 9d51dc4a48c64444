/** What a program's minutes are counted from: the shutting of the door, or the metal's own heat. */
export const COUNT_FROM = ['door', 'metal'] as const;
export type CountFrom = (typeof COUNT_FROM)[number];
