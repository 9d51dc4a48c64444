import type { Material } from '@schmelz/contract';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { Button } from '../../design/Button.tsx';
import { Icon } from '../../design/Icon.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Page, TheNumber } from '../../design/Page.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { MoldForm } from '../molds/MoldForm.tsx';
import { ProductForm } from '../products/ProductForm.tsx';
import { RecipeForm } from '../products/RecipeForm.tsx';
import { MaterialForm } from '../stock/MaterialForm.tsx';
import { ReceiptForm } from '../stock/MaterialSheet.tsx';

interface Step {
  name: string;
  says: string;
  done: boolean;
  body: ReactNode;
}

/** Asks for the material itself first, then for what there is of it. */
function Stocked({ kind, materials }: { kind: string; materials: Material[] }) {
  const own = materials.find((material) => material.kind === kind);
  return own ? <ReceiptForm key={own.id} material={own} /> : <MaterialForm />;
}

function stepsOf(catalogue: Catalogue): Step[] {
  const materials = [...catalogue.materials.values()];
  const stocked = (kind: string) => materials.some((material) => material.kind === kind && material.quantity > 0);
  const choose = (kind: string) => (
    <p className="quiet mb-3">
      Choose the kind “{kind}”, give it a name; then say how much of it is here and what it cost.
    </p>
  );
  return [
    {
      name: 'Your first mold',
      says: 'As it is stamped, cavity by cavity.',
      done: catalogue.molds.length > 0,
      body: <MoldForm />,
    },
    {
      name: 'Its hooks',
      says: 'Size and eye angle, then how many are here.',
      done: stocked('hook'),
      body: (
        <>
          {choose('hook')}
          <Stocked kind="hook" materials={materials} />
        </>
      ),
    },
    {
      name: 'Lead',
      says: 'What is here, clean.',
      done: stocked('lead'),
      body: (
        <>
          {choose('lead')}
          <Stocked kind="lead" materials={materials} />
        </>
      ),
    },
    {
      name: 'A powder',
      says: 'The jar you have most of; bare lead needs none.',
      done: stocked('powder'),
      body: (
        <>
          {choose('powder')}
          <Stocked kind="powder" materials={materials} />
        </>
      ),
    },
    {
      name: 'A paint recipe',
      says: 'One powder on the whole head is a recipe.',
      done: catalogue.recipes.size > 0,
      body: <RecipeForm catalogue={catalogue} />,
    },
    {
      name: 'A product',
      says: 'Head, hook, paint and bake.',
      done: catalogue.products.length > 0,
      body: <ProductForm catalogue={catalogue} />,
    },
  ];
}

/** Paint is not for everybody: the way on without it. */
function BareLead({ catalogue }: { catalogue: Catalogue }) {
  const [open, setOpen] = useState(false);
  return (
    <div className="mt-8 border-t border-rule pt-4">
      {open ? (
        <ProductForm catalogue={catalogue} />
      ) : (
        <Button look="quiet" onClick={() => setOpen(true)}>
          Bare lead, no paint: on to the product
        </Button>
      )}
    </div>
  );
}

/** The first page of an empty workshop: six short steps to the first order. */
export function StartPage() {
  const catalogue = useCatalogue();
  if (!catalogue) return <Waiting />;
  const steps = stepsOf(catalogue);
  const optional = new Set(['A powder', 'A paint recipe']);
  const at = steps.findIndex((step) => !step.done && !(optional.has(step.name) && catalogue.products.length > 0));
  const now = steps[at];
  const left = steps.filter((step) => !step.done).length;
  return (
    <Page
      stub={
        <>
          <TheNumber eyebrow="A new workshop" value={now ? left : 0}>
            {now ? 'short steps to your first order' : 'steps left: you can order'}
          </TheNumber>
          <ol>
            {steps.map((step, index) => (
              <li
                key={step.name}
                className={`flex items-baseline gap-3 border-b border-rule py-2 ${index === at ? 'font-semibold' : 'text-ink-3'}`}
              >
                <span className="fig w-4 text-[19px]">{index + 1}</span>
                <span className="flex-1">{step.name}</span>
                {step.done && (
                  <span className="flex items-center gap-1 text-good">
                    <Icon name="good" size={14} /> done
                  </span>
                )}
              </li>
            ))}
          </ol>
          {!now && (
            <Button look="main" asChild className="self-start">
              <Link to="/orders/new">First order</Link>
            </Button>
          )}
          <p className="quiet">
            Weights in ounces, another currency?{' '}
            <Link to="/setup" className="underline">
              Setup
            </Link>{' '}
            has one switch for all.
          </p>
        </>
      }
    >
      {now ? (
        <div className="max-w-[640px]">
          <h2 className="voice mb-1 text-2xl">{now.name}</h2>
          <p className="quiet mb-5">{now.says}</p>
          {now.body}
          {optional.has(now.name) && <BareLead catalogue={catalogue} />}
        </div>
      ) : (
        <p className="voice text-xl">Mold, hooks, lead and a product are on record.</p>
      )}
    </Page>
  );
}
