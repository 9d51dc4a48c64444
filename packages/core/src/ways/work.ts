import { heatingS, secondCoatFromC, TARGET_C, type HeatedHead } from '../paint/head-heat.ts';
import { paintSteps, restsS } from './rhythm.ts';
import type { PaintZone } from '../paint/coverage.ts';
import { inRange } from '../quantity/check.ts';
import { figure, given, type Figure } from '../quantity/figure.ts';
import { aboveZero, range90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { schoolsAt } from './house.ts';
import type { Schools, School } from './school.ts';

/** A head is taken up, turned and laid down again. Common practice, no source. */
export const TAKE_UP_S = 2;

/**
 * Hands-on seconds to trim one head. With the usual ways (nipped, filed) 12 s, which is common practice.
 * @example trimSeconds(USUAL_SCHOOLS) // 12
 */
export const trimSeconds = (ways: Schools): number =>
  TAKE_UP_S + schoolsAt('trim', ways).reduce((sum, { school }) => sum + school.seconds, 0);

interface PaintedLayer {
  zone: PaintZone;
  coats: number;
  form: 'powder' | 'liquid';
}

/** Tapped from a soft brush onto the warm head: no heating of its own. Common practice, no source. */
const TAPPED_S: Record<Exclude<PaintZone, 'whole' | 'nose'>, number> = { back: 8, speckle: 5, flake: 5 };
/** Liquid: hung on a screw, dipped, dripped, the nose tapped, its hole cleared. Common practice, no source. */
const LIQUID_S = 14;

/**
 * What a head is heated to: hot enough to come out wet where it is not heated again.
 * @example targetOf(USUAL_SCHOOLS) // 170
 */
export const targetOf = (ways: Schools): number => (ways.gloss === 'hot' ? 205 : TARGET_C);

/** Where heads are heated: the room, and the maker's own gun where it is known. */
interface HeatedAt {
  roomC: number;
  gunWM2K?: number;
}

/**
 * A gun that was counted with says nothing of a torch.
 * @example gunOf({ tool: 'torch' }, { roomC: 20 }) // {}
 */
export const gunOf = ({ tool }: Pick<Schools, 'tool'>, { gunWM2K }: HeatedAt): { gunWM2K?: number } =>
  tool === 'heat gun' && gunWM2K !== undefined ? { gunWM2K } : {};

/**
 * How warm a head is when its second coat is heated, by what is done with it after the first.
 * @example warmFromFirstCoatC({ leadKg: 0.01, areaM2: 0.0005, wireM: 0.0012, embeddedM: 0.012 }, USUAL_SCHOOLS,
 *   { roomC: 20 }) // 154.4
 */
export function warmFromFirstCoatC(head: HeatedHead, ways: Schools, at: HeatedAt): number {
  const { roomC } = at;
  const dippedC = targetOf(ways);
  const heatS = heatingS({ head, tool: ways.tool, targetC: dippedC, ...gunOf(ways, at), roomC });
  const restS = restsS(paintSteps(heatS, ways), ways);
  return restS === null ? roomC : secondCoatFromC({ head, roomC, dippedC, restS });
}

/**
 * Hands-on seconds to paint one head, layer by layer: the first dip from room temperature, each further one from the
 * heat that is left of the one before; back and specks are tapped on between.
 * @example paintSeconds([{ zone: 'whole', coats: 1, form: 'powder' }], { leadKg: 0.01, areaM2: 0.0005,
 *   wireM: 0.0012, embeddedM: 0.012 }, USUAL_SCHOOLS, { roomC: 20 }) // 25.42
 */
export function paintSeconds(layers: readonly PaintedLayer[], head: HeatedHead, ways: Schools, at: HeatedAt): number {
  return layers.reduce(
    (sum, { zone, coats, form }) => {
      if (form === 'liquid') return sum + coats * LIQUID_S;
      return isDipped(zone) ? sum : sum + coats * TAPPED_S[zone];
    },
    dipSeconds(layers, head, ways, at).coatS,
  );
}

const isDipped = (zone: PaintZone): zone is 'whole' | 'nose' => zone === 'whole' || zone === 'nose';

/** Coats that are heated and dipped: how many, how long they are heated, and how long they take in all, s. */
export interface Dips {
  dips: number;
  heatedS: number;
  coatS: number;
}

/**
 * The dips of a head: the first from room temperature, each further one from the heat that is left.
 * @example dipSeconds([], { leadKg: 0.01, areaM2: 0.0005, wireM: 0.0012, embeddedM: 0.012 }, USUAL_SCHOOLS,
 *   { roomC: 20 }) // { dips: 0, heatedS: 0, coatS: 0 }
 */
export function dipSeconds(layers: readonly PaintedLayer[], head: HeatedHead, ways: Schools, at: HeatedAt): Dips {
  const dips = layers.reduce(
    (sum, { zone, coats, form }) => sum + (form !== 'liquid' && isDipped(zone) ? coats : 0),
    0,
  );
  if (dips === 0) return { dips, heatedS: 0, coatS: 0 };
  const { roomC } = at;
  const heated = { head, tool: ways.tool, targetC: targetOf(ways), ...gunOf(ways, at), roomC };
  const coat = (fromC: number) => {
    const heatS = heatingS({ ...heated, fromC });
    return { heatS, coatS: paintSteps(heatS, ways).reduce((sum, step) => sum + step.seconds, 0) };
  };
  const first = coat(roomC);
  const further = dips > 1 ? coat(warmFromFirstCoatC(head, ways, at)) : first;
  return {
    dips,
    heatedS: first.heatS + (dips - 1) * further.heatS,
    coatS: first.coatS + (dips - 1) * further.coatS,
  };
}

/**
 * What one school of a step costs a head: the time of its hands, and the work that is lost with what it spoils.
 * @example schoolCostFigure({ id: 'x', name: 'X', suits: '', seconds: 3, spoils: { share: 0.01, cause: 'runs' },
 *   needs: [] }, 1200, 60).value // 1.21
 */
export function schoolCostFigure(school: School, minorPerHour: number, workBeforeS: number): Figure {
  inRange('labour', minorPerHour, 'minor units/h', 0, 1e9);
  const share = school.spoils?.share ?? 0;
  const costs = ([seconds, spoils]: readonly number[]) =>
    ((seconds! + spoils! * (workBeforeS + seconds!)) * minorPerHour) / 3600;
  const unsure = [aboveZero(school.seconds, SPREAD.handsShare), aboveZero(share, SPREAD.spoilsShare)];
  const minor = costs(unsure.map(({ value }) => value));
  return figure(
    minor,
    'minor/head',
    {
      rule: `${school.name}. A spoiled head costs the work that is in it; its lead and its hook come back.`,
      formula: '(seconds + spoiled · (work so far + seconds)) · rate',
      source: 'Seconds and spoiled heads are common practice, until yours are on record',
      inputs: [
        given('Takes', school.seconds, 's'),
        given('Spoils', share, 'ratio', school.spoils?.cause ?? 'nothing'),
        given('Work in the head so far', workBeforeS, 's'),
        given('An hour of work', minorPerHour, 'minor'),
      ],
    },
    range90(costs, unsure),
  );
}
