/** One field that was refused: what was given, in which unit, and what is allowed. */
export interface FieldProblem {
  field: string;
  value: unknown;
  unit: string;
  allowed: string;
  message: string;
}

/** Problem details (RFC 9457) as every error of the API is sent. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  detail: string;
  fields?: FieldProblem[];
  /** For a stale write: what has changed since it was read. */
  changes?: { field: string; yours: unknown; now: unknown }[];
}

/** A value that does not fit its schema. */
export class InvalidInput extends Error {
  readonly fields: FieldProblem[];
  constructor(fields: FieldProblem[]) {
    super(fields.map((field) => field.message).join('; '));
    this.name = 'InvalidInput';
    this.fields = fields;
  }
}
