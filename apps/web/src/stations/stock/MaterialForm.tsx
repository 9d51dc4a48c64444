import {
  materialSchema,
  POWDER_GLOSSES,
  type Material,
  type MaterialInput,
  type ReceiptInput,
} from '@schmelz/contract';
import {
  antimonyFromHardness,
  BENDS,
  EYE_ANGLES_DEG,
  HOOK_SIZES,
  METAL_IDS,
  METAL_NAMES,
  PART_KINDS,
  parseMass,
  partKind,
  parseTemperature,
  WIRES,
} from '@schmelz/core';
import { useState } from 'react';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { newId } from '../../api/id.ts';
import { useSave, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { asOptions, Choice, TextField } from '../../design/Field.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { minorIn, numberIn, useBuiltForm } from '../../design/useForm.ts';
import { today } from '../../units/dates.ts';
import { useUnits, type Units } from '../../units/Units.tsx';
import { useQuantity } from './quantity.ts';

/** One hook is too light for most scales: ten are weighed at once. */
const HOOKS_WEIGHED = 10;

interface Values {
  kind: string;
  name: string;
  metalId: string;
  antimony: string;
  hardness: string;
  length: string;
  wireThick: string;
  tenWeigh: string;
  bend: string;
  size: string;
  wire: string;
  eyeAngleDeg: string;
  plating: string;
  limit: string;
  /** By the fields of its kind; lengths in mm, times in minutes. */
  details: Record<string, string>;
  colour: string;
  gloss: string;
  specificGravity: string;
  labelTemperature: string;
  labelMinutes: string;
  secondTemperature: string;
  secondMinutes: string;
  form: string;
  dryHours: string;
  /** What there is of it, where that is asked for at once. */
  quantity: string;
  paid: string;
}

const DEFAULTS: Values = {
  kind: 'hook',
  name: '',
  metalId: 'soft-lead',
  antimony: '3',
  hardness: '',
  length: '',
  wireThick: '',
  tenWeigh: '',
  bend: 'round',
  size: '2/0',
  wire: 'standard',
  eyeAngleDeg: '60',
  plating: 'bronze',
  limit: '',
  details: {},
  colour: '#b5552f',
  gloss: 'gloss',
  specificGravity: '1.5',
  labelTemperature: '177 C',
  labelMinutes: '20',
  secondTemperature: '200 C',
  secondMinutes: '10',
  form: 'powder',
  dryHours: '4',
  quantity: '',
  paid: '',
};

/** Small weights are written in g, waits in minutes; lengths by the maker's own unit. */
const WRITTEN: Record<string, { unit: string; factor: number }> = {
  kg: { unit: 'g', factor: 1000 },
  s: { unit: 'min', factor: 1 / 60 },
};
const written = (value: number | undefined, unit: string) =>
  value === undefined ? '' : String(Math.round(value * (WRITTEN[unit]?.factor ?? 1) * 1e4) / 1e4);

/** A material on record, as the form writes it: heat in Celsius, whatever the units are. */
function valuesOf(
  { kind, name, metalId, composition, hook, powder, limitC, details }: Material,
  { lengthText }: Units,
): Values {
  const shared = {
    ...DEFAULTS,
    kind,
    name,
    metalId: metalId ?? DEFAULTS.metalId,
    limit: limitC === null || limitC === undefined ? '' : `${limitC} C`,
    details: Object.fromEntries(
      partKind(kind).fields.map(({ name: field, unit }) => {
        const value = details?.[field];
        return [field, unit === 'm' ? lengthText(value) : written(value, unit)];
      }),
    ),
  };
  if (composition)
    return {
      ...shared,
      antimony: String(composition.antimonyPercent),
      hardness: composition.brinell === null ? '' : String(composition.brinell),
    };
  if (hook) {
    const { size, wire, eyeAngleDeg, plating, bend, lengthM, wireM, massKg } = hook;
    return {
      ...shared,
      size,
      wire,
      eyeAngleDeg: String(eyeAngleDeg),
      plating,
      bend: bend ?? DEFAULTS.bend,
      length: lengthText(lengthM),
      wireThick: lengthText(wireM),
      tenWeigh: massKg ? `${Math.round(1e6 * massKg) / 100} g` : '',
    };
  }
  if (!powder) return shared;
  const [first, second] = powder.label;
  const minutes = (line: typeof first) => (line ? String(line.seconds / 60) : '');
  return {
    ...shared,
    colour: powder.colour,
    gloss: powder.gloss,
    specificGravity: String(powder.specificGravity),
    form: powder.form ?? 'powder',
    dryHours: powder.dryS ? String(powder.dryS / 3600) : DEFAULTS.dryHours,
    labelTemperature: first ? `${first.metalC} C` : DEFAULTS.labelTemperature,
    labelMinutes: first ? minutes(first) : DEFAULTS.labelMinutes,
    secondTemperature: second ? `${second.metalC} C` : '',
    secondMinutes: minutes(second),
  };
}

/** Name, kind, and what the calculations need to know of it. */
export function MaterialForm({
  material,
  start,
  stocked = false,
  onSaved,
}: {
  material?: Material;
  /** What is known already where it is made: its kind, a size. */
  start?: Partial<Values> & { kind: string };
  /** Ask at once for what there is of it. */
  stocked?: boolean;
  onSaved?: () => void;
}) {
  const units = useUnits();
  const { temperatureUnit, massUnit, currency } = units;
  const save = useSave('materials');
  const quantity = useQuantity(start?.kind ?? 'hook');
  const [receiptId] = useState(newId);
  const receive = useWrite(({ id, input }: { id: string; input: ReceiptInput }) =>
    call('POST /materials/:id/receipts', { params: { id }, body: input }),
  );
  const receiptOf = ({ quantity: text, paid }: Values): ReceiptInput => {
    const priceMinor = paid.trim() ? minorIn('price', paid, currency) : 0;
    return { id: receiptId, quantity: quantity.read(text), priceMinor, on: today(), lot: '' };
  };
  const celsius = (text: string) => Math.round(parseTemperature(text, temperatureUnit) * 10) / 10;
  const labelLine = (temperature: string, minutes: string) => ({
    metalC: celsius(temperature),
    seconds: Math.round(numberIn('label minutes', minutes) * 60),
  });
  const form = useBuiltForm<Values, MaterialInput>({
    defaults: material ? valuesOf(material, units) : { ...DEFAULTS, ...start },
    schema: materialSchema,
    build: (values) => {
      const { kind, name, size, wire, plating } = values;
      // What is here is read with the rest, so that nothing is made while it cannot be.
      if (stocked) receiptOf(values);
      const liquid = values.form === 'liquid';
      const lines = liquid || kind !== 'powder' ? [] : [labelLine(values.labelTemperature, values.labelMinutes)];
      if (lines.length && values.secondTemperature.trim())
        lines.push(labelLine(values.secondTemperature, values.secondMinutes));
      // A hardness test, where there is one, says the antimony.
      const brinell = values.hardness.trim() ? numberIn('hardness', values.hardness, 'BHN') : null;
      const antimonyPercent =
        brinell === null
          ? numberIn('antimony', values.antimony, '%')
          : Math.round(antimonyFromHardness(brinell).percent * 10) / 10;
      const metres = (field: string, text: string) => (text.trim() ? units.readLength(field, text) : null);
      return {
        kind,
        name: name.trim(),
        note: material?.note ?? '',
        limitC: values.limit.trim() ? celsius(values.limit) : null,
        details: detailsIn(kind, values.details, units),
        metalId: kind === 'lead' ? values.metalId : null,
        composition:
          kind === 'lead' && values.metalId === 'hard-lead' ? { antimonyPercent, tinPercent: 0, brinell } : null,
        hook:
          kind === 'hook'
            ? {
                size,
                wire,
                eyeAngleDeg: Number(values.eyeAngleDeg),
                plating,
                bend: values.bend,
                lengthM: metres('length', values.length),
                wireM: metres('wire', values.wireThick),
                massKg: values.tenWeigh.trim() ? parseMass(values.tenWeigh, massUnit) / HOOKS_WEIGHED : null,
              }
            : null,
        powder:
          kind === 'powder'
            ? {
                colour: values.colour,
                gloss: values.gloss,
                specificGravity: numberIn('specific gravity', values.specificGravity),
                label: lines,
                form: values.form,
                dryS: liquid ? Math.round(3600 * numberIn('wait before the next coat', values.dryHours, 'h')) : null,
              }
            : null,
      };
    },
    send: (input) =>
      save.mutate(material ? { ...input, id: material.id, version: material.version } : input, {
        onSuccess: (saved) => {
          if (stocked) receive.mutate({ id: saved.id, input: receiptOf(form.getValues()) });
          toast(material ? `${input.name} is changed.` : `${input.name} is in the stock list.`);
          if (!material && !stocked) form.reset();
          onSaved?.();
        },
      }),
  });
  const kind = form.watch('kind');
  return (
    <form onSubmit={form.onSubmit} className="grid gap-4 sm:grid-cols-2" noValidate>
      {!material && !start && (
        <Choice
          label="Kind"
          options={PART_KINDS.map(({ id, name }) => ({ value: id, label: name }))}
          {...form.register('kind')}
        />
      )}
      <TextField label="Name" {...form.register('name')} />
      {stocked && (
        <>
          <TextField label={quantity.label} hint={quantity.hint} {...form.register('quantity')} autoFocus />
          <TextField
            label="Paid for all of it"
            unit={currency}
            hint="Left empty: nothing, it was found."
            inputMode="decimal"
            {...form.register('paid')}
          />
        </>
      )}
      {kind === 'lead' && (
        <Choice
          label="Metal"
          options={METAL_IDS.map((id) => ({ value: id, label: METAL_NAMES[id] }))}
          {...form.register('metalId')}
        />
      )}
      {kind === 'lead' && form.watch('metalId') === 'hard-lead' && (
        <>
          <TextField label="Antimony" unit="%" inputMode="decimal" {...form.register('antimony')} />
          <TextField
            label="or hardness, if tested"
            unit="BHN"
            hint="It then says the antimony, as an estimate."
            inputMode="decimal"
            {...form.register('hardness')}
          />
        </>
      )}
      {kind === 'hook' && (
        <>
          <Choice label="Size" options={asOptions(HOOK_SIZES)} {...form.register('size')} />
          <Choice label="Wire" options={asOptions(WIRES)} {...form.register('wire')} />
          <Choice label="Eye angle" options={asOptions(EYE_ANGLES_DEG, '°')} {...form.register('eyeAngleDeg')} />
          <Choice label="Bend" options={asOptions(BENDS)} {...form.register('bend')} />
          <TextField label="Length, if measured" hint="Outranks the size number." {...form.register('length')} />
          <TextField label="Wire, if measured" {...form.register('wireThick')} />
          <TextField
            label="Ten of them weigh, if weighed"
            hint={`Such as ${massUnit === 'g' ? '5.8 g' : '0.2 oz'}: heads are checked by it.`}
            {...form.register('tenWeigh')}
          />
          <TextField label="Plating" {...form.register('plating')} />
        </>
      )}
      {kind === 'powder' && (
        <>
          <TextField label="Colour" type="color" {...form.register('colour')} />
          <Choice label="Gloss" options={asOptions(POWDER_GLOSSES)} {...form.register('gloss')} />
          <TextField
            label="Specific gravity"
            hint="1.2 to 1.8; white is heavy."
            {...form.register('specificGravity')}
          />
          <Choice
            label="It is"
            options={[
              { value: 'powder', label: 'powder, to be baked' },
              { value: 'liquid', label: 'liquid paint, to be dried' },
            ]}
            {...form.register('form')}
          />
          {form.watch('form') === 'liquid' ? (
            <TextField label="Wait before the next coat" unit="h" inputMode="decimal" {...form.register('dryHours')} />
          ) : (
            <>
              <TextField label="Label: metal temperature" {...form.register('labelTemperature')} />
              <TextField label="Label: minutes" {...form.register('labelMinutes')} />
              <TextField
                label="Second line: temperature"
                hint="Leave empty when the jar prints one only."
                {...form.register('secondTemperature')}
              />
              <TextField label="Second line: minutes" {...form.register('secondMinutes')} />
            </>
          )}
        </>
      )}
      {partKind(kind).fields.map((field) => (
        <TextField
          key={field.name}
          label={field.label}
          unit={field.unit === 'm' ? undefined : (WRITTEN[field.unit]?.unit ?? field.unit)}
          hint="Left empty: not known."
          inputMode={field.unit === 'm' ? undefined : 'decimal'}
          {...form.register(`details.${field.name}`)}
        />
      ))}
      {kind !== 'lead' && kind !== 'powder' && (
        <TextField
          label={kind === 'hook' ? 'Its plating stands' : 'The heat it stands'}
          hint={
            kind === 'hook'
              ? 'Above it the plating browns. Not known until you or its seller say.'
              : 'Such as 90 C; left empty: not known.'
          }
          {...form.register('limit')}
        />
      )}
      <div className="flex flex-col gap-4 sm:col-span-2">
        <ProblemNote error={form.problem ?? save.error ?? receive.error} />
        <Button look="main" type="submit" className="self-start" disabled={save.isPending || receive.isPending}>
          {material ? 'Keep it' : 'Add it'}
        </Button>
      </div>
    </form>
  );
}

/** What was written of a part beyond its name, in SI; nothing where nothing was written. */
function detailsIn(kind: string, texts: Record<string, string>, { readLength }: Units): Record<string, number> | null {
  const known = partKind(kind).fields.flatMap(({ name, label, unit }) => {
    const text = texts[name]?.trim();
    const { unit: shown, factor } = WRITTEN[unit] ?? { unit, factor: 1 };
    if (!text) return [];
    return [[name, unit === 'm' ? readLength(label, text) : numberIn(label, text, shown) / factor] as const];
  });
  return known.length ? Object.fromEntries(known) : null;
}
