import { moldSchema, type Mold, type MoldInput, type Stored } from '@schmelz/contract';
import {
  BAR_KG,
  EYE_ANGLES_DEG,
  HOOK_SIZES,
  headStyle,
  METAL_KINDS,
  METAL_WANTED_NAMES,
  MOLD_METALS,
  parseMass,
  QuantityError,
  SOOT_SCHOOLS,
  STYLE_IDS,
  WARM_SCHOOLS,
  writeHeadMass,
  type StyleId,
} from '@schmelz/core';
import { useFieldArray } from 'react-hook-form';
import { toast } from '../../design/toast.ts';
import { useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { asOptions, Choice, TextField } from '../../design/Field.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { numberIn, useBuiltForm } from '../../design/useForm.ts';
import { Head } from '../../drawing/Head.tsx';
import { useUnits } from '../../units/Units.tsx';

/** Pins as they are sold; how deep they stand in the metal is common practice, no source. */
const PINS = [
  { value: '', label: 'none' },
  { value: '0.001588', label: '1.6 mm, 1/16 inch' },
  { value: '0.002381', label: '2.4 mm, 3/32 inch' },
  { value: '0.003175', label: '3.2 mm, 1/8 inch' },
];
const PIN_LENGTH_M = 0.008;

const STYLES = STYLE_IDS.map((id) => ({ value: id as string, label: headStyle(id).name }));

interface Values {
  name: string;
  body: string;
  bar: string;
  count: string;
  style: string;
  metal: string;
  sootSchool: string;
  warmSchool: string;
  keptFor: string;
  /** Diameter of its guard pins, m; empty: none. */
  pin: string;
  keeper: string;
  cavities: {
    cavityId?: string;
    /** So many cavities are alike; 1 for one that is on record. */
    alike: string;
    /** Empty: that of the mold. */
    style: string;
    mass: string;
    hookSize: string;
    eyeAngleDeg: string;
    condition: 'good' | 'blocked';
  }[];
}

const NEW_CAVITY: Values['cavities'][number] = {
  alike: '1',
  style: '',
  mass: '10 g',
  hookSize: '2/0',
  eyeAngleDeg: '60',
  condition: 'good',
};

/** How many cavities a row stands for. */
function alikeIn(text: string): number {
  const count = numberIn('cavities alike', text);
  if (!Number.isInteger(count) || count < 1 || count > 12)
    throw new QuantityError('cavities alike', count, '', '1 to 12');
  return count;
}

/** A mold, mostly of one head style; a row for cavities that are alike, in the order they lie. */
export function MoldForm({ mold, onSaved }: { mold?: Mold; onSaved?: (mold: Stored) => void }) {
  const units = useUnits();
  const { massUnit } = units;
  const save = useSave('molds');
  const written = (kg: number) => `${writeHeadMass(kg, massUnit).figure} ${massUnit}`;
  const form = useBuiltForm<Values, MoldInput>({
    defaults: mold
      ? {
          name: mold.name,
          body: `${mold.bodyKg * 1000} g`,
          bar: mold.barKg ? written(mold.barKg) : '',
          count: mold.ownOpenS ? String(mold.ownOpenS) : '',
          style: mold.cavities[0]!.style,
          metal: mold.metal ?? 'aluminium',
          sootSchool: mold.sootSchool ?? 'fifty',
          warmSchool: mold.warmSchool ?? 'blank shots',
          keptFor: mold.keptFor ?? '',
          pin: '',
          keeper: 'no',
          cavities: mold.cavities.map(({ id, style: own, nominalMassKg, hookSize, eyeAngleDeg, condition }) => ({
            cavityId: id,
            alike: '1',
            style: own === mold.cavities[0]!.style ? '' : own,
            mass: written(nominalMassKg),
            hookSize,
            eyeAngleDeg: String(eyeAngleDeg),
            condition,
          })),
        }
      : {
          name: '',
          body: massUnit === 'g' ? '600 g' : '1.3 lb',
          bar: '',
          count: '',
          style: 'ball',
          metal: 'aluminium',
          sootSchool: 'fifty',
          warmSchool: 'blank shots',
          keptFor: '',
          pin: '',
          keeper: 'no',
          cavities: [
            {
              alike: '1',
              style: '',
              mass: massUnit === 'g' ? '10 g' : '3/8 oz',
              hookSize: '2/0',
              eyeAngleDeg: '60',
              condition: 'good',
            },
          ],
        },
    schema: moldSchema,
    build: ({ name, body, bar, count, style, metal, sootSchool, warmSchool, keptFor, pin, keeper, cavities }) => ({
      name: name.trim(),
      bodyKg: parseMass(body, 'g'),
      barKg: bar.trim() ? parseMass(bar, massUnit) : null,
      ownOpenS: count.trim() ? numberIn('opened after', count, 's') : null,
      metal,
      sootSchool,
      warmSchool,
      keptFor: keptFor || null,
      cavities: cavities
        .flatMap(({ alike, ...cavity }) => Array.from({ length: alikeIn(alike) }, () => cavity))
        .map((cavity, index) => ({
          ...(cavity.cavityId ? { id: cavity.cavityId } : {}),
          position: index + 1,
          style: cavity.style || style,
          nominalMassKg: parseMass(cavity.mass, massUnit),
          hookSize: cavity.hookSize,
          eyeAngleDeg: Number(cavity.eyeAngleDeg),
          condition: cavity.condition,
          // Of a mold that is there already each cavity says it for itself.
          ...(!mold && pin ? { pin: { diameterM: Number(pin), lengthM: PIN_LENGTH_M } } : {}),
          ...(!mold && keeper === 'yes' ? { keeper: true } : {}),
        })),
    }),
    send: (input) =>
      save.mutate(mold ? { ...input, id: mold.id, version: mold.version } : input, {
        onSuccess: (saved) => {
          toast(`${input.name} is on the shelf.`);
          onSaved?.(saved);
        },
      }),
  });
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'cavities' });
  const style = form.watch('style') as StyleId;
  const last = form.watch('cavities').at(-1);
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-4" noValidate>
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField label="Name" {...form.register('name')} autoFocus />
        <TextField
          label="Block, both halves with handles"
          hint="Weigh it: it says how many blank shots it wants."
          {...form.register('body')}
        />
        <TextField
          label="Bar over the gates, if weighed"
          hint={`Of a blank shot: sprues and all that stands over them, less the sprues. Left empty: ${units.head(BAR_KG)}.`}
          {...form.register('bar')}
        />
        <TextField
          label="Opened after, by your own count, s"
          hint="It outranks. Left empty: when head and sprue have set, and heavy heads a while longer."
          {...form.register('count')}
        />
        <Choice label="Head style" options={STYLES} hint={headStyle(style).says} {...form.register('style')} />
        <Choice label="It is of" options={asOptions(MOLD_METALS)} {...form.register('metal')} />
        <Choice label="Warmed by" options={asOptions(WARM_SCHOOLS)} {...form.register('warmSchool')} />
        <Choice
          label="Poured with"
          options={[
            { value: '', label: 'any metal' },
            ...METAL_KINDS.map((kind) => ({ value: kind, label: `${METAL_WANTED_NAMES[kind]} only` })),
          ]}
          {...form.register('keptFor')}
        />
        <Choice
          label="Smoked"
          options={SOOT_SCHOOLS.map(({ id, name }) => ({ value: id, label: name }))}
          {...form.register('sootSchool')}
        />
        {!mold && (
          <>
            <Choice
              label="Pins for a guard hole"
              options={PINS}
              hint="How deep, and which cavity differs, is said at the cavity."
              {...form.register('pin')}
            />
            <Choice
              label="Slots for a wire keeper"
              options={[
                { value: 'no', label: 'no' },
                { value: 'yes', label: 'in every cavity' },
              ]}
              {...form.register('keeper')}
            />
          </>
        )}
        <span className="self-center">
          <Head style={style} massKg={0.014} hookSize="3/0" eyeAngleDeg={60} state="blank" scale={2.6} />
        </span>
      </div>
      <fieldset>
        <legend className="mb-2 font-medium">Cavities, from the hinge</legend>
        {fields.map((field, index) => (
          <div key={field.id} className="mb-2 grid grid-cols-[56px_1.3fr_1fr_1fr_0.8fr_1fr_32px] items-end gap-2">
            {field.cavityId ? (
              <span className="fig pb-3 text-[19px]">{index + 1}</span>
            ) : (
              <TextField label="Alike" inputMode="numeric" {...form.register(`cavities.${index}.alike`)} />
            )}
            <Choice
              label="Head"
              options={[{ value: '', label: 'same' }, ...STYLES]}
              {...form.register(`cavities.${index}.style`)}
            />
            <TextField label="Stamped" {...form.register(`cavities.${index}.mass`)} />
            <Choice label="Hook" options={asOptions(HOOK_SIZES)} {...form.register(`cavities.${index}.hookSize`)} />
            <Choice
              label="Eye"
              options={asOptions(EYE_ANGLES_DEG, '°')}
              {...form.register(`cavities.${index}.eyeAngleDeg`)}
            />
            <Choice
              label="It is"
              options={asOptions(['good', 'blocked'])}
              {...form.register(`cavities.${index}.condition`)}
            />
            <button
              type="button"
              aria-label={`Remove cavity ${index + 1}`}
              className="grid h-10 place-items-center disabled:opacity-30"
              disabled={fields.length === 1}
              onClick={() => remove(index)}
            >
              <Icon name="close" size={13} />
            </button>
          </div>
        ))}
        <Button
          onClick={() => append({ ...(last ?? NEW_CAVITY), alike: '1', cavityId: undefined })}
          disabled={fields.length >= 12}
        >
          <Icon name="plus" size={14} /> {mold ? 'Another cavity' : 'Other cavities'}
        </Button>
      </fieldset>
      <ProblemNote error={form.problem ?? save.error} />
      <Button look="main" type="submit" className="self-start" disabled={save.isPending}>
        {mold ? 'Keep the change' : 'Add this mold'}
      </Button>
    </form>
  );
}
