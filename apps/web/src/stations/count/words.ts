import { schoolsAt, type CountStation, type FinishWays } from '@schmelz/core';
import type { HeadState } from '../../drawing/Head.tsx';

/** What each counting station says and shows. */
export const WORDS: Record<
  CountStation,
  { left: string; good: string; all: string; before: HeadState; after: HeadState; cautions: string[] }
> = {
  trim: {
    left: 'Left to trim',
    good: 'Trimmed',
    all: 'All the rest are trimmed',
    before: 'cast',
    after: 'blank',
    cautions: ['Lead is on your hands: wash them before you eat.'],
  },
  paint: {
    left: 'Left to paint',
    good: 'Painted',
    all: 'All the rest are painted',
    before: 'blank',
    after: 'powder',
    cautions: ['No open flame near a cloud of powder. Fan on; smoke from the powder means it is too hot.'],
  },
  bake: {
    left: 'Left to bake',
    good: 'Baked well',
    all: 'All the rest are good',
    before: 'powder',
    after: 'baked',
    cautions: ['An oven that bakes powder never bakes food again. Ventilate.'],
  },
  finish: {
    left: 'Left to finish',
    good: 'Good, into the bag',
    all: 'All the rest are good',
    before: 'baked',
    after: 'baked',
    cautions: ['Mark the bag if lead tackle is restricted where it is sold: check your local rules.'],
  },
};

/** What is said before the work of a station: its own, and what the followed ways ask for. */
export const cautionsOf = (station: CountStation, ways: FinishWays): string[] =>
  station === 'trim' || station === 'paint'
    ? [...schoolsAt(station, ways).flatMap(({ school }) => school.caution ?? []), ...WORDS[station].cautions]
    : WORDS[station].cautions;

/** What a look or a finger checks on each head, by the followed ways. */
export const checksOf = (station: CountStation, ways: FinishWays): string[] =>
  station === 'trim' || station === 'paint'
    ? [...new Set(schoolsAt(station, ways).flatMap(({ school }) => school.check ?? []))]
    : [];

/** What has to lie ready before the work, by the followed ways. */
export const needsOf = (station: CountStation, ways: FinishWays): string[] =>
  station === 'trim' || station === 'paint'
    ? [...new Set(schoolsAt(station, ways).flatMap(({ school }) => school.needs))]
    : [];
