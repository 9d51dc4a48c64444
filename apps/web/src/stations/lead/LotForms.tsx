import {
  cleanSchema,
  DIRTY_SOURCES,
  LOT_SOURCES,
  lotSchema,
  type CleanInput,
  type LeadLot,
  type LotInput,
  type LotSource,
  type Material,
} from '@schmelz/contract';
import { antimonyFromHardness, parseMass, writeBulkMass, USUALLY_CLEAN } from '@schmelz/core';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { asOptions, Choice, TextField } from '../../design/Field.tsx';
import { Caution, ProblemNote } from '../../design/Notice.tsx';
import { minorIn, numberIn, useBuiltForm } from '../../design/useForm.ts';
import { today } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';

interface Values {
  materialId: string;
  label: string;
  source: LotSource;
  on: string;
  time: string;
  gross: string;
  price: string;
  hardness: string;
  note: string;
}

/** What a hardness test says of a lot, as a sentence with its range. */
function Hardness({ text }: { text: string }) {
  const value = Number(text.replace(',', '.'));
  if (!text.trim() || !(value >= 3 && value <= 22)) return null;
  const { percent, low, high } = antimonyFromHardness(value);
  const one = (share: number) => share.toFixed(1);
  return (
    <p className="quiet">
      An estimate: about {one(percent)} % antimony, {one(low)} to {one(high)}. Tin, arsenic and age harden lead too;
      without tin it is more.
    </p>
  );
}

export function LotForm({ leads, onSaved }: { leads: Material[]; onSaved: () => void }) {
  const { massUnit, currency } = useUnits();
  const unit = massUnit === 'g' ? 'kg' : 'lb';
  const save = useWrite((input: LotInput) => call('POST /lead-lots', { body: input }));
  const form = useBuiltForm<Values, LotInput>({
    defaults: {
      materialId: leads[0]?.id ?? '',
      label: '',
      source: 'scrap',
      on: today(),
      time: '',
      gross: '',
      price: '0',
      hardness: '',
      note: '',
    },
    schema: lotSchema,
    build: ({ materialId, label, source, on, time, gross, price, hardness, note }) => ({
      materialId,
      label: label.trim(),
      source,
      on,
      ...(time ? { time } : {}),
      grossKg: parseMass(/[a-z]/i.test(gross) ? gross : `${gross} ${unit}`, massUnit),
      priceMinor: minorIn('price', price, currency),
      brinell: hardness.trim() ? numberIn('hardness', hardness, 'BHN') : null,
      note: note.trim(),
    }),
    send: (input) =>
      save.mutate(input, {
        onSuccess: () => {
          toast(`${input.label} is booked.`);
          onSaved();
        },
      }),
  });
  const dirty = DIRTY_SOURCES.includes(form.watch('source'));
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-4" noValidate>
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField label="Its name" {...form.register('label')} placeholder="Keel ends, boat shed" autoFocus />
        <Choice label="What it is" options={asOptions(LOT_SOURCES)} {...form.register('source')} />
        <Choice
          label="Goes with"
          options={leads.map((lead) => ({ value: lead.id, label: lead.name }))}
          {...form.register('materialId')}
        />
        <div className="grid grid-cols-[minmax(0,1fr)_8.5rem] gap-3">
          <TextField label="Came on" type="date" {...form.register('on')} />
          <TextField label="At, if it matters" type="time" {...form.register('time')} />
        </div>
        <TextField
          label={dirty ? 'As it came, dirty' : 'Weight'}
          unit={unit}
          inputMode="decimal"
          {...form.register('gross')}
        />
        <TextField label="Paid in all" unit={currency} inputMode="decimal" {...form.register('price')} />
        <TextField label="Hardness, if tested" unit="BHN" inputMode="decimal" {...form.register('hardness')} />
        <TextField label="Note" {...form.register('note')} />
      </div>
      <Hardness text={form.watch('hardness')} />
      {dirty && (
        <Caution>
          Pick out clips, stone and zinc weights first: zinc ruins a melt. Melt it outdoors, in an iron pan, dry. It
          counts as metal to cast once it is skimmed.
        </Caution>
      )}
      <ProblemNote error={form.problem ?? save.error} />
      <Button look="main" type="submit" className="self-start" disabled={save.isPending}>
        Book this lot
      </Button>
    </form>
  );
}

/** Ingots are poured about a pound each, so that they fit the pot. */
const INGOT_KG = 0.454;

export function CleanForm({ lot, onSaved }: { lot: LeadLot; onSaved: () => void }) {
  const { massUnit, bulk } = useUnits();
  const unit = massUnit === 'g' ? 'kg' : 'lb';
  const save = useWrite((input: CleanInput) =>
    call('POST /lead-lots/:id/clean', { params: { id: lot.id }, body: { ...input, version: lot.version } }),
  );
  const guess = writeBulkMass(lot.grossKg * USUALLY_CLEAN, massUnit);
  const form = useBuiltForm<{ on: string; time: string; clean: string; ingots: string }, CleanInput>({
    defaults: {
      on: today(),
      time: '',
      clean: `${guess.figure} ${guess.unit}`,
      ingots: String(Math.round((lot.grossKg * USUALLY_CLEAN) / INGOT_KG)),
    },
    schema: cleanSchema,
    build: ({ on, time, clean, ingots }) => ({
      on,
      ...(time ? { time } : {}),
      cleanKg: parseMass(/[a-z]/i.test(clean) ? clean : `${clean} ${unit}`, massUnit),
      ingots: numberIn('ingots', ingots),
    }),
    send: (input) =>
      save.mutate(input, {
        onSuccess: () => {
          toast(`${bulk(input.cleanKg)} of clean metal on the shelf.`);
          onSaved();
        },
      }),
  });
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-4" noValidate>
      <p>
        {lot.label} weighed {bulk(lot.grossKg)} as it came. What was skimmed off is a loss; the price goes with what is
        left.
      </p>
      <div className="grid gap-4 sm:grid-cols-3">
        <TextField label="Clean metal" unit={unit} {...form.register('clean')} autoFocus />
        <TextField label="Cast into ingots" unit="pieces" inputMode="numeric" {...form.register('ingots')} />
        <div className="grid grid-cols-[minmax(0,1fr)_8.5rem] gap-3">
          <TextField label="On" type="date" {...form.register('on')} />
          <TextField label="At, if it matters" type="time" {...form.register('time')} />
        </div>
      </div>
      <Caution>Skim, flux with a little wax, skim again. The flux flares up and smokes: outdoors, upwind.</Caution>
      <ProblemNote error={form.problem ?? save.error} />
      <Button look="main" type="submit" className="self-start" disabled={save.isPending}>
        It is clean
      </Button>
    </form>
  );
}
