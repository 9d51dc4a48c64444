import { parseWith } from '@schmelz/contract';
import { currencyDigits, parseNumber, QuantityError } from '@schmelz/core';
import { useState } from 'react';
import { useForm, type DefaultValues, type FieldValues, type UseFormReturn } from 'react-hook-form';

type Schema = Parameters<typeof parseWith>[0];

/**
 * A form whose fields are text in the maker's units. `build` reads the text into SI, the schema of the contract checks
 * it, and only what fits reaches `send`; what does not is told by field, value and what is allowed.
 */
export function useBuiltForm<Values extends FieldValues, Input>(options: {
  defaults: DefaultValues<Values>;
  build: (values: Values) => unknown;
  schema: Schema;
  send: (input: Input) => void;
}): UseFormReturn<Values> & { problem: unknown; onSubmit: (event: React.FormEvent) => void } {
  const form = useForm<Values>({ defaultValues: options.defaults });
  const [problem, setProblem] = useState<unknown>(null);
  const submit = form.handleSubmit((values) => {
    try {
      const input = parseWith(options.schema, options.build(values)) as Input;
      setProblem(null);
      options.send(input);
    } catch (error) {
      setProblem(error);
    }
  });
  return { ...form, problem, onSubmit: (event: React.FormEvent) => void submit(event) };
}

/** Reads a number field; says which field and what it holds when it is none. */
export function numberIn(field: string, text: string, unit = ''): number {
  const value = parseNumber(text);
  if (value === null) throw new QuantityError(field, JSON.stringify(text), unit, 'a number');
  return value;
}

/** Reads an amount of money into whole minor units. */
export const minorIn = (field: string, text: string, currency: string): number =>
  Math.round(numberIn(field, text, currency) * 10 ** currencyDigits(currency));
