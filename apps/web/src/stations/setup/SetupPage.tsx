import { settingsSchema, type Settings, type SettingsView } from '@schmelz/contract';
import {
  parseMass,
  parseTemperature,
  writeHeadMass,
  writeTemperature,
  currencyDigits,
  GAS_MINOR_PER_KG,
  GUN_POWER_W,
  SECOND_GRADE_SHARE,
  WINNING_BACK,
  type HouseWays,
  type WinningBack,
} from '@schmelz/core';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { useList, useSettings, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { asOptions, Choice, TextArea, TextField } from '../../design/Field.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { minorIn, numberIn, useBuiltForm } from '../../design/useForm.ts';
import { chooseTheme, useThemeChoice, type ThemeChoice } from '../../shell/theme.ts';
import { sound, soundIsOn, SOUNDS, switchSound } from '../../shell/clock.ts';
import { OvenForm, PotForm } from './ToolForms.tsx';
import { Copies } from './Copies.tsx';
import { Rules } from './Rules.tsx';

const UNITS = [
  { value: 'g C', label: 'grams and °C' },
  { value: 'oz F', label: 'ounces and °F' },
  { value: 'g F', label: 'grams and °F' },
  { value: 'oz C', label: 'ounces and °C' },
];

interface Values {
  safety: string;
  wonBack: string;
  people: string;
  workshopName: string;
  units: string;
  currency: string;
  pour: string;
  room: string;
  heel: string;
  dross: string;
  film: string;
  transfer: string;
  labour: string;
  gas: string;
  gun: string;
  energy: string;
  second: string;
  loadS: string;
  inspectS: string;
  trimS: string;
  coatS: string;
  hangS: string;
  finishS: string;
}

const SECONDS = [
  ['loadS', 'Lay in a hook and inserts'],
  ['inspectS', 'Take out and look'],
  ['trimS', 'Trim'],
  ['coatS', 'One coat: heat, dip, flow'],
  ['hangS', 'Hang up and take down'],
  ['finishS', 'Count and bag'],
] as const;

const WON_BACK = [
  { value: 'at once', label: 'won back at once, at the pot' },
  { value: 'later', label: 'won back another day' },
] as const satisfies readonly { value: WinningBack; label: string }[];

/** House ways that are numbers. */
type NumberOfHouse = Exclude<keyof HouseWays, 'schools' | 'wonBack'>;

/** Left empty, these come from the ways of trim and paint. */
const BY_WAYS: readonly string[] = ['trimS', 'coatS'];

function valuesOf(settings: SettingsView): Values {
  const { ways, massUnit, temperatureUnit, currency } = settings;
  const money = (minor: number) => (minor / 10 ** currencyDigits(currency)).toFixed(currencyDigits(currency));
  const heat = (celsius: number) => `${writeTemperature(celsius, temperatureUnit).figure} ${temperatureUnit}`;
  const seconds = Object.fromEntries(
    SECONDS.map(([key]) => [key, ways[key] === null ? '' : String(ways[key])]),
  ) as Record<(typeof SECONDS)[number][0], string>;
  return {
    safety: (settings.safety ?? []).join('\n'),
    people: (settings.people ?? []).join(', '),
    workshopName: settings.workshopName,
    units: `${massUnit} ${temperatureUnit}`,
    currency,
    pour: heat(ways.pourC),
    room: heat(ways.roomC),
    heel: `${writeHeadMass(ways.heelKg, massUnit).figure} ${massUnit}`,
    dross: String(ways.drossShare * 100),
    film: String(Math.round(ways.filmM * 1e6)),
    transfer: String(Math.round(ways.transferEfficiency * 100)),
    labour: money(ways.labourMinorPerHour),
    energy: money(ways.energyMinorPerKWh),
    gas: money(ways.gasMinorPerKg ?? GAS_MINOR_PER_KG),
    gun: String(ways.gunPowerW ?? GUN_POWER_W),
    wonBack: ways.wonBack ?? WINNING_BACK[0],
    second: String(Math.round(100 * (settings.secondGradeShare ?? SECOND_GRADE_SHARE))),
    ...seconds,
  };
}

function SettingsForm({ settings }: { settings: SettingsView }) {
  const save = useWrite((input: Settings) => call('PUT /settings', { body: { ...input, version: settings.version } }));
  const form = useBuiltForm<Values, Settings>({
    defaults: valuesOf(settings),
    schema: settingsSchema,
    build: (values) => {
      // Temperatures and masses are read in the units that the form was shown in; what was not touched is kept exactly.
      const before = valuesOf(settings);
      const { ways } = settings;
      const read = <K extends NumberOfHouse>(field: keyof Values, key: K, parse: (text: string) => number | null) =>
        values[field] === before[field] ? ways[key] : parse(values[field]);
      const [massUnit, temperatureUnit] = values.units.split(' ');
      const currency = values.currency.trim().toUpperCase();
      const heat = (text: string) => parseTemperature(text, settings.temperatureUnit as 'C' | 'F');
      return {
        ...(settings.labels ? { labels: settings.labels } : {}),
        secondGradeShare:
          values.second === before.second
            ? settings.secondGradeShare
            : numberIn('a head of second grade', values.second, '%') / 100,
        workshopName: values.workshopName.trim(),
        massUnit,
        temperatureUnit,
        currency,
        people: values.people
          .split(/[,\n]/)
          .map((name) => name.trim())
          .filter(Boolean),
        safety: values.safety
          .split('\n')
          .map((line) => line.trim())
          .filter(Boolean),
        ways: {
          ...(ways.schools ? { schools: ways.schools } : {}),
          wonBack: values.wonBack as WinningBack,
          pourC: read('pour', 'pourC', heat),
          roomC: read('room', 'roomC', heat),
          heelKg: read('heel', 'heelKg', (text) => parseMass(text, settings.massUnit as 'g' | 'oz')),
          drossShare: read('dross', 'drossShare', (text) => numberIn('dross', text, '%') / 100),
          filmM: read('film', 'filmM', (text) => numberIn('film', text, 'um') / 1e6),
          transferEfficiency: read(
            'transfer',
            'transferEfficiency',
            (text) => numberIn('powder that stays on', text, '%') / 100,
          ),
          labourMinorPerHour: read('labour', 'labourMinorPerHour', (text) =>
            minorIn('an hour of work', text, settings.currency),
          ),
          energyMinorPerKWh: read('energy', 'energyMinorPerKWh', (text) =>
            minorIn('a kilowatt hour', text, settings.currency),
          ),
          gasMinorPerKg: read('gas', 'gasMinorPerKg', (text) => minorIn('a kilogram of gas', text, settings.currency)),
          gunPowerW: read('gun', 'gunPowerW', (text) => numberIn('the heat gun', text, 'W')),
          ...Object.fromEntries(
            SECONDS.map(([key, label]) => [
              key,
              read(key, key, (text) => (BY_WAYS.includes(key) && !text.trim() ? null : numberIn(label, text, 's'))),
            ]),
          ),
        },
      };
    },
    send: (input) => save.mutate(input, { onSuccess: () => void toast('Kept.') }),
  });
  const field = (name: keyof Values) => form.register(name);
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-7" noValidate>
      <div>
        <Heading>Workshop and units</Heading>
        <div className="grid gap-4 sm:grid-cols-3">
          <TextField label="Name" {...field('workshopName')} />
          <Choice label="Weights and heat in" options={UNITS} {...field('units')} />
          <TextField label="Currency" hint="Three letters, such as EUR." {...field('currency')} />
          <TextField
            label="Who works here"
            hint="Names with commas between. With two or more, benches ask who stands there, and Books show what came of it."
            {...field('people')}
          />
        </div>
      </div>
      <div>
        <Heading>House ways</Heading>
        <div className="grid gap-4 sm:grid-cols-3">
          <TextField label="Pour at" hint="About 370 °C or 700 °F is usual." {...field('pour')} />
          <TextField label="Room" {...field('room')} />
          <TextField label="Heel left in the pot" {...field('heel')} />
          <TextField label="Dross" unit="% of the melt" {...field('dross')} />
          <TextField label="Powder film" unit="µm" {...field('film')} />
          <TextField label="Powder that stays on" unit="%" {...field('transfer')} />
          <Choice
            label="Hooks of rejects"
            hint="Dipped off at once they go into the next shot, and fewer are laid out."
            options={WON_BACK}
            {...field('wonBack')}
          />
        </div>
      </div>
      <div>
        <Heading>Time and money</Heading>
        <div className="grid gap-4 sm:grid-cols-4">
          <TextField label="An hour of work" hint="0 leaves it out." {...field('labour')} />
          <TextField label="A kilowatt hour" {...field('energy')} />
          <TextField label="A kilogram of gas" hint="For a torch." {...field('gas')} />
          <TextField label="The heat gun draws" unit="W" {...field('gun')} />
          <TextField label="A head of second grade" unit="% of a good one" {...field('second')} />
          {SECONDS.map(([key, label]) => (
            <TextField
              key={key}
              label={label}
              unit="s a head"
              hint={BY_WAYS.includes(key) ? 'Empty: by your ways.' : undefined}
              {...field(key)}
            />
          ))}
        </div>
      </div>
      <div>
        <Heading>Before the pot is on</Heading>
        <TextArea
          label="Your safety list, a line each"
          hint="Ticked once before a pour; empty it and nothing is asked."
          rows={6}
          {...field('safety')}
        />
      </div>
      <ProblemNote error={form.problem ?? save.error} />
      <Button look="main" type="submit" className="self-start" disabled={save.isPending}>
        Keep this
      </Button>
    </form>
  );
}

