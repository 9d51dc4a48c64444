/** A head that was dipped and hung for a moment is still about this warm. Common practice, no source. */
export const SECOND_COAT_FROM_C = 110;
/** Heating to gloss after the dip, as a share of the first heating. Common practice, no source. */
const GLOSS_SHARE = 0.35;

/** One head from the gun to its hook, step by step, s. Common practice, no source; the heating comes from the model. */
export const paintSteps = (heatS: number): { name: string; seconds: number }[] => [
  { name: 'heat', seconds: heatS },
  { name: 'dip', seconds: 1 },
  { name: 'tap', seconds: 2 },
  { name: 'to gloss', seconds: Math.max(2, Math.round(heatS * GLOSS_SHARE)) },
  { name: 'eye', seconds: 3 },
  { name: 'hang', seconds: 3 },
];
