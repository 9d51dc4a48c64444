import { countInRange, inRange } from '../quantity/check.ts';

/**
 * Too cold to go on where nobody knows what the mold settles at, C: what is warmer fills nine in ten. Common practice,
 * no source.
 */
export const COLD_BELOW_C = 40;
/**
 * Of what a mold settles at above the room so much is still no cold mold: there is no one floor for all, a micro mold
 * casts nine in ten at what would be cold for a heavy one. Common practice, no source.
 */
const OF_SETTLED = 0.6;
/**
 * Too cold to go on until this mold's own shorts say otherwise, C.
 * @example coldByPace({ settledC: 52, roomC: 20 }) // 39.2
 */
export const coldByPace = ({ settledC, roomC }: { settledC: number; roomC: number }): number =>
  roomC + OF_SETTLED * (settledC - roomC);
/**
 * How sure that is of one mold before anybody has poured in it, how far below it every second one is short, and over
 * how many degrees it goes from full to short.
 */
const BELIEF = { belowK: 4, sdK: 5, widthK: 3, logWidthSd: 0.6 };
/** One head in so many short is no run any more. Common practice, no source. */
const STOP_SHARE = 1 / 5;
/** Shorts that a warm mold gives too, whatever their cause; they count for two casts in a hundred beforehand. */
const WARM_C = 60;
const USUAL_SHARE = 0.02;
const USUAL_CASTS = 50;

/** Casts of a mold while it was so warm, and how many of them were short. */
export interface HeatRecord {
  moldC: number;
  casts: number;
  shorts: number;
}
interface ColdMold {
  /** Colder than this, and one head in five or more comes out short for it. */
  belowC: number;
  /** Casts on record that say so. */
  casts: number;
}

/** Half a degree apart, as far about what is usual as belief and records may lead, K. */
const AWAY_K = Array.from({ length: 161 }, (_, i) => 0.5 * i - 35);
const WIDTHS = [1, 1.5, 2, 3, 4.5, 6.5, 9];

/**
 * At which mean temperature a mold is too cold to go on, by its own record of shorts: a logistic curve over its heat,
 * on top of what comes short in a warm mold, with a belief beforehand, searched on a grid. Cavities whose shorts have
 * another cause are left out by whoever asks. Range: -20 to 400 C.
 * @param usualC what is too cold for it by its pace, C
 * @example coldMold([]).belowC // 40.2: what practice says, until there is a record
 */
export function coldMold(records: readonly HeatRecord[], usualC = COLD_BELOW_C): ColdMold {
  inRange('usualC', usualC, 'C', -20, 300);
  for (const { moldC, casts, shorts } of records) {
    inRange('moldC', moldC, 'C', -20, 600);
    countInRange('casts', casts, 0, 1e7);
    countInRange('shorts', shorts, 0, casts);
  }
  const sum = (of: readonly HeatRecord[], what: 'casts' | 'shorts') => of.reduce((all, each) => all + each[what], 0);
  const warm = records.filter(({ moldC }) => moldC >= WARM_C);
  const usual = (sum(warm, 'shorts') + USUAL_SHARE * USUAL_CASTS) / (sum(warm, 'casts') + USUAL_CASTS);
  const cost = (middleC: number, widthK: number) => {
    const belief =
      ((middleC - usualC + BELIEF.belowK) / BELIEF.sdK) ** 2 / 2 +
      (Math.log(widthK / BELIEF.widthK) / BELIEF.logWidthSd) ** 2 / 2;
    return records.reduce((all, { moldC, casts, shorts }) => {
      const share = usual + (1 - usual) / (1 + Math.exp((moldC - middleC) / widthK));
      const p = Math.min(1 - 1e-9, Math.max(1e-9, share));
      return all - shorts * Math.log(p) - (casts - shorts) * Math.log1p(-p);
    }, belief);
  };
  const best = AWAY_K.flatMap((awayK) => {
    const middleC = usualC - BELIEF.belowK + awayK;
    return WIDTHS.map((widthK) => ({ middleC, widthK, cost: cost(middleC, widthK) }));
  }).reduce((a, b) => (b.cost < a.cost ? b : a));
  return {
    belowC: best.middleC + best.widthK * Math.log((1 - STOP_SHARE) / STOP_SHARE),
    casts: sum(records, 'casts'),
  };
}
