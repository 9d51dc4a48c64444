import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import type { Material } from '@schmelz/contract';
import { toBuy } from '@schmelz/core';
import { materials } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser } from '../../test/render.tsx';
import { amountIn } from './amount.ts';
import { StockBar } from './StockBar.tsx';

beforeEach(() => {
  prepareBrowser();
  fakeApi();
});

test.each([
  ['12', 12],
  ['12,5', 12.5],
  ['', 0],
  ['many', null],
  ['-3', null],
  ['1e999', null],
])('%j typed is %p', (text, amount) => expect(amountIn(text)).toBe(amount));

test('what is no amount is said with what is bought instead; corrected, nothing is said', () => {
  const hook = materials[1] as unknown as Material;
  const [row] = toBuy([{ materialId: hook.id, here: 20, need: 50, weekly: [0, 0], days: 7 }]);
  function Bar() {
    const [typed, type] = useState<string>();
    return <StockBar row={row!} material={hook} typed={typed} onType={type} />;
  }
  render(<Bar />);
  const field = screen.getByRole('textbox');
  fireEvent.change(field, { target: { value: 'many' } });
  expect(screen.getByRole('alert').textContent).toMatch(
    /^many is no amount; allowed: 0 and more\. 30 is bought instead/,
  );
  expect(field.getAttribute('aria-invalid')).toBe('true');
  fireEvent.change(field, { target: { value: '40' } });
  expect(screen.queryByRole('alert')).toBeNull();
});
