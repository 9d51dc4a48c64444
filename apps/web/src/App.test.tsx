/** @jest-environment-options {"url": "http://localhost/"} */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { PAGES } from './pages.tsx';
import { fakeApi, prepareBrowser } from './test/render.tsx';

jest.mock('./stations/setup/SetupPage.tsx', () => ({
  SetupPage: () => {
    throw new Error('the picture has no frame');
  },
}));
jest.mock('./stations/books/BooksPage.tsx', () => ({ BooksPage: () => <p>the books</p> }));
jest.mock('./stations/pour/PourBench.tsx', () => ({ PourBenchPage: () => <p>the pot</p> }));

beforeEach(() => prepareBrowser());
afterEach(cleanup);

async function open(path: string) {
  fakeApi();
  window.history.replaceState(null, '', path);
  const { App } = await import('./App.tsx');
  return render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <App />
    </QueryClientProvider>,
  );
}

describe('a page by its address', () => {
  test('is shown under the line; a bench has the light of a bench, a desk that of a desk', async () => {
    await open('/books');
    await screen.findByText('the books');
    expect(document.documentElement.dataset['theme']).toBe('light');
    cleanup();
    await open('/pour/11111111-2222-4333-8444-555555555555');
    await screen.findByText('the pot');
    await waitFor(() => expect(document.documentElement.dataset['theme']).toBe('dark'));
  });

  test('that is none says so, and leads back to the line', async () => {
    await open('/nowhere/at/all');
    await screen.findByRole('heading', { name: 'There is no such page.' });
    expect(screen.getByRole('link', { name: 'Back to the line' }).getAttribute('href')).toBe('/');
  });

  test('that breaks breaks alone: the line stays, and the next page comes as if nothing had been', async () => {
    const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    await open('/setup');
    expect((await screen.findByRole('alert')).textContent).toContain('the picture has no frame');
    expect(screen.getByRole('heading', { name: 'This page broke.' })).toBeTruthy();
    await userEvent.click(screen.getByRole('link', { name: 'Books' }));
    await screen.findByText('the books');
    expect(screen.queryByRole('alert')).toBeNull();
    said.mockRestore();
  });
});

test('no two pages stand at one address', () => {
  const paths = PAGES.map(({ path }) => path);
  expect(new Set(paths).size).toBe(paths.length);
});

test('only benches have the light of a bench: a page with a name of its own is not the bench of a ticket', async () => {
  const { isBenchAt } = await import('./App.tsx');
  for (const { path, isBench } of PAGES) {
    const address = path.replaceAll(/:\w+/g, '11111111-2222-4333-8444-555555555555');
    expect([address, isBenchAt(address)]).toEqual([address, isBench]);
  }
  expect(isBenchAt('/nowhere/at/all')).toBe(false);
});

describe('what is said for a moment', () => {
  const texts = () => document.body.textContent ?? '';

  test('before there is a place for it waits for the place, in order', async () => {
    const { toast } = await import('./design/toast.ts');
    toast('The jar is weighed.');
    toast.error('It is not kept.');
    await open('/books');
    await waitFor(() => expect(texts()).toContain('The jar is weighed.'));
    expect(texts()).toContain('It is not kept.');
    // Now it is shown at once.
    act(() => toast('And this.'));
    await waitFor(() => expect(texts()).toContain('And this.'));
  });
});
