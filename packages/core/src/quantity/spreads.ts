/**
 * How unsure the inputs of the models are where nobody has measured, as standard deviations: what ranges are made of.
 * Shares are of the value itself. Common practice, no source; a thermocouple that a maker holds into things is good to
 * some 5 K, a number that is passed on from bench to bench to a fifth.
 */
export const SPREAD = {
  /** A pot held by eye and dial. */
  metalK: 8,
  /** A mold felt at its back. */
  moldK: 8,
  roomK: 2,
  /** What a warm block is called ready at. */
  readyK: 4,
  /** Skin between metal and mold: soot comes out differently each time. */
  interfaceShare: 0.18,
  /** V/A of a head from its style and its stamp. */
  modulusShare: 0.04,
  /** Metal that stands over the gates of a blank shot. */
  barShare: 0.25,
  shotShare: 0.03,
  lossShare: 0.2,
  /** Heat capacity of a block from its weight: handles, hinge. */
  capacityShare: 0.08,
  /** A gun nobody has counted with; its air. */
  gunShare: 0.25,
  gunAirK: 20,
  /** Seconds of hands, each kind of work by itself. */
  handsShare: 0.18,
} as const;
