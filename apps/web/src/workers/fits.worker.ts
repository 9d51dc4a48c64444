import { fitMold, fitPot, fitThreshold, type FillRecord, type MoldFitInput, type PotFitInput } from '@schmelz/core';
import { expose } from 'comlink';

/** Told how far it is, 0 to 1. */
export type Tell = (share: number) => void;

const tasks = {
  pot: (input: PotFitInput, tell: Tell) => fitPot(input, (share) => void tell(share)),
  mold: (input: MoldFitInput, tell: Tell) => fitMold(input, (share) => void tell(share)),
  // A function does not cross to the page: the page works the curve out from centre and spread.
  threshold: (records: FillRecord[], tell: Tell) => {
    const { shortShare: _curve, ...fit } = fitThreshold(records);
    tell(1);
    return fit;
  },
};
export type FitTasks = typeof tasks;

expose(tasks);
