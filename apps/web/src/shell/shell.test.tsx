import { ticketState, withShares, type TicketEntry } from '@schmelz/core';
import { act, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, order, ovenRun, pour, ticket } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, refuse, renderAt } from '../test/render.tsx';
import { Layout } from './Layout.tsx';
import { LineNav } from './LineNav.tsx';
import { lineState } from './line-state.ts';
import { Palette } from './Palette.tsx';
import { Shelf } from './Shelf.tsx';
import { chooseTheme } from './theme.ts';

beforeEach(prepareBrowser);
const now = Date.now();
const baking = ticket({
  log: [
    { id: 'a', at: now - 2e6, kind: 'good', step: 'trim', count: 12 },
    { id: 'b', at: now - 1.9e6, kind: 'good', step: 'paint', count: 12 },
  ],
  runs: [ovenRun({ ticketId: ids.ticket, count: 12 }, { id: 'c', at: now - 60_000 })],
});
const melting = pour({ log: [{ id: 'd', at: now - 30_000, kind: 'charge', massKg: 1.2, potC: 20 }] });

describe('the line', () => {
  test('states, clocks, what waits and what is next, from tickets and pours', () => {
    const state = lineState({ tickets: [baking], pours: [melting], runs: baking.runs }, now);
    expect(state.clocks.map(({ body }) => body)).toEqual(['melt', 'oven']);
    expect(state.waiting).toEqual({ pour: 0, trim: 0, paint: 0, bake: 12, finish: 0 });
    expect(state.next).toMatchObject({ what: 'pour on', pourId: ids.pour });
    expect(lineState({ tickets: [baking], pours: [], runs: baking.runs }, now + 1.7e6).next).toMatchObject({
      what: 'take out',
      count: 12,
    });
    expect(state.tickets[0]!.state).toEqual(
      ticketState(baking, withShares<TicketEntry>(baking.id, baking.log, baking.runs)),
    );
  });

  test('seven stations in working order, each with what waits there, the next one said', async () => {
    fakeApi();
    renderAt(<LineNav bench={false} />);
    await screen.findByText('12', { exact: true });
    const names = screen.getAllByRole('link').map((link) => link.getAttribute('href'));
    expect(names).toEqual(['/lead', '/molds', '/pour', '/trim', '/paint', '/bake', '/finish']);
    expect(screen.getByRole('link', { name: /Trim ?, ?next/ }).textContent).toContain('12to trim');
    expect((await screen.findByRole('link', { name: /Lead/ })).textContent).toContain('12.5kg clean');
  });
});

describe('the shelf', () => {
  test('holds every running wait with its name and its end, and leads to it', async () => {
    fakeApi({ 'GET /line': { tickets: [baking], pours: [melting], runs: baking.runs } });
    renderAt(<Shelf onPalette={() => {}} />);
    const melt = await screen.findByRole('link', { name: /Melt, pour 3, 4:\d\d left/ });
    expect(melt.getAttribute('href')).toBe(`/pour/${ids.pour}`);
    expect(screen.getByRole('link', { name: /Bake, load 1, 2\d:\d\d left/ }).getAttribute('href')).toBe(
      '/bake/load/run of c',
    );
    expect(screen.getByText('Test shed')).toBeTruthy();
  });
  test('says so when nothing runs', async () => {
    fakeApi();
    renderAt(<Shelf onPalette={() => {}} />);
    expect(await screen.findByText('Nothing is melting, setting or baking.')).toBeTruthy();
  });
});

describe('the palette', () => {
  test('finds a ticket and an order by typing, and goes there', async () => {
    fakeApi();
    const { router } = renderAt(<Palette open onOpenChange={() => {}} />);
    await screen.findByText('Ticket 101');
    await userEvent.type(screen.getByRole('combobox'), `order ${order.number}`);
    await waitFor(() => expect(screen.queryByText('Ticket 101')).toBeNull());
    await userEvent.keyboard('{Enter}');
    expect(router.state.location.pathname).toBe(`/orders/${ids.order}`);
  });
  test('lists the keys and switches the light', async () => {
    fakeApi();
    renderAt(<Palette open onOpenChange={() => {}} />);
    expect(await screen.findByText('a blank shot')).toBeTruthy();
    await userEvent.click(screen.getByText('Always dark'));
    expect(localStorage.getItem('schmelz-theme')).toBe('dark');
  });
});

describe('the frame of every page', () => {
  test('letters typed after the palette’s key are sought, however late it comes', async () => {
    fakeApi();
    renderAt(<Layout isBench={false}>the page</Layout>);
    await screen.findByRole('navigation', { name: 'The line' });
    await userEvent.keyboard('/setup');
    expect(((await screen.findByRole('combobox')) as HTMLInputElement).value).toBe('setup');
    await userEvent.keyboard('{Escape}');
    await waitFor(() => expect(screen.queryByRole('combobox')).toBeNull());
    // What is typed now is no search any more.
    await userEvent.keyboard('abc');
    expect(screen.queryByRole('combobox')).toBeNull();
  });
  test('the desk is light, unless the maker chose otherwise', async () => {
    fakeApi();
    renderAt(<Layout isBench={false}>the page</Layout>);
    await screen.findByRole('navigation', { name: 'The line' });
    await waitFor(() => expect(document.documentElement.dataset['theme']).toBe('light'));
    act(() => chooseTheme('dark'));
    await waitFor(() => expect(document.documentElement.dataset['theme']).toBe('dark'));
    act(() => chooseTheme('by place'));
  });

  test('/ opens the palette, but not while somebody types', async () => {
    fakeApi();
    renderAt(<Layout isBench={false}>the page</Layout>);
    await screen.findByRole('navigation', { name: 'The line' });
    await userEvent.keyboard('/');
    const search = await screen.findByRole('combobox', {}, { timeout: 4000 });
    await userEvent.type(search, 'a/b');
    expect((search as HTMLInputElement).value).toBe('a/b');
  });

  test('where a password is set, it is asked for first', async () => {
    const api = fakeApi({
      'GET /settings': refuse(401, { title: 'Log in first', detail: 'This workshop has a password.' }),
      'POST /login': undefined,
    });
    renderAt(<Layout isBench={false}>the page</Layout>);
    await userEvent.type(await screen.findByLabelText('Password of this workshop'), 'lead and tin');
    await userEvent.click(screen.getByRole('button', { name: 'Come in' }));
    await waitFor(() =>
      expect(api.writes()).toEqual([{ method: 'POST', path: '/login', body: { password: 'lead and tin' } }]),
    );
  });
});
