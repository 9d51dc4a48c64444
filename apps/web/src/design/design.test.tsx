import { InvalidInput, parseWith, potSchema, type Oven } from '@schmelz/contract';
import { STATIONS, figure, fitted, given, QuantityError } from '@schmelz/core';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ApiProblem } from '../api/client.ts';
import { fakeApi, prepareBrowser, refuse, renderAt } from '../test/render.tsx';
import { ovens, pots } from '../test/fixtures.ts';
import { OvenForm, PotForm, ProgramForm } from '../stations/setup/ToolForms.tsx';
import { Part } from './Part.tsx';
import { Fig } from './Figure.tsx';
import { causeIcon } from './Icon.tsx';
import { ProblemNote } from './Notice.tsx';
import { minorIn, numberIn } from './useForm.ts';

beforeEach(prepareBrowser);

describe('a figure that can be asked why', () => {
  const charge = figure(
    2.1,
    'kg',
    {
      rule: 'All the metal at once.',
      formula: 'charge = heads + heel',
      source: 'Mass balance',
      inputs: [given('heel', 0.8, 'kg'), fitted('heads', 1.3, 'kg', 'from 12 casts')],
    },
    { low: 1.9, high: 2.4 },
  );

  test('shows its rule, formula, inputs with their basis, range and source', async () => {
    fakeApi();
    renderAt(<Fig figure={charge} title="Lead to charge" />);
    await userEvent.click(screen.getByRole('button', { name: 'Lead to charge: 2.10 kg. Why?' }));
    const sheet = await screen.findByRole('dialog');
    for (const text of [
      'Why 2.10 kg?',
      'All the metal at once.',
      'charge = heads + heel',
      'heel',
      '800 g',
      'from 12 casts',
      '1.90 kg',
      '2.40 kg',
      'Source: Mass balance.',
    ]) {
      expect(sheet.textContent).toContain(text);
    }
    // The weakest input decides how far it can be trusted.
    expect(charge.basis).toBe('given');
    expect(sheet.textContent).toContain('default, not checked');
    await userEvent.keyboard('{Escape}');
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });
});

describe('what went wrong', () => {
  const text = (error: unknown) => {
    const { container, unmount } = render(<ProblemNote error={error} />);
    const shown = container.textContent;
    unmount();
    return shown;
  };
  test('is told field by field, whoever found it', () => {
    expect(text(null)).toBe('');
    const refused = new ApiProblem({
      type: '',
      title: 'Not allowed',
      status: 422,
      detail: 'd',
      fields: [{ field: 'powerW', value: 0, unit: 'W', allowed: '', message: 'powerW is 0; allowed: 50 to 5000 W' }],
    });
    expect(text(refused)).toContain('powerW is 0; allowed: 50 to 5000 W');
    expect(text(refused)).toContain('Nothing was changed');
    const stale = new ApiProblem({
      type: '',
      title: 'Changed meanwhile',
      status: 409,
      detail: 'differs',
      changes: [{ field: 'powerW', yours: 600, now: 800 }],
    });
    expect(text(stale)).toContain('powerW: yours 600, now 800');
    expect(text(new QuantityError('mass', 'ten', '', 'a number'))).toContain('mass is ten; allowed: a number');
    let invalid: unknown;
    try {
      parseWith(potSchema, { name: '', capacityKg: 900, powerW: 1, lossWPerK: 1 });
    } catch (error) {
      invalid = error;
    }
    expect(invalid).toBeInstanceOf(InvalidInput);
    expect(text(invalid)).toContain('capacityKg is 900 kg; allowed: a number from 300 g to 50.0 kg');
  });
  test('every cause of every station has a sign of its own; what a maker names gets the plain one', () => {
    const causes = [...new Set(STATIONS.flatMap((station) => station.causes.map(({ id }) => id)))];
    expect(causes.map(causeIcon)).toEqual(causes);
    expect(causeIcon('a crumb in the seam')).toBe('other');
  });
  test('numbers and money are read or refused by name', () => {
    expect(numberIn('power', '1,5')).toBe(1.5);
    expect(() => numberIn('power', 'much')).toThrow(/power is "much"; allowed: a number/);
    expect([minorIn('price', '12.345', 'EUR'), minorIn('price', '12', 'JPY')]).toEqual([1235, 12]);
  });
});

describe('forms write SI', () => {
  test('a pot: what is typed in any unit, with the version it was read in', async () => {
    const api = fakeApi();
    renderAt(<PotForm pot={pots[0]!} />);
    const holds = screen.getByLabelText('Holds');
    await userEvent.clear(holds);
    await userEvent.type(holds, '20 lb');
    await userEvent.click(screen.getByRole('button', { name: 'Keep the pot' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]).toMatchObject({
      method: 'PUT',
      body: { name: 'Pot', capacityKg: expect.closeTo(9.0718474, 9), powerW: 700, version: 1 },
    });
  });

  test('what does not fit is not sent; the field and the range are named', async () => {
    const api = fakeApi();
    renderAt(<OvenForm oven={ovens[0] as Oven} />);
    const places = screen.getByLabelText('Places on the rack');
    await userEvent.clear(places);
    await userEvent.type(places, '0');
    await userEvent.click(screen.getByRole('button', { name: 'Keep the oven' }));
    expect((await screen.findByRole('alert')).textContent).toContain(
      'places is 0; allowed: a whole number from 1 to 2000',
    );
    expect(api.writes()).toEqual([]);
  });

  test('a program in Fahrenheit, and a refusal of the server', async () => {
    const api = fakeApi({
      'POST /bake-programs': refuse(409, {
        title: 'Already there',
        status: 409,
        detail: 'name is "Hot"; allowed: another',
      }),
    });
    renderAt(<ProgramForm />);
    await userEvent.type(screen.getByLabelText('Name'), 'Hot');
    const heat = screen.getByLabelText('Oven set to');
    await userEvent.clear(heat);
    await userEvent.type(heat, '350 F');
    await userEvent.click(screen.getByRole('button', { name: 'Add the program' }));
    expect((await screen.findByRole('alert')).textContent).toContain('Already there');
    expect((api.writes()[0]!.body as { setC: number }).setC).toBeCloseTo(176.67, 2);
  });
});

test('a part whose record cannot be shown says so, the rest stands, and it is tried again once it is put right', () => {
  const silent = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  const page = (masses: (number | null)[]) => (
    <>
      {masses.map((mass, i) => (
        <Part key={i} of={`Ticket ${i + 1}`}>
          {() => <p>{mass!.toFixed(1)} g</p>}
        </Part>
      ))}
    </>
  );
  const { rerender } = render(page([10, null, 14]));
  expect(screen.getByText('10.0 g')).toBeTruthy();
  expect(screen.getByText('14.0 g')).toBeTruthy();
  expect(screen.getByRole('alert').textContent).toMatch(/^Ticket 2 cannot be shown \(.+\)\. The rest of this page/);
  rerender(page([10, 12, 14]));
  expect(screen.getByText('12.0 g')).toBeTruthy();
  expect(screen.queryByRole('alert')).toBeNull();
  silent.mockRestore();
});
