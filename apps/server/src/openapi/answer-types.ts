import type { Given, RouteKey } from '@schmelz/contract';
import type { CALCULATIONS, CalculationName } from '../calculations/index.ts';

type Calculated = `POST /compute/${CalculationName}`;
type GivenBy<K> = K extends RouteKey
  ? Given<K>
  : K extends `POST /compute/${infer N extends CalculationName}`
    ? ReturnType<(typeof CALCULATIONS)[N]['run']>
    : never;

/** What every route and every calculation answers: scripts/answers.mjs makes the schemas of the document from it. */
export type Answers = { [K in RouteKey | Calculated as GivenBy<K> extends void ? never : K]: GivenBy<K> };
