import {
  bakeProgramSchema,
  ovenSchema,
  potSchema,
  type BakeProgramInput,
  type Oven,
  type OvenInput,
  type Pot,
  type PotInput,
} from '@schmelz/contract';
import { heatUpS, lagOfHeatUpS, parseMass, parseTemperature, POT_WAYS, potWay, type PotWay } from '@schmelz/core';
import { toast } from '../../design/toast.ts';
import { useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { numberIn, useBuiltForm } from '../../design/useForm.ts';
import { useUnits } from '../../units/Units.tsx';

const kept = { onSuccess: () => void toast('Kept.') };

export function PotForm({ pot }: { pot: Pot }) {
  const save = useSave('pots');
  const form = useBuiltForm<{ name: string; capacity: string; power: string; loss: string; way: PotWay }, PotInput>({
    defaults: {
      name: pot.name,
      capacity: `${pot.capacityKg} kg`,
      power: String(pot.powerW),
      loss: String(pot.lossWPerK),
      way: potWay(pot.way).id,
    },
    schema: potSchema,
    build: ({ name, capacity, power, loss, way }) => ({
      name,
      capacityKg: parseMass(capacity, 'g'),
      powerW: numberIn('power', power, 'W'),
      lossWPerK: numberIn('loss', loss, 'W/K'),
      way,
      learned: pot.learned ?? null,
    }),
    send: (input) => save.mutate({ ...input, id: pot.id, version: pot.version }, kept),
  });
  return (
    <form onSubmit={form.onSubmit} noValidate>
      <Heading>Pot</Heading>
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField label="Name" {...form.register('name')} />
        <TextField label="Holds" {...form.register('capacity')} />
        <TextField label="Power" unit="W" {...form.register('power')} />
        <TextField label="Loses" unit="W a degree above the room" {...form.register('loss')} />
        <Choice
          label="Poured"
          options={POT_WAYS.map(({ id, says }) => ({ value: id, label: `by ${id}: ${says}` }))}
          {...form.register('way')}
        />
      </div>
      <div className="mt-3 flex flex-col gap-3">
        <ProblemNote error={form.problem ?? save.error} />
        <Button type="submit" className="self-start">
          Keep the pot
        </Button>
      </div>
    </form>
  );
}

export function OvenForm({ oven }: { oven: Oven }) {
  const units = useUnits();
  const save = useSave('ovens');
  const form = useBuiltForm<{ name: string; places: string; power: string; heatUp: string }, OvenInput>({
    defaults: {
      name: oven.name,
      places: String(oven.places),
      power: String(oven.powerW),
      heatUp: String(Math.round((10 * heatUpS(oven.lagS)) / 60) / 10),
    },
    schema: ovenSchema,
    build: ({ name, places, power, heatUp }) => ({
      racks: oven.racks ?? null,
      learned: oven.learned ?? null,
      name,
      places: numberIn('places', places),
      powerW: numberIn('power', power, 'W'),
      lagS: lagOfHeatUpS(60 * numberIn('minutes from cold', heatUp, 'min')),
    }),
    send: (input) => save.mutate({ ...input, id: oven.id, version: oven.version }, kept),
  });
  return (
    <form onSubmit={form.onSubmit} noValidate>
      <Heading>Oven, kept for this only</Heading>
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField label="Name" {...form.register('name')} />
        <TextField label="Places on the rack" {...form.register('places')} />
        <TextField label="Power" unit="W" {...form.register('power')} />
        <TextField label={`From cold to ${units.temperature(177)}`} unit="min" {...form.register('heatUp')} />
      </div>
      <div className="mt-3 flex flex-col gap-3">
        <ProblemNote error={form.problem ?? save.error} />
        <Button type="submit" className="self-start">
          Keep the oven
        </Button>
      </div>
    </form>
  );
}

export function ProgramForm() {
  const { temperatureUnit } = useUnits();
  const save = useSave('bake-programs');
  const form = useBuiltForm<
    { name: string; heat: string; minutes: string; start: string; from: string },
    BakeProgramInput
  >({
    defaults: { name: '', heat: '177 C', minutes: '20', start: 'preheated', from: 'metal' },
    schema: bakeProgramSchema,
    build: ({ name, heat, minutes, start, from }) => ({
      name: name.trim(),
      setC: parseTemperature(heat, temperatureUnit),
      seconds: Math.round(numberIn('minutes', minutes) * 60),
      preheated: start === 'preheated',
      from,
    }),
    send: (input) =>
      save.mutate(input, {
        onSuccess: () => {
          toast('The program is in the list.');
          form.reset();
        },
      }),
  });
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-3" noValidate>
      <div className="grid gap-3 sm:grid-cols-3">
        <TextField label="Name" {...form.register('name')} />
        <TextField label="Oven set to" {...form.register('heat')} />
        <TextField label="Minutes" {...form.register('minutes')} />
        <Choice
          label="Start"
          options={[
            { value: 'preheated', label: 'oven hot first' },
            { value: 'cold', label: 'from cold' },
          ]}
          {...form.register('start')}
        />
        <Choice
          label="Minutes count from"
          hint="A jar's label means the metal."
          options={[
            { value: 'metal', label: 'warm metal' },
            { value: 'door', label: 'shutting the door' },
          ]}
          {...form.register('from')}
        />
      </div>
      <ProblemNote error={form.problem ?? save.error} />
      <Button type="submit" className="self-start">
        Add the program
      </Button>
    </form>
  );
}
