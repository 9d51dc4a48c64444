/** A wait that runs by itself: what it is, when it began and when it is over (ms since 1970). */
export interface Clock {
  id: string;
  body: 'melt' | 'freeze' | 'oven' | 'cool' | 'dry' | 'wait';
  name: string;
  startedAt: number;
  endsAt: number;
  /** Where to go when it is over: a station, and the pour, the run or the ticket that is worked on there. */
  to: { station: string; id: string; step: string | null; run?: string };
}
