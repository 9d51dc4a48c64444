import type { CostStack, LeadBalance, PlanInput } from '@schmelz/core';

/** A copy of all data, beside them. */
export interface BackupView {
  name: string;
  why: 'daily' | 'asked' | 'before-restore' | 'before' | 'taken-in';
  at: number;
  bytes: number;
  /** What is wrong with it, as a sentence goes on after its name; null where nothing can be seen from outside. */
  wrong: string | null;
}

/** A workshop out of a file, as a copy that can be put in the place of what is there. */
export interface TakenInView {
  copy: BackupView;
  /** How many rows each table has now, and would have then. */
  tables: { table: string; now: number; then: number }[];
}
/** All metal that was ever poured here, and where it went. */
export interface MetalEver {
  /** When the first pour was closed, ms since 1970; null: none was. */
  since: number | null;
  pours: number;
  metal: LeadBalance;
}
/** What came of a gift, in words, and what was made by it. */
export interface TakenGift {
  says: string[];
  made: { path: 'materials' | 'recipes' | 'bake-programs' | 'products' | 'molds'; id: string }[];
}
/** What one good head of a product takes off the shelves, by material: kg, pieces, m or ml. */
export interface MakeableView {
  id: string;
  takes: Record<string, number>;
}
/** Money and heads of a month: out for tools and packs, in for what was sold; what was given or kept, at its price. */
export interface MonthOfBooks {
  /** As 2026-05. */
  month: string;
  toolsMinor: number;
  boughtMinor: number;
  soldMinor: number;
  soldHeads: number;
  ownHeads: number;
  ownMinor: number;
  madeHeads: number;
  tickets: number;
  /** Good heads of evenings that were kept on paper. */
  paperHeads: number;
  /** What the tickets closed in it came to. */
  costMinor: number;
}
/** What a head of a product costs by plan, and what it came to over its closed tickets; null: none yet. */
export interface CostOfProduct {
  input: PlanInput;
  actual: CostStack | null;
  heads: number;
  tickets: number;
  /** Heads that the product's tools have served, by month and product, with what they cost without wear. */
  served: { productId: string; month: string; heads: number; costMinor: number }[];
}
/** What came out bad, by cavity, by pour and by station. */
export interface QualityView {
  cavities: {
    cavityId: string;
    moldId: string;
    position: number;
    casts: number;
    good: number;
    causes: Record<string, number>;
  }[];
  /** Each mold of each pour; `expected` bad ones by what its cavities give on the whole. */
  pours: { number: number; at: number; moldId: string; casts: number; bad: number; expected: number }[];
  /** Heads that came to a station, those thrown back there, by cause, and what these cost by their plans. */
  stations: {
    station: string;
    came: number;
    causes: Record<string, number>;
    costMinor: Record<string, number>;
  }[];
}
/** A cause that came more often for a while than before and after, beyond chance. */
export interface ChangeView {
  station: string;
  cause: string;
  heads: number;
  bad: number;
  /** All other heads of the period. */
  rest: { heads: number; bad: number };
  chance: number;
  /** The first and the last pour of it, or ticket, by number; at which moment, ms since 1970. */
  from: { number: number; at: number };
  to: { number: number; at: number };
  /** Whether it was so from the first of the period on, and is so to its last. */
  fromFirst: boolean;
  toLast: boolean;
  /** What its bad heads had, and the others had not, most telling first. */
  meanwhile: {
    kind: 'lot' | 'mold' | 'metal' | 'product' | 'set' | 'who';
    /** An id, what the oven was set to (C), or a name. */
    key: string;
    badShare: number;
    outsideShare: number;
  }[];
  /** The lots among them. */
  lots: { lotId: number; materialId: string; kind: string; lot: string; at: number }[];
}
/** What went through somebody's hands at a station, and how many bad ones such heads have on the whole. */
export interface PersonView {
  station: string;
  who: string;
  /** Pours, or tickets. */
  points: number;
  heads: number;
  bad: number;
  expected: number;
  chance: number;
  standsOut: boolean;
}
export interface ChangesView {
  changes: ChangeView[];
  people: PersonView[];
}
/** An evening that was kept on paper; null where it was not written down. */
export interface EveningOnPaper {
  on: string;
  /** What the paper calls what was cast. */
  name: string;
  mold: string | null;
  product: string | null;
  good: number;
  casts: number | null;
  minutes: number | null;
  note: string;
}
/** A file of evenings: as it would be taken, or as it was. */
export interface EveningsResult {
  /** Of the import that was made; null while it is only looked at. */
  id: string | null;
  rows: number;
  evenings: (EveningOnPaper & { line: number })[];
  /** When the same contents were taken before, ms since 1970; null where they were not. */
  takenAt: number | null;
}
export interface PaperView {
  evenings: (EveningOnPaper & { id: string })[];
  /** Whether there are more, before the last of these. */
  more: boolean;
  total: { evenings: number; good: number };
  /** By mold or, where none is known, by the name on the paper; `judged`: of evenings with all casts on them. */
  byName: {
    name: string;
    moldId: string | null;
    evenings: number;
    good: number;
    judged: { good: number; casts: number };
    timed: { good: number; minutes: number };
  }[];
}
