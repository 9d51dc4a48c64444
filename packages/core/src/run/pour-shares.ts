import { SOFT_LEAD } from '../metal/alloy.ts';
import { holdingEnergyKWh, meltTime } from '../pot/time-to-pour.ts';
import type { PourPlanned, PourSetup } from './pour-log.ts';
import type { PourState } from './pour.ts';

/** What a pour gives to one of its tickets, and takes for it. */
export interface PourShare {
  ticketId: string;
  good: number;
  secondGrade: number;
  rejects: number;
  /** The rejects by what was wrong with them; null where it was not kept by ticket. */
  causes: Record<string, number> | null;
  hooksLost: number;
  workS: number;
  energyKWh: number;
  drossKg: number;
  unexplainedKg: number;
}

/** Less than this in the pot takes no time to melt that could be told. */
const LEAST_MELT_KG = 0.05;
const MOST_MELT_KG = 50;

/**
 * Splits a pour among its tickets: hands by heads, electricity, dross and what is unexplained by mass.
 * @example pourShares(pourState(pour.setup, twoShots), pour.setup, pour.planned).length // 2
 */
export function pourShares(state: PourState, setup: PourSetup, planned: PourPlanned): PourShare[] {
  const ids = Object.keys(setup.needs);
  const goodOf = (id: string) => state.goodByTicket[id] ?? 0;
  const massOf = (id: string) => {
    const load = setup.loads.find((each) => each.ticketIds.includes(id));
    return goodOf(id) * (load?.leadKg ?? 0);
  };
  const heads = ids.reduce((sum, id) => sum + goodOf(id), 0);
  const mass = ids.reduce((sum, id) => sum + massOf(id), 0);
  const { potPowerW: powerW, potLossWPerK: lossWPerK, pourC, roomC, potCrucibleJPerK: crucibleJPerK } = planned;
  const { alloy = SOFT_LEAD } = planned;
  const melt =
    state.chargedKg >= LEAST_MELT_KG
      ? meltTime({
          leadKg: Math.min(MOST_MELT_KG, state.chargedKg),
          powerW,
          lossWPerK,
          crucibleJPerK,
          toC: pourC,
          roomC,
          fromC: roomC,
          alloy,
        }).energyKWh
      : 0;
  const hold = holdingEnergyKWh({
    ...{ lossWPerK, potC: Math.max(alloy.liquidusC, pourC), roomC, seconds: state.workS },
  });
  return ids.map((ticketId) => {
    const byMass = mass > 0 ? massOf(ticketId) / mass : 1 / ids.length;
    const byHeads = heads > 0 ? goodOf(ticketId) / heads : 1 / ids.length;
    return {
      ticketId,
      good: goodOf(ticketId),
      secondGrade: state.keptByTicket[ticketId] ?? 0,
      rejects: state.rejectsByTicket[ticketId] ?? 0,
      causes: state.causesByTicket[ticketId] ?? {},
      hooksLost: state.hooksLostByTicket[ticketId] ?? 0,
      workS: state.workS * byHeads,
      energyKWh: (melt + hold) * byMass,
      drossKg: (state.balance?.drossKg ?? 0) * byMass,
      unexplainedKg: (state.balance?.unexplainedKg ?? 0) * byMass,
    };
  });
}
