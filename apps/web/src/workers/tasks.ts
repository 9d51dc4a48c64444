import {
  fitMold,
  fitPot,
  fitFairThreshold,
  type CavityFillRecord,
  type MoldFitInput,
  type PotFitInput,
} from '@schmelz/core';

/** Told how far it is, 0 to 1. */
export type Tell = (share: number) => void;

/** The fits that run beside the page. */
export const tasks = {
  pot: (input: PotFitInput, tell: Tell) => fitPot(input, (share) => void tell(share)),
  mold: (input: MoldFitInput, tell: Tell) => fitMold(input, (share) => void tell(share)),
  // A function does not cross to the page: the page works the curve out from centre and spread.
  threshold: (records: CavityFillRecord[], tell: Tell) => {
    const { threshold, faulty } = fitFairThreshold(records);
    const { shortShare: _curve, ...fit } = threshold;
    tell(1);
    return { ...fit, faulty };
  },
};
export type FitTasks = typeof tasks;
