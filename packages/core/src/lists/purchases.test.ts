import { namesIn } from './cells.ts';
import { guessPurchases, readPurchases, type PurchaseMapping } from './purchases.ts';

const materials = [
  { name: 'Keel lead', byMass: true },
  { name: 'Jig hook 2/0', byMass: false },
  { name: 'Tar black', byMass: true },
];

test('a list as a shop writes it, guessed and read', () => {
  const rows = [
    { 'Order date': '3/14/2026', Item: 'KEEL  LEAD', 'Weight (lb)': '27.5', 'Total $': '$1,031.20', Shop: 'yard' },
    { 'Order date': '4/2/26', Item: 'jig hook 2/0', 'Weight (lb)': '100', 'Total $': '17.90', Shop: '' },
    { 'Order date': '4/2/26', Item: 'Coffee', 'Weight (lb)': '1', 'Total $': '4', Shop: '' },
  ];
  const mapping = guessPurchases(Object.keys(rows[0]!), rows, materials);
  expect(mapping).toEqual({
    columns: { material: 'Item', quantity: 'Weight (lb)', price: 'Total $', on: 'Order date', lot: 'Shop' },
    ...{ unit: 'lb', priceIs: 'for all of it', days: 'month/day/year' },
    names: { 'KEEL  LEAD': 'Keel lead', 'jig hook 2/0': 'Jig hook 2/0', Coffee: null },
  });
  const [lead, hooks, ...others] = readPurchases(rows, mapping, materials);
  // 27.5 lb of 0.45359237 kg; what is counted is in pieces, whatever the column is in.
  expect(lead).toEqual({
    material: 'Keel lead',
    quantity: '12.473790175',
    price: '1031.2',
    on: '2026-03-14',
    lot: 'yard',
  });
  expect(hooks).toEqual({ material: 'Jig hook 2/0', quantity: '100', price: '17.9', on: '2026-04-02', lot: '' });
  expect(others).toEqual([]);
});

const MAPPING: PurchaseMapping = {
  columns: { material: 'a', quantity: 'b', price: 'c', on: 'd', lot: null },
  ...{ unit: 'g', priceIs: 'for all of it', days: 'day.month.year', names: { t: 'Tar black', h: 'Jig hook 2/0' } },
};
const read = (row: Partial<Record<'a' | 'b' | 'c' | 'd', string>>, more: Partial<PurchaseMapping> = {}) =>
  readPurchases([{ a: 't', b: '500', c: '9', d: '14.3.2026', ...row }], { ...MAPPING, ...more }, materials)[0]!;

test.each([
  ['grams are kilograms', read({}).quantity, '0.5'],
  ['a unit behind the amount outranks the column', read({ b: '1/2 lb' }).quantity, '0.226796185'],
  ['pieces are no grams', read({ a: 'h', b: '50' }).quantity, '50'],
  ['a comma is a point', read({ c: '31,20' }).price, '31.2'],
  ['thousands with a point', read({ c: 'EUR 1.234,50' }).price, '1234.5'],
  ['a price for each', read({ a: 'h', b: '50', c: '0.179' }, { priceIs: 'for each' }).price, '8.95'],
  ['a year in front', read({ d: '2026-3-4' }, { days: 'year-month-day' }).on, '2026-03-04'],
  ['a short year', read({ d: '4/3/26' }).on, '2026-03-04'],
  ['what is no number stays', read({ b: 'some' }).quantity, 'some'],
  ['what is no day stays', read({ d: 'spring' }).on, 'spring'],
])('%s', (_, found, wanted) => expect(found).toBe(wanted));

test('a list whose columns are named as the workshop names them is read as it stands', () => {
  const row = { lot: 'keel', on: '2026-03-14', price: '31.20', quantity: '12.5', material: 'Keel lead' };
  const mapping = guessPurchases(Object.keys(row), [row], materials);
  expect(mapping.columns).toEqual({ material: 'material', quantity: 'quantity', price: 'price', on: 'on', lot: 'lot' });
  expect(readPurchases([row], mapping, materials)).toEqual([{ ...row, price: '31.2' }]);
});

test('where headings say nothing, cells do: days by their look, then words, then numbers as they come', () => {
  const rows = [
    { Tag: '3.4.2026', Ware: 'Kiellot', Menge: '27,5', Euro: '41,20' },
    { Tag: '14.5.2026', Ware: 'Haken 2/0', Menge: '100', Euro: '17,90' },
  ];
  const { columns, days } = guessPurchases(Object.keys(rows[0]!), rows, materials);
  expect(columns).toEqual({ material: 'Ware', quantity: 'Menge', price: 'Euro', on: 'Tag', lot: null });
  expect(days).toBe('day.month.year');
});

test('how days are written is told by a number that is no month; names by letters and figures alone', () => {
  const days = (...all: string[]) =>
    guessPurchases(
      ['on'],
      all.map((on) => ({ on })),
      [],
    ).days;
  expect(days('1.2.2026', '14.3.2026')).toBe('day.month.year');
  expect(days('1/2/2026', '14/3/2026')).toBe('day.month.year');
  expect(days('1/2/2026', '3/4/2026')).toBe('month/day/year');
  expect(days('2026-01-02')).toBe('year-month-day');
  expect(namesIn([{ a: 'tar-black' }, { a: 'tar' }, { a: '' }], 'a', ['Keel lead', 'Tar black'])).toEqual({
    'tar-black': 'Tar black',
    tar: null,
  });
  expect(namesIn([{ a: 'tar' }], null, [])).toEqual({});
});
