import { stepStations } from '@schmelz/core';
import type { ComponentType } from 'react';
import type { StationBench } from './counting/CountBench.tsx';

/** A page: where it stands, how its code is fetched, and whether it is a bench, in the light of the bench. */
interface PageAt {
  path: string;
  load: () => Promise<{ default: ComponentType }>;
  isBench: boolean;
}

/** A page whose code is fetched when it is first gone to. */
function page<Module extends object>(
  path: string,
  fetched: () => Promise<Module>,
  name: keyof Module,
  isBench = false,
): PageAt {
  return { path, isBench, load: async () => ({ default: (await fetched())[name] as ComponentType }) };
}

/** Stations whose bench does more than count; every other one has the plain bench. */
const OWN_BENCHES: Readonly<Record<string, () => Promise<StationBench>>> = {
  trim: async () => (await import('./stations/trim/TrimBench.tsx')).TrimBench,
  paint: async () => (await import('./stations/paint/PaintBench.tsx')).PaintBench,
  bake: async () => (await import('./stations/bake/BakeBench.tsx')).BakeBench,
  finish: async () => (await import('./stations/finish/FinishBench.tsx')).FinishBench,
};

/** Every station that counts heads has a bench, for a ticket at one of its steps there. */
const benches = stepStations().flatMap(({ id }) =>
  [`/${id}/:id`, `/${id}/:id/:step`].map((path): PageAt => ({
    path,
    isBench: true,
    load: async () => {
      const [{ CountBenchPage }, Bench] = await Promise.all([import('./counting/CountBench.tsx'), OWN_BENCHES[id]?.()]);
      return { default: () => <CountBenchPage station={id} Bench={Bench} /> };
    },
  })),
);
/** Stations whose desk shows more than what waits. */
const OWN_DESKS: readonly string[] = ['trim', 'paint', 'bake', 'finish'];
const desks = stepStations()
  .filter(({ id }) => !OWN_DESKS.includes(id))
  .map(({ id }): PageAt => ({
    path: `/${id}`,
    isBench: false,
    load: async () => {
      const { CountDesk } = await import('./counting/CountDesk.tsx');
      return { default: () => <CountDesk station={id} /> };
    },
  }));

