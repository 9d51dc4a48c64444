import type { FieldProblem, Problem } from '@schmelz/contract';

/** An error that the maker gets to read, as problem details. */
export class Refused extends Error {
  readonly status: number;
  readonly title: string;
  readonly fields?: FieldProblem[];
  readonly changes?: Problem['changes'];

  constructor(
    status: number,
    title: string,
    detail: string,
    more: { fields?: FieldProblem[]; changes?: Problem['changes'] } = {},
  ) {
    super(detail);
    this.name = 'Refused';
    this.status = status;
    this.title = title;
    this.fields = more.fields;
    this.changes = more.changes;
  }
}

export const notFound = (what: string, id: string) => new Refused(404, 'Not found', `There is no ${what} ${id}.`);
export const notAllowed = (detail: string) => new Refused(422, 'Not possible now', detail);
