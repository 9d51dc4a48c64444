import type { HouseHandling } from '@schmelz/core';
import { screen } from '@testing-library/react';
import { fakeApi, prepareBrowser, renderAt } from '../test/render.tsx';
import { ids } from '../test/fixtures.ts';
import { HowHandled } from './HowHandled.tsx';

beforeEach(prepareBrowser);

const [was, is] = [
  { shorts: 9, casts: 40 },
  { shorts: 1, casts: 38 },
];
const known: HouseHandling = {
  handled: [
    { what: 'last cavity low', position: null, times: 2, before: was, after: is, says: 'fewer' },
    { what: 'metal hotter', position: null, times: 1, before: is, after: is, says: 'may be chance' },
    { what: 'injected', position: 3, times: 1, before: is, after: was, says: 'more' },
  ],
  blanks: { blanks: 4, first: { shorts: 1, casts: 30 }, pours: 3 },
};
const shown = async (at: 'bench' | 'page', answer = known) => {
  fakeApi({ [`GET /molds/${ids.mold}/handling`]: answer });
  renderAt(<HowHandled moldId={ids.mold} at={at} />);
  return screen.findByRole('region', { name: 'What works in this mold' });
};

test('the page says all that was tried, with what it did', async () => {
  const region = await shown('page');
  expect(region.textContent).toContain('4 blank shots do here: of 30 first heads 1 was short.');
  expect([...region.querySelectorAll('li')].map((each) => each.textContent)).toEqual([
    'Mold tipped, last cavity low: 9 of 40 short, then 1 of 38',
    'Metal hotter: 1 of 38 short, then 1 of 38: may be chance',
    'Cavity 3: Pressed against the spout: 1 of 38 short, then 9 of 40: worse',
  ]);
});

test('the bench says what is sure', async () => {
  const region = await shown('bench');
  expect(region.textContent).not.toContain('chance');
  expect(region.querySelectorAll('li')).toHaveLength(2);
});

test('blank shots alone are said too', async () => {
  const none = { ...known.blanks!, blanks: 1, first: { shorts: 0, casts: 12 } };
  expect((await shown('bench', { handled: [], blanks: none })).textContent).toContain(
    '1 blank shot does here: of 12 first heads none was short.',
  );
});
