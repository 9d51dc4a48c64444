import { QuantityError } from '../quantity/check.ts';
import { headsOf, type HeadsInRun } from '../run/heads-in-run.ts';
import { mixPlan, type MixPlan } from './mix.ts';

/** Heads that wait at one step of one ticket for a glue that is mixed. */
export interface WaitsForGlue {
  partId: string;
  name: string;
  heads: HeadsInRun;
  mlPerHead: number;
  potLifeS: number;
  /** Until what comes next may be done to them. */
  setS: number;
  /** Seconds a head as the school has it, and what this maker took so far at this step. */
  usualS: number;
  timed: { heads: number; seconds: number };
}

/** Heads of several tickets, or of several steps of one, that one mix can serve. */
export interface GlueTogether {
  partId: string;
  name: string;
  heads: HeadsInRun[];
  potLifeS: number;
  setS: number;
  mlPerHead: number;
  secondsPerHead: number;
  /** Whether the pace is this maker's own. */
  own: boolean;
  /** Null where its figures give no mix; `why` says so. */
  plan: MixPlan | null;
  why: string | null;
}

/** So many heads say what a pace is. Common practice, no source. */
const ENOUGH = 5;
/** Quicker than this share of what is usual is no pace: heads were counted after they were done. */
const COUNTED_AFTERWARDS = 0.2;

/**
 * A maker's own pace, once so many heads were timed that it is one; until then, and where they were counted in a row
 * after they were done, the usual one.
 * @example ownPace({ heads: 12, seconds: 240 }, 28) // { secondsPerHead: 20, own: true }
 * @example ownPace({ heads: 2, seconds: 90 }, 28) // { secondsPerHead: 28, own: false }
 */
export function ownPace({ heads, seconds }: { heads: number; seconds: number }, usualS: number) {
  const own = heads >= ENOUGH && seconds / heads >= COUNTED_AFTERWARDS * usualS;
  return { secondsPerHead: own ? seconds / heads : usualS, own };
}

/**
 * What waits for glue that is mixed, glue by glue: how many heads a mix, how often, how much. Where steps of a glue
 * differ, a head takes what they take on average; a mix is stiff when the quickest of them says so, and set with the
 * slowest.
 * @example gluesTogether([{ partId: 'a', name: 'Epoxy', heads: { ticketId: 't', step: 'guard', count: 60 },
 *   mlPerHead: 0.06, potLifeS: 240, setS: 3600, usualS: 28, timed: { heads: 0, seconds: 0 } }])[0].plan.headsPerMix
 *   // 6
 */
export function gluesTogether(waiting: readonly WaitsForGlue[]): GlueTogether[] {
  const here = waiting.filter(({ heads }) => heads.count > 0);
  return [...new Set(here.map(({ partId }) => partId))].map((partId): GlueTogether => {
    const steps = here.filter((each) => each.partId === partId);
    const heads = steps.map((each) => each.heads);
    const paces = steps.map(({ timed, usualS }) => ownPace(timed, usualS));
    const mean = (of: (step: WaitsForGlue, at: number) => number) =>
      steps.reduce((sum, step, at) => sum + step.heads.count * of(step, at), 0) / headsOf(heads);
    const glue = {
      ...{ partId, name: steps[0]!.name, heads },
      potLifeS: Math.min(...steps.map(({ potLifeS }) => potLifeS)),
      setS: Math.max(...steps.map(({ setS }) => setS)),
      mlPerHead: mean(({ mlPerHead }) => mlPerHead),
      secondsPerHead: mean((_, at) => paces[at]!.secondsPerHead),
      own: paces.every(({ own }) => own),
    };
    try {
      return { ...glue, plan: mixPlan({ ...glue, heads: headsOf(heads) }), why: null };
    } catch (error) {
      // A glue whose figures give no mix is said so; its heads are done one by one at their own bench.
      if (!(error instanceof QuantityError)) throw error;
      return { ...glue, plan: null, why: error.message };
    }
  });
}

/**
 * The heads of the next mix, step by step, as far as it goes.
 * @example nextMix({ heads: [{ ticketId: 't', step: 'guard', count: 60 }], plan: mixPlan({ heads: 60, mlPerHead: 0.06,
 *   potLifeS: 240, secondsPerHead: 28 }) }) // [{ ticketId: 't', step: 'guard', count: 6 }]
 */
export function nextMix({ heads, plan }: Pick<GlueTogether, 'heads' | 'plan'>): HeadsInRun[] {
  let left = plan?.mixes[0]?.heads ?? 0;
  return heads.flatMap((each) => {
    const count = Math.min(left, each.count);
    left -= count;
    return count > 0 ? [{ ...each, count }] : [];
  });
}
