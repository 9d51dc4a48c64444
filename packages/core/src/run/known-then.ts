import { SOFT_LEAD } from '../metal/alloy.ts';
import { metalAtMoldC } from '../pot/way.ts';
import type { PourPlanned } from './pour-log.ts';

/**
 * Heat of a pour as it was reckoned that day: its pot, the metal as it reached the molds, the room.
 * @example heatThen(pour.planned).pot.powerW // 700
 */
export function heatThen(planned: Omit<PourPlanned, 'meltS' | 'chargeKg' | 'plannedS' | 'blocks'>) {
  const { potPowerW: powerW, potLossWPerK: lossWPerK, potCrucibleJPerK: crucibleJPerK } = planned;
  const { pourC, potWay, roomC, alloy = SOFT_LEAD } = planned;
  const metalC = metalAtMoldC(pourC, potWay, alloy);
  return { pot: { powerW, lossWPerK, crucibleJPerK }, alloy, pourC, metalC, roomC };
}
