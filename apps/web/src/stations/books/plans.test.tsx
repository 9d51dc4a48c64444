import type { PlanHeld } from '@schmelz/core';
import { screen, within } from '@testing-library/react';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { PlansPage } from './PlansPage.tsx';

beforeEach(prepareBrowser);

/** A ticket of which so much of what came was planned: at the trim, and at the paint. */
const held = (number: number, trim: number, paint: number): PlanHeld => ({
  ...{ number, closedAt: 1_780_000_000_000 + number, good: 10 },
  measures: {
    minutes: { planned: 100 * trim + 300 * paint, came: 400 },
    cost: { planned: 600, came: 600 },
    hooks: { planned: 10, came: 10 },
  },
  stations: [
    { station: 'trim', planned: 100 * trim, came: 100 },
    { station: 'paint', planned: 300 * paint, came: 300 },
  ],
});
const row = (name: string) => {
  const found = screen.getAllByRole('row').find((each) => (each as HTMLTableRowElement).cells[0]?.textContent === name);
  return [...(found as HTMLTableRowElement).cells].map((cell) => cell.textContent);
};

test('says how much of what came was planned, and which station is off', async () => {
  const tickets = [0.6, 0.7, 0.8, 0.9, 1].map((paint, at) => held(at, 1, paint));
  fakeApi({ 'GET /books/plans': tickets });
  renderAt(<PlansPage />, '/books/plans');
  // The middle ticket: 100 of 100 and 240 of 300 are 340 of 400 s.
  expect((await screen.findByRole('heading', { level: 1 })).parentElement!.textContent).toContain('85%');
  expect(row('Trim')).toEqual(['Trim', '100 %', '', '100 % to 100 %', '5', 'right']);
  expect(row('Paint')).toEqual(['Paint', '80 %', '', '70 % to 90 %', '5', 'too little planned']);
  expect(row('Cost').at(-1)).toBe('right');
  const stub = screen.getByRole('region', { name: 'What it is' });
  expect(within(stub).getByText(/Furthest off: paint/).textContent).toContain('planned 20 % too little');
  expect(screen.queryByText('Casts')).toBeNull();
});

test('few tickets say nothing of a station, none of them say where to go', async () => {
  fakeApi({ 'GET /books/plans': [held(1, 0.5, 0.5)] });
  renderAt(<PlansPage />, '/books/plans');
  await screen.findByText('Hands, station by station');
  expect(row('Trim').at(-1)).toBe('too few to say');
  expect(screen.getByText('No station is off.')).toBeTruthy();
});

test('before anything was closed it says what it will show', async () => {
  fakeApi({ 'GET /books/plans': [] });
  renderAt(<PlansPage />, '/books/plans');
  expect((await screen.findByRole('heading', { level: 1 })).textContent).toMatch(/nothing was closed/);
  expect(screen.getByRole('link', { name: 'To the line' }).getAttribute('href')).toBe('/');
});