/** Every page of the application. */
export const PAGES: readonly PageAt[] = [
  page('/', () => import('./stations/line/LinePage.tsx'), 'LinePage'),
  page('/start', () => import('./stations/start/StartPage.tsx'), 'StartPage'),
  page('/tonight', () => import('./stations/tonight/TonightPage.tsx'), 'TonightPage'),
  page('/orders', () => import('./stations/orders/OrdersPage.tsx'), 'OrdersPage'),
  page('/orders/grid', () => import('./stations/orders/OrderGridPage.tsx'), 'OrderGridPage'),
  page('/products/grid', () => import('./stations/products/GridPage.tsx'), 'ProductGridPage'),
  page('/orders/new', () => import('./stations/orders/OrderForm.tsx'), 'OrderFormPage'),
  page('/orders/:id', () => import('./stations/orders/OrderPage.tsx'), 'OrderPage'),
  page('/orders/:id/change', () => import('./stations/orders/OrderForm.tsx'), 'OrderFormPage'),
  page('/products/templates', () => import('./stations/products/TemplatesPage.tsx'), 'TemplatesPage'),
  page('/products', () => import('./stations/products/ProductsPage.tsx'), 'ProductsPage'),
  page('/lead', () => import('./stations/lead/LeadPage.tsx'), 'LeadPage'),
  page('/lead/melt', () => import('./stations/lead/MeltPage.tsx'), 'MeltPage'),
  page('/lead/dial', () => import('./stations/lead/DialPage.tsx'), 'DialPage'),
  page('/lead/cast', () => import('./stations/lead/CastPage.tsx'), 'CastPage'),
  page('/lead/probes', () => import('./stations/lead/ReadingsPage.tsx'), 'ReadingsPage'),
  page('/molds/parts', () => import('./stations/molds/PartsPage.tsx'), 'PartsPage'),
  page('/molds/:id', () => import('./stations/molds/MoldPage.tsx'), 'MoldPage'),
  page('/molds/:id/hooks', () => import('./stations/molds/HooksPage.tsx'), 'HooksPage'),
  page('/molds/:id/warm', () => import('./stations/molds/WarmPage.tsx'), 'WarmPage'),
  page('/molds/:id/fill', () => import('./stations/molds/FillPage.tsx'), 'FillPage'),
  page('/molds/:id/care', () => import('./stations/molds/CarePage.tsx'), 'CarePage'),
  page('/molds', () => import('./stations/molds/MoldsPage.tsx'), 'MoldsPage'),
  page('/pour', () => import('./stations/pour/PourDesk.tsx'), 'PourDesk'),
  page('/pour/:id', () => import('./stations/pour/PourBench.tsx'), 'PourBenchPage', true),
  page('/paint/dip/:id', () => import('./stations/paint/DipPage.tsx'), 'DipPage', true),
  page('/finish', () => import('./stations/finish/FinishDesk.tsx'), 'FinishDesk'),
  page('/finish/labels/:id', () => import('./stations/finish/LabelsPage.tsx'), 'LabelsPage'),
  page('/trace', () => import('./stations/finish/TracePage.tsx'), 'TracePage'),
  page('/trace/lot/:id', () => import('./stations/finish/LotPage.tsx'), 'LotPage'),
  page('/trace/:number', () => import('./stations/finish/TracePage.tsx'), 'TracePage'),
  page('/finish/glue/:id', () => import('./stations/finish/GluePage.tsx'), 'GluePage', true),
  page('/bake/loads', () => import('./stations/bake/LoadsPage.tsx'), 'LoadsPage'),
  page('/bake/load/:id', () => import('./stations/bake/LoadPage.tsx'), 'LoadBenchPage', true),
  page('/bake/oven', () => import('./stations/bake/OvenPage.tsx'), 'OvenPage'),
  page('/bake/program', () => import('./stations/bake/ProgramPage.tsx'), 'ProgramPage'),
  page('/bake/past', () => import('./stations/bake/PastPage.tsx'), 'PastPage'),
  page('/bake/log', () => import('./stations/bake/LogPage.tsx'), 'LogPage'),
  page('/trim', () => import('./stations/trim/TrimDesk.tsx'), 'TrimDesk'),
  page('/trim/ways', () => import('./stations/trim/TrimDesk.tsx'), 'TrimWays'),
  page('/trim/sample', () => import('./stations/trim/SamplePage.tsx'), 'SamplePage'),
  page('/paint', () => import('./stations/paint/PaintDesk.tsx'), 'PaintDesk'),
  page('/paint/recipes', () => import('./stations/paint/RecipesPage.tsx'), 'RecipesPage'),
  page('/paint/jars', () => import('./stations/paint/JarsPage.tsx'), 'JarsPage'),
  page('/paint/ways', () => import('./stations/paint/PaintDesk.tsx'), 'PaintWays'),
  page('/paint/heat', () => import('./stations/paint/HeatPage.tsx'), 'HeatPage'),
  page('/paint/order', () => import('./stations/paint/OrderPage.tsx'), 'OrderPage'),
  page('/bake', () => import('./stations/bake/BakeDesk.tsx'), 'BakeDesk'),
  ...desks,
  ...benches,
  page('/tickets/:id', () => import('./stations/ticket/TicketPage.tsx'), 'TicketPage'),
  page('/stock/goods', () => import('./stations/goods/GoodsPage.tsx'), 'GoodsPage'),
  page('/stock/count', () => import('./stations/stock/CountPage.tsx'), 'CountPage'),
  page('/stock/parcel', () => import('./stations/stock/ParcelPage.tsx'), 'ParcelPage'),
  page('/stock/make', () => import('./stations/buy/MakePage.tsx'), 'MakePage'),
  page('/stock/buy', () => import('./stations/buy/BuyPage.tsx'), 'BuyPage'),
  page('/stock', () => import('./stations/stock/StockPage.tsx'), 'StockPage'),
  page('/books/cost', () => import('./stations/books/CostPage.tsx'), 'CostPage'),
  page('/books/metal', () => import('./stations/books/MetalPage.tsx'), 'MetalPage'),
  page('/books/quality', () => import('./stations/books/QualityPage.tsx'), 'QualityPage'),
  page('/books/plans', () => import('./stations/books/PlansPage.tsx'), 'PlansPage'),
  page('/books/months', () => import('./stations/books/MonthsPage.tsx'), 'MonthsPage'),
  page('/books/paper', () => import('./stations/books/PaperPage.tsx'), 'PaperPage'),
  page('/books/sales', () => import('./stations/books/SalesPage.tsx'), 'SalesPage'),
  page('/books', () => import('./stations/books/BooksPage.tsx'), 'BooksPage'),
  page('/setup', () => import('./stations/setup/SetupPage.tsx'), 'SetupPage'),
];
