import { productSchema, type Product, type ProductInput } from '@schmelz/contract';
import { currencyDigits, headStyle, parseMass, STYLE_IDS, writeHeadMass, type StyleId } from '@schmelz/core';
import { toast } from 'sonner';
import { useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { minorIn, useBuiltForm } from '../../design/useForm.ts';
import { Head } from '../../drawing/Head.tsx';
import { BARE } from '../../drawing/paint.ts';
import type { Catalogue } from '../../shell/catalogue.ts';
import { useUnits, type Units } from '../../units/Units.tsx';

interface Values {
  name: string;
  style: string;
  mass: string;
  hookId: string;
  recipeId: string;
  bakeProgramId: string;
  price: string;
}

const valuesOf = (product: Product, units: Units): Values => ({
  name: product.name,
  style: product.style,
  mass: `${Math.round(1e6 * product.nominalMassKg) / 1000} g`,
  hookId: product.hookId,
  recipeId: product.recipeId ?? '',
  bakeProgramId: product.bakeProgramId ?? '',
  price: product.priceMinor === null ? '' : String(product.priceMinor / 10 ** currencyDigits(units.currency)),
});

/** A product is a head style and mass with its hook, its paint and its bake; drawn while it is described. */
export function ProductForm({
  catalogue,
  product,
  onSaved,
}: {
  catalogue: Catalogue;
  product?: Product;
  onSaved?: (product: Product) => void;
}) {
  const units = useUnits();
  const save = useSave('products');
  const hooks = [...catalogue.materials.values()].filter((each) => each.kind === 'hook');
  const cavity = catalogue.molds[0]?.cavities[0];
  const fitting = hooks.find((hook) => hook.hook?.size === cavity?.hookSize) ?? hooks[0];
  const form = useBuiltForm<Values, ProductInput>({
    defaults: product
      ? valuesOf(product, units)
      : {
          name: '',
          style: cavity?.style ?? 'ball',
          mass: cavity ? `${writeHeadMass(cavity.nominalMassKg, units.massUnit).figure} ${units.massUnit}` : '10 g',
          hookId: fitting?.id ?? '',
          recipeId: [...catalogue.recipes.keys()][0] ?? '',
          bakeProgramId: [...catalogue.programs.keys()][0] ?? '',
          price: '',
        },
    schema: productSchema,
    build: ({ name, style, mass, hookId, recipeId, bakeProgramId, price }) => ({
      name: name.trim(),
      style,
      nominalMassKg: parseMass(mass, units.massUnit),
      hookId,
      recipeId: recipeId || null,
      bakeProgramId: recipeId && bakeProgramId ? bakeProgramId : null,
      priceMinor: price.trim() ? minorIn('price', price, units.currency) : null,
      ...(product ? { ways: product.ways ?? null } : {}),
    }),
    send: (input) =>
      save.mutate(product ? { ...input, id: product.id, version: product.version } : input, {
        onSuccess: (saved) => {
          toast(product ? `${input.name} is changed.` : `${input.name} can be ordered.`);
          if (!product) form.reset();
          onSaved?.(saved);
        },
      }),
  });
  const values = form.watch();
  const hook = catalogue.materials.get(values.hookId)?.hook;
  const recipe = catalogue.recipes.get(values.recipeId);
  return (
    <form onSubmit={form.onSubmit} className="grid gap-4 sm:grid-cols-2" noValidate>
      <div className="grid min-h-28 place-items-center bg-sheet sm:col-span-2">
        <Head
          style={values.style as StyleId}
          massKg={massOr(values.mass, units.massUnit)}
          hookSize={hook?.size ?? '2/0'}
          wire={hook?.wire}
          eyeAngleDeg={hook?.eyeAngleDeg ?? 60}
          paint={recipe ? catalogue.paintOfRecipe(recipe) : BARE}
          state={recipe ? 'baked' : 'blank'}
          scale={3.2}
        />
      </div>
      <TextField label="Name" hint="Such as Pebble 10 g, roe on gull." {...form.register('name')} />
      <Choice
        label="Head style"
        options={STYLE_IDS.map((id) => ({ value: id, label: headStyle(id).name }))}
        {...form.register('style')}
      />
      <TextField label="Mass stamped on the mold" {...form.register('mass')} />
      <Choice
        label="Hook"
        options={hooks.map(({ id, name }) => ({ value: id, label: name }))}
        {...form.register('hookId')}
      />
      <Choice
        label="Paint"
        options={[
          { value: '', label: 'bare lead' },
          ...[...catalogue.recipes.values()].map(({ id, name }) => ({ value: id, label: name })),
        ]}
        {...form.register('recipeId')}
      />
      <Choice
        label="Bake"
        options={[
          { value: '', label: 'no bake' },
          ...[...catalogue.programs.values()].map(({ id, name }) => ({ value: id, label: name })),
        ]}
        {...form.register('bakeProgramId')}
      />
      <TextField label="Sold at" unit={units.currency} hint="Leave empty for own use." {...form.register('price')} />
      <div className="flex flex-col gap-4 sm:col-span-2">
        <ProblemNote error={form.problem ?? save.error} />
        <Button look="main" type="submit" className="self-start" disabled={save.isPending}>
          {product ? 'Keep the product' : 'Add the product'}
        </Button>
      </div>
    </form>
  );
}

/** The mass that is being typed, or a usual one while it is no mass yet. */
function massOr(text: string, unit: 'g' | 'oz'): number {
  try {
    return Math.min(0.3, Math.max(0.0005, parseMass(text, unit)));
  } catch {
    return 0.01;
  }
}
