import { countSchema, type CountInput, type JarView, type Material } from '@schmelz/contract';
import {
  efficiencyFigure,
  headsInJar,
  jarEfficiency,
  jarFigure,
  parseMass,
  powdersPerHead,
  type HouseWays,
  type JarEfficiency,
} from '@schmelz/core';
import { useState } from 'react';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { settingsInput, useJars, useSettings, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Caution, ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { ScaleReadout } from '../../design/ScaleReadout.tsx';
import { useBuiltForm } from '../../design/useForm.ts';
import { Jar } from '../../drawing/Jar.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { writeDay } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { stretchesOf } from './jars.ts';
import { plannedProduct } from '../../shell/planned.ts';
import { PaintRooms } from './rooms.tsx';

/** A full jar, for drawing it: the most that it was ever seen to hold, a usual jar at least. */
const USUAL_JAR_KG = 0.225;
/** What tickets were charged by plan and what the jar is reckoned to hold may part by this much unsaid. */
const BOOKS_DIFFER_KG = 0.001;

function WeighJar({ powders }: { powders: Material[] }) {
  const units = useUnits();
  const [id, setId] = useState(powders[0]?.id ?? '');
  const weigh = useWrite((input: CountInput) => call('POST /materials/:id/counts', { params: { id }, body: input }));
  const form = useBuiltForm<{ mass: string; jar: string }, CountInput>({
    defaults: { mass: '', jar: `0 ${units.massUnit}` },
    schema: countSchema,
    build: ({ mass, jar }) => {
      const quantity =
        parseMass(mass, units.massUnit) - (/^0\D*$/.test(jar.trim()) ? 0 : parseMass(jar, units.massUnit));
      return { quantity: Math.round(quantity * 1e6) / 1e6, note: 'weighed' };
    },
    send: (input) =>
      weigh.mutate(input, {
        onSuccess: () => {
          toast('The jar is weighed.');
          form.setValue('mass', '');
        },
      }),
  });
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-3" noValidate>
      <Choice
        label="Jar"
        options={powders.map((each) => ({ value: each.id, label: each.name }))}
        value={id}
        onChange={(event) => setId(event.target.value)}
      />
      <ScaleReadout onTake={(kg) => form.setValue('mass', `${Math.round(1e5 * kg) / 100} g`)} />
      <div className="grid grid-cols-2 gap-3">
        <TextField label="It weighs" {...form.register('mass')} />
        <TextField label="Of that, the empty jar" {...form.register('jar')} />
      </div>
      <ProblemNote error={form.problem ?? weigh.error} />
      <Button look="main" type="submit" className="self-start" disabled={weigh.isPending}>
        Keep this weight
      </Button>
    </form>
  );
}

/** The product that takes most of a powder, and how many of it a jar still does. */
function takesMost(powderId: string, catalogue: Catalogue, ways: HouseWays) {
  const takes = catalogue.products.flatMap((product) => {
    if (!product.recipeId) return [];
    const own = powdersPerHead(plannedProduct(product, catalogue), ways).find((each) => each.materialId === powderId);
    return own ? [{ product, kg: own.kgPerHead }] : [];
  });
  return takes.length ? takes.reduce((a, b) => (b.kg > a.kg ? b : a)) : null;
}

function JarItem({
  jar,
  powder,
  stays,
  ways,
  catalogue,
}: {
  jar: JarView;
  powder: Material;
  stays: JarEfficiency;
  ways: HouseWays;
  catalogue: Catalogue;
}) {
  const level = jarFigure(powder.name, { ...jar, lastKg: jar.last?.massKg ?? 0 }, stays);
  const most = takesMost(powder.id, catalogue, { ...ways, transferEfficiency: stays.efficiency });
  const full = Math.max(USUAL_JAR_KG, level.high ?? level.value);
  const units = useUnits();
  const heads = most ? headsInJar(level.low ?? level.value, most.kg) : null;
  return (
    <li className="flex gap-4 border-b border-rule py-3">
      <Jar
        colour={powder.powder!.colour}
        full={full}
        kg={level.value}
        low={level.low ?? level.value}
        high={level.high ?? level.value}
      />
      <div className="min-w-0">
        <p className="leading-tight font-medium">{powder.name}</p>
        <p className="mt-1">
          <Fig figure={level} title={`Left of ${powder.name}`} className="fig text-[23px]" />
        </p>
        <p className="quiet">
          {jar.last ? `weighed ${writeDay(jar.last.at)}` : 'never weighed'}
          {most && heads !== null && heads > 0 && (
            <span className="block">
              at least {heads} of {most.product.name.split(',')[0]}
            </span>
          )}
          {Math.abs(powder.quantity - level.value) > BOOKS_DIFFER_KG && (
            <span className="block">by the plans {units.bulk(powder.quantity)}</span>
          )}
          {heads === 0 && <span className="block text-watch">not enough for one more head, perhaps</span>}
        </p>
      </div>
    </li>
  );
}

/** What is left in the jars, weighed or reckoned, and what stays on the heads by the weighings. */
export function JarsPage() {
  const catalogue = useCatalogue();
  const { data: jars, error } = useJars();
  const { data: settings } = useSettings();
  const keep = useWrite((share: number) =>
    call('PUT /settings', {
      body: { ...settingsInput(settings!), ways: { ...settings!.ways, transferEfficiency: share } },
    }),
  );
  if (!catalogue || !jars || !settings) return <Waiting error={error} />;
  const shown = jars.flatMap((jar) => {
    const powder = catalogue.materials.get(jar.materialId);
    return powder?.powder && powder.powder.form !== 'liquid' ? [{ jar, powder }] : [];
  });
  const stretches = stretchesOf(jars);
  const stays = jarEfficiency(stretches);
  const sum = (key: 'usedKg' | 'onHeadsKg') => stretches.reduce((total, each) => total + each[key], 0);
  const figure = efficiencyFigure(stays, sum('usedKg'), sum('onHeadsKg'));
  const differs = Math.abs(stays.efficiency - settings.ways.transferEfficiency) > 0.02 && stays.weighings > 0;
  return (
    <Page
      stub={
        <>
          <TheNumber
            value={
              <Fig figure={figure} title="Powder that stays on">
                {String(Math.round(100 * stays.efficiency))}
              </Fig>
            }
            unit="%"
          >
            of the powder taken stays on the heads
          </TheNumber>
          {differs && (
            <div>
              <p className="text-ink-2">Plans reckon with {Math.round(100 * settings.ways.transferEfficiency)} %.</p>
              <Button
                className="mt-2"
                disabled={keep.isPending}
                onClick={() => keep.mutate(Math.round(100 * stays.efficiency) / 100)}
              >
                Reckon with {Math.round(100 * stays.efficiency)} %
              </Button>
              <ProblemNote error={keep.error} />
            </div>
          )}
          {shown.length > 0 && <WeighJar powders={shown.map(({ powder }) => powder)} />}
          <Caution>Powder dust burns: no flame near it, and do not breathe it.</Caution>
        </>
      }
    >
      <PaintRooms />
      <Heading aside="hatched: reckoned since the last weighing">In the jars</Heading>
      <ul className="grid gap-x-6 sm:grid-cols-2 xl:grid-cols-3">
        {shown.map(({ jar, powder }) => (
          <JarItem
            key={jar.materialId}
            jar={jar}
            powder={powder}
            stays={stays}
            ways={settings.ways}
            catalogue={catalogue}
          />
        ))}
      </ul>
      {shown.length === 0 && <p className="quiet">No powder in Stock yet.</p>}
    </Page>
  );
}
