import { schoolsAt, stationOf, STEPS, type Schools, type Station } from '@schmelz/core';

type WithSchools = Parameters<typeof schoolsAt>[0];
/** Schools are followed at some of the stations only. */
const hasSchools = (station: string): station is WithSchools => STEPS.some((step) => step.station === station);

/** What is said before the work of a station: its own, and what the followed ways ask for. */
export const cautionsOf = (station: string, schools: Schools): readonly string[] => {
  const { cautions } = stationOf(station);
  if (!hasSchools(station)) return cautions;
  return [...schoolsAt(station, schools).flatMap(({ school }) => school.caution ?? []), ...cautions];
};

/** What a look or a finger checks on each head, by the followed ways. */
export const checksOf = (station: string, schools: Schools): string[] =>
  hasSchools(station) ? [...new Set(schoolsAt(station, schools).flatMap(({ school }) => school.check ?? []))] : [];

/** What has to lie ready before the work, by the followed ways. */
export const needsOf = (station: string, schools: Schools): string[] =>
  hasSchools(station) ? [...new Set(schoolsAt(station, schools).flatMap(({ school }) => school.needs))] : [];

/** A step whose name says no more than its station's is named by the station. */
export const saysMore = (does: string, { name }: Station): boolean => does !== name;
