import { celsiusToFahrenheit, cureFromLog, cureWords, platingDamage, logCureFigure } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useMemo, useState } from 'react';
import { call } from '../../api/client.ts';
import { useChannels } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Ways } from '../../design/Dials.tsx';
import { Choice } from '../../design/Field.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Icon } from '../../design/Icon.tsx';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { writeDay, writeTime } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { ImportLog } from '../../lists/ImportLog.tsx';
import { bakedHead } from '../../shell/past-bakes.ts';
import { BakeRooms } from './rooms.tsx';

const HeatChart = lazy(() => import('./HeatChart.tsx').then((module) => ({ default: module.HeatChart })));
const PROBE = [
  { value: 'air', label: 'In the air', hint: 'the head follows it by its own lag' },
  { value: 'head', label: 'In a head', hint: 'drilled in: it reads the metal itself' },
] as const;
const MOST_POINTS = 400;

/** A bake computed again from the log of its oven: any logger, gaps and all. */
export function LogPage() {
  const { data: channels, error } = useChannels();
  const catalogue = useCatalogue();
  const units = useUnits();
  const [picked, setPicked] = useState<number | null>(null);
  const [productId, setProductId] = useState<string | null>(null);
  const [probe, setProbe] = useState<'air' | 'head'>('air');
  const [importing, setImporting] = useState(false);
  const ovens = (channels ?? []).filter((channel) => channel.place === 'oven' && channel.count > 1);
  const channel = ovens.find((each) => each.id === picked) ?? [...ovens].sort((a, b) => b.lastAt! - a.lastAt!)[0];
  const { data: readings } = useQuery({
    queryKey: ['raw', channel?.id, channel?.count],
    queryFn: () => call('GET /readings/raw', { query: { channel: channel!.id } }),
    enabled: !!channel,
  });
  const painted = useMemo(
    () => (catalogue?.products ?? []).filter((each) => catalogue && bakedHead(each, catalogue)),
    [catalogue],
  );
  const product = painted.find((each) => each.id === productId) ?? painted[0];
  const head = useMemo(() => (product && catalogue ? bakedHead(product, catalogue) : null), [product, catalogue]);
  const result = useMemo(() => {
    if (!readings || readings.length < 2 || !head) return null;
    const lagS = probe === 'air' ? head.headLagS : 0;
    const all = head.laws.map(({ powder, law }) => ({
      powder,
      law,
      cure: cureFromLog({ law, readings, headLagS: lagS }),
    }));
    const least = all.reduce((a, b) => (b.cure.share < a.cure.share ? b : a));
    return { ...least, lagS, damage: platingDamage(least.cure.points, head.limitC) };
  }, [readings, head, probe]);
  if (!channels || !catalogue) return <Waiting error={error} />;
  const inUnit = (celsius: number) =>
    Math.round(units.temperatureUnit === 'F' ? celsiusToFahrenheit(celsius) : celsius);
  const every = result ? Math.max(1, Math.ceil(result.cure.points.length / MOST_POINTS)) : 1;
  const points = (result?.cure.points ?? [])
    .filter((_, i, all) => i % every === 0 || i === all.length - 1)
    .map((point) => ({
      minute: (point.at - result!.cure.points[0]!.at) / 60_000,
      oven: inUnit(point.airC),
      metal: inUnit(point.metalC),
      cure: Math.round(point.share * 100),
    }));
  const full = result?.cure.points.find((point) => point.share >= 1);
  return (
    <Page
      stub={
        <>
          <TheNumber
            value={
              result ? (
                <Fig
                  figure={logCureFigure(result.cure, readings!.length, result.lagS, result.law)}
                  title="Cure by the log"
                >
                  {String(Math.round(100 * result.cure.share))}
                </Fig>
              ) : (
                '–'
              )
            }
            unit={result ? '%' : undefined}
          >
            {result ? `of a full cure: ${cureWords(result.cure.share)}` : 'no oven log yet'}
          </TheNumber>
          {result?.cure.odd.map((words) => (
            <Caution key={words}>{words}</Caution>
          ))}
          {result && result.cure.gapsS > 0 && (
            <p className="flex items-start gap-2 text-watch">
              <Icon name="watch" className="mt-1 shrink-0" />
              {Math.round(result.cure.gapsS / 60)} min of it are gaps, bridged in a straight line. Certain without them:{' '}
              {Math.round(100 * result.cure.certain)} %.
            </p>
          )}
          {result && result.damage.flag !== 'none' && (
            <p className="flex items-start gap-2 text-watch">
              <Icon name="watch" className="mt-1 shrink-0" />
              The hooks {result.damage.flag === 'browned' ? 'have browned' : 'may have coloured'}:{' '}
              {Math.round(result.damage.overS / 60)} min over {units.temperature(head!.limitC ?? 0)}, by up to{' '}
              {units.write(result.damage.overK, 'K')}.
            </p>
          )}
          {ovens.length > 1 && (
            <Choice
              label="Log"
              options={ovens.map((each) => ({ value: String(each.id), label: `${each.source}, ${each.name}` }))}
              value={String(channel?.id ?? '')}
              onChange={(event) => setPicked(Number(event.target.value))}
            />
          )}
          {painted.length > 0 && (
            <Choice
              label="What hung in it"
              options={painted.map((each) => ({ value: each.id, label: each.name }))}
              value={product?.id ?? ''}
              onChange={(event) => setProductId(event.target.value)}
            />
          )}
          <Ways label="The probe was" value={probe} options={PROBE} onChange={setProbe} />
          <Button look="main" className="self-start" onClick={() => setImporting(true)}>
            Import a log
          </Button>
        </>
      }
    >
      <BakeRooms />
      {result && readings ? (
        <>
          <Heading aside={`${readings.length} readings`}>
            {channel!.source}, {writeDay(readings[0]!.at)} at {writeTime(readings[0]!.at)}
          </Heading>
          <Suspense fallback={<div className="h-[420px]" />}>
            <HeatChart
              points={points}
              unit={units.temperatureUnit}
              nowMinute={points.at(-1)!.minute}
              endMinute={points.at(-1)!.minute}
              fullMinute={full ? (full.at - result.cure.points[0]!.at) / 60_000 : null}
              limit={head!.limitC === null ? null : inUnit(head!.limitC)}
              from="The oven as its probe read it; the metal and the cure follow by the model."
            />
          </Suspense>
        </>
      ) : (
        <p className="max-w-[60ch]">
          Let a thermocouple hang between the heads and log it; any logger&apos;s CSV comes in, in Celsius or
          Fahrenheit, gaps and all. Give its column as the oven.
        </p>
      )}
      <Sheet open={importing} onOpenChange={setImporting} title="Import a log" says="A CSV with a heading line.">
        <ImportLog onSaved={() => setImporting(false)} />
      </Sheet>
    </Page>
  );
}
