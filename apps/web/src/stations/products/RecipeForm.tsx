import { recipeSchema, type RecipeInput } from '@schmelz/contract';
import { useFieldArray } from 'react-hook-form';
import { toast } from 'sonner';
import { useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { asOptions, Choice, TextField } from '../../design/Field.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { useBuiltForm } from '../../design/useForm.ts';
import { Head } from '../../drawing/Head.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';

const ZONES = [
  { value: 'whole', label: 'whole head' },
  { value: 'back', label: 'back' },
  { value: 'speckle', label: 'speckle' },
  { value: 'flake', label: 'flake' },
];
interface Values {
  name: string;
  eye: string;
  layers: { powderId: string; zone: string; coats: string }[];
}

/** A recipe is powders laid over each other, first on the whole head; drawn as it will look. */
export function RecipeForm({ catalogue, onSaved }: { catalogue: Catalogue; onSaved?: () => void }) {
  const save = useSave('recipes');
  const powders = [...catalogue.materials.values()].filter((each) => each.kind === 'powder');
  const form = useBuiltForm<Values, RecipeInput>({
    defaults: { name: '', eye: '', layers: [{ powderId: powders[0]?.id ?? '', zone: 'whole', coats: '1' }] },
    schema: recipeSchema,
    build: ({ name, eye, layers }) => ({
      name: name.trim(),
      eyeColour: eye ? '#e2d27c' : null,
      layers: layers.map(({ powderId, zone, coats }) => ({ powderId, zone, coats: Number(coats) })),
    }),
    send: (input) =>
      save.mutate(input, {
        onSuccess: () => {
          toast(`${input.name} can be painted.`);
          form.reset();
          onSaved?.();
        },
      }),
  });
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'layers' });
  const { layers, eye } = form.watch();
  const paint = catalogue.paintOfRecipe({ layers: layers as never, eyeColour: eye ? '#e2d27c' : null });
  if (powders.length === 0) return <p>A recipe needs a powder: add one to Stock first.</p>;
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-4" noValidate>
      <div className="grid place-items-center bg-sheet py-3">
        <Head style="ball" massKg={0.014} hookSize="3/0" eyeAngleDeg={60} paint={paint} state="baked" scale={3.6} />
      </div>
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField label="Name" {...form.register('name')} />
        <Choice
          label="Eye"
          options={[
            { value: '', label: 'none' },
            { value: 'yes', label: 'stick-on eye' },
          ]}
          {...form.register('eye')}
        />
      </div>
      {fields.map((field, index) => (
        <div key={field.id} className="grid grid-cols-[1.4fr_1fr_70px_32px] items-end gap-2">
          <Choice
            label={index ? 'Then' : 'First'}
            options={powders.map(({ id, name }) => ({ value: id, label: name }))}
            {...form.register(`layers.${index}.powderId`)}
          />
          <Choice label="On" options={index ? ZONES : ZONES.slice(0, 1)} {...form.register(`layers.${index}.zone`)} />
          <Choice label="Coats" options={asOptions([1, 2, 3])} {...form.register(`layers.${index}.coats`)} />
          <button
            type="button"
            aria-label={`Remove layer ${index + 1}`}
            disabled={fields.length === 1}
            className="grid h-10 place-items-center disabled:opacity-30"
            onClick={() => remove(index)}
          >
            <Icon name="close" size={13} />
          </button>
        </div>
      ))}
      <Button
        className="self-start"
        disabled={fields.length >= 5}
        onClick={() => append({ powderId: powders[0]!.id, zone: 'back', coats: '1' })}
      >
        <Icon name="plus" size={14} /> Another layer
      </Button>
      <ProblemNote error={form.problem ?? save.error} />
      <Button look="main" type="submit" className="self-start" disabled={save.isPending}>
        Add the recipe
      </Button>
    </form>
  );
}
