import { stepStations } from '@schmelz/core';
import { useEffect, type ComponentType } from 'react';
import { createBrowserRouter, Link, useRouteError, type RouteObject } from 'react-router';
import { Layout } from './shell/Layout.tsx';

/** Each station is loaded when it is first gone to. */
const page = (path: string, load: () => Promise<ComponentType>, bench = false): RouteObject => ({
  path,
  lazy: async () => ({ Component: await load() }),
  handle: { bench },
});
const count = () => import('./stations/count/CountBench.tsx');

/** Every station that counts heads has a bench, for a ticket at one of its steps there. */
const benches = stepStations().flatMap(({ id }) =>
  [`/${id}/:id`, `/${id}/:id/:step`].map((path) =>
    page(
      path,
      async () => {
        const { CountBenchPage } = await count();
        return () => <CountBenchPage station={id} />;
      },
      true,
    ),
  ),
);
/** Stations whose desk shows more than what waits. */
const OWN_DESKS: readonly string[] = ['trim', 'paint', 'bake', 'finish'];
const desks = stepStations()
  .filter(({ id }) => !OWN_DESKS.includes(id))
  .map(({ id }) =>
    page(`/${id}`, async () => {
      const { CountDesk } = await import('./stations/count/CountDesk.tsx');
      return () => <CountDesk station={id} />;
    }),
  );

const ASK_AGAIN_MS = 3000;

/** A part of the application that did not arrive is fetched anew as soon as the server answers again. */
function useReloadOnceBack(wanted: boolean): void {
  useEffect(() => {
    if (!wanted) return;
    const timer = setInterval(() => {
      fetch('/api/health')
        .then((answer) => answer.ok && window.location.reload())
        .catch(() => undefined); // still away
    }, ASK_AGAIN_MS);
    return () => clearInterval(timer);
  }, [wanted]);
}

/** What a browser says when a script that it was to load did not come; each has words of its own. */
const notArrived = (error: unknown) =>
  error instanceof TypeError && /dynamically imported module|importing a module|module script/i.test(error.message);

function Lost() {
  const error = useRouteError();
  const missing = notArrived(error);
  useReloadOnceBack(missing);
  const says = missing ? 'This page did not arrive.' : error ? 'This page broke.' : 'There is no such page.';
  return (
    <div className="px-8 py-10" role="alert">
      <h1 className="voice text-2xl">{says}</h1>
      {missing && (
        <p className="quiet mt-2">
          The server does not answer. It is asked again every few seconds, and the page comes by itself. What you said
          at the bench is kept.
        </p>
      )}
      {!missing && error instanceof Error && (
        <p className="quiet mt-2">{error.message}. What you said at the bench is kept.</p>
      )}
      <p className="mt-4">
        <Link to="/" className="underline" reloadDocument={!!error}>
          Back to the line
        </Link>
      </p>
    </div>
  );
}

