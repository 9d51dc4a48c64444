import type { CupColour } from '../paint/colour-order.ts';

/** Something of the evening that takes time: hands at work, or a thing that works by itself. */
export interface Task {
  id: string;
  name: string;
  station: string;
  /** Of the route it is a step of; the pour is `pour`. */
  step?: string;
  seconds: number;
  /** Whether it takes a person from its beginning to its end. */
  hands: boolean;
  /** Tools that it holds meanwhile: pot, molds, gun, oven. */
  holds: readonly string[];
  /** What must stand in the cups of the first of its tools: changing them from what stood before takes hands. */
  cups?: readonly CupColour[];
  /** So long before it begins its tools are held already, and work by themselves: the pot melts. */
  leadS?: number;
  /** What must be done before, and what has to pass after that, s. */
  after: readonly { task: string; lagS: number }[];
  /** Tickets or order lines that it is for. */
  works: readonly string[];
  heads: number;
}
