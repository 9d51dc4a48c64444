import type { TakeTemplateInput } from '@schmelz/contract';
import { finishSchool, PRODUCT_TEMPLATES, writeSpan, type ProductTemplate } from '@schmelz/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Dressed } from '../../drawing/Dressed.tsx';
import { BARE } from '../../drawing/paint.ts';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';

/** A template as it is sold, in this paint. */
function Picture({
  template,
  recipeId,
  catalogue,
}: {
  template: ProductTemplate;
  recipeId: string;
  catalogue: Catalogue;
}) {
  const { style, nominalMassKg: massKg, hookSize, eyeAngleDeg, parts, steps } = template;
  const recipe = catalogue.recipes.get(recipeId);
  const painted = recipe && steps.some(({ station }) => station === 'paint');
  const paint = painted ? catalogue.paintOfRecipe(recipe) : BARE;
  const scale = Math.min(3.2, 150 / Math.cbrt(massKg * 1e6) / 1.6);
  return (
    <Dressed
      {...{ style, massKg, hookSize, eyeAngleDeg, paint, scale }}
      state={painted ? 'baked' : 'blank'}
      colour={(paint.back ?? paint.speckle ?? paint.base)?.colour ?? 'var(--lead)'}
      on={parts.map(({ kind }) => kind)}
      label={template.name}
      className="max-h-[130px] max-w-full"
    />
  );
}

/** Hands and waits of its finish, in a line. */
function finishOf({ steps }: ProductTemplate): string {
  const tasks = steps.filter(({ task }) => task).map(({ task, school }) => finishSchool(task!, school));
  const hands = tasks.reduce((sum, { seconds }) => sum + seconds, 0);
  const waits = Math.max(0, ...tasks.map(({ wait }) => wait?.seconds ?? 0));
  if (tasks.length === 0) return 'counted and bagged';
  return `${writeSpan(hands)} of hands a head${waits > 0 ? `, then ${writeSpan(waits)} to set` : ''}`;
}

/** What is taken: a name, a paint and a bake of the maker's own; everything else can be changed afterwards. */
function Take({ template, catalogue }: { template: ProductTemplate; catalogue: Catalogue }) {
  const navigate = useNavigate();
  const [name, setName] = useState(template.name);
  const painted = template.steps.some(({ station }) => station === 'paint');
  const baked = template.steps.some(({ station }) => station === 'bake');
  const [recipeId, setRecipe] = useState([...catalogue.recipes.keys()][0] ?? '');
  const [programId, setProgram] = useState([...catalogue.programs.keys()][0] ?? '');
  const take = useWrite((input: TakeTemplateInput) => call('POST /products/from-template', { body: input }));
  const options = (all: Iterable<{ id: string; name: string }>) =>
    [...all].map((each) => ({ value: each.id, label: each.name }));
  return (
    <form
      className="grid gap-3 border-y-2 border-ink bg-sheet p-4 sm:grid-cols-3"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        take.mutate(
          {
            template: template.id,
            name: name.trim(),
            ...(painted && recipeId ? { recipeId } : {}),
            ...(painted && baked && recipeId && programId ? { bakeProgramId: programId } : {}),
          },
          {
            onSuccess: (product) => {
              toast(`${product.name} can be ordered. What is new on the shelf is at nothing yet.`);
              void navigate('/products');
            },
          },
        );
      }}
    >
      <p className="voice text-xl sm:col-span-3">{template.name}</p>
      <TextField label="Its name" value={name} onChange={(event) => setName(event.target.value)} />
      {painted && (
        <Choice
          label="Paint"
          options={options(catalogue.recipes.values())}
          value={recipeId}
          onChange={(event) => setRecipe(event.target.value)}
        />
      )}
      {baked && (
        <Choice
          label="Bake"
          options={options(catalogue.programs.values())}
          value={programId}
          onChange={(event) => setProgram(event.target.value)}
        />
      )}
      <div className="flex flex-col gap-3 sm:col-span-3">
        <ProblemNote error={take.error} />
        <Button look="main" type="submit" className="self-start" disabled={take.isPending}>
          Take it
        </Button>
      </div>
    </form>
  );
}

/** Products that the trade knows, drawn as they are sold: one is taken and then changed. */
export function TemplatesPage() {
  const catalogue = useCatalogue();
  const units = useUnits();
  const [chosen, choose] = useState<string | null>(null);
  if (!catalogue) return <Waiting />;
  const [recipeId = ''] = [...catalogue.recipes.keys()];
  return (
    <Page
      stub={
        <>
          <TheNumber value={PRODUCT_TEMPLATES.length}>products to start from</TheNumber>
          <p className="quiet">
            Each with its parts, its way and its waits. What you have on the shelf is used for it; what you do not have
            is put on the list, at nothing. Change it afterwards as you do it.
          </p>
        </>
      }
    >
      <Heading>As they are sold</Heading>
      <ul className="grid gap-x-6 sm:grid-cols-2 xl:grid-cols-3">
        {PRODUCT_TEMPLATES.map((template) => {
          const open = chosen === template.id;
          return (
            <li key={template.id} className={`border-b border-rule py-3 ${open ? 'sm:col-span-2 xl:col-span-3' : ''}`}>
              <div className="grid h-[138px] place-items-center overflow-hidden">
                <Picture template={template} recipeId={recipeId} catalogue={catalogue} />
              </div>
              <p className="mt-1 font-medium">
                {template.name}, {units.head(template.nominalMassKg)}
              </p>
              <p className="quiet">{template.says}</p>
              <p className="quiet">{finishOf(template)}</p>
              {open ? (
                <Take template={template} catalogue={catalogue} />
              ) : (
                <Button
                  look="quiet"
                  className="mt-1"
                  onClick={() => choose(template.id)}
                  aria-label={`This one: ${template.name}`}
                >
                  This one
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </Page>
  );
}
