import { USUAL_STAYS_ON } from '../paint/coverage.ts';
import type { HouseWays } from './types.ts';

/** House ways before the maker has said anything; common practice, no source, but for what is derived elsewhere. */
export const DEFAULT_WAYS: HouseWays = {
  pourC: 371,
  roomC: 20,
  heelKg: 0.8,
  drossShare: 0.015,
  filmM: 100e-6,
  transferEfficiency: USUAL_STAYS_ON,
  labourMinorPerHour: 1200,
  energyMinorPerKWh: 32,
  loadS: 17,
  inspectS: 12,
  trimS: null,
  coatS: null,
  hangS: 3,
  finishS: 6,
};
