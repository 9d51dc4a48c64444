import { renderHook, waitFor } from '@testing-library/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { settings } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser } from '../test/render.tsx';
import { isoDay, writeDay, writeDue, writeMonth, writeTime } from './dates.ts';
import { UnitsProvider, useUnits } from './Units.tsx';

beforeEach(prepareBrowser);

async function unitsFor(more: Partial<typeof settings>) {
  fakeApi({ 'GET /settings': { ...settings, ...more } });
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={new QueryClient()}>
      <UnitsProvider>{children}</UnitsProvider>
    </QueryClientProvider>
  );
  const { result } = renderHook(() => useUnits(), { wrapper });
  await waitFor(() => expect(result.current.currency).toBe(more.currency ?? 'EUR'));
  await waitFor(() => expect(result.current.massUnit).toBe(more.massUnit ?? 'g'));
  return result.current;
}

test('grams, Celsius and euros', async () => {
  const units = await unitsFor({});
  expect(units.head(0.01)).toBe('10 g');
  expect(units.bulk(12.5)).toBe('12.5 kg');
  expect(units.temperature(371)).toBe('371 °C');
  expect(units.money(195)).toBe('€1.95');
});

test('one switch: ounces, Fahrenheit and another currency', async () => {
  const units = await unitsFor({ massUnit: 'oz', temperatureUnit: 'F', currency: 'JPY' });
  expect(units.head(0.010631071171875)).toBe('3/8 oz');
  expect(units.bulk(9.0718474)).toBe('20.0 lb');
  expect(units.temperature(371.1)).toBe('700 °F');
  expect(units.money(195)).toBe('¥195');
  // What the core says of a cavity that is not there, by 3/8 and 1/2 oz.
  expect(units.said('No ball cavity of 10.63\u00a0g; there is 14.175\u00a0g, at 177\u00a0°C, 3.175\u00a0mm.')).toBe(
    'No ball cavity of 3/8 oz; there is 1/2 oz, at 351 °F, 1/8 in.',
  );
  // A micro head, a guard hole, the bars of a rack, a price by weight, a loss by the degree.
  expect(units.head(0.028349523125 / 80)).toBe('1/80 oz');
  expect(units.write(0.003175, 'm')).toBe('1/8 in');
  expect(units.write(0.24, 'm')).toBe('9.4 in');
  expect(units.write(220, 'minor/kg')).toBe('¥100/lb');
  expect(units.write(0.54, 'W/K')).toBe('0.30 W/°F');
  expect(units.write(540, 'J/K')).toBe('300 J/°F');
  expect(units.write(6.4516e-4, 'm2')).toBe('1.00 in²');
  expect(units.part('wire', 0.3048)).toBe('12 in');
});

test('every unit of a figure is written', async () => {
  const { write } = await unitsFor({});
  expect([
    write(0.01, 'head-kg'),
    write(2, 'kg'),
    write(300, 's'),
    write(177, 'C'),
    write(1234, 'minor'),
    write(41.3, 'minor/head'),
    write(250, 'minor/kg'),
    write(1200, 'minor/h'),
    write(32, 'minor/kWh'),
    write(0.943, 'ratio'),
    write(12.345, 'count'),
    write(1e-4, 'm'),
    write(6e-4, 'm2'),
    write(700, 'W'),
    write(1.234, 'kWh'),
    write(11340, 'kg/m3'),
    write(2.04, 'K/month'),
    write('soft', 'text'),
  ]).toEqual([
    '10 g',
    '2.00 kg',
    '5 min',
    '177 °C',
    '€12.34',
    '€0.413',
    '€2.50/kg',
    '€12.00/h',
    '€0.32/kWh',
    '94.3 %',
    '12.35',
    '0.1 mm',
    '6 cm²',
    '700 W',
    '1.23 kWh',
    '11.34 g/cm³',
    '2 K a month',
    'soft',
  ]);
});

// A difference of 1 K is one of 1.8 °F: no offset of 32 in it. Worked by hand.
test('differences, rates and the small units, in Celsius and in Fahrenheit', async () => {
  const celsius = await unitsFor({});
  const values = [
    [2.04, 'K'],
    [-10, 'K'],
    [1.5, 'K/month'],
    [0.554, 'W/K'],
    [1523.4, 'W/m2K'],
    [0.1234, 'm/s'],
    [0.0432, 'ug/m3'],
    [51.6, 'ug/m3'],
    [1.25e-4, 'powder-kg'],
    [9.94e-6, 'powder-kg'],
    [1.96e-6, 'powder-kg'],
    [0.84, 'ml'],
    [0.0032, 'm'],
  ] as const;
  expect(values.map(([value, unit]) => celsius.write(value, unit))).toEqual([
    '2 K',
    '-10 K',
    '1.5 K a month',
    '0.55 W/K',
    '1523 W/m²K',
    '0.12 m/s',
    '0.04 µg/m³',
    '52 µg/m³',
    '125 mg',
    '9.9 mg',
    '2.0 mg',
    '0.8 ml',
    '3.2 mm',
  ]);
  expect([celsius.part('lead', 1.5), celsius.part('hook', 24.2), celsius.part('thread', 1.234)]).toEqual([
    '1.50 kg',
    '24',
    '1.23 m',
  ]);
  const fahrenheit = await unitsFor({ massUnit: 'oz', temperatureUnit: 'F' });
  expect([fahrenheit.write(10, 'K'), fahrenheit.write(2.5, 'K/month'), fahrenheit.write(100, 'C')]).toEqual([
    '18 °F',
    '4.5 °F a month',
    '212 °F',
  ]);
});

test('days', () => {
  const at = new Date(2026, 2, 6, 19, 5).getTime();
  expect([writeDay(at), writeMonth(at), writeTime(at), isoDay(at)]).toEqual([
    '6 Mar 2026',
    'Mar 26',
    '19:05',
    '2026-03-06',
  ]);
  expect([writeDue('2026-03-14'), writeDue(null)]).toEqual([', due 14 March', '']);
});
