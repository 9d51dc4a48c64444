import type { BakeProgram, Oven, Ticket } from '@schmelz/contract';
import {
  knownOven,
  loadHeat,
  rackPlaces,
  stepBy,
  waitsForMetalS,
  type HeadsInRun,
  type OvenEntry,
} from '@schmelz/core';
import { newId } from '../../api/id.ts';
import { sayInto } from '../../api/outbox.ts';
import type { Catalogue } from '../../shell/catalogue.ts';
import type { HungHead } from './course.ts';
import { racksOf, roomFor } from './loads.ts';

/** What a ticket is baked with at a step; the first program on record where neither step nor product names one. */
export function programOf(
  ticket: Pick<Ticket, 'productId' | 'route'>,
  step: string,
  catalogue: Catalogue,
): BakeProgram | undefined {
  const named = stepBy(ticket.route, step)?.programId ?? catalogue.product(ticket.productId)?.bakeProgramId;
  return catalogue.programs.get(named ?? '') ?? [...catalogue.programs.values()][0];
}

/** How many heads of a ticket go in at once: on the rack that takes most of them, or by the oven's plain count. */
export function fitsIn(oven: Oven | undefined, ticket: Pick<Ticket, 'productId'>, catalogue: Catalogue): number {
  const { pitchM, hangsM } = roomFor(ticket.productId, catalogue);
  const most = Math.max(
    0,
    ...racksOf(oven)
      .filter((rack) => hangsM <= rack.clearM && pitchM <= rack.barM)
      .map((rack) => rackPlaces(rack, pitchM)),
  );
  return most || (oven?.places ?? Infinity);
}

/** The door is shut on heads of one ticket or of several: a run begins, by an id of this device. */
export function loadOven(
  heads: HeadsInRun[],
  kinds: readonly HungHead[],
  program: BakeProgram,
  oven: Oven | undefined,
): string {
  const { setC, seconds, preheated, from } = program;
  const known = knownOven(oven);
  // The slowest head of the load says when the metal is warm.
  const way = { setC, seconds, preheated: Boolean(preheated), ...(from ? { from } : {}) };
  const warmS = Math.max(0, ...kinds.map(({ headLagS }) => waitsForMetalS(way, known, headLagS, loadHeat(kinds))));
  const said: Omit<Extract<OvenEntry, { kind: 'load' }>, 'id' | 'at'> = {
    kind: 'load',
    ovenId: oven?.id ?? null,
    heads,
    setC,
    seconds,
    preheated: Boolean(preheated),
    ...(from === 'metal' ? { from, warmS: Math.round(warmS) } : {}),
  };
  const id = newId();
  sayInto(`/runs/oven/${id}`, said);
  return id;
}
