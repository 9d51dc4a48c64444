import { castMassKg } from '../cast/cast-mass.ts';
import { cavitySolid } from '../geometry/solid.ts';
import { sprueOf } from '../geometry/sprue.ts';
import type { StyleId } from '../geometry/styles.ts';
import type { Basis } from '../quantity/figure.ts';
import type { MoldBlock, MoldMetal } from './block.ts';

/** A mold as it is on record, as far as heat goes. */
export interface BlockRecord {
  bodyKg: number;
  metal?: MoldMetal;
  learned?: LearnedBlock | null;
}

/** What a probe at its back taught; without its power: fitted before that was known, as if it went with one degree. */
export interface LearnedBlock {
  lossWPerK: number;
  lossSdWPerK?: number;
  lossPower?: number;
  lossPowerSd?: number;
  /** What the mold was above the room on average while it was read. */
  aboveK?: number;
  capacityShare: number;
}

/** A block as it is reckoned with. */
export interface KnownBlock {
  block: MoldBlock & { metal: MoldMetal };
  basis: Basis;
}

/**
 * What is known of a mold's block: what its own probe taught outranks the book.
 * @example knownBlock({ bodyKg: 0.6 }) // { block: { bodyKg: 0.6, metal: 'aluminium' }, basis: 'given' }
 */
export function knownBlock({ bodyKg, metal = 'aluminium', learned }: BlockRecord): KnownBlock {
  const block = { bodyKg, metal };
  if (!learned) return { block, basis: 'given' };
  const { lossWPerK, lossSdWPerK = 0, lossPower = 0, lossPowerSd: powerSd, aboveK, capacityShare } = learned;
  const known = { ...block, lossWPerK, lossPower, capacityShare };
  if (powerSd === undefined || aboveK === undefined) return { block: known, basis: 'fitted' };
  return { block: { ...known, doubt: { lossShare: lossSdWPerK / lossWPerK, powerSd, aboveK } }, basis: 'fitted' };
}

/**
 * A block as a pour of before kept it: one that was fitted then knows of no power.
 * @example blockThen({ bodyKg: 0.6, lossWPerK: 0.5 }).lossPower // 0
 */
export const blockThen = (block: MoldBlock): MoldBlock =>
  block.lossWPerK === undefined ? block : { lossPower: 0, ...block };

/**
 * Head and sprue of one cavity, kg of soft lead.
 * @example cavityShotKg({ style: 'ball', nominalMassKg: 0.01 }) // 0.0131
 */
export const cavityShotKg = ({ style, nominalMassKg }: { style: StyleId; nominalMassKg: number }): number =>
  castMassKg({ nominalMassKg }) + sprueOf(cavitySolid(style, nominalMassKg)).massKg;

/**
 * One shot with every open cavity filled, heads and sprues, kg of soft lead.
 * @example fullShotKg([{ style: 'ball', nominalMassKg: 0.01 }, { style: 'ball', nominalMassKg: 0.01 }]) // 0
 */
export const fullShotKg = (cavities: readonly { style: StyleId; nominalMassKg: number; condition: string }[]): number =>
  cavities.filter(({ condition }) => condition === 'good').reduce((sum, cavity) => sum + cavityShotKg(cavity), 0);
