import { cavitySchema, variantSchema, type Cavity, type Mold } from '@schmelz/contract';
import { BENDS, HOOK_SIZES, INSERTS, PIN_WAYS, WIRES, type CavityVariant } from '@schmelz/core';
import { Button } from '../../design/Button.tsx';
import { asOptions, Choice, TextField } from '../../design/Field.tsx';
import { Caution, ProblemNote } from '../../design/Notice.tsx';
import { numberIn, useBuiltForm } from '../../design/useForm.ts';
import { moldInputOf } from './rooms.tsx';
import { useUnits } from '../../units/Units.tsx';

interface CavityValues {
  hookSize: string;
  wire: string;
  bend: string;
  condition: string;
  pin: string;
  pinDepth: string;
  below: string;
  keeper: string;
}
/** What one cavity was cut for and how it is now. */
export function CavityForm({
  cavity,
  error,
  onChange,
}: {
  cavity: Cavity;
  error: unknown;
  onChange: (changed: Partial<Cavity>) => void;
}) {
  const units = useUnits();
  const form = useBuiltForm<CavityValues, Cavity>({
    defaults: {
      hookSize: cavity.hookSize,
      wire: cavity.wire ?? 'standard',
      bend: cavity.bend ?? 'round',
      condition: cavity.condition,
      pin: units.lengthText(cavity.pin?.diameterM),
      pinDepth: units.lengthText(cavity.pin?.lengthM),
      below: cavity.openBelow ? 'open' : 'closed',
      keeper: cavity.keeper ? 'yes' : 'no',
    },
    schema: cavitySchema,
    build: ({ pin: pinText, pinDepth, below, keeper, ...values }) => {
      const [stored] = moldInputOf({ cavities: [cavity] } as unknown as Mold).cavities;
      const pin = pinText.trim()
        ? {
            diameterM: units.readLength('pin', pinText),
            lengthM: units.readLength('pin in the metal', pinDepth),
          }
        : null;
      return { ...stored, ...values, pin, openBelow: below === 'open', keeper: keeper === 'yes' };
    },
    send: onChange,
  });
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-4" noValidate>
      <div className="grid gap-4 sm:grid-cols-2">
        <Choice label="Cut for hook" options={asOptions(HOOK_SIZES)} {...form.register('hookSize')} />
        <Choice label="Wire" options={asOptions(WIRES)} {...form.register('wire')} />
        <Choice label="Bend" options={asOptions(BENDS)} {...form.register('bend')} />
        <Choice label="It is" options={asOptions(['good', 'blocked'])} {...form.register('condition')} />
        <TextField label="Base-hole pin" hint="Its diameter. Empty: it has none." {...form.register('pin')} />
        <TextField label="Of it in the metal" {...form.register('pinDepth')} />
        <Choice label="Keeper cut into it" options={asOptions(['no', 'yes'])} {...form.register('keeper')} />
        <Choice label="Below" options={asOptions(['closed', 'open'])} {...form.register('below')} />
      </div>
      {form.watch('below') === 'open' && (
        <Caution>Open below: metal runs out where no hook or pin closes it. No blank shots.</Caution>
      )}
      <ProblemNote error={form.problem ?? error} />
      <Button look="main" type="submit" className="self-start">
        Keep the change
      </Button>
    </form>
  );
}

interface VariantValues {
  name: string;
  pin: string;
  grooveFor: string;
  blocks: string;
  keeper: string;
  wireGuards: string;
  insert: string;
}

/** One more thing that can be cast in the same cavity. */
export function VariantForm({
  mold,
  cavity,
  error,
  onAdd,
}: {
  mold: Mold;
  cavity: Cavity;
  error: unknown;
  onAdd: (variant: CavityVariant) => void;
}) {
  const form = useBuiltForm<VariantValues, CavityVariant>({
    defaults: { name: '', pin: 'as cut', grooveFor: '', blocks: '', keeper: 'no', wireGuards: '0', insert: 'none' },
    schema: variantSchema,
    build: ({ name, pin, grooveFor, blocks, keeper, wireGuards, insert }) => ({
      name: name.trim(),
      pin,
      grooveFor: grooveFor || null,
      blocks: blocks.trim()
        ? blocks
            .trim()
            .split(/[\s,]+/)
            .map((each) => numberIn('stays empty', each))
        : [],
      keeper: keeper === 'yes',
      wireGuards: Number(wireGuards),
      insert,
    }),
    send: onAdd,
  });
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-4" noValidate>
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField label="Its name" placeholder="No hole" {...form.register('name')} autoFocus />
        <Choice
          label="Pin"
          options={asOptions(cavity.pin ? PIN_WAYS : ['as cut'])}
          hint={cavity.pin ? 'Cut short: no guard hole is cast.' : 'This cavity has none.'}
          {...form.register('pin')}
        />
        <Choice
          label="Groove ground out for"
          options={[{ value: '', label: 'as cut' }, ...asOptions(HOOK_SIZES)]}
          {...form.register('grooveFor')}
        />
        <TextField
          label="Cavities that must stay empty"
          hint={`Numbers from 1 to ${mold.cavities.length}, with commas.`}
          {...form.register('blocks')}
        />
        <Choice label="Wire keeper" options={asOptions(['no', 'yes'])} {...form.register('keeper')} />
        <Choice label="Wire guards cast in" options={asOptions([0, 1, 2])} {...form.register('wireGuards')} />
        <Choice label="Laid in too" options={asOptions(INSERTS)} {...form.register('insert')} />
      </div>
      <ProblemNote error={form.problem ?? error} />
      <Button look="main" type="submit" className="self-start">
        Add it
      </Button>
    </form>
  );
}
