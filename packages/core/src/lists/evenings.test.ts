import { countedOnPaper, guessEvenings, readEvenings, type EveningMapping, type NamedThing } from './evenings.ts';

const things: NamedThing[] = [
  { kind: 'product', name: 'Perch ten' },
  { kind: 'product', name: 'Fry six' },
  { kind: 'mold', name: 'Fry six' },
];

test('a log as it was kept on paper, guessed and read', () => {
  const rows = [
    { Evening: '14.3.2025', Mold: 'FRY-SIX', Heads: '48', Rejects: '6', 'Took (h)': '1:30', Weather: 'cold shed' },
    { Evening: '2.4.25', Mold: 'perch ten', Heads: '60', Rejects: '', 'Took (h)': '2', Weather: '' },
    { Evening: '9.4.25', Mold: 'the old one', Heads: '31', Rejects: '4', 'Took (h)': '', Weather: '' },
  ];
  const mapping = guessEvenings(Object.keys(rows[0]!), rows, things);
  expect(mapping).toEqual({
    columns: {
      ...{ on: 'Evening', what: 'Mold', good: 'Heads', bad: 'Rejects', casts: null },
      ...{ time: 'Took (h)', note: 'Weather' },
    },
    ...{ time: 'hours', days: 'day.month.year' },
    // Both a mold and a product have that name: the paper names what was cast in.
    names: {
      'FRY-SIX': { kind: 'mold', name: 'Fry six' },
      'perch ten': { kind: 'product', name: 'Perch ten' },
      'the old one': null,
    },
  });
  const evenings = readEvenings(rows, mapping);
  expect(evenings[0]).toEqual({
    ...{ on: '2025-03-14', name: 'FRY-SIX', mold: 'Fry six', product: '', casts: '54', good: '48', minutes: '90' },
    note: 'cold shed',
  });
  expect(evenings[1]).toMatchObject({
    on: '2025-04-02',
    product: 'Perch ten',
    casts: '60',
    good: '60',
    minutes: '120',
  });
  expect(evenings[2]).toMatchObject({ name: 'the old one', mold: '', product: '', casts: '35', minutes: '' });
});

test('a heading that says one thing above cells that say another is not believed', () => {
  const row = { Evening: '2.4.2025', 'What I poured': 'Fry six', 'Heads ok': '80', Rejects: '22', Time: '2:15' };
  const { columns } = guessEvenings(Object.keys(row), [row], things);
  expect(columns).toEqual({
    ...{
      on: 'Evening',
      what: 'What I poured',
      good: 'Heads ok',
      bad: 'Rejects',
      casts: null,
      time: 'Time',
      note: null,
    },
  });
});

test('where headings say nothing, the day and the heads are known by their look', () => {
  const { columns } = guessEvenings(['Tag', 'Form', 'Gut'], [{ Tag: '1.2.2025', Form: 'Sechser', Gut: '40' }], []);
  expect(columns).toMatchObject({ on: 'Tag', what: 'Form', good: 'Gut', bad: null, casts: null });
});

const MAPPING: EveningMapping = {
  columns: { on: 'd', what: 'w', good: 'g', bad: 'b', casts: 'c', time: 't', note: null },
  ...{ time: 'minutes', days: 'year-month-day', names: {} },
};
const read = (row: Record<string, string>, columns: Partial<EveningMapping['columns']> = {}) =>
  readEvenings([{ d: '2025-03-14', ...row }], { ...MAPPING, columns: { ...MAPPING.columns, ...columns } })[0]!;

// Of good, bad and all, two tell the third.
test.each([
  ['good and bad', read({ g: '40', b: '5' }), { good: '40', casts: '45' }],
  ['all and bad', read({ c: '45', b: '5' }), { good: '40', casts: '45' }],
  ['good and all', read({ g: '40', c: '45' }, { bad: null }), { good: '40', casts: '45' }],
  ['good alone', read({ g: '40' }, { bad: null }), { good: '40', casts: '' }],
  ['all alone: nobody knows the bad ones', read({ c: '45' }, { bad: null }), { good: '45', casts: '' }],
  ['an empty cell of bad ones is none', read({ g: '40', b: '' }), { good: '40', casts: '40' }],
  ['what is no number stays', read({ g: 'many', b: '2' }), { good: 'many', casts: '' }],
  ['what is no number of bad ones stays', read({ g: '40', b: 'some' }), { good: '40', casts: 'some' }],
  ['a clock', read({ g: '1', t: '2:15' }), { minutes: '135' }],
  ['hours and minutes', read({ g: '1', t: '1h 5 min' }), { minutes: '65' }],
  ['hours with a unit', read({ g: '1', t: '1,5 h' }), { minutes: '90' }],
  ['minutes with a unit', read({ g: '1', t: '95 min' }), { minutes: '95' }],
  ['minutes as they stand', read({ g: '1', t: '80' }), { minutes: '80' }],
  ['no time', read({ g: '1', t: 'late' }), { minutes: 'late' }],
])('%s', (_, found, wanted) => expect(found).toMatchObject(wanted));

test('what was kept on paper is shared out among cavities that nobody has cast in; what was cast here goes before', () => {
  const fresh = [1, 2, 3].map((position) => ({ position, good: 0, casts: 0 }));
  // 101 casts of three cavities are 33 of each; 90 of 101 good are 29 of 33.
  expect(countedOnPaper(fresh, { good: 90, casts: 101 })).toEqual(
    fresh.map((cavity) => ({ ...cavity, good: 29, casts: 33 })),
  );
  expect(countedOnPaper(fresh, undefined)).toEqual(fresh);
  expect(countedOnPaper(fresh, { good: 0, casts: 0 })).toEqual(fresh);
  const used = [{ good: 3, casts: 4 }, ...fresh];
  expect(countedOnPaper(used, { good: 90, casts: 101 })).toEqual(used);
});

test('a column full of molds that are known is the one, though another is called What', () => {
  const rows = [
    { Date: '14.3.2025', What: 'ball heads', Mold: 'fry six', Poured: '60', Good: '55' },
    { Date: '20.3.2025', What: 'ball heads', Mold: 'Fry-Six', Poured: '60', Good: '58' },
  ];
  expect(guessEvenings(Object.keys(rows[0]!), rows, things).columns).toMatchObject({
    ...{ what: 'Mold', good: 'Good', casts: 'Poured' },
  });
});
