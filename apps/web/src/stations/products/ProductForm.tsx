import { productSchema, type Product, type ProductInput } from '@schmelz/contract';
import {
  currencyDigits,
  finishFindings,
  headStyle,
  heatProblems,
  massesMatch,
  METAL_WANTED_NAMES,
  METALS_WANTED,
  parseMass,
  POUR_STEP,
  SOURCE_KINDS,
  STYLE_IDS,
  usualRoute,
  writeHeadMass,
  type PartOn,
  type RouteStep,
  type StyleId,
} from '@schmelz/core';
import { useState } from 'react';
import { toast } from '../../design/toast.ts';
import { useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { minorIn, numberIn, useBuiltForm } from '../../design/useForm.ts';
import { Icon } from '../../design/Icon.tsx';
import { PartsEditor, type PartLine } from './PartsEditor.tsx';
import { RouteEditor } from './RouteEditor.tsx';
import { Head } from '../../drawing/Head.tsx';
import { BARE } from '../../drawing/paint.ts';
import type { Catalogue } from '../../shell/catalogue.ts';
import { useUnits, type Units } from '../../units/Units.tsx';

interface Values {
  name: string;
  style: string;
  mass: string;
  hookId: string;
  variant: string;
  metal: string;
  recipeId: string;
  bakeProgramId: string;
  price: string;
  keep: string;
  fromId: string;
  becomesId: string;
}

const valuesOf = (product: Product, units: Units): Values => ({
  name: product.name,
  style: product.style,
  mass: `${Math.round(1e6 * product.nominalMassKg) / 1000} g`,
  hookId: product.hookId ?? '',
  variant: product.variant ?? '',
  metal: product.metal ?? '',
  recipeId: product.recipeId ?? '',
  bakeProgramId: product.bakeProgramId ?? '',
  fromId: product.fromId ?? '',
  becomesId: product.becomesId ?? '',
  keep: product.keepHeads ? String(product.keepHeads) : '',
  price: product.priceMinor === null ? '' : String(product.priceMinor / 10 ** currencyDigits(units.currency)),
});

/** A name for the first product of a workshop: its first cavity in its first paint. */
function firstName({ products, molds, recipes }: Catalogue, units: Units): string {
  const cavity = molds[0]?.cavities[0];
  if (products.length > 0 || !cavity) return '';
  const [recipe] = recipes.values();
  const head = `${headStyle(cavity.style).name} ${units.head(cavity.nominalMassKg)}`;
  return recipe ? `${head}, ${recipe.name.toLowerCase()}` : head;
}

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
  const hooks = [...catalogue.materials.values()].filter(
    (each) => each.kind === 'hook' && (!each.archived || each.id === product?.hookId),
  );
  const cavity = catalogue.molds[0]?.cavities[0];
  // Null: the usual way, as far as it is painted and baked.
  const [route, setRoute] = useState<RouteStep[] | null>(product?.route ?? null);
  const [parts, setParts] = useState<PartLine[]>(() => linesOf(product));
  const fitting = hooks.find((hook) => hook.hook?.size === cavity?.hookSize) ?? hooks[0];
  const form = useBuiltForm<Values, ProductInput>({
    defaults: product
      ? valuesOf(product, units)
      : {
          name: firstName(catalogue, units),
          style: cavity?.style ?? 'ball',
          mass: cavity
            ? `${writeHeadMass(cavity.nominalMassKg, units.massUnit).figure} ${units.massUnit}`
            : units.massUnit === 'g'
              ? '10 g'
              : '3/8 oz',
          hookId: fitting?.id ?? '',
          variant: '',
          metal: '',
          recipeId: [...catalogue.recipes.keys()][0] ?? '',
          bakeProgramId: [...catalogue.programs.keys()][0] ?? '',
          price: '',
          keep: '',
          fromId: '',
          becomesId: '',
        },
    schema: productSchema,
    build: ({
      name,
      style,
      mass,
      hookId,
      variant,
      metal,
      recipeId,
      bakeProgramId,
      price,
      keep,
      fromId,
      becomesId,
    }) => ({
      name: name.trim(),
      style,
      nominalMassKg: parseMass(mass, units.massUnit),
      hookId: hookId || null,
      variant: variant || null,
      metal: metal || null,
      recipeId: recipeId || null,
      bakeProgramId: recipeId && bakeProgramId ? bakeProgramId : null,
      route,
      parts: parts.map((line) => ({
        partId: line.partId,
        quantity: numberIn('a head', line.quantity),
        waste: numberIn('wasted', line.waste || '0', '%') / 100,
        step: line.step,
      })),
      fromId: fromId || null,
      becomesId: becomesId || null,
      keepHeads: keep.trim() ? numberIn('kept on the shelf', keep, 'heads') : null,
      priceMinor: price.trim() ? minorIn('price', price, units.currency) : null,
      ...(product ? { ways: product.ways ?? null } : {}),
    }),
    send: (input) =>
      save.mutate(product ? { ...input, id: product.id, version: product.version } : input, {
        onSuccess: (saved) => {
          toast(product ? `${input.name} is changed.` : `${input.name} can be ordered.`);
          if (!product) {
            form.reset();
            setRoute(null);
            setParts([]);
          }
          onSaved?.(saved);
        },
      }),
  });
  const values = form.watch();
  const hook = values.hookId ? catalogue.materials.get(values.hookId)?.hook : undefined;
  const shown = route ?? usualRoute(wayOf(values));
  const variants = variantNames(catalogue, values.style, massOr(values.mass, units.massUnit), values.variant);
  const bare = [...catalogue.materials.values()].filter((each) => SOURCE_KINDS.includes(each.kind));
  const recipe = catalogue.recipes.get(values.recipeId);
  return (
    <form onSubmit={form.onSubmit} className="grid gap-4 sm:grid-cols-2" noValidate>
      <div className="grid min-h-28 place-items-center bg-sheet sm:col-span-2">
        <Head
          style={values.style as StyleId}
          massKg={massOr(values.mass, units.massUnit)}
          hookSize={hook?.size ?? null}
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
        options={[
          { value: '', label: 'no hook in the head' },
          ...hooks.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        {...form.register('hookId')}
      />
      {variants.length > 0 && (
        <Choice
          label="Cast as"
          hint="What else the cavity casts is said at the mold."
          options={[
            { value: '', label: 'as the mold was cut' },
            ...variants.map((name) => ({ value: name, label: name })),
          ]}
          {...form.register('variant')}
        />
      )}
      <Choice
        label="Cast in"
        hint="As usual: soft lead, or what its mold is kept for."
        options={[
          { value: '', label: 'as usual' },
          ...METALS_WANTED.map((wanted) => ({ value: wanted, label: METAL_WANTED_NAMES[wanted] })),
        ]}
        {...form.register('metal')}
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
      {bare.length > 0 && (
        <>
          <Choice
            label="Its heads"
            options={[
              { value: '', label: 'are poured' },
              ...bare.map(({ id, name }) => ({ value: id, label: `come off the shelf: ${name}` })),
            ]}
            {...form.register('fromId')}
          />
          <Choice
            label="When they are done"
            options={[
              { value: '', label: 'they are finished goods' },
              ...bare
                .filter(({ kind }) => kind === 'bare head')
                .map(({ id, name }) => ({ value: id, label: `they go on the shelf: ${name}` })),
            ]}
            {...form.register('becomesId')}
          />
        </>
      )}
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField label="Sold at" unit={units.currency} hint="Leave empty for own use." {...form.register('price')} />
        <TextField
          label="Always on the shelf"
          unit="heads"
          inputMode="numeric"
          hint="Tonight makes up what is missing."
          {...form.register('keep')}
        />
      </div>
      <RouteEditor route={shown} catalogue={catalogue} onChange={setRoute} />
      <PartsEditor parts={parts} route={shown} catalogue={catalogue} onChange={setParts} />
      <HeatNotes values={values} route={shown} parts={parts} catalogue={catalogue} />
      <FinishNotes
        values={values}
        massKg={massOr(values.mass, units.massUnit)}
        route={shown}
        parts={parts}
        catalogue={catalogue}
      />
      <div className="flex flex-col gap-4 sm:col-span-2">
        <ProblemNote error={form.problem ?? save.error} />
        <Button look="main" type="submit" className="self-start" disabled={save.isPending}>
          {product ? 'Keep the product' : 'Add the product'}
        </Button>
      </div>
    </form>
  );
}

/** What the cavities of a head can be cast as beside as cut; the one that is chosen stays, though no mold has it. */
function variantNames({ molds }: Catalogue, style: string, massKg: number, chosen: string): string[] {
  const names = molds
    .flatMap((mold) => mold.cavities)
    .filter((cavity) => cavity.style === style && massesMatch(cavity.nominalMassKg, massKg))
    .flatMap((cavity) => (cavity.variants ?? []).map(({ name }) => name));
  return [...new Set([...names, ...(chosen ? [chosen] : [])])];
}

/** The mass that is being typed, or a usual one while it is no mass yet. */
function massOr(text: string, unit: 'g' | 'oz'): number {
  try {
    return Math.min(0.3, Math.max(0.0005, parseMass(text, unit)));
  } catch {
    return 0.01;
  }
}

/** Which way a product goes that names none. */
const wayOf = ({ recipeId, bakeProgramId, fromId }: Values) => ({
  painted: recipeId !== '',
  baked: bakeProgramId !== '',
  fromShelf: fromId !== '',
});

const linesOf = (product: Product | undefined): PartLine[] =>
  (product?.parts ?? []).map(({ partId, quantity, waste, step }) => ({
    partId,
    quantity: String(quantity),
    waste: String(Math.round(1e4 * waste) / 100),
    step,
  }));

/** What the figures say of its finishing: guard against its hole, eye against its place, wire, blade, waits. */
function FinishNotes({
  values,
  massKg,
  route,
  parts,
  catalogue,
}: {
  values: Values;
  massKg: number;
  route: readonly RouteStep[];
  parts: readonly PartLine[];
  catalogue: Catalogue;
}) {
  const cavity = catalogue.molds
    .flatMap((mold) => mold.cavities)
    .find((each) => each.style === values.style && massesMatch(each.nominalMassKg, massKg));
  const hook = values.hookId ? catalogue.materials.get(values.hookId)?.hook : null;
  const on = parts.flatMap((line): PartOn[] => {
    const part = catalogue.materials.get(line.partId);
    const quantity = Number(line.quantity.replace(',', '.')) || 0;
    return part ? [{ name: part.name, kind: part.kind, step: line.step, quantity, details: part.details ?? null }] : [];
  });
  const { said } = useUnits();
  const found = finishFindings({
    ...{ style: values.style, nominalMassKg: massKg, hookSize: hook?.size ?? null, route, parts: on },
    ...(hook ? { eyeAngleDeg: hook.eyeAngleDeg } : {}),
    // Where no mold casts such a head, its hole is not known: nothing is said of it.
    pin: cavity ? (cavity.pin ?? null) : { diameterM: 0.0032, lengthM: 0.01 },
    pinWay: cavity?.variants?.find(({ name }) => name === values.variant)?.pin ?? 'as cut',
    painted: values.recipeId !== '',
  });
  return found.map(({ weight, says }) => (
    <p key={says} role="note" className={`flex gap-2 sm:col-span-2 ${weight === 'stop' ? 'text-stop' : 'text-watch'}`}>
      <Icon name={weight} className="mt-1 shrink-0" /> {said(says)}
    </p>
  ));
}

/** Said where the way is made: a part that would be on the head in an oven that is hotter than it stands. */
function HeatNotes({
  values,
  route,
  parts,
  catalogue,
}: {
  values: Values;
  route: readonly RouteStep[];
  parts: readonly PartLine[];
  catalogue: Catalogue;
}) {
  const { said } = useUnits();
  const part = (partId: string, step: string) => {
    const found = catalogue.materials.get(partId);
    if (!found) return [];
    const { name, kind, limitC = null } = found;
    return [{ partId, name, kind, quantity: 1, waste: 0, step, limitC }];
  };
  const bill = [
    ...(values.hookId ? part(values.hookId, POUR_STEP) : []),
    ...parts.flatMap((line) => part(line.partId, line.step)),
  ];
  const heats = route.map(({ key, station, programId }) => {
    const program = station === 'bake' ? catalogue.programs.get(programId ?? values.bakeProgramId) : undefined;
    return { step: key, heatC: program?.setC ?? null };
  });
  return heatProblems(route, bill, heats).map((says) => (
    <p key={says} role="note" className="flex gap-2 text-watch sm:col-span-2">
      <Icon name="watch" className="mt-1 shrink-0" /> {said(says)}
    </p>
  ));
}
