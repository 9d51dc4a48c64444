import { gluesTogether, type GlueTogether, type WaitsForGlue } from '../finish/glues.ts';
import type { BillLine } from '../job/bill.ts';
import type { TicketLog } from '../job/ticket-log.ts';
import { headsSet, type TicketState } from '../job/ticket.ts';
import { stepOfRoute } from '../job/route.ts';
import { finishSchool } from '../ways/finish.ts';
import { routeOf, type TicketProduct } from './ticket-product.ts';

/** A ticket as far as it must be known to mix glue for it. */
interface TicketToGlue {
  id: string;
  product: TicketProduct;
  state: TicketState;
  log: TicketLog;
  /** What its heads take, by the step that uses it. */
  bill: readonly BillLine[];
}

/** What the bottle of a glue says: how long a mix can be worked, and until it is set, s. */
type GlueLabel = Readonly<Record<string, number>> | null | undefined;

/** Until a glue is set of which neither step nor bottle nor school says so, s. Common practice, no source. */
const USUALLY_SET_S = 3600;

/**
 * What waits for glue that is mixed, over all tickets of the line, glue by glue.
 * @param labelOf what the bottle of a part says, by its id; it outranks what such glue usually does
 * @param now ms
 * @example mixesFor([], () => null, 0) // []
 */
export const mixesFor = (
  tickets: readonly TicketToGlue[],
  labelOf: (partId: string) => GlueLabel,
  now: number,
): GlueTogether[] =>
  gluesTogether(
    tickets.flatMap(({ id, product, state, log, bill }) =>
      state.steps.flatMap(({ key, left, good, rejected, workS, notTimed }): WaitsForGlue[] => {
        const step = stepOfRoute(product.steps, key);
        if (!step?.task || left <= 0) return [];
        const school = finishSchool(step.task, step.school);
        const line = bill.find((each) => each.step === key && each.kind === 'glue');
        if (!line || !school.potLifeS) return [];
        // What was glued before and is not set yet waits for nothing else.
        const count = Math.min(left, headsSet(routeOf(product), log, key, now).ready);
        const label = labelOf(line.partId);
        return [
          {
            ...{ partId: line.partId, name: line.name, mlPerHead: line.quantity, usualS: school.seconds },
            heads: { ticketId: id, step: key, count },
            potLifeS: label?.['potLifeS'] ?? school.potLifeS,
            // What holds the next step back is what the clock of the mix says too.
            setS: step.wait?.seconds ?? label?.['setS'] ?? school.wait?.seconds ?? USUALLY_SET_S,
            timed: { heads: good + rejected - notTimed, seconds: workS },
          },
        ];
      }),
    ),
  );
