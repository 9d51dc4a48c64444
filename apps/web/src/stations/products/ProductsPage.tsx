import { Link } from 'react-router';
import { Button } from '../../design/Button.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { Part } from '../../design/Part.tsx';
import { Head } from '../../drawing/Head.tsx';
import { GiveIt, TakeGift } from '../../shell/Gift.tsx';
import { PutAway } from '../../shell/PutAway.tsx';
import { RulesTouched } from '../../shell/RulesTouched.tsx';
import { AsSold } from '../../shell/AsSold.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import { ProductForm } from './ProductForm.tsx';
import { RecipeForm } from './RecipeForm.tsx';

/** What can be ordered, and how it is painted. */
export function ProductsPage() {
  const catalogue = useCatalogue();
  const units = useUnits();
  if (!catalogue) return <Waiting />;
  const recipes = [...catalogue.recipes.values()];
  return (
    <Page
      stub={
        <>
          <TheNumber value={catalogue.products.length}>products that can be ordered</TheNumber>
          <Sheet
            title="A new product"
            says="Head, hook, paint and bake."
            trigger={
              <Button look="main" className="self-start">
                New product
              </Button>
            }
          >
            <ProductForm catalogue={catalogue} />
          </Sheet>
          <Button className="self-start" asChild>
            <Link to="/products/templates">As the trade makes them</Link>
          </Button>
          <Button className="self-start" asChild>
            <Link to="/products/grid">Many at once</Link>
          </Button>
          <Sheet
            title="A new recipe"
            says="Powders on the whole head, the back, as speckle or flake."
            trigger={<Button className="self-start">New recipe</Button>}
          >
            <RecipeForm catalogue={catalogue} />
          </Sheet>
          <TakeGift />
        </>
      }
    >
      <Heading>Products, drawn to one scale</Heading>
      <ul className="grid gap-x-6 sm:grid-cols-2 xl:grid-cols-3">
        {catalogue.products.map((product) => (
          <Part key={product.id} of={product.name}>
            {() => (
              <li className="border-b border-rule py-3">
                <AsSold product={catalogue.known(product)} scale={2.9} className="max-w-full" />
                <p className="mt-2 font-medium">{product.name}</p>
                <p className="quiet">
                  {product.hookId ? catalogue.materials.get(product.hookId)?.name : 'no hook'}
                  {product.priceMinor !== null && ` · sold at ${units.money(product.priceMinor)}`}
                </p>
                <RulesTouched products={[product]} />
                <Sheet
                  title={product.name}
                  says="Head, hook, paint and bake; tickets on the line keep what they were planned with."
                  trigger={
                    <Button look="quiet" className="mt-1" aria-label={`Change it: ${product.name}`}>
                      Change it
                    </Button>
                  }
                >
                  <ProductForm catalogue={catalogue} product={product} />
                  <div className="mt-6 flex flex-col items-start gap-3">
                    {!product.fromId && <GiveIt kind="product" id={product.id} name={product.name} />}
                    <PutAway path="products" thing={product} />
                  </div>
                </Sheet>
              </li>
            )}
          </Part>
        ))}
      </ul>
      {catalogue.products.length === 0 && (
        <p className="quiet">
          None yet.{' '}
          <Link to="/start" className="underline">
            Begin here
          </Link>
          .
        </p>
      )}
      {catalogue.putAway.length > 0 && (
        <details className="mt-6">
          <summary className="cursor-pointer">Put away: {catalogue.putAway.length}</summary>
          <ul>
            {catalogue.putAway.map((product) => (
              <li
                key={product.id}
                className="flex flex-wrap items-center justify-between gap-4 border-b border-rule py-2"
              >
                <span className="font-medium">{product.name}</span>
                <PutAway path="products" thing={product} />
              </li>
            ))}
          </ul>
        </details>
      )}
      <div className="mt-8" />
      <Heading>Recipes</Heading>
      <ul className="grid gap-x-6 sm:grid-cols-3 xl:grid-cols-4">
        {recipes.map((recipe) => (
          <Part key={recipe.id} of={recipe.name}>
            {() => (
              <li className="border-b border-rule py-3">
                <Head
                  style="ball"
                  massKg={0.014}
                  hookSize="3/0"
                  eyeAngleDeg={60}
                  paint={catalogue.paintOfRecipe(recipe)}
                  state="baked"
                  scale={2.6}
                  className="max-w-full"
                  label={recipe.name}
                />
                <p className="mt-2 font-medium">{recipe.name}</p>
                <p className="quiet">
                  {recipe.layers.map((layer) => catalogue.materials.get(layer.powderId)?.name).join(', ')}
                </p>
                <GiveIt kind="recipe" id={recipe.id} name={recipe.name} />
                <PutAway path="recipes" thing={recipe} />
              </li>
            )}
          </Part>
        ))}
      </ul>
    </Page>
  );
}
