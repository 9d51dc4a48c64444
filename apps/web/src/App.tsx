import { Component, lazy, useEffect, type ReactNode } from 'react';
import { BrowserRouter, Link, matchRoutes, Route, Routes, useLocation } from 'react-router';
import { PAGES } from './pages.tsx';
import { Layout } from './shell/Layout.tsx';

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

/** What stands in the place of a page that is not there, or that broke. */
function Lost({ error = null }: { error?: unknown }) {
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

/** A page that breaks breaks alone: the line stays, and the next page is tried as if nothing had been. */
class Unbroken extends Component<{ at: string; children: ReactNode }, { at: string; error: unknown }> {
  override state = { at: this.props.at, error: null };

  static getDerivedStateFromError = (error: unknown) => ({ error });

  static getDerivedStateFromProps({ at }: { at: string }, before: { at: string }) {
    return at === before.at ? null : { at, error: null };
  }

  override render() {
    return this.state.error === null ? this.props.children : <Lost error={this.state.error} />;
  }
}

/** Whether the page of an address is a bench: of the page that is shown there, as `/trim/ways` is no ticket. */
export function isBenchAt(pathname: string): boolean {
  const path = matchRoutes(PLACES, pathname)?.at(-1)?.route.path;
  return PAGES.some((page) => page.path === path && page.isBench);
}
const PLACES = PAGES.map(({ path }) => ({ path }));
const routes = PAGES.map(({ path, load }) => ({ path, Page: lazy(load) }));

function Pages() {
  const { pathname } = useLocation();
  return (
    <Layout isBench={isBenchAt(pathname)}>
      <Unbroken at={pathname}>
        <Routes>
          {routes.map(({ path, Page }) => (
            <Route key={path} path={path} element={<Page />} />
          ))}
          <Route path="*" element={<Lost />} />
        </Routes>
      </Unbroken>
    </Layout>
  );
}

/** The application: a page under the line, by the address. */
export const App = () => (
  <BrowserRouter>
    <Pages />
  </BrowserRouter>
);
