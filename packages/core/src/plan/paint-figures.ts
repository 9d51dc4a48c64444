import { paintS, trimS } from './minutes.ts';
import { dippedAreaM2, powdersPerHead, productHeated } from './product.ts';
import { dryWaitS } from './timing.ts';
import type { HouseWays, KnownWays, PlanProduct } from './types.ts';
import { figure, fitted, given, type Figure } from '../quantity/figure.ts';
import { aboveZero, productRange90, range90, Z_90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { schoolsFollowed, schoolsAt } from '../ways/house.ts';
import { gunOf, targetOf } from '../ways/work.ts';
import { heatingS } from '../paint/head-heat.ts';

/** What stays on in a jar's own record, where it was weighed. */
interface KnownEfficiency {
  efficiency: number;
  low: number;
  high: number;
  weighings: number;
}

/**
 * Powder that one head takes, all its layers, kg; a range where no jar was weighed.
 * @example powderPerHeadFigure(product(10), ways).value // 0.00009135
 */
export function powderPerHeadFigure(product: PlanProduct, ways: HouseWays, known?: KnownEfficiency): Figure {
  const share = known?.efficiency ?? ways.transferEfficiency;
  const powders = powdersPerHead(product, { ...ways, transferEfficiency: share });
  const kg = powders.reduce((sum, powder) => sum + powder.kgPerHead, 0);
  const paintedAreaM2 = dippedAreaM2(product, ways);
  const weighed = !!known && known.weighings > 0;
  const staysOnSd = known ? (known.high - known.low) / (2 * Z_90) : SPREAD.staysOnShare * share;
  const taken = range90(
    ([film, stays]) => (kg * film! * share) / stays!,
    [aboveZero(1, SPREAD.filmShare), { value: share, sd: staysOnSd, least: 0.05, most: 1 }],
  );
  return figure(
    kg,
    'powder-kg',
    {
      rule: 'Area of the head, times the film, times the density, over what stays on; layer by layer.',
      formula: 'm = A · film · ρ / efficiency',
      source: 'The industry’s coverage formula: 192.3 ft²/lb at one mil and specific gravity 1',
      inputs: [
        given('Painted', paintedAreaM2, 'm2'),
        given('Film', ways.filmM, 'm'),
        (weighed ? fitted : given)(
          'Stays on',
          share,
          'ratio',
          weighed ? `${known.weighings} weighings of jars` : 'no jar was weighed yet',
        ),
        ...powders.map(({ name, kgPerHead }) => given(name, kgPerHead, 'powder-kg')),
      ],
    },
    { ...taken, basis: weighed ? 'fitted' : 'given' },
  );
}

/**
 * Hands-on seconds that a head takes at the paint, by the model and the ways.
 * @example paintSecondsFigure(product(10), { ...ways, coatS: 33 }).value // 33
 */
export function paintSecondsFigure(product: PlanProduct, ways: KnownWays): Figure {
  const seconds = paintS(ways, product);
  const schools = schoolsFollowed(ways.schools, product.ways);
  const heatS = heatingS({
    head: productHeated(product),
    tool: schools.tool,
    roomC: ways.roomC,
    targetC: targetOf(schools),
    ...gunOf(schools, ways),
  });
  return figure(
    seconds,
    's',
    {
      rule:
        ways.coatS === null
          ? 'Each dip: heating, dip, tap and what your ways add; back and specks are tapped on between.'
          : 'Your own seconds for a coat.',
      formula: 'Σ layers · coats · seconds',
      source: 'Heating by the model; the rest is common practice',
      inputs: [
        given('Heating, from cold', heatS, 's'),
        ...product.layers.map(({ powder, zone, coats }) =>
          given(`${powder.name}, ${zone}`, coats, 'count', powder.form === 'liquid' ? 'liquid' : 'coats'),
        ),
        ...schoolsAt('paint', schools).map(({ step, school }) => given(step.name, school.name, 'text')),
      ],
    },
    productRange90(seconds, [SPREAD.handsShare]),
  );
}

/**
 * What the powder on a head costs at what was paid for it on average; what has no price yet counts nothing.
 * @example powderCostFigure(product(10), ways, () => 4000).unit // 'minor/head'
 */
export function powderCostFigure(
  product: PlanProduct,
  ways: HouseWays,
  minorPerKg: (materialId: string) => number | null,
): Figure {
  const powders = powdersPerHead(product, ways).map((each) => ({
    ...each,
    minor: each.kgPerHead * (minorPerKg(each.materialId) ?? 0),
  }));
  const minor = powders.reduce((sum, each) => sum + each.minor, 0);
  return figure(
    minor,
    'minor/head',
    {
      rule: 'Powder taken, what was shaken off in it, at the moving average of your purchases.',
      formula: 'Σ kg · price',
      source: 'Your stock',
      inputs: powders.map(({ name, minor: each }) => given(name, each, 'minor/head')),
    },
    productRange90(minor, [SPREAD.filmShare, SPREAD.staysOnShare]),
  );
}

/**
 * Waiting between coats of liquid paint; null where nothing dries.
 * @example dryingFigure(product(10)) // null
 */
export function dryingFigure(product: PlanProduct): Figure | null {
  const seconds = dryWaitS(product.layers);
  if (seconds === 0) return null;
  return figure(seconds, 's', {
    rule: 'Each coat of liquid paint dries before the next.',
    formula: 'Σ coats · wait',
    source: 'The wait written down with the paint',
    inputs: product.layers
      .filter(({ powder }) => powder.form === 'liquid')
      .map(({ powder, coats }) => given(powder.name, powder.dryS ?? 0, 's', coats > 1 ? `${coats} coats` : 'one coat')),
  });
}

/**
 * Hands-on seconds that a head takes at the trim, by the ways.
 * @example trimSecondsFigure(product(10), { ...ways, trimS: 10 }).value // 10
 */
export function trimSecondsFigure(product: PlanProduct, ways: HouseWays): Figure {
  const seconds = trimS(ways, product);
  return figure(
    seconds,
    's',
    {
      rule:
        ways.trimS === null
          ? 'Taking it up, and what each step takes by your ways.'
          : 'Your own seconds, from the setup: they outrank the ways.',
      formula: 'taking up + Σ steps',
      source: ways.trimS === null ? 'Common practice' : 'Your setup',
      inputs: schoolsAt('trim', schoolsFollowed(ways.schools, product.ways)).map(({ step, school }) =>
        given(step.name, school.seconds, 's', school.name),
      ),
    },
    productRange90(seconds, [SPREAD.handsShare]),
  );
}
