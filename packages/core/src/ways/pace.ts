/** A step of a closed ticket, or a pour: what its hands took, and what the ways alone said that they would, s. */
export interface PaceRecord {
  station: string;
  /** What is done there; left out: all that is done there is alike. */
  does?: string;
  seconds: number;
  waysS: number;
  /** Of which product; left out: of several, or it makes no difference. */
  productId?: string;
  /** Whose hands nearly all of it were; left out: not said, or of several. */
  who?: string;
  /** When it was done, ms since 1970; left out: not known. */
  at?: number;
}

/** How a maker's hands differ from the ways: the factor, its doubt (log-normal), and of how many records it is. */
export interface PaceFactor {
  factor: number;
  sdLog: number;
  records: number;
}
/** By station, by its steps, and by product there; and by person. See {@link paceOf}, {@link paceWith}. */
export type Pace = Readonly<Record<string, PaceFactor>>;

/**
 * How far makers differ from the ways, steps of a station from each other, products at a step, people of one house, and
 * an evening's record from the next.
 */
const MAKERS_SD = 0.5;
const STEPS_SD = 0.25;
const PRODUCTS_SD = 0.15;
const PEOPLE_SD = 0.3;
const RECORD_SD = 0.2;
/** Further than this from the others a record is no pace: a clock was forgotten. */
const FURTHEST = 1.2;
/** Beyond so many the older ones say little of today. */
const NEWEST = 30;

const AS_THE_WAYS: PaceFactor = { factor: 1, sdLog: MAKERS_SD, records: 0 };
const keyOf = (...of: readonly string[]): string => of.join(': ');
const keyOfPerson = (who: string): string => `by ${who}`;
const medianOf = (sorted: readonly number[]): number =>
  (sorted[Math.floor((sorted.length - 1) / 2)]! + sorted[Math.ceil((sorted.length - 1) / 2)]!) / 2;

/** What so many records say, leaning on what was thought before. */
function leaning(logs: readonly number[], before: { log: number; sd: number }): PaceFactor & { log: number } {
  const newest = logs.slice(0, NEWEST);
  const middle = medianOf([...newest].sort((a, b) => a - b));
  const kept = newest.filter((log) => Math.abs(log - middle) <= FURTHEST);
  const [known, thought] = [kept.length / RECORD_SD ** 2, 1 / before.sd ** 2];
  const mean = kept.reduce((sum, log) => sum + log, 0) / kept.length;
  const log = (known * mean + thought * before.log) / (known + thought);
  return { log, factor: Math.exp(log), sdLog: 1 / Math.sqrt(known + thought), records: kept.length };
}

/**
 * A maker's own pace from what was closed: by station, leaning on the ways while records are few, by step, leaning on
 * its station, and by product, leaning on its step; and what each person differs by from the house. Log-normal
 * shrinkage; how far makers, steps, products, people and evenings differ is common practice, no source.
 * @param records newest first; those without seconds or without a way to hold them against are passed over
 * @example paceFrom(Array(10).fill({ station: 'trim', seconds: 180, waysS: 100 })).trim.factor // 1.783
 */
export function paceFrom(records: readonly PaceRecord[]): Pace {
  const told = records.filter(({ seconds, waysS }) => seconds > 0 && waysS > 0);
  const logOf = ({ seconds, waysS }: PaceRecord) => Math.log(seconds / waysS);
  const pace: Record<string, PaceFactor> = {};
  for (const station of new Set(told.map((each) => each.station))) {
    const own = told.filter((each) => each.station === station);
    const { log, ...all } = leaning(own.map(logOf), { log: 0, sd: MAKERS_SD });
    pace[station] = all;
    for (const does of new Set(own.flatMap((each) => each.does ?? []))) {
      const here = own.filter((each) => each.does === does);
      const { log: ofStep, ...step } = leaning(here.map(logOf), { log, sd: STEPS_SD });
      pace[keyOf(station, does)] = step;
      for (const productId of new Set(here.flatMap((each) => each.productId ?? []))) {
        const logs = here.filter((each) => each.productId === productId).map(logOf);
        const { log: _log, ...product } = leaning(logs, { log: ofStep, sd: PRODUCTS_SD });
        pace[keyOf(station, does, productId)] = product;
      }
    }
  }
  for (const who of new Set(told.flatMap((each) => each.who ?? []))) {
    const beside = told
      .filter((each) => each.who === who)
      .map((each) => logOf(each) - Math.log(paceOf(pace, each.station, each.does).factor));
    const { log: _log, ...person } = leaning(beside, { log: 0, sd: PEOPLE_SD });
    pace[keyOfPerson(who)] = person;
  }
  return pace;
}

/**
 * How this maker's hands differ from the ways at a step, of a product where it is named; as the ways where nothing is
 * known.
 * @example paceOf({ trim: { factor: 1.5, sdLog: 0.1, records: 9 } }, 'trim', 'Trim').factor // 1.5
 */
export const paceOf = (pace: Pace | null | undefined, station: string, does?: string, productId?: string): PaceFactor =>
  (does === undefined || productId === undefined ? undefined : pace?.[keyOf(station, does, productId)]) ??
  (does === undefined ? undefined : pace?.[keyOf(station, does)]) ??
  pace?.[station] ??
  AS_THE_WAYS;

/**
 * The pace of those who are here tonight: what they differ by from the house, in their middle, on every step.
 * @example paceWith({ trim: { factor: 1.5, sdLog: 0.1, records: 9 }, 'by Jo': { factor: 1.2, sdLog: 0.1,
 *   records: 9 } }, ['Jo']).trim.factor // 1.8
 */
export function paceWith(pace: Pace, people: readonly string[]): Pace {
  const known = people.map((who) => pace[keyOfPerson(who)]?.factor ?? 1);
  if (known.every((factor) => factor === 1)) return pace;
  const factor = Math.exp(known.reduce((sum, each) => sum + Math.log(each), 0) / known.length);
  return Object.fromEntries(
    Object.entries(pace).map(([key, each]) => [key, { ...each, factor: each.factor * factor }]),
  );
}