/** Who is logged in: this device, and others that may have been forgotten. */
function Sessions({ open }: { open: number }) {
  const end = useWrite((which: 'logout' | 'logout-others') => call(`POST /${which}`));
  const others = open - 1;
  return (
    <div className="mt-3 flex flex-wrap gap-2">
      <Button look="plain" onClick={() => end.mutate('logout')}>
        Log out
      </Button>
      {others > 0 && (
        <Button look="plain" onClick={() => end.mutate('logout-others')}>
          End {others === 1 ? 'the other session' : `the ${others} other sessions`}
        </Button>
      )}
      <ProblemNote error={end.error} />
    </div>
  );
}

export function SetupPage() {
  const { data: settings, error } = useSettings();
  const { data: pots } = useList('pots');
  const { data: ovens } = useList('ovens');
  const theme = useThemeChoice();
  if (!settings || !pots || !ovens) return <Waiting error={error} />;
  return (
    <Page
      stub={
        <>
          <TheNumber value={settings.massUnit === 'g' ? 'g' : 'oz'}>
            and °{settings.temperatureUnit}, in {settings.currency}
          </TheNumber>
          <Choice
            label="Light"
            value={theme}
            onChange={(event) => chooseTheme(event.target.value as ThemeChoice)}
            options={[
              { value: 'by place', label: 'light at the desk, dark at the bench' },
              ...asOptions(['light', 'dark']),
            ]}
          />
          <Choice
            label="Sounds of this device"
            defaultValue={soundIsOn() ? 'on' : 'off'}
            onChange={(event) => {
              switchSound(event.target.value === 'on');
              sound(SOUNDS.freeze);
            }}
            options={asOptions(['on', 'off'])}
          />
          <div className="quiet border-t border-rule-2 pt-3">
            <p className="font-medium text-ink-2">Where your data is</p>
            <p className="break-all">{settings.dataFolder}</p>
            <p className="mt-2">
              One SQLite file.{' '}
              {settings.passwordSet ? 'This workshop asks for its password.' : 'Only this machine can reach it.'}
            </p>
            {settings.passwordSet && <Sessions open={settings.sessions} />}
          </div>
        </>
      }
    >
      <SettingsForm key={settings.version} settings={settings} />
      <div className="mt-9 grid gap-8 xl:grid-cols-2">
        {pots.map((pot) => (
          <PotForm key={pot.id + pot.version} pot={pot} />
        ))}
        {ovens.map((oven) => (
          <OvenForm key={oven.id + oven.version} oven={oven} />
        ))}
        <Copies />
        <Rules />
      </div>
    </Page>
  );
}
