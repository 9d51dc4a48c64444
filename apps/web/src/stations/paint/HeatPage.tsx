import { recordSchemas, type Heating, type HeatingRecord, type Product } from '@schmelz/contract';
import {
  schoolsFollowed,
  GUN_WARM_UP_S,
  heatingFigure,
  warmFromFirstCoatC,
  HEAT_TOOLS,
  targetOf,
  type HeatInput,
  type HeatTool,
} from '@schmelz/core';
import { lazy, Suspense, useState } from 'react';
import { useAllRecords, useNote, useSettings, useStrike } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Ways } from '../../design/Dials.tsx';
import { DatedRow } from '../../design/DatedRow.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Caution, ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { numberIn, useBuiltForm } from '../../design/useForm.ts';
import { Head } from '../../drawing/Head.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { moment } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { Metronome } from './Metronome.tsx';
import { ownGun } from '../../shell/known-ways.ts';
import { heatedHead, PaintRooms } from './rooms.tsx';

const HeadHeatChart = lazy(() => import('./HeadHeatChart.tsx').then((module) => ({ default: module.HeadHeatChart })));

const SAYS: Record<HeatTool, string> = {
  'heat gun': 'even and slow; the first head after switching on takes longer',
  torch: 'a few seconds a side, turned all the while; never near a cloud of powder',
  lighter: 'for micro heads; sooty, and it burns fingers',
};
const COATS = [
  { value: 'first', label: 'First coat', hint: 'from room temperature' },
  { value: 'second', label: 'Second', hint: 'after a short cooling: it starts warm' },
  { value: 'switched on', label: 'First head', hint: 'the gun was switched on just now' },
] as const;
type Coat = (typeof COATS)[number]['value'];

/** Seconds that came out right, so that the gun is known. */
function OwnSeconds({
  product,
  tool,
  records,
  catalogue,
}: {
  product: Product;
  tool: HeatTool;
  records: readonly Heating[];
  catalogue: Catalogue;
}) {
  const note = useNote();
  const strike = useStrike();
  const form = useBuiltForm<{ seconds: string }, HeatingRecord>({
    defaults: { seconds: '' },
    schema: recordSchemas.heating,
    build: ({ seconds }) => ({
      kind: 'heating',
      thingId: product.id,
      at: moment(),
      tool,
      seconds: numberIn('seconds', seconds, 's'),
    }),
    send: (input) => note.mutate(input, { onSuccess: () => form.reset({ seconds: '' }) }),
  });
  const own = [...records].reverse().slice(0, 6);
  return (
    <section className="max-w-[760px]">
      <Heading aside={`${records.filter((each) => !each.struck).length} counts`}>What came out right</Heading>
      <form onSubmit={form.onSubmit} className="flex flex-wrap items-end gap-3" noValidate>
        <div className="w-56">
          <TextField label={`Seconds for ${product.name}`} unit="s" inputMode="decimal" {...form.register('seconds')} />
        </div>
        <Button type="submit" disabled={note.isPending}>
          Keep this count
        </Button>
      </form>
      <ProblemNote error={form.problem ?? note.error} />
      <ul className="mt-3">
        {own.map((each) => (
          <DatedRow key={each.id} at={each.at} struck={each.struck} onStrike={() => strike.mutate(each.id)}>
            <span>
              {each.seconds} s, {each.tool}, {catalogue.product(each.thingId)?.name}
            </span>
          </DatedRow>
        ))}
      </ul>
      {own.length === 0 && (
        <p className="quiet mt-2">None yet: the default is reckoned with. Three or four counts make it your gun.</p>
      )}
    </section>
  );
}

/** Seconds under gun, torch or lighter for this head, with the limits on either side, and a metronome to work to. */
export function HeatPage() {
  const catalogue = useCatalogue();
  const { data: settings } = useSettings();
  const { data: records } = useAllRecords('heating');
  const units = useUnits();
  const [productId, setProductId] = useState<string | null>(null);
  const [chosenTool, setTool] = useState<HeatTool | null>(null);
  const [coat, setCoat] = useState<Coat>('first');
  if (!catalogue || !settings || !records) return <Waiting />;
  const product = catalogue.products.find((each) => each.id === productId) ?? catalogue.products[0];
  if (!product) {
    return (
      <Page stub={<TheNumber value="–">no product on record yet</TheNumber>}>
        <PaintRooms />
      </Page>
    );
  }
  const { roomC } = settings.ways;
  const schools = schoolsFollowed(settings.ways.schools, product.ways);
  const tool = chosenTool ?? schools.tool;
  const gun = ownGun(records, catalogue, roomC);
  const own = gun.counts > 0 ? { gunWM2K: gun.wM2K } : {};
  const input: HeatInput = {
    head: heatedHead(product, catalogue),
    tool,
    roomC,
    targetC: targetOf(schools),
    ...(coat === 'second'
      ? { fromC: warmFromFirstCoatC(heatedHead(product, catalogue), schools, { roomC, ...own }) }
      : {}),
    ...(coat === 'switched on' && tool === 'heat gun' ? { gunOnS: 0 } : {}),
    ...(tool === 'heat gun' ? own : {}),
  };
  const seconds = heatingFigure(
    input,
    tool === 'heat gun'
      ? 'The body from behind, turned, the eye kept out of the stream'
      : 'Both sides in turn; the flame never rests',
  );
  return (
    <Page
      stub={
        <>
          <TheNumber
            value={
              <Fig figure={seconds} title="Seconds of heat">
                {String(Math.round(seconds.value))}
              </Fig>
            }
            unit="s"
          >
            under the {tool} to {units.temperature(targetOf(schools))}
          </TheNumber>
          <Choice
            label="Head"
            options={catalogue.products.map(({ id, name }) => ({ value: id, label: name }))}
            value={product.id}
            onChange={(event) => setProductId(event.target.value)}
          />
          <Ways
            label="Heated with"
            value={tool}
            options={HEAT_TOOLS.map((each) => ({ value: each, label: each, hint: SAYS[each] }))}
            onChange={setTool}
          />
          <Ways label="Which one" value={coat} options={COATS} onChange={setCoat} />
          {gun.counts > 0 && tool === 'heat gun' && (
            <p className="quiet">
              Your gun, from {gun.counts} {gun.counts === 1 ? 'count' : 'counts'}: {Math.round(gun.wM2K)} W/m²K,{' '}
              {Math.round(gun.low)} to {Math.round(gun.high)}.
            </p>
          )}
          <Caution>No open flame near a cloud of powder. Fan on; smoke from the powder means it is too hot.</Caution>
        </>
      }
    >
      <PaintRooms />
      <div className="mb-2 flex items-end gap-5">
        <Head {...catalogue.spec(product)} state="blank" scale={4} />
        <Head {...catalogue.spec(product)} paint={catalogue.paint(product)} state="powder" scale={4} />
      </div>
      <Heading
        aside={coat === 'switched on' ? `the gun needs some ${Math.round(3 * GUN_WARM_UP_S)} s itself` : undefined}
      >
        Heat of the head, second by second
      </Heading>
      <Suspense fallback={<div className="h-[300px]" />}>
        <HeadHeatChart input={input} seconds={seconds.value} units={units} />
      </Suspense>
      <p className="quiet mb-6">
        Dull: too cold, heat and dip again. Pops and dimples: a second light coat. Smoke, runs or a heavy glob: too hot.
        When in doubt, cooler and twice.
      </p>
      <Metronome heatS={Math.max(1, Math.round(seconds.value))} ways={schools} />
      <OwnSeconds product={product} tool={tool} records={records} catalogue={catalogue} />
    </Page>
  );
}
