import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { ids, ticket } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser } from '../test/render.tsx';
import { refreshAfterTaps, useLine, useList, useTicket } from './queries.ts';

beforeEach(prepareBrowser);

test('after a tap the line and its ticket are asked for, no list; a list is, when it is next looked at', async () => {
  const api = fakeApi({ [`GET /tickets/${ids.ticket}`]: ticket() });
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: 60_000 } } });
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
  const look = () =>
    renderHook(() => [useLine(), useTicket(ids.ticket), useList('materials'), useList('molds')], { wrapper });
  const { result, unmount } = look();
  await waitFor(() => expect(result.current.every((query) => query.isSuccess)).toBe(true));
  const before = api.sent.length;
  await refreshAfterTaps(client);
  expect(
    api.sent
      .slice(before)
      .map(({ path }) => path)
      .sort(),
  ).toEqual(['/line', `/tickets/${ids.ticket}`]);
  unmount();
  const then = api.sent.length;
  look();
  await waitFor(() =>
    expect(api.sent.slice(then).map(({ path }) => path)).toEqual(expect.arrayContaining(['/materials', '/molds'])),
  );
});
