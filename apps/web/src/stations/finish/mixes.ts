import {
  finishSchool,
  gluesTogether,
  headsSet,
  nextMix,
  stepOfRoute,
  type GlueTogether,
  type WaitsForGlue,
} from '@schmelz/core';
import { newId } from '../../api/id.ts';
import { sayToLog } from '../../api/outbox.ts';
import { runPath, wholeLog, type LineTicket } from '../../shell/line-state.ts';
import type { Catalogue } from '../../shell/catalogue.ts';

/** What waits for glue that is mixed, over all tickets of the line. */
export function gluesOfLine(tickets: readonly LineTicket[], catalogue: Catalogue, now: number): GlueTogether[] {
  return gluesTogether(
    tickets.flatMap((ticket) =>
      ticket.state.steps.flatMap(({ key, left, good, rejected, workS, notTimed }): WaitsForGlue[] => {
        const step = stepOfRoute(ticket.route, key);
        if (!step?.task || left <= 0) return [];
        const school = finishSchool(step.task, step.school);
        const line = ticket.planned.bill.find((each) => each.step === key && each.kind === 'glue');
        if (!line || !school.potLifeS) return [];
        // What was glued before and is not set yet waits for nothing else.
        const count = Math.min(left, headsSet(ticket.route, wholeLog(ticket), key, now).ready);
        // What the bottle says outranks what such glue usually does.
        const details = catalogue.materials.get(line.partId)?.details;
        return [
          {
            ...{ partId: line.partId, name: line.name, mlPerHead: line.quantity, usualS: school.seconds },
            heads: { ticketId: ticket.id, step: key, count },
            potLifeS: details?.['potLifeS'] ?? school.potLifeS,
            // What holds the next step back is what the clock of the mix says too.
            setS: step.wait?.seconds ?? details?.['setS'] ?? school.wait?.seconds ?? 3600,
            timed: { heads: good + rejected - notTimed, seconds: workS },
          },
        ];
      }),
    ),
  );
}

/** Mixes it and begins: a run, by an id of this device. Gives the path of its bench. */
export function beginMix(glue: GlueTogether): string {
  const id = newId();
  const { partId, name, potLifeS, setS } = glue;
  sayToLog(`/runs/glue/${id}`, { kind: 'begin', partId, name, heads: nextMix(glue), potLifeS, setS });
  return runPath('glue', id);
}
