import { COUNT_CALCULATIONS } from './count.ts';
import { FINISH_CALCULATIONS } from './finish.ts';
import { FINISH_PLANS } from './finish-plans.ts';
import { METAL_CALCULATIONS } from './metal.ts';
import { MOLD_CALCULATIONS } from './mold.ts';
import { POT_CALCULATIONS } from './pot.ts';

export type { Calculation } from './calculation.ts';

/** Every calculation of the core that a maker may script, by name: `POST /api/compute/<name>`, SI in and out. */
export const CALCULATIONS = {
  ...METAL_CALCULATIONS,
  ...POT_CALCULATIONS,
  ...MOLD_CALCULATIONS,
  ...FINISH_CALCULATIONS,
  ...FINISH_PLANS,
  ...COUNT_CALCULATIONS,
};
export type CalculationName = keyof typeof CALCULATIONS;
