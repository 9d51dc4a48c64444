import { massShareOfLead, type Alloy } from '../metal/alloy.ts';
import { pourTemperatureC } from '../metal/figures.ts';
import { METAL_KINDS } from '../metal/wanted.ts';
import type { SolveLp } from '../numeric/program.ts';
import { allocate, asPlanned, blankKey, moldsCasting, onBestMold, type MoldAllocation } from './allocate.ts';
import { castsTonight } from './casts.ts';
import { chargeKgOf, chargeParts, leadFigures, type ChargePart } from './charge.ts';
import { alloyOfProduct, kindOfMetal } from './metal.ts';
import { moldPlan } from './mold-plan.ts';
import type { Figure } from '../quantity/figure.ts';
import type { KnownWays, MoldPlan, PlanInput, PlanLine, PlanProduct, StockOnHand } from './types.ts';

/** All that is cast in one metal: its molds, and the pot that is melted for them. */
export interface MetalRun {
  lead: StockOnHand;
  alloy: Alloy;
  /** The house's ways with the heat that this metal is poured at. */
  ways: KnownWays;
  allocations: MoldAllocation[];
  molds: MoldPlan[];
  chargeParts: ChargePart[];
  chargeKg: number;
  /** Metal that is used up, and metal that must be there. */
  used: Figure;
  need: Figure;
}

/**
 * Of works in several metals those of one metal together: soft lead first, what must stay clean of lead last.
 * @example byMetal([{ metal: { kind: 'hard' } }, {}], (each) => each).map((each) => each.length) // [1, 1]
 */
export const byMetal = <Of>(works: readonly Of[], productOf: (work: Of) => Pick<PlanProduct, 'metal'>): Of[][] =>
  METAL_KINDS.map((kind) => works.filter((work) => kindOfMetal(productOf(work)) === kind)).filter(
    (own) => own.length > 0,
  );

/**
 * What is poured for these lines, metal by metal.
 * @param poured good heads that the pot owes
 * @param solve then the molds are those that take the least time at the pot; left out: of each blank the one with most
 *   cavities
 * @example metalRuns(order.lines, order)[0].molds[0].shots.value // 22
 */
export function metalRuns(poured: readonly PlanLine[], input: PlanInput, solve?: SolveLp): MetalRun[] {
  return byMetal(poured, ({ product }) => product).map((lines) => {
    const { product } = lines[0]!;
    const lead = input.stock.find(({ materialId }) => materialId === product.metal?.materialId) ?? input.lead;
    const alloy = alloyOfProduct(product);
    const ways = { ...input.ways, pourC: pourTemperatureC(alloy, input.ways.pourC) };
    const choice = lines.some((line) => moldsCasting(line.product, input.molds).length > 1);
    const shares = solve && choice ? inLeastTime(lines, { ...input, ways }, alloy, solve) : onBestMold;
    const allocations = allocate(lines, input.molds, shares);
    const metalShare = massShareOfLead(alloy);
    const parts = chargeParts(
      allocations.flatMap((allocation) => allocation.kinds),
      ways,
      metalShare,
    );
    return {
      ...{ lead, alloy, ways, allocations, chargeParts: parts, chargeKg: chargeKgOf(parts) },
      molds: allocations.map((allocation) => moldPlan(allocation, ways, input.pot, alloy)),
      ...leadFigures(allocations, ways, metalShare),
    };
  });
}

/** The molds that take the least time at the pot, one after another. */
function inLeastTime(lines: readonly PlanLine[], { molds, pot, ways }: PlanInput, alloy: Alloy, solve: SolveLp) {
  const wanted = lines.map(({ product, quantity }) => ({ workId: product.id, product, heads: quantity }));
  const casts = castsTonight({ wanted, molds, pot, ways, alloy, atOnce: 1 }, solve);
  return asPlanned(({ product }, moldId) => {
    const uses = casts.molds.find((mold) => mold.moldId === moldId)?.uses ?? [];
    return uses.find(({ blankId }) => blankId === blankKey(product))?.casts ?? 0;
  });
}
