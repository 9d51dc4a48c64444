/** One way of doing a step, as somebody does it. None is wrong; each has its time, its losses and what it suits. */
export interface School {
  id: string;
  name: string;
  /** When it suits, in a few words. */
  suits: string;
  /** Hands-on seconds a head beyond taking it up. Common practice, no source. */
  seconds: number;
  /** Share of heads that it spoils, and how they look. Common practice, no source. */
  spoils: { share: number; cause: string } | null;
  /** What has to lie ready. */
  needs: readonly string[];
  /** Said before the step where it can hurt someone. */
  caution?: string;
  /** What a look or a finger checks afterwards. */
  check?: string;
}

/** One decision of a station, with its schools; the first is what is taken where nobody has said anything. */
export interface Step<Id extends string = string> {
  id: Id;
  station: 'trim' | 'paint';
  name: string;
  schools: readonly School[];
}

const spoils = (share: number, cause: string) => ({ share, cause });

const FILINGS =
  'Filings are lead: file over paper, never blow, wipe up, wash hands before you eat. They never go back to the pot.';

/** The steps of trim and paint and the schools in each. Common practice, no source. */
export const STEPS = [
  {
    id: 'sprue',
    station: 'trim',
    name: 'Sprue off',
    schools: [
      {
        id: 'nip',
        name: 'Nipped with side cutters',
        suits: 'clean and quick; leaves an edge',
        seconds: 3,
        spoils: null,
        needs: ['side cutters'],
        check: 'No edge where the gate was',
      },
      {
        id: 'wiggle',
        name: 'Wiggled off with pliers',
        suits: 'hot or cold, across its narrow side; needs no edge smoothed',
        seconds: 4,
        spoils: spoils(0.008, 'loose hook'),
        needs: ['pliers'],
        check: 'The hook does not turn; no dent in the lead',
      },
      {
        id: 'fingers',
        name: 'Broken off by hand, cold',
        suits: 'thin gates; no dents and no tool',
        seconds: 5,
        spoils: spoils(0.003, 'divot'),
        needs: ['gloves'],
        caution: 'Gloves on: a broken gate is sharp, and the lead stays on your hands.',
        check: 'No divot at the gate',
      },
      {
        id: 'shear',
        name: 'Sheared with heavy scissors',
        suits: 'flat through; for thick gates',
        seconds: 3.5,
        spoils: spoils(0.002, 'divot'),
        needs: ['heavy scissors'],
        check: 'Cut flush, nothing bent',
      },
    ],
  },
  {
    id: 'edge',
    station: 'trim',
    name: 'The edge',
    schools: [
      {
        id: 'file',
        name: 'Filed',
        suits: 'for sale: smooth under the paint',
        seconds: 7,
        spoils: null,
        needs: ['file', 'newspaper'],
        caution: FILINGS,
        check: 'A fingertip feels nothing',
      },
      {
        id: 'paper',
        name: 'Rubbed on 180 paper',
        suits: 'the smoothest',
        seconds: 9,
        spoils: null,
        needs: ['180 paper', 'newspaper'],
        caution: FILINGS,
        check: 'A fingertip feels nothing',
      },
      {
        id: 'knife',
        name: 'Shaved with a knife',
        suits: 'no dust: the shavings are picked up',
        seconds: 5,
        spoils: spoils(0.002, 'divot'),
        needs: ['knife'],
        caution: 'Cut away from your thumb. Shavings are lead: pick them up, wash hands.',
        check: 'No flat spot',
      },
      {
        id: 'disc',
        name: 'Ground on a disc',
        suits: 'fast; lead clogs it and it takes too much in a moment',
        seconds: 2.5,
        spoils: spoils(0.006, 'divot'),
        needs: ['disc', 'eye cover', 'dust mask'],
        caution: 'A disc throws lead dust: outdoors, eyes covered, a mask on; never near food.',
        check: 'No flat spot',
      },
      {
        id: 'nothing',
        name: 'Left as it is',
        suits: 'for own use; where it was wiggled off it hardly shows',
        seconds: 0,
        spoils: null,
        needs: [],
        check: 'No sharp edge: it cuts the line',
      },
    ],
  },
  {
    id: 'tool',
    station: 'paint',
    name: 'Heated with',
    schools: [
      {
        id: 'heat gun',
        name: 'A heat gun',
        suits: 'even and slow; its first head takes longer',
        seconds: 0,
        spoils: spoils(0.004, 'dull'),
        needs: ['heat gun on a stand'],
        caution: 'Its stream burns skin and blows powder about: aim it away from the cups.',
        check: 'Warm all over: turned, from behind',
      },
      {
        id: 'torch',
        name: 'A torch',
        suits: 'a few seconds a side, small heads too',
        seconds: 0,
        spoils: spoils(0.015, 'runs'),
        needs: ['torch', 'a stand that does not burn'],
        caution: 'No open flame near a cloud of powder: it flashes. The flame never rests on one spot.',
        check: 'Nothing melted at the nose',
      },
      {
        id: 'lighter',
        name: 'A lighter',
        suits: 'micro heads, a few at a time',
        seconds: 0,
        spoils: spoils(0.012, 'dull'),
        needs: ['lighter'],
        caution: 'No open flame near a cloud of powder: it flashes. It burns fingers first.',
        check: 'No soot under the paint',
      },
    ],
  },
  {
    id: 'gloss',
    station: 'paint',
    name: 'To gloss',
    schools: [
      {
        id: 'reheat',
        name: 'Heated again after the dip',
        suits: 'the safest: cooler and twice',
        seconds: 5,
        spoils: spoils(0.004, 'dull'),
        needs: [],
        check: 'Wet all over before it hangs',
      },
      {
        id: 'hot',
        name: 'Hot enough the first time',
        suits: 'quickest, for a steady hand',
        seconds: 0,
        spoils: spoils(0.02, 'runs'),
        needs: [],
        caution: 'Smoke means too hot: fan on, take your face away.',
        check: 'No runs, no glob on the nose',
      },
      {
        id: 'twice',
        name: 'Dipped twice at once',
        suits: 'thick and even; takes more powder',
        seconds: 3,
        spoils: spoils(0.01, 'runs'),
        needs: [],
        check: 'The collar is still slim',
      },
    ],
  },
  {
    id: 'eye',
    station: 'paint',
    name: 'The hook’s eye',
    schools: [
      {
        id: 'level',
        name: 'Not dipped',
        suits: 'in nearly level, up to the eye',
        seconds: 1,
        spoils: spoils(0.012, 'eye closed'),
        needs: [],
        check: 'Light through every eye',
      },
      {
        id: 'tube',
        name: 'Shrink tube over it',
        suits: 'cut beforehand, one a head, a small gap to the head',
        seconds: 6,
        spoils: spoils(0.002, 'eye closed'),
        needs: ['heat-shrink tube, one piece a head'],
        check: 'Pulled off while the paint is soft',
      },
      {
        id: 'toothpick',
        name: 'Wiped with a toothpick, wet',
        suits: 'right after the dip',
        seconds: 3,
        spoils: spoils(0.006, 'eye closed'),
        needs: ['toothpicks'],
        check: 'Light through every eye',
      },
      {
        id: 'second heat',
        name: 'Picked before the second heat',
        suits: 'the second heat smooths where it was',
        seconds: 4,
        spoils: spoils(0.004, 'eye closed'),
        needs: ['needle'],
        check: 'Light through every eye',
      },
      {
        id: 'punch',
        name: 'Punched before the bake',
        suits: 'quick in a row; not for a recessed eye',
        seconds: 3,
        spoils: spoils(0.005, 'eye closed'),
        needs: ['eye punch'],
        check: 'No burr: some fear it cuts the line, others never saw it',
      },
      {
        id: 'before bake',
        name: 'Picked before the bake',
        suits: 'the bake smooths the chips; after it an eye is hard to clear',
        seconds: 4,
        spoils: spoils(0.006, 'eye closed'),
        needs: ['needle'],
        check: 'Light through every eye',
      },
    ],
  },
  {
    id: 'hole',
    station: 'paint',
    name: 'The guard’s hole',
    schools: [
      { id: 'none', name: 'No hole', suits: 'heads without a guard', seconds: 0, spoils: null, needs: [] },
      {
        id: 'pulled one by one',
        name: 'Its pin stays in, pulled hot, head by head',
        suits: 'each while its paint is soft',
        seconds: 5,
        spoils: spoils(0.004, 'hole filled'),
        needs: ['base-hole pins'],
        caution: 'The pin is as hot as the head: pliers.',
        check: 'The edge of the hole is whole',
      },
      {
        id: 'pulled together',
        name: 'Its pin stays in, all pulled before the bake',
        suits: 'quicker in a row; pulled cold it chips the paint',
        seconds: 3,
        spoils: spoils(0.012, 'chipped'),
        needs: ['base-hole pins'],
        check: 'No chip at the hole',
      },
      {
        id: 'ptfe',
        name: 'A PTFE pin',
        suits: 'lets go by itself, even cold',
        seconds: 4,
        spoils: spoils(0.002, 'hole filled'),
        needs: ['PTFE pins, 1/8 inch'],
        caution: 'Never hold it in the flame: PTFE fumes are poison.',
        check: 'The hole takes a guard',
      },
      {
        id: 'dowel',
        name: 'A bit of dowel',
        suits: 'costs nothing; thrown away when it chars',
        seconds: 5,
        spoils: spoils(0.006, 'hole filled'),
        needs: ['dowel, one bit a head'],
        check: 'No splinter left in',
      },
      {
        id: 'spare guard',
        name: 'A heat-proof spare guard',
        suits: 'of the very diameter',
        seconds: 4,
        spoils: spoils(0.004, 'hole filled'),
        needs: ['spare guards'],
        check: 'The hole takes a guard',
      },
      {
        id: 'drilled',
        name: 'Drilled out afterwards',
        suits: 'any head; slow, and it throws chips of paint and lead',
        seconds: 14,
        spoils: spoils(0.015, 'chipped'),
        needs: ['1/8 inch drill'],
        caution: 'Drill chips are lead: catch them, wash hands.',
        check: 'No chip at the hole',
      },
    ],
  },
  {
    id: 'collar',
    station: 'paint',
    name: 'The collar',
    schools: [
      {
        id: 'shoulder',
        name: 'Dipped to the shoulder only',
        suits: 'where thread or a skirt must grip',
        seconds: 1,
        spoils: spoils(0.004, 'thin'),
        needs: [],
        check: 'Bare lead behind the head',
      },
      { id: 'whole', name: 'Dipped whole', suits: 'heads for soft baits', seconds: 0, spoils: null, needs: [] },
    ],
  },
  {
    id: 'after',
    station: 'paint',
    name: 'After the dip',
    schools: [
      {
        id: 'hang',
        name: 'Hung by the bend',
        suits: 'the most common; thick paint can pool on the nose',
        seconds: 3,
        spoils: spoils(0.003, 'runs'),
        needs: ['a wire to hang on'],
        check: 'Heads do not touch',
      },
      {
        id: 'foam',
        name: 'Stood in foam',
        suits: 'nose up; a drip runs down the shank',
        seconds: 2,
        spoils: null,
        needs: ['a block of foam'],
        caution: 'Foam smoulders under a head that is too hot.',
        check: 'The foam has not melted',
      },
      {
        id: 'water',
        name: 'Dropped in water',
        suits: 'sets at once; dried before the bake',
        seconds: 2,
        spoils: spoils(0.006, 'dull'),
        needs: ['a bowl of water', 'a towel'],
        caution: 'Keep the bowl well away from the pot: water and melted lead explode.',
        check: 'Dry before the oven',
      },
    ],
  },
  {
    id: 'loose',
    station: 'paint',
    name: 'Powder kept loose',
    schools: [
      {
        id: 'two',
        name: 'Stirred every 2 dips',
        suits: 'shaken or stirred with a nail; old powder',
        seconds: 3,
        spoils: spoils(0.004, 'thin'),
        needs: ['a nail'],
      },
      {
        id: 'six',
        name: 'Stirred every 5 to 7',
        suits: 'fine, dry powder',
        seconds: 1,
        spoils: spoils(0.008, 'thin'),
        needs: ['a nail'],
      },
      {
        id: 'bed',
        name: 'A fluid bed',
        suits: 'air keeps it like a liquid: an even thin coat; it dusts all around',
        seconds: 0,
        spoils: null,
        needs: ['cup with its membrane', 'air pump'],
        caution: 'It dusts: mask on, no flame and no spark near the cup.',
        check: 'It just simmers',
      },
    ],
  },
] as const satisfies readonly Step[];

export type StepId = (typeof STEPS)[number]['id'];
export type SchoolId<S extends StepId> = Extract<(typeof STEPS)[number], { id: S }>['schools'][number]['id'];
/** A school for every step. */
export type Schools = { [S in StepId]: SchoolId<S> };
