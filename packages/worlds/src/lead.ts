/** Lead, J/kg above 20 C: by hand from a book of tables, kJ/kg at 20, 100, 200, 300, 327.5 solid, molten, 600. */
const TABLE: readonly (readonly [celsius: number, joules: number])[] = [
  [20, 0],
  [100, 10_380],
  [200, 23_800],
  [300, 37_660],
  [327.4, 41_500],
  [327.6, 64_500],
  [600, 104_550],
];

/** Along the table, the one column by the other. */
function along(value: number, from: 0 | 1, to: 0 | 1): number {
  let i = 1;
  while (i < TABLE.length - 1 && TABLE[i]![from] < value) i += 1;
  const [a, b] = [TABLE[i - 1]!, TABLE[i]!];
  return a[to] + ((value - a[from]) * (b[to] - a[to])) / (b[from] - a[from]);
}
export const leadJoules = (celsius: number): number => along(celsius, 0, 1);
export const leadCelsius = (joules: number): number => along(joules, 1, 0);
