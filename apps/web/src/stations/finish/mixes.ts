import {
  finishSchool,
  headsOf,
  headsSet,
  mixPlan,
  QuantityError,
  stepBy,
  type HeadsInRun,
  type MixPlan,
} from '@schmelz/core';
import { newId } from '../../api/id.ts';
import { sayInto } from '../../api/outbox.ts';
import { runPath, wholeLog, type LineTicket } from '../../shell/line-state.ts';
import type { Catalogue } from '../../shell/catalogue.ts';

/** Heads of several tickets that wait for the same glue. */
export interface GlueTogether {
  partId: string;
  name: string;
  heads: HeadsInRun[];
  potLifeS: number;
  setS: number;
  mlPerHead: number;
  /** A maker's own pace at this step, once it is on record; else that of the school. */
  secondsPerHead: number;
  own: boolean;
  /** Null where its figures give no mix; `why` says so. */
  plan: MixPlan | null;
  why: string | null;
}

/** So many heads say what a pace is. */
const ENOUGH = 5;

/** What waits for glue that is mixed, glue by glue: how many heads a mix, how often, how much. */
export function gluesTogether(tickets: readonly LineTicket[], catalogue: Catalogue, now: number): GlueTogether[] {
  const byGlue = new Map<
    string,
    Omit<GlueTogether, 'plan' | 'why' | 'own'> & { timed: { heads: number; seconds: number } }
  >();
  for (const ticket of tickets) {
    for (const { key, left: here, good, rejected, workS, notTimed } of ticket.state.steps) {
      // What was glued before and is not set yet waits for nothing else.
      const left = Math.min(here, headsSet(ticket.route, wholeLog(ticket), key, now).ready);
      const step = stepBy(ticket.route, key);
      if (!step?.task || left <= 0) continue;
      const school = finishSchool(step.task, step.school);
      const line = ticket.planned.bill.find((each) => each.step === key && each.kind === 'glue');
      if (!line || !school.potLifeS) continue;
      // What the bottle says outranks what such glue usually does.
      const details = catalogue.materials.get(line.partId)?.details;
      const glue = byGlue.get(line.partId) ?? {
        ...{ partId: line.partId, name: line.name, heads: [] },
        potLifeS: details?.['potLifeS'] ?? school.potLifeS,
        // What holds the next step back is what the clock of the mix says too.
        setS: step.wait?.seconds ?? details?.['setS'] ?? school.wait?.seconds ?? 3600,
        ...{ mlPerHead: line.quantity, secondsPerHead: school.seconds, timed: { heads: 0, seconds: 0 } },
      };
      glue.heads.push({ ticketId: ticket.id, step: key, count: left });
      glue.timed.heads += good + rejected - notTimed;
      glue.timed.seconds += workS;
      byGlue.set(line.partId, glue);
    }
  }
  return [...byGlue.values()].flatMap(({ timed, ...glue }): GlueTogether[] => {
    const own = timed.heads >= ENOUGH && timed.seconds > 0;
    const secondsPerHead = own ? timed.seconds / timed.heads : glue.secondsPerHead;
    const { heads, mlPerHead, potLifeS } = glue;
    try {
      const plan = mixPlan({ heads: headsOf(heads), mlPerHead, potLifeS, secondsPerHead });
      return [{ ...glue, own, secondsPerHead, plan, why: null }];
    } catch (error) {
      // A glue whose figures give no mix is said so; its heads are done one by one at their own bench.
      if (!(error instanceof QuantityError)) throw error;
      return [{ ...glue, own, secondsPerHead, plan: null, why: error.message }];
    }
  });
}

/** The heads of the next mix, ticket by ticket. */
export function nextMix({ heads, plan }: Pick<GlueTogether, 'heads' | 'plan'>): HeadsInRun[] {
  let left = plan?.mixes[0]?.heads ?? 0;
  return heads.flatMap((each) => {
    const count = Math.min(left, each.count);
    left -= count;
    return count > 0 ? [{ ...each, count }] : [];
  });
}

/** Mixes it and begins: a run, by an id of this device. Gives the path of its bench. */
export function beginMix(glue: GlueTogether): string {
  const id = newId();
  const { partId, name, potLifeS, setS } = glue;
  sayInto(`/runs/glue/${id}`, { kind: 'begin', partId, name, heads: nextMix(glue), potLifeS, setS });
  return runPath('glue', id);
}
