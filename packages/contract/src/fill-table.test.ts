import { fillRecordsIn, fillTable } from './fill-table.ts';

const [one, other] = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'];
const record = (cavityId: string, at: number, moldC: number, casts: number, shorts: number) => {
  return { cavityId, at, pourC: 371.04, roomC: 18, moldC, shotsSinceSmoked: 12, casts, shorts };
};

test('records come out of a table as they went in, to a tenth of a degree, each pour and cavity said once', () => {
  const records = [
    record(one, 1000, 54.26, 4, 1),
    record(other, 1000, 54.26, 3, 0),
    record(one, 1000, 61, 2, 0),
    record(one, 2000, 40, 5, 5),
  ];
  const table = fillTable(records);
  expect([table.cavityIds, table.pours.map(({ at }) => at)]).toEqual([
    [one, other],
    [1000, 2000],
  ]);
  expect(fillRecordsIn(table)).toEqual(
    records.map((each) => ({ ...each, pourC: 371, moldC: each.moldC === 54.26 ? 54.3 : each.moldC })),
  );
  expect(fillRecordsIn(fillTable([]))).toEqual([]);
});
