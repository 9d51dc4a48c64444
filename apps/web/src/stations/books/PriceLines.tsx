import { priceLineSchema, type SettingsView } from '@schmelz/contract';
import type { PriceLine } from '@schmelz/core';
import { call } from '../../api/client.ts';
import { settingsInput, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { numberIn, useBuiltForm } from '../../design/useForm.ts';

/** Taxes, a market's part, what is spoiled at the stall: the maker's own lines, as far as they are asked of them. */
export function PriceLines({ settings }: { settings: SettingsView }) {
  const lines = settings.priceLines ?? [];
  const put = useWrite((next: PriceLine[]) =>
    call('PUT /settings', { body: { ...settingsInput(settings), priceLines: next } }),
  );
  const form = useBuiltForm<{ name: string; share: string; of: PriceLine['of'] }, PriceLine>({
    defaults: { name: '', share: '', of: 'price' },
    schema: priceLineSchema,
    build: ({ name, share, of }) => ({ name: name.trim(), share: numberIn('share', share, '%') / 100, of }),
    send: (line) => put.mutate([...lines, line], { onSuccess: () => form.reset() }),
  });
  return (
    <details className="mt-3">
      <summary className="cursor-pointer underline underline-offset-4">Taxes and fees that are put on it</summary>
      <ul className="mt-2">
        {lines.map(({ name, share, of }, at) => (
          <li key={name} className="flex items-center justify-between gap-3 border-b border-rule py-1.5">
            <span>
              {name}, {Math.round(1000 * share) / 10} % of the {of}
            </span>
            <button
              type="button"
              aria-label={`Without ${name}`}
              className="grid size-8 place-items-center"
              onClick={() => put.mutate(lines.filter((_, nth) => nth !== at))}
            >
              <Icon name="close" size={13} />
            </button>
          </li>
        ))}
      </ul>
      <form
        onSubmit={form.onSubmit}
        className="mt-2 grid grid-cols-[minmax(0,1fr)_5rem_8rem] items-end gap-2"
        noValidate
      >
        <TextField label="What" {...form.register('name')} />
        <TextField label="Share" unit="%" inputMode="decimal" {...form.register('share')} />
        <Choice
          label="Of"
          options={[
            { value: 'price', label: 'the price' },
            { value: 'cost', label: 'the cost' },
          ]}
          {...form.register('of')}
        />
        <Button type="submit" className="justify-self-start" disabled={put.isPending}>
          Add it
        </Button>
      </form>
      <p className="quiet mt-1">Which are due where you are, only the authority there can say: ask it.</p>
      <ProblemNote error={form.problem ?? put.error} />
    </details>
  );
}
