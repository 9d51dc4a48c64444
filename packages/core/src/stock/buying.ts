import { minorUnits } from '../money/money.ts';
import { programText, type ProgramRow, type SolveLp, type Term } from '../numeric/program.ts';
import { inRange, QuantityError } from '../quantity/check.ts';

/** Who sells, what the freight is, from which sum on there is none, and how many days it takes. */
export interface Supplier {
  name: string;
  freightMinor: number;
  /** Null: freight is always asked. */
  freeAboveMinor: number | null;
  days: number;
}
/** A pack that somebody sells: how much is in it, and what one costs, from so many packs on. */
export interface Offer {
  id: string;
  materialId: string;
  supplier: string;
  /** kg, pieces, m or ml of it in a pack. */
  pack: number;
  /** Rising by packs, the first from 1. */
  prices: readonly { fromPacks: number; minor: number }[];
}
/** What is short, and how many days there are until it is needed; null: whenever. */
export interface Lacking {
  materialId: string;
  quantity: number;
  withinDays: number | null;
}
export interface Bought {
  offerId: string;
  materialId: string;
  supplier: string;
  packs: number;
  quantity: number;
  minor: number;
}
export interface Shopping {
  bought: Bought[];
  /** What each supplier asks for sending it. */
  freight: { supplier: string; goodsMinor: number; freightMinor: number; days: number }[];
  totalMinor: number;
  /** No way of buying it is cheaper than this. */
  boundMinor: number;
  optimal: boolean;
  /** What nobody sells, and what comes too late from everybody who does. */
  nobody: string[];
  late: { materialId: string; days: number }[];
}

/** Nobody fills a bigger car: more packs of one thing than this are a mistake. */
export const MOST_PACKS = 10_000;

function checked(offers: readonly Offer[], suppliers: readonly Supplier[], lacking: readonly Lacking[]): void {
  const known = new Set(suppliers.map(({ name }) => name));
  for (const { id, supplier, pack, prices } of offers) {
    if (!known.has(supplier)) throw new QuantityError('supplier', supplier, '', [...known].join(', ') || 'none yet');
    inRange(`pack of ${id}`, pack, '', 1e-5, 1e5);
    prices.forEach(({ fromPacks, minor }, at) => {
      inRange(`packs of ${id}`, fromPacks, '', at === 0 ? 1 : prices[at - 1]!.fromPacks + 1, MOST_PACKS);
      minorUnits(`price of ${id}`, minor);
    });
    if (prices.length === 0) throw new QuantityError(`prices of ${id}`, 'none', '', 'one or more');
  }
  for (const { materialId, quantity } of lacking) inRange(`${materialId} that is short`, quantity, '', 0, 1e7);
}

/** Offers that are there in time; where none is, all of them, and that they are late is said. */
function inTime(lacking: readonly Lacking[], offers: readonly Offer[], daysOf: (supplier: string) => number) {
  const late: Shopping['late'] = [];
  const nobody: string[] = [];
  const taken = lacking.map(({ materialId, quantity, withinDays }) => {
    const own = offers.filter((offer) => offer.materialId === materialId);
    if (own.length === 0) nobody.push(materialId);
    const early = own.filter(({ supplier }) => withinDays === null || daysOf(supplier) <= withinDays);
    if (own.length > 0 && early.length === 0) {
      late.push({ materialId, days: Math.min(...own.map(({ supplier }) => daysOf(supplier))) });
    }
    // Late from everybody: then as early as it can be had.
    const first = Math.min(...own.map(({ supplier }) => daysOf(supplier)));
    return { quantity, offers: early.length ? early : own.filter(({ supplier }) => daysOf(supplier) === first) };
  });
  return { late, nobody, taken };
}

/** Packs of one price that are sent for nothing. */
const freeAt = ({ freeAboveMinor, freightMinor }: Supplier, minor: number): number =>
  freeAboveMinor === null || freightMinor === 0
    ? 0
    : Math.min(MOST_PACKS, Math.ceil(freeAboveMinor / Math.max(1, minor)));

/** One column against so many of another. */
function against(column: string, is: ProgramRow['is'], times: number, other: string): ProgramRow {
  const [one, many]: Term[] = [
    [1, column],
    [-times, other],
  ];
  return { of: [one!, many!], is, to: 0 };
}

/**
 * What to buy where, so that all that is short is covered for the least money: whole packs, prices that fall with their
 * number, freight by supplier and none above its sum. An integer program; what comes too late is not bought where
 * somebody is quicker.
 * @param lacking each material once
 * @returns what to buy; money in minor units
 * @throws QuantityError for an offer of an unknown supplier, a pack, price or number of packs out of range
 * @example cheapestCover([{ materialId: 'hook', quantity: 30, withinDays: null }], sold.offers, sold.suppliers, solve)
 *   .totalMinor // 1300
 */
