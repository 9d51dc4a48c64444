import { recordSchemas, type Product, type Sample, type SampleRecord } from '@schmelz/contract';
import { parseMass, productKg, readSample, sampleFigure, type SampleInput } from '@schmelz/core';
import { lazy, Suspense, useMemo, useState } from 'react';
import { useList, useNote, useRecords, useStrike } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { DatedRow } from '../../design/DatedRow.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Icon } from '../../design/Icon.tsx';
import { Caution, ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { ScaleReadout } from '../../design/ScaleReadout.tsx';
import { numberIn, useBuiltForm } from '../../design/useForm.ts';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { moment } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { TrimRooms } from './TrimDesk.tsx';

const WeightChart = lazy(() => import('./WeightChart.tsx').then((module) => ({ default: module.WeightChart })));

/** So many of the newest weighings are looked at together. */
const LOOKED_AT = 40;

function WeighForm({ product, cavities }: { product: Product; cavities: number }) {
  const units = useUnits();
  const note = useNote();
  const form = useBuiltForm<{ mass: string; position: string }, SampleRecord>({
    defaults: { mass: '', position: '' },
    schema: recordSchemas.sample,
    build: ({ mass, position }) => ({
      kind: 'sample',
      thingId: product.id,
      at: moment(),
      position: position ? numberIn('cavity', position) : null,
      massKg: parseMass(mass, units.massUnit),
    }),
    send: (input) =>
      note.mutate(input, { onSuccess: () => form.reset({ mass: '', position: String(input.position ?? '') }) }),
  });
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-3" noValidate>
      <ScaleReadout onTake={(kg) => form.setValue('mass', `${Math.round(1e5 * kg) / 100} g`)} />
      <TextField label="It weighs" hint="Trimmed, its hook in it." {...form.register('mass')} />
      <Choice
        label="Out of cavity"
        options={[
          { value: '', label: 'not known' },
          ...Array.from({ length: cavities }, (_, i) => ({ value: String(i + 1), label: String(i + 1) })),
        ]}
        {...form.register('position')}
      />
      <ProblemNote error={form.problem ?? note.error} />
      <Button look="main" type="submit" className="self-start" disabled={note.isPending}>
        Keep this weight
      </Button>
    </form>
  );
}

function inputOf(product: Product, samples: readonly Sample[], catalogue: Catalogue): SampleInput {
  const { hook } = catalogue.known(product);
  return {
    heads: samples.filter((each) => !each.struck).slice(-LOOKED_AT),
    leadKg: productKg(catalogue.known(product), catalogue.molds),
    hookKg: hook?.massKg ?? 0,
  };
}

/** A sample of heads on the scale: what it says of metal, mold and cavity. */
export function SamplePage() {
  const catalogue = useCatalogue();
  const { data: molds } = useList('molds');
  const units = useUnits();
  const strike = useStrike();
  const [productId, setProductId] = useState<string | null>(null);
  const product = catalogue?.products.find((each) => each.id === productId) ?? catalogue?.products[0];
  const { data: samples } = useRecords('sample', product?.id);
  const input = useMemo(
    () => (product && samples && catalogue ? inputOf(product, samples, catalogue) : null),
    [product, samples, catalogue],
  );
  if (!catalogue || !molds) return <Waiting />;
  if (!product) {
    return (
      <Page stub={<TheNumber value="–">no product on record yet</TheNumber>}>
        <TrimRooms />
      </Page>
    );
  }
  const verdict = input && readSample(input);
  const most = Math.max(1, ...molds.map((mold) => mold.cavities.length));
  const shown = verdict ? units.head(verdict.meanKg).split(' ') : [];
  return (
    <Page
      stub={
        <>
          <TheNumber
            value={
              verdict ? (
                <Fig figure={sampleFigure(verdict, input)} title="Mean of the sample">
                  {shown[0]!}
                </Fig>
              ) : (
                '–'
              )
            }
            unit={shown[1]}
          >
            {verdict
              ? `is the mean of ${input.heads.length}; reckoned ${units.head(input.leadKg + input.hookKg)}`
              : 'nothing on the scale yet'}
          </TheNumber>
          <Choice
            label="Head"
            options={catalogue.products.map(({ id, name }) => ({ value: id, label: name }))}
            value={product.id}
            onChange={(event) => setProductId(event.target.value)}
          />
          <WeighForm key={product.id} product={product} cavities={most} />
          <Caution>
            Filings are lead: file over paper, wipe up, wash your hands before you eat. They never go back to the pot.
          </Caution>
        </>
      }
    >
      <TrimRooms />
      {verdict && verdict.chart ? (
        <>
          <Heading aside="limits at three standard deviations">Weight by head, in the order of weighing</Heading>
          <Suspense fallback={<div className="h-[300px]" />}>
            <WeightChart
              heads={input.heads}
              chart={verdict.chart}
              expectedKg={input.leadKg + input.hookKg}
              units={units}
            />
          </Suspense>
        </>
      ) : (
        <p className="mb-5 max-w-[60ch]">
          Weigh five heads out of a shot, or the same cavity every so often: two make a chart, eight show whether the
          weights drift.
        </p>
      )}
      {verdict && (
        <section className="mb-6 mt-4">
          <Heading>What it says</Heading>
          <ul>
            {verdict.says.map((each) => (
              <li key={each} className="flex items-start gap-2 py-1 text-lg">
                <Icon name={each.startsWith('As it should') ? 'good' : 'watch'} className="mt-1.5 shrink-0" /> {each}
              </li>
            ))}
          </ul>
        </section>
      )}
      <ul className="max-w-[640px]">
        {[...(samples ?? [])]
          .reverse()
          .slice(0, 12)
          .map((each) => (
            <DatedRow key={each.id} at={each.at} struck={each.struck} onStrike={() => strike.mutate(each.id)}>
              <b className="w-24">{units.head(each.massKg)}</b>
              <span className="text-ink-2">
                {each.position === null ? 'cavity not known' : `cavity ${each.position}`}
              </span>
            </DatedRow>
          ))}
      </ul>
    </Page>
  );
}
