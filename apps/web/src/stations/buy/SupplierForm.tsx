import { supplierSchema, type Material, type Supplier, type SupplierInput } from '@schmelz/contract';
import { currencyDigits, parseMass, partKind } from '@schmelz/core';
import { useFieldArray } from 'react-hook-form';
import { useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { minorIn, numberIn, useBuiltForm } from '../../design/useForm.ts';
import { useUnits } from '../../units/Units.tsx';

interface Values {
  name: string;
  freight: string;
  freeAbove: string;
  days: string;
  offers: { materialId: string; pack: string; price: string; fromPacks: string; cheaper: string }[];
}

/** Who sells, what sending costs, and their packs; a second price holds from so many packs on. */
export function SupplierForm({
  supplier,
  materials,
  onSaved,
}: {
  supplier?: Supplier;
  materials: readonly Material[];
  onSaved: () => void;
}) {
  const units = useUnits();
  const save = useSave('suppliers');
  const asText = (minor: number) => String(minor / 10 ** currencyDigits(units.currency));
  const kindOf = (id: string) => materials.find((each) => each.id === id)?.kind ?? 'hook';
  const inKg = (id: string) => partKind(kindOf(id)).unit === 'kg';
  const form = useBuiltForm<Values, SupplierInput>({
    defaults: supplier
      ? {
          name: supplier.name,
          freight: asText(supplier.freightMinor),
          freeAbove: supplier.freeAboveMinor === null ? '' : asText(supplier.freeAboveMinor),
          days: String(supplier.days),
          offers: supplier.offers.map(({ materialId, pack, prices: [first, second] }) => ({
            materialId,
            pack: inKg(materialId) ? `${pack} kg` : String(pack),
            price: asText(first!.minor),
            fromPacks: second ? String(second.fromPacks) : '',
            cheaper: second ? asText(second.minor) : '',
          })),
        }
      : { name: '', freight: '0', freeAbove: '', days: '3', offers: [] },
    schema: supplierSchema,
    build: ({ name, freight, freeAbove, days, offers }) => ({
      name: name.trim(),
      freightMinor: minorIn('freight', freight, units.currency),
      freeAboveMinor: freeAbove.trim() ? minorIn('free above', freeAbove, units.currency) : null,
      days: numberIn('days', days),
      note: supplier?.note ?? '',
      offers: offers.map(({ materialId, pack, price, fromPacks, cheaper }, at) => ({
        materialId,
        pack: inKg(materialId) ? parseMass(pack, units.massUnit) : numberIn('in a pack', pack),
        prices: [
          { fromPacks: 1, minor: minorIn('price', price, units.currency) },
          ...(fromPacks.trim()
            ? [{ fromPacks: numberIn('packs', fromPacks), minor: minorIn('price', cheaper, units.currency) }]
            : []),
          // Prices beyond the second stay as they were written by other means.
          ...(supplier?.offers[at]?.materialId === materialId ? supplier.offers[at].prices.slice(2) : []),
        ],
      })),
    }),
    send: (input) =>
      save.mutate(supplier ? { ...input, id: supplier.id, version: supplier.version } : input, { onSuccess: onSaved }),
  });
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'offers' });
  const sold = materials.filter(({ archived }) => !archived);
  const options = sold.map(({ id, name }) => ({ value: id, label: name }));
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-4" noValidate>
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField label="Name" {...form.register('name')} autoFocus />
        <TextField label="Until it is here" unit="days" inputMode="numeric" {...form.register('days')} />
        <TextField label="Freight" unit={units.currency} inputMode="decimal" {...form.register('freight')} />
        <TextField
          label="No freight from"
          unit={units.currency}
          hint="Empty: always some"
          inputMode="decimal"
          {...form.register('freeAbove')}
        />
      </div>
      <fieldset>
        <legend className="mb-2 font-medium">What they sell</legend>
        {fields.map((field, at) => (
          <div key={field.id} className="mb-3 grid grid-cols-2 items-end gap-2 border-b border-rule pb-3">
            <div className="col-span-2 grid grid-cols-[minmax(0,1fr)_32px] items-end gap-2">
              <Choice label="Material" options={options} {...form.register(`offers.${at}.materialId`)} />
              <button
                type="button"
                aria-label={`Remove pack ${at + 1}`}
                className="grid h-10 place-items-center"
                onClick={() => remove(at)}
              >
                <Icon name="close" size={13} />
              </button>
            </div>
            <TextField label="In a pack" {...form.register(`offers.${at}.pack`)} />
            <TextField
              label="A pack costs"
              unit={units.currency}
              inputMode="decimal"
              {...form.register(`offers.${at}.price`)}
            />
            <TextField label="From so many packs" inputMode="numeric" {...form.register(`offers.${at}.fromPacks`)} />
            <TextField
              label="only"
              unit={units.currency}
              inputMode="decimal"
              {...form.register(`offers.${at}.cheaper`)}
            />
          </div>
        ))}
        <Button
          disabled={options.length === 0}
          onClick={() => append({ materialId: options[0]!.value, pack: '', price: '', fromPacks: '', cheaper: '' })}
        >
          <Icon name="plus" size={14} /> Another pack
        </Button>
      </fieldset>
      <ProblemNote error={form.problem ?? save.error} />
      <Button look="main" type="submit" className="self-start" disabled={save.isPending}>
        Keep it
      </Button>
    </form>
  );
}
