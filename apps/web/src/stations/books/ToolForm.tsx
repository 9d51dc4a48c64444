import { toolSchema, type Product, type Tool, type ToolInput } from '@schmelz/contract';
import { currencyDigits } from '@schmelz/core';
import { useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { minorIn, numberIn, useBuiltForm } from '../../design/useForm.ts';
import { today } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';

interface Values {
  name: string;
  price: string;
  boughtOn: string;
  life: string;
  serves: string;
}

/** What was bought to work with, and how long it lasts. */
export function ToolForm({
  tool,
  products,
  onSaved,
}: {
  tool?: Tool;
  products: readonly Product[];
  onSaved: () => void;
}) {
  const units = useUnits();
  const save = useSave('tools');
  const form = useBuiltForm<Values, ToolInput>({
    defaults: tool
      ? {
          name: tool.name,
          price: String(tool.priceMinor / 10 ** currencyDigits(units.currency)),
          boughtOn: tool.boughtOn,
          life: tool.lifeHeads === null ? '' : String(tool.lifeHeads),
          serves: tool.productIds[0] ?? '',
        }
      : { name: '', price: '', boughtOn: today(), life: '', serves: '' },
    schema: toolSchema,
    build: ({ name, price, boughtOn, life, serves }) => ({
      name: name.trim(),
      priceMinor: minorIn('price', price, units.currency),
      boughtOn,
      lifeHeads: life.trim() ? numberIn('life', life, 'heads') : null,
      productIds: serves ? [serves, ...(tool?.productIds ?? []).slice(1)] : [],
      note: tool?.note ?? '',
    }),
    send: (input) =>
      save.mutate(tool ? { ...input, id: tool.id, version: tool.version } : input, { onSuccess: onSaved }),
  });
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-4" noValidate>
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField label="Name" {...form.register('name')} autoFocus />
        <TextField label="It cost" unit={units.currency} inputMode="decimal" {...form.register('price')} />
        <TextField label="Bought on" type="date" {...form.register('boughtOn')} />
        <TextField
          label="Worn out after"
          unit="heads"
          inputMode="numeric"
          hint="Empty: it lasts."
          {...form.register('life')}
        />
        <Choice
          label="Serves"
          options={[
            { value: '', label: 'everything that is made' },
            ...products.map(({ id, name }) => ({ value: id, label: `only ${name}` })),
          ]}
          {...form.register('serves')}
        />
      </div>
      <ProblemNote error={form.problem ?? save.error} />
      <Button look="main" type="submit" className="self-start" disabled={save.isPending}>
        Keep it
      </Button>
    </form>
  );
}
