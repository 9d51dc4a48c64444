import {
  colourOrder,
  dialDrift,
  fitDialMarks,
  fitMold,
  fitPot,
  fitFairThreshold,
  pairsOnDay,
  type CavityFillRecord,
  type ColourOrderInput,
  type DialPair,
  type MoldFitInput,
  type PotFitInput,
} from '@schmelz/core';

/** Told how far it is, 0 to 1. */
type Tell = (share: number) => void;

/** The fits that run beside the page. */
export const tasks = {
  pot: (input: PotFitInput, tell: Tell) => fitPot(input, (share) => void tell(share)),
  mold: (input: MoldFitInput, tell: Tell) => fitMold(input, (share) => void tell(share)),
  // Pairs as they would read that day: the marks cross, the page joins them to a curve.
  dial: ({ pairs, at }: { pairs: DialPair[]; at: number }, tell: Tell) => {
    const now = pairsOnDay(pairs, at);
    const enough = new Set(now.map((pair) => pair.dial)).size >= 2;
    const fit = { marks: enough ? fitDialMarks(now) : null, drift: dialDrift(pairs) };
    tell(1);
    return fit;
  },
  colours: (input: ColourOrderInput, tell: Tell) => {
    const order = colourOrder(input);
    tell(1);
    return order;
  },
  // A function does not cross to the page: the page works the curve out from centre and spread.
  threshold: (records: CavityFillRecord[], tell: Tell) => {
    const { threshold, faulty } = fitFairThreshold(records);
    const { shortShare: _curve, ...fit } = threshold;
    tell(1);
    return { ...fit, faulty };
  },
};
export type FitTasks = typeof tasks;
