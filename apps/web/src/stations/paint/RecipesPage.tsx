import type { Product, Recipe } from '@schmelz/contract';
import {
  dryingFigure,
  paintSecondsFigure,
  powderCostFigure,
  powderPerHeadFigure,
  type Figure,
  type KnownWays,
} from '@schmelz/core';
import { useState } from 'react';
import { useSettings } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Ways } from '../../design/Dials.tsx';
import { Choice } from '../../design/Field.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { Head } from '../../drawing/Head.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { RecipeForm } from '../products/RecipeForm.tsx';
import { useKnownEfficiency } from './jars.ts';
import { layersInWords, plannedProduct } from '../../shell/planned.ts';
import { useKnownWays } from '../../shell/known-ways.ts';
import { PaintRooms } from './rooms.tsx';

const STATES = [
  { value: 'baked', label: 'Baked', hint: 'its true colour, its light' },
  { value: 'powder', label: 'Powder on', hint: 'dull until it has flowed' },
] as const;
type State = (typeof STATES)[number]['value'];

/** The most that stand side by side. */
const MOST = 3;

function factsOf(
  product: Product,
  recipe: Recipe,
  ways: KnownWays,
  catalogue: Catalogue,
  known: ReturnType<typeof useKnownEfficiency>,
) {
  const planned = plannedProduct(product, catalogue, recipe);
  const price = (id: string) => catalogue.materials.get(id)?.averageMinor ?? null;
  return {
    powder: powderPerHeadFigure(planned, ways, known),
    cost: powderCostFigure(planned, ways, price),
    seconds: paintSecondsFigure(planned, ways),
    drying: dryingFigure(planned),
  };
}

function Fact({ name, figure, title }: { name: string; figure: Figure; title: string }) {
  return (
    <p className="flex items-baseline justify-between gap-3 border-b border-rule py-1.5">
      <span className="text-ink-2">{name}</span>
      <Fig figure={figure} title={title} className="fig text-[19px]" />
    </p>
  );
}

/** Recipes side by side on one head: how they look, what they take. */
function SideBySide({
  recipes,
  product,
  state,
  catalogue,
  ways,
}: {
  recipes: Recipe[];
  product: Product;
  state: State;
  catalogue: Catalogue;
  ways: KnownWays;
}) {
  const known = useKnownEfficiency();
  return (
    <ul className="mb-7 grid gap-6 sm:grid-cols-2 xl:grid-cols-3">
      {recipes.map((recipe) => {
        const { powder, cost, seconds, drying } = factsOf(product, recipe, ways, catalogue, known);
        return (
          <li key={recipe.id}>
            <div className="grid h-[210px] place-items-center overflow-hidden bg-sheet p-3">
              <Head
                {...catalogue.spec(product)}
                paint={catalogue.paintOfRecipe(recipe)}
                state={state}
                scale={6.4}
                className="max-w-full"
                label={recipe.name}
              />
            </div>
            <h3 className="voice mt-3 text-xl">{recipe.name}</h3>
            <p className="quiet mb-2 min-h-10">{layersInWords(recipe, catalogue)}</p>
            <Fact name="Powder a head" figure={powder} title={`Powder, ${recipe.name}`} />
            <Fact name="It costs" figure={cost} title={`Powder costs, ${recipe.name}`} />
            <Fact name="Your hands" figure={seconds} title={`Seconds of paint, ${recipe.name}`} />
            {drying && <Fact name="Drying between coats" figure={drying} title={`Drying, ${recipe.name}`} />}
            <Sheet
              title={recipe.name}
              says="Layers in the order in which they go on."
              trigger={
                <Button look="quiet" className="mt-2">
                  Change it
                </Button>
              }
            >
              <RecipeForm catalogue={catalogue} recipe={recipe} />
            </Sheet>
          </li>
        );
      })}
    </ul>
  );
}

/** Every recipe as it will look on a head; two or three side by side with what each takes. */
export function RecipesPage() {
  const catalogue = useCatalogue();
  const { data: settings } = useSettings();
  const [productId, setProductId] = useState<string | null>(null);
  const [state, setState] = useState<State>('baked');
  const [picked, setPicked] = useState<string[]>([]);
  const ways = useKnownWays(settings?.ways, catalogue);
  if (!catalogue || !ways) return <Waiting />;
  const recipes = [...catalogue.recipes.values()];
  const product = catalogue.products.find((each) => each.id === productId) ?? catalogue.products[0];
  const compared = picked.flatMap((id) => catalogue.recipes.get(id) ?? []);
  const toggle = (id: string) =>
    setPicked((before) => (before.includes(id) ? before.filter((each) => each !== id) : [...before, id].slice(-MOST)));
  return (
    <Page
      stub={
        <>
          <TheNumber value={recipes.length}>recipes, drawn as they will look</TheNumber>
          {product && (
            <Choice
              label="Drawn on"
              options={catalogue.products
                .map(({ id, name }) => ({ value: id, label: name.split(',')[0]! }))
                .filter(({ label }, i, all) => all.findIndex((each) => each.label === label) === i)}
              value={product.id}
              onChange={(event) => setProductId(event.target.value)}
            />
          )}
          <Ways label="Shown" value={state} options={STATES} onChange={setState} />
          <p className="quiet">Point at two or three to see them side by side, with what each takes.</p>
          <Sheet
            title="A new recipe"
            says="Layers in the order in which they go on."
            trigger={<Button className="self-start">New recipe</Button>}
          >
            <RecipeForm catalogue={catalogue} />
          </Sheet>
        </>
      }
    >
      <PaintRooms />
      {compared.length > 0 && product && (
        <SideBySide recipes={compared} product={product} state={state} catalogue={catalogue} ways={ways} />
      )}
      <Heading aside={compared.length ? `${compared.length} of ${MOST} side by side` : undefined}>
        {product ? `On one head, ${product.name.split(',')[0]}` : 'Recipes'}
      </Heading>
      <ul className="grid grid-cols-2 gap-x-5 gap-y-4 md:grid-cols-3 xl:grid-cols-4">
        {recipes.map((recipe) => (
          <li key={recipe.id}>
            <button
              type="button"
              aria-pressed={picked.includes(recipe.id)}
              onClick={() => toggle(recipe.id)}
              className="group w-full cursor-pointer text-left"
            >
              <span className="grid h-[118px] place-items-center overflow-hidden border-b-[3px] border-transparent bg-sheet group-hover:border-rule-2 group-aria-pressed:border-good">
                {product && (
                  <Head
                    {...catalogue.spec(product)}
                    paint={catalogue.paintOfRecipe(recipe)}
                    state={state}
                    scale={4.7}
                  />
                )}
              </span>
              <span className="mt-1.5 block leading-tight font-medium">{recipe.name}</span>
              <span className="quiet block leading-tight">{layersInWords(recipe, catalogue)}</span>
            </button>
          </li>
        ))}
      </ul>
      {recipes.length === 0 && <p className="quiet">None yet: a recipe needs a powder in Stock.</p>}
    </Page>
  );
}
