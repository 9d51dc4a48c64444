import type { Part } from '@schmelz/contract';

/** Pieces in the drawer: owned less those that are somewhere. */
export const inDrawer = (part: Part): number => part.owned - part.places.reduce((sum, place) => sum + place.count, 0);
