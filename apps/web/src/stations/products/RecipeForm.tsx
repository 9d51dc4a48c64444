import { recipeSchema, type Recipe, type RecipeInput } from '@schmelz/contract';
import { useFieldArray } from 'react-hook-form';
import { toast } from '../../design/toast.ts';
import { useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { asOptions, Choice, TextField } from '../../design/Field.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { numberIn, useBuiltForm } from '../../design/useForm.ts';
import { Head } from '../../drawing/Head.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';

const ZONES = [
  { value: 'whole', label: 'whole head' },
  { value: 'back', label: 'back' },
  { value: 'nose', label: 'nose' },
  { value: 'speckle', label: 'speckle' },
  { value: 'flake', label: 'flake' },
];
interface LayerValues {
  powderId: string;
  zone: string;
  coats: string;
  mixId: string;
  mixPercent: string;
}
interface Values {
  name: string;
  eyes: string;
  eyeColour: string;
  layers: LayerValues[];
}

type Layer = RecipeInput['layers'][number];
const layerOf = (
  { powderId, zone, coats, mixId, mixPercent }: LayerValues,
  share: (text: string) => number,
): Layer => ({
  powderId,
  zone: zone as Layer['zone'],
  coats: Number(coats),
  mix: mixId ? { powderId: mixId, share: share(mixPercent) } : null,
});

const EYE = '#e2d27c';
const valuesOf = ({ name, eyeColour, layers }: Recipe): Values => ({
  name,
  eyes: eyeColour ? 'yes' : '',
  eyeColour: eyeColour ?? EYE,
  layers: layers.map(({ powderId, zone, coats, mix }) => ({
    powderId,
    zone,
    coats: String(coats),
    mixId: mix?.powderId ?? '',
    mixPercent: String(Math.round(100 * (mix?.share ?? 0.3))),
  })),
});

/** A share that is being typed, for the drawing; half while it is no number yet. */
const drawnShare = (text: string) => Math.min(0.95, Math.max(0.05, (Number(text) || 50) / 100));

/** A recipe is layers on zones, mixed or not, on bare lead or over a base; drawn as it will look. */
export function RecipeForm({
  catalogue,
  recipe,
  onSaved,
}: {
  catalogue: Catalogue;
  recipe?: Recipe;
  onSaved?: () => void;
}) {
  const save = useSave('recipes');
  const powders = [...catalogue.materials.values()].filter((each) => each.kind === 'powder');
  const first: LayerValues = { powderId: powders[0]?.id ?? '', zone: 'whole', coats: '1', mixId: '', mixPercent: '30' };
  const form = useBuiltForm<Values, RecipeInput>({
    defaults: recipe
      ? valuesOf(recipe)
      : {
          name: catalogue.recipes.size === 0 ? (powders[0]?.name ?? '') : '',
          eyes: '',
          eyeColour: EYE,
          layers: [first],
        },
    schema: recipeSchema,
    build: ({ name, eyes, eyeColour, layers }) => ({
      name: name.trim(),
      eyeColour: eyes ? eyeColour : null,
      layers: layers.map((layer) => layerOf(layer, (text) => numberIn('share of the mixture', text, '%') / 100)),
    }),
    send: (input) =>
      save.mutate(recipe ? { ...input, id: recipe.id, version: recipe.version } : input, {
        onSuccess: () => {
          toast(
            recipe
              ? `${input.name} is changed; tickets on the line keep what they were planned with.`
              : `${input.name} can be painted.`,
          );
          if (!recipe) form.reset();
          onSaved?.();
        },
      }),
  });
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'layers' });
  const { layers, eyes, eyeColour } = form.watch();
  const drawn = layers.map((layer) => layerOf(layer, drawnShare));
  const paint = catalogue.paintOfRecipe({ layers: drawn, eyeColour: eyes ? eyeColour : null });
  if (powders.length === 0) return <p>A recipe needs a powder: add one to Stock first.</p>;
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-4" noValidate>
      <div className="grid place-items-center bg-sheet py-3">
        <Head style="ball" massKg={0.014} hookSize="3/0" eyeAngleDeg={60} paint={paint} state="baked" scale={3.6} />
      </div>
      <div className="grid gap-4 sm:grid-cols-[1fr_140px_90px]">
        <TextField label="Name" {...form.register('name')} />
        <Choice
          label="Eyes"
          options={[
            { value: '', label: 'none' },
            { value: 'yes', label: 'stick-on eyes' },
          ]}
          {...form.register('eyes')}
        />
        {eyes && <TextField label="Their colour" type="color" {...form.register('eyeColour')} />}
      </div>
      {fields.map((field, index) => (
        <fieldset key={field.id} className="border-t border-rule pt-2" aria-label={`Layer ${index + 1}`}>
          <div className="grid grid-cols-[1.4fr_1fr_70px_32px] items-end gap-2">
            <Choice
              label={index ? 'Then' : 'First'}
              options={powders.map(({ id, name }) => ({ value: id, label: name }))}
              {...form.register(`layers.${index}.powderId`)}
            />
            <Choice label="On" options={ZONES} {...form.register(`layers.${index}.zone`)} />
            <Choice label="Coats" options={asOptions([1, 2, 3])} {...form.register(`layers.${index}.coats`)} />
            <button
              type="button"
              aria-label={`Remove layer ${index + 1}`}
              className="grid h-10 place-items-center"
              onClick={() => remove(index)}
            >
              <Icon name="close" size={13} />
            </button>
          </div>
          <div className="mt-1 grid grid-cols-[1.4fr_1fr_102px] items-end gap-2">
            <Choice
              label="Shaken together with"
              options={[
                { value: '', label: 'nothing' },
                ...powders.map(({ id, name }) => ({ value: id, label: name })),
              ]}
              {...form.register(`layers.${index}.mixId`)}
            />
            {layers[index]?.mixId && (
              <TextField
                label="Of that"
                unit="%"
                inputMode="numeric"
                {...form.register(`layers.${index}.mixPercent`)}
              />
            )}
          </div>
        </fieldset>
      ))}
      {fields.length === 0 && <p className="quiet">No layer: bare lead, with eyes.</p>}
      <Button className="self-start" disabled={fields.length >= 6} onClick={() => append({ ...first, zone: 'back' })}>
        <Icon name="plus" size={14} /> Another layer
      </Button>
      <ProblemNote error={form.problem ?? save.error} />
      <Button look="main" type="submit" className="self-start" disabled={save.isPending}>
        {recipe ? 'Keep the recipe' : 'Add the recipe'}
      </Button>
    </form>
  );
}
