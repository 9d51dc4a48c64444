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

/** A part and what there is of it, asked for once; only what there is, where the part is on record already. */
function Stocked({
  materials,
  start,
  is = () => true,
}: {
  materials: readonly Material[];
  start: Parameters<typeof MaterialForm>[0]['start'] & { kind: string };
  is?: (material: Material) => boolean;
}) {
  const own = materials.find((material) => material.kind === start.kind && is(material));
  if (own) return <ReceiptForm key={own.id} material={own} />;
  return <MaterialForm key={start.name} start={start} stocked />;
}

/** Cut-outs of the first mold that no hook is here for yet, size by size. */
function hooksWanted({ molds, materials }: Catalogue) {
  const here = [...materials.values()].filter((each) => each.kind === 'hook' && each.quantity > 0);
  const sizes = new Map((molds[0]?.cavities ?? []).map((cavity) => [cavity.hookSize, cavity]));
  return [...sizes.values()].filter(({ hookSize }) => !here.some(({ hook }) => hook?.size === hookSize));
}

function stepsOf(catalogue: Catalogue): Step[] {
  const materials = [...catalogue.materials.values()];
  const stocked = (kind: string) => materials.some((material) => material.kind === kind && material.quantity > 0);
  const [wanted] = hooksWanted(catalogue);
  return [
    {
      name: 'Your first mold',
      says: 'As it is stamped, cavity by cavity; those that are alike in one line.',
      done: catalogue.molds.length > 0,
      body: <MoldForm />,
    },
    {
      name: 'Its hooks',
      says: wanted ? `Your mold is cut for ${wanted.hookSize}: how many of them are here, and what they cost.` : '',
      done: catalogue.molds.length > 0 ? !wanted : stocked('hook'),
      body: wanted && (
        <Stocked
          materials={materials}
          is={({ hook }) => hook?.size === wanted.hookSize}
          start={{
            ...{ kind: 'hook', name: `Hook ${wanted.hookSize}`, size: wanted.hookSize },
            eyeAngleDeg: String(wanted.eyeAngleDeg),
          }}
        />
      ),
    },
    {
      name: 'Lead',
      says: 'What is here, clean, and what it cost.',
      done: stocked('lead'),
      body: <Stocked materials={materials} start={{ kind: 'lead', name: 'Soft lead' }} />,
    },
    {
      name: 'A powder',
      says: 'The jar you have most of; bare lead needs none.',
      done: stocked('powder'),
      body: <Stocked materials={materials} start={{ kind: 'powder', name: 'White', colour: '#efefe8' }} />,
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

/** What makes the answers better, none of it needed for a first order. */
const LATER = [
  ['/bake/oven', 'Your oven and its rack', 'as you built it: how many heads hang in one load, and how slow it is'],
  ['/bake/program', 'Your bake programs', 'what cures these powders in it, under the limit of your hooks'],
  ['/lead/dial', 'Your pot’s dial', 'a few pairs of mark and heat, and every mark is a temperature'],
  [
    '/products/templates',
    'More to make',
    'guard jigs, hair jigs, spinners: taken as the trade makes them, and changed',
  ],
] as const;

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
        <div className="max-w-[640px]">
          <p className="voice mb-6 text-xl">Mold, hooks, lead and a product are on record.</p>
          <h2 className="stamp mb-2 text-[17px]">When there is time</h2>
          <ul>
            {LATER.map(([to, name, says]) => (
              <li key={to} className="border-b border-rule">
                <Link to={to} className="block py-2.5 hover:bg-sheet">
                  <b className="font-medium">{name}</b>
                  <span className="quiet block">{says}</span>
                </Link>
              </li>
            ))}
          </ul>
        </div>
      )}
    </Page>
  );
}
