import type { PourDisposition, ShortWhere } from './pour-log.ts';

/** A head of a shot: out of which cavity, for whom, and what it is. */
export interface CastHead {
  moldId: string;
  position: number;
  ticketId: string;
  /** `good`, or the cause why not. */
  verdict: string;
  where: ShortWhere | null;
  /** What becomes of a bad one; null for a good one. */
  goes: PourDisposition | null;
}

/** What came out of a mold at one opening. */
export interface Shot {
  id: string;
  at: number;
  moldId: string;
  who?: string;
  heads: CastHead[];
}
