import type { CountStation } from '@schmelz/core';
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
    cautions: ['Filings are not sprue: file over paper, never blow, wipe up, wash hands before you eat.'],
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