export function cheapestCover(
  lacking: readonly Lacking[],
  offers: readonly Offer[],
  suppliers: readonly Supplier[],
  solve: SolveLp,
): Shopping {
  checked(offers, suppliers, lacking);
  const short = lacking.filter(({ quantity }) => quantity > 0);
  const supplierOf = (name: string) => suppliers.find((each) => each.name === name)!;
  const { late, nobody, taken } = inTime(short, offers, (name) => supplierOf(name).days);
  const used = taken.flatMap(({ offers: own, quantity }) =>
    own.map((offer) => {
      const most = Math.ceil(quantity / offer.pack - 1e-9);
      return { offer, most: inRange(`packs of ${offer.id}`, most, '', 0, MOST_PACKS) };
    }),
  );
  // A price that falls with the number of packs, or freight that is saved, may make more of them cheaper than enough.
  const tiers = used.flatMap(({ offer, most }, at) =>
    offer.prices.map(({ fromPacks, minor }, nth) => ({
      ...{ offer, fromPacks, minor, packs: `n${at}_${nth}`, on: `u${at}_${nth}` },
      // Its price is for fewer packs than the next one begins with.
      most: Math.min(
        Math.max(most, fromPacks, freeAt(supplierOf(offer.supplier), minor)),
        (offer.prices[nth + 1]?.fromPacks ?? Infinity) - 1,
      ),
    })),
  );
  const names = [...new Set(used.map(({ offer }) => offer.supplier))];
  const column = (kind: 'z' | 'f', supplier: string) => `${kind}${names.indexOf(supplier)}`;
  const rows: ProgramRow[] = [];
  for (const { offers: own, quantity } of taken) {
    const given = tiers.filter(({ offer }) => own.includes(offer));
    rows.push({ of: given.map(({ offer, packs }): Term => [offer.pack, packs]), is: '>=', to: quantity - 1e-9 });
  }
  for (const { offer, packs, on, fromPacks, most } of tiers) {
    rows.push(against(packs, '<=', most, on));
    rows.push(against(packs, '>=', fromPacks, on));
    rows.push(against(on, '<=', 1, column('z', offer.supplier)));
  }
  for (const { offer } of used) {
    const own = tiers.filter((tier) => tier.offer === offer).map(({ on }): Term => [1, on]);
    rows.push({ of: own, is: '<=', to: 1 });
  }
  for (const name of names) {
    const { freeAboveMinor } = supplierOf(name);
    const free = column('f', name);
    rows.push(against(free, '<=', 1, column('z', name)));
    const spent = tiers.filter(({ offer }) => offer.supplier === name).map(({ minor, packs }): Term => [minor, packs]);
    if (freeAboveMinor === null) rows.push({ of: [[1, free]], is: '<=', to: 0 });
    else rows.push({ of: [...spent, [-freeAboveMinor, free]], is: '>=', to: 0 });
  }
  const least = [
    ...tiers.map(({ minor, packs }): Term => [minor, packs]),
    ...names.flatMap((name): Term[] => {
      const { freightMinor } = supplierOf(name);
      return [
        [freightMinor, column('z', name)],
        [-freightMinor, column('f', name)],
      ];
    }),
  ];
  const yesOrNo = [...tiers.map(({ on }) => on), ...names.flatMap((name) => [column('z', name), column('f', name)])];
  const { status, bound, columns } =
    tiers.length > 0
      ? solve(programText({ least, rows, whole: tiers.map(({ packs }) => packs), yesOrNo }))
      : { status: 'optimal', bound: 0, columns: {} as Record<string, number> };
  const bought = tiers.flatMap(({ offer, packs, minor }): Bought[] => {
    const count = Math.round(columns[packs] ?? 0);
    if (count === 0) return [];
    const { id: offerId, materialId, supplier, pack } = offer;
    return [{ offerId, materialId, supplier, packs: count, quantity: count * pack, minor: count * minor }];
  });
  const freight = freightOf(bought, suppliers);
  const totalMinor =
    bought.reduce((sum, { minor }) => sum + minor, 0) +
    freight.reduce((sum, { freightMinor }) => sum + freightMinor, 0);
  return {
    ...{ bought, freight, totalMinor, nobody, late },
    ...{ boundMinor: Math.min(totalMinor, Math.ceil(bound - 1e-6)), optimal: status === 'optimal' },
  };
}

/**
 * What each supplier asks for sending what is bought there.
 * @example freightOf([], sold.suppliers).length // 0
 */
export function freightOf(bought: readonly Bought[], suppliers: readonly Supplier[]): Shopping['freight'] {
  return suppliers.flatMap(({ name, freightMinor, freeAboveMinor, days }) => {
    const own = bought.filter(({ supplier }) => supplier === name);
    if (own.length === 0) return [];
    const goodsMinor = own.reduce((sum, { minor }) => sum + minor, 0);
    const free = freeAboveMinor !== null && goodsMinor >= freeAboveMinor;
    return [{ supplier: name, goodsMinor, freightMinor: free ? 0 : freightMinor, days }];
  });
}
