import {
  countedOnPaper,
  knownProduct,
  pinsOf,
  knownWays,
  type KnownWays,
  type Pins,
  type PlanCavity,
  type PlanMold,
  type PlanOven,
  type PlanPot,
  type PlanProduct,
  type Shelf,
  type StockOnHand,
  knownPot,
  unitPrice,
  usualLead,
  withMetal,
  type YieldTonight,
} from '@schmelz/core';
import type { HeatingRecord, Material, Product } from '@schmelz/contract';
import { rowsOf, type Store } from '../store/store.ts';
import { listMolds } from './cavities.ts';
import { notAllowed } from './errors.ts';
import { castsOnPaper } from './paper.ts';
import { listRecords } from './records.ts';
import { listResources } from './resources.ts';
import { readSettings } from './settings.ts';
import { lastPrices, listMaterials } from './stock.ts';
import { ownPace } from './ticket-figures.ts';
import { readHookLostShare, readYieldAfterPour } from './tickets.ts';

/** Everything that planning looks at, read once. */
export interface Workshop {
  ways: KnownWays;
  materials: Map<string, Material>;
  /** Products as they are on record, and with all that is known of them. */
  records: Map<string, Product>;
  products: Map<string, PlanProduct>;
  molds: PlanMold[];
  pots: (PlanPot & { id: string })[];
  ovens: (PlanOven & { id: string })[];
  stock: StockOnHand[];
  /** What the steps after the pour leave of good heads. */
  afterPour: Required<YieldTonight>;
  /** Pins that stay in heads until the paint or the bake, by diameter. */
  pins: Pins[];
}

export async function readWorkshop(store: Store): Promise<Workshop> {
  const [
    { settings },
    materials,
    molds,
    pots,
    ovens,
    recipes,
    programs,
    products,
    heatings,
    afterPour,
    parts,
    onPaper,
    lostShare,
    paid,
    suppliers,
    own,
  ] = await Promise.all([
    readSettings(store),
    listMaterials(store),
    listMolds(store),
    rowsOf(store.models.pots),
    rowsOf(store.models.ovens),
    listResources(store, 'recipes'),
    rowsOf(store.models.bakePrograms),
    rowsOf(store.models.products),
    listRecords<HeatingRecord>(store, 'heating'),
    readYieldAfterPour(store),
    rowsOf(store.models.parts),
    castsOnPaper(store),
    readHookLostShare(store),
    lastPrices(store),
    listResources(store, 'suppliers'),
    ownPace(store),
  ]);
  const byId = new Map(materials.map((material) => [material.id, material]));
  const shelf: Shelf = {
    part: (id) => byId.get(id),
    recipe: (id) => recipes.find((each) => each.id === id),
    program: (id) => programs.find((each) => each.id === id),
  };
  // What is put away is planned with no more.
  const inUse = molds
    .filter(({ archived }) => !archived)
    .map((mold) => ({ ...mold, cavities: countedOnPaper(mold.cavities as PlanCavity[], onPaper.get(mold.id)) }));
  const known = new Map(products.map((each) => [each.id, withMetal(knownProduct(each, shelf), inUse, materials)]));
  return {
    ways: {
      ...knownWays(settings.ways, heatings, (id) => known.get(id)),
      ...(lostShare === null ? {} : { hookLostShare: lostShare }),
      ...own,
    },
    materials: byId,
    records: new Map(products.map((each) => [each.id, each])),
    products: known,
    molds: inUse,
    pots: pots.map((pot) => ({ ...pot, ...knownPot(pot) })),
    ovens,
    afterPour,
    pins: pinsOf(parts),
    stock: materials.map(({ id, name, kind, quantity, valueMinor }) => {
      const offers = suppliers.flatMap((supplier) => supplier.offers.filter(({ materialId }) => materialId === id));
      return {
        materialId: id,
        name,
        kind,
        quantity,
        ...unitPrice({ quantity, valueMinor }, paid.get(id) ?? null, offers),
      };
    }),
  };
}

/** The lead that is poured: the soft lead there is most of. */
export function castingLead(workshop: Workshop): StockOnHand {
  const usual = usualLead([...workshop.materials.values()]);
  const most = workshop.stock.find((each) => each.materialId === usual?.id);
  if (!most) throw notAllowed('No lead is on record: add a lead to Stock first.');
  return most;
}

/** The pot and the oven that a plan reckons with: the first of each. */
export function firstTools({ pots, ovens }: Workshop) {
  const [pot] = pots;
  const [oven] = ovens;
  if (!pot || !oven) throw notAllowed('A pot and an oven must be on record: add them in Setup first.');
  return { pot, oven };
}
