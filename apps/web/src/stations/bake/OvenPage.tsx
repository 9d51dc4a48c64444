import { ovenSchema, type Channel, type Oven } from '@schmelz/contract';
import {
  heatUpS,
  fitOven,
  knownOven,
  ovenLagFigure,
  ovenOffsetFigure,
  QuantityError,
  parseTemperature,
  type FittedOven,
  type Reading,
} from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useMemo, useState } from 'react';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { useChannels, useList, useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Caution, ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { moment, writeDay } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { RacksPart, withoutId } from './RacksPart.tsx';
import { BakeRooms } from './rooms.tsx';

const OvenChart = lazy(() => import('./OvenChart.tsx').then((module) => ({ default: module.OvenChart })));

/** The fit of a run, or why it teaches nothing. */
function fitOr(readings: readonly Reading[] | undefined, setC: number | null): FittedOven | string | null {
  if (!readings || setC === null) return null;
  try {
    return fitOven(readings, setC);
  } catch (error) {
    if (error instanceof QuantityError) return error.message;
    throw error;
  }
}

function celsiusOr(text: string, unit: 'C' | 'F'): number | null {
  try {
    return parseTemperature(text, unit);
  } catch {
    return null;
  }
}

/** What an empty run with a probe in it says of an oven, to be kept. */
function Learn({ oven, channels }: { oven: Oven; channels: Channel[] }) {
  const units = useUnits();
  const save = useSave('ovens');
  const [picked, setPicked] = useState<number | null>(null);
  const [mark, setMark] = useState('177 C');
  const channel = channels.find((each) => each.id === picked) ?? channels[0];
  const { data: readings } = useQuery({
    queryKey: ['raw', channel?.id, channel?.count],
    queryFn: () => call('GET /readings/raw', { query: { channel: channel!.id } }),
    enabled: !!channel,
  });
  const setC = celsiusOr(mark, units.temperatureUnit);
  const fit = useMemo(() => fitOr(readings, setC), [readings, setC]);
  if (!channel) {
    return (
      <p className="max-w-[60ch]">
        Hang a thermocouple in the empty oven, log it from cold until it has held its mark for ten minutes or more, and
        import the log under Bake, From a log: this page then says how slow the oven is and how far off its mark.
      </p>
    );
  }
  const keep = (fitted: FittedOven) =>
    save.mutate(
      { ...withoutId(oven), id: oven.id, version: oven.version, learned: { ...fitted, setC: setC!, at: moment() } },
      { onSuccess: () => void toast('Kept: bakes are reckoned with it.') },
    );
  return (
    <>
      <div className="mb-3 grid max-w-[760px] gap-3 sm:grid-cols-[1fr_150px]">
        <Choice
          label="Run"
          options={channels.map(({ id, source, firstAt, count }) => ({
            value: String(id),
            label: `${source}, ${writeDay(firstAt!)}, ${count} readings`,
          }))}
          value={String(channel.id)}
          onChange={(event) => setPicked(Number(event.target.value))}
        />
        <TextField
          label="It was set to"
          value={mark}
          onChange={(event) => setMark(event.target.value)}
          error={setC === null ? 'a temperature, such as 177 C' : undefined}
        />
      </div>
      {typeof fit === 'string' && <p className="text-watch">This run teaches nothing yet: {units.said(fit)}.</p>}
      {fit && typeof fit !== 'string' && readings && setC !== null && (
        <>
          <Suspense fallback={<div className="h-[260px]" />}>
            <OvenChart readings={readings} fit={fit} setC={setC} units={units} />
          </Suspense>
          <dl className="mt-3 grid max-w-[760px] grid-cols-3 gap-6">
            <div>
              <dt className="quiet">63 % of its way from cold</dt>
              <dd>
                <Fig figure={ovenLagFigure(fit)} title="Lag of the oven" className="fig text-[29px]" />
              </dd>
            </div>
            <div>
              <dt className="quiet">Holds above its mark</dt>
              <dd>
                <Fig figure={ovenOffsetFigure(fit, setC)} title="Offset of the oven" className="fig text-[29px]" />
              </dd>
            </div>
            <div>
              <dt className="quiet">Swings</dt>
              <dd className="fig text-[29px]">±{units.write(fit.swingK, 'K')}</dd>
              {fit.periodS !== null && <dd className="quiet">every {Math.round(fit.periodS)} s</dd>}
            </div>
          </dl>
          <Button className="mt-4" onClick={() => keep(fit)} disabled={save.isPending}>
            Reckon with this oven
          </Button>
        </>
      )}
      <ProblemNote error={save.error} />
    </>
  );
}

/** The oven as it is: how slow, how far off, and the racks that stand in it. */
export function OvenPage() {
  const { data: ovens, error } = useList('ovens');
  const { data: channels } = useChannels();
  const units = useUnits();
  if (!ovens || !channels) return <Waiting error={error} />;
  const oven = ovens[0];
  if (!oven) return <p className="p-8">No oven is on record: add one in Setup.</p>;
  const real = knownOven(oven);
  const runs = channels
    .filter((each) => each.place === 'oven' && each.count > 1 && each.firstAt !== null)
    .sort((a, b) => Number(/empty/i.test(b.source)) - Number(/empty/i.test(a.source)) || b.lastAt! - a.lastAt!);
  return (
    <Page
      stub={
        <>
          <TheNumber
            value={
              real.basis === 'fitted'
                ? units.write(Math.abs(real.offsetK), 'K').split(' ')[0]
                : (heatUpS(real.lagS) / 60).toFixed(1)
            }
            unit={real.basis === 'fitted' ? units.write(1, 'K').split(' ')[1] : 'min'}
          >
            {real.basis === 'fitted'
              ? `${real.offsetK < 0 ? 'under' : 'over'} its mark is what ${oven.name} holds`
              : `from cold to ${units.temperature(177)}: the minutes that were written down`}
          </TheNumber>
          {oven.learned && (
            <p className="quiet">
              Learned {writeDay(oven.learned.at)} from {oven.learned.readings} readings at{' '}
              {units.temperature(oven.learned.setC)}: 63 % of its way after {Math.round(oven.learned.lagS)} s, swings ±
              {units.write(oven.learned.swingK, 'K')}.
            </p>
          )}
          {!oven.learned && (
            <p className="text-ink-2">
              A dial says what an oven is set to, not what it holds. One empty run with a probe tells.
            </p>
          )}
          <Caution>
            An oven that bakes powder never bakes food again. Ventilate; keep powder dust from the coil.
          </Caution>
        </>
      }
    >
      <BakeRooms />
      <section className="mb-8">
        <Heading>An empty run with a probe in it</Heading>
        <Learn oven={oven} channels={runs} />
      </section>
      <RacksPart oven={oven} schema={ovenSchema} />
    </Page>
  );
}
