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
  /** The gap that a set head leaves to its mold; still air round a hot head. */
  gapShare: 0.15,
  stillAirShare: 0.09,
  /** From the metal to a hook's bend, by its size number; still air round its wire. */
  shankShare: 0.08,
  wireAirShare: 0.2,
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
  /** Seconds of hands, each kind of work by itself, and all of them together of a maker nobody knows. */
  handsShare: 0.18,
  eveningShare: 0.25,
  /** A pot that nobody has looked at. */
  potPowerShare: 0.1,
  potLossShare: 0.25,
  crucibleShare: 0.35,
  /** How far the gate is from running full. */
  dischargeShare: 0.14,
  /** What a cavity casts against its stamp. */
  massShare: 0.018,
  /** Metal by ideal mixing. */
  densityShare: 0.003,
  drossShare: 0.4,
  /** What of scrap is clean metal, and what of all casts is good: of the whole. */
  cleanPart: 0.035,
  goodPart: 0.035,
  /** Thickness of a film, which nobody measures. */
  filmShare: 0.12,
  /** Powder that stays on where no jar was weighed. */
  staysOnShare: 0.15,
  /** What an oven holds against its mark: by its dial alone, and once it was looked at. */
  ovenK: 7,
  learnedOvenK: 2.5,
  headLagShare: 0.2,
  ovenLagShare: 0.2,
  /** Energy of activation from two lines of a label. */
  activationShare: 0.06,
  /** Power that an oven draws over its plate times its duty. */
  energyShare: 0.2,
  /** What one change at the bench does to the filling, of what it is said to do. */
  leverShare: 0.3,
  /** How many a way of working spoils. */
  spoilsShare: 0.5,
} as const;
