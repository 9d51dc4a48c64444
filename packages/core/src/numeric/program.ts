/** What a solver of linear programs in the LP format says. */
export interface LpAnswer {
  status: string;
  /** Of the best answer found, and proved: no answer is below it. */
  objective: number;
  bound: number;
  columns: Record<string, number>;
}
export type SolveLp = (lp: string) => LpAnswer;

/** A factor and the column that it stands before. */
export type Term = readonly [factor: number, column: string];
export interface ProgramRow {
  of: readonly Term[];
  is: '<=' | '>=' | '=';
  to: number;
}
/** A linear program with some columns whole and some yes or no; all are zero or more. */
interface WholeProgram {
  least: readonly Term[];
  rows: readonly ProgramRow[];
  whole?: readonly string[];
  yesOrNo?: readonly string[];
}

const sum = (of: readonly Term[]): string =>
  of
    .filter(([factor]) => factor !== 0)
    .map(([factor, name]) => `${factor < 0 ? '-' : '+'} ${Number(Math.abs(factor).toPrecision(12))} ${name}`)
    .join(' ');

/**
 * A program as text in the LP format, which every solver reads. Rows without a column in them are left out.
 * @example programText({ least: [[2, 'x']], rows: [{ of: [[1, 'x']], is: '>=', to: 3 }] }).split('\n')[1].trim()
 *   // 'obj: + 2 x'
 */
export function programText({ least, rows, whole = [], yesOrNo = [] }: WholeProgram): string {
  const said = rows.filter(({ of }) => of.some(([factor]) => factor !== 0));
  return [
    'Minimize',
    ` obj: ${sum(least)}`,
    'Subject To',
    ...said.map(({ of, is, to }, at) => ` c${at}: ${sum(of)} ${is} ${to}`),
    ...(whole.length ? ['General', ...whole.map((name) => ` ${name}`)] : []),
    ...(yesOrNo.length ? ['Binary', ...yesOrNo.map((name) => ` ${name}`)] : []),
    'End',
  ].join('\n');
}