export const router = createBrowserRouter([
  {
    element: <Layout />,
    hydrateFallbackElement: <></>,
    children: [
      {
        errorElement: <Lost />,
        children: [
          page('/', async () => (await import('./stations/line/LinePage.tsx')).LinePage),
          page('/start', async () => (await import('./stations/start/StartPage.tsx')).StartPage),
          page('/tonight', async () => (await import('./stations/tonight/TonightPage.tsx')).TonightPage),
          page('/orders', async () => (await import('./stations/orders/OrdersPage.tsx')).OrdersPage),
          page('/orders/grid', async () => (await import('./stations/orders/OrderGridPage.tsx')).OrderGridPage),
          page('/products/grid', async () => (await import('./stations/products/GridPage.tsx')).ProductGridPage),
          page('/orders/new', async () => (await import('./stations/orders/OrderForm.tsx')).OrderFormPage),
          page('/orders/:id', async () => (await import('./stations/orders/PlanPage.tsx')).PlanPage),
          page('/orders/:id/change', async () => (await import('./stations/orders/OrderForm.tsx')).OrderFormPage),
          page(
            '/products/templates',
            async () => (await import('./stations/products/TemplatesPage.tsx')).TemplatesPage,
          ),
          page('/products', async () => (await import('./stations/products/ProductsPage.tsx')).ProductsPage),
          page('/lead', async () => (await import('./stations/lead/LeadPage.tsx')).LeadPage),
          page('/lead/melt', async () => (await import('./stations/lead/MeltPage.tsx')).MeltPage),
          page('/lead/dial', async () => (await import('./stations/lead/DialPage.tsx')).DialPage),
          page('/lead/cast', async () => (await import('./stations/lead/CastPage.tsx')).CastPage),
          page('/lead/probes', async () => (await import('./stations/readings/ReadingsPage.tsx')).ReadingsPage),
          page('/molds/parts', async () => (await import('./stations/molds/PartsPage.tsx')).PartsPage),
          page('/molds/:id', async () => (await import('./stations/molds/MoldPage.tsx')).MoldPage),
          page('/molds/:id/hooks', async () => (await import('./stations/molds/HooksPage.tsx')).HooksPage),
          page('/molds/:id/warm', async () => (await import('./stations/molds/WarmPage.tsx')).WarmPage),
          page('/molds/:id/fill', async () => (await import('./stations/molds/FillPage.tsx')).FillPage),
          page('/molds/:id/care', async () => (await import('./stations/molds/CarePage.tsx')).CarePage),
          page('/molds', async () => (await import('./stations/molds/MoldsPage.tsx')).MoldsPage),
          page('/pour', async () => (await import('./stations/pour/PourDesk.tsx')).PourDesk),
          page('/pour/:id', async () => (await import('./stations/pour/PourBench.tsx')).PourBenchPage, true),
          page('/paint/dip/:id', async () => (await import('./stations/paint/DipPage.tsx')).DipPage, true),
          page('/finish', async () => (await import('./stations/finish/FinishDesk.tsx')).FinishDesk),
          page('/finish/labels/:id', async () => (await import('./stations/finish/LabelsPage.tsx')).LabelsPage),
          page('/trace', async () => (await import('./stations/finish/TracePage.tsx')).TracePage),
          page('/trace/lot/:id', async () => (await import('./stations/finish/LotPage.tsx')).LotPage),
          page('/trace/:number', async () => (await import('./stations/finish/TracePage.tsx')).TracePage),
          page('/finish/glue/:id', async () => (await import('./stations/finish/GluePage.tsx')).GluePage, true),
          page('/bake/loads', async () => (await import('./stations/bake/LoadsPage.tsx')).LoadsPage),
          page('/bake/load/:id', async () => (await import('./stations/bake/LoadPage.tsx')).LoadBenchPage, true),
          page('/bake/oven', async () => (await import('./stations/bake/OvenPage.tsx')).OvenPage),
          page('/bake/program', async () => (await import('./stations/bake/ProgramPage.tsx')).ProgramPage),
          page('/bake/past', async () => (await import('./stations/bake/PastPage.tsx')).PastPage),
          page('/bake/log', async () => (await import('./stations/bake/LogPage.tsx')).LogPage),
          page('/trim', async () => (await import('./stations/trim/TrimDesk.tsx')).TrimDesk),
          page('/trim/ways', async () => (await import('./stations/trim/TrimDesk.tsx')).TrimWays),
          page('/trim/sample', async () => (await import('./stations/trim/SamplePage.tsx')).SamplePage),
          page('/paint', async () => (await import('./stations/paint/PaintDesk.tsx')).PaintDesk),
          page('/paint/recipes', async () => (await import('./stations/paint/RecipesPage.tsx')).RecipesPage),
          page('/paint/jars', async () => (await import('./stations/paint/JarsPage.tsx')).JarsPage),
          page('/paint/ways', async () => (await import('./stations/paint/PaintDesk.tsx')).PaintWays),
          page('/paint/heat', async () => (await import('./stations/paint/HeatPage.tsx')).HeatPage),
          page('/paint/order', async () => (await import('./stations/paint/OrderPage.tsx')).OrderPage),
          page('/bake', async () => (await import('./stations/bake/BakeDesk.tsx')).BakeDesk),
          ...desks,
          ...benches,
          page('/tickets/:id', async () => (await import('./stations/ticket/TicketPage.tsx')).TicketPage),
          page('/stock/goods', async () => (await import('./stations/goods/GoodsPage.tsx')).GoodsPage),
          page('/stock/count', async () => (await import('./stations/stock/CountPage.tsx')).CountPage),
          page('/stock/parcel', async () => (await import('./stations/stock/ParcelPage.tsx')).ParcelPage),
          page('/stock/make', async () => (await import('./stations/buy/MakePage.tsx')).MakePage),
          page('/stock/buy', async () => (await import('./stations/buy/BuyPage.tsx')).BuyPage),
          page('/stock', async () => (await import('./stations/stock/StockPage.tsx')).StockPage),
          page('/books/cost', async () => (await import('./stations/books/CostPage.tsx')).CostPage),
          page('/books/metal', async () => (await import('./stations/books/MetalPage.tsx')).MetalPage),
          page('/books/quality', async () => (await import('./stations/books/QualityPage.tsx')).QualityPage),
          page('/books/months', async () => (await import('./stations/books/MonthsPage.tsx')).MonthsPage),
          page('/books/paper', async () => (await import('./stations/books/PaperPage.tsx')).PaperPage),
          page('/books/sales', async () => (await import('./stations/books/SalesPage.tsx')).SalesPage),
          page('/books', async () => (await import('./stations/books/BooksPage.tsx')).BooksPage),
          page('/setup', async () => (await import('./stations/setup/SetupPage.tsx')).SetupPage),
          { path: '*', element: <Lost /> },
        ],
      },
    ],
  },
]);
