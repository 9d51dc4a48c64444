import type { Channel } from '@schmelz/contract';
import { probeFigure, celsiusToFahrenheit } from '@schmelz/core';
import { useMemo, useState } from 'react';
import { Area, CartesianGrid, ComposedChart, Line, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { useLive, useOdd } from '../../api/live.ts';
import { call } from '../../api/client.ts';
import { useChannels, useImports, useReadings, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { axis, niceStep, steps, timeTicks, tip } from '../../design/chart.ts';
import { Ways } from '../../design/Dials.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Caution, ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { writeDay, writeTime } from '../../units/dates.ts';
import { useUnits, type Units } from '../../units/Units.tsx';
import { LeadRooms } from './rooms.tsx';
import { ImportLog } from '../../lists/ImportLog.tsx';

const SPANS = [
  { value: '900', label: '15 min' },
  { value: '7200', label: '2 h' },
  { value: 'all', label: 'all of it' },
] as const;
type Span = (typeof SPANS)[number]['value'];

function StretchChart({ channel, span, units }: { channel: Channel; span: Span; units: Units }) {
  // The end moves on with the channel's last reading, a step at a time, so that a live chart is asked for again.
  const to = Math.ceil((channel.lastAt ?? 0) / 10_000) * 10_000;
  const from = span === 'all' ? (channel.firstAt ?? 0) : Math.max(channel.firstAt ?? 0, to - Number(span) * 1000);
  const { data } = useReadings(channel.id, from, to);
  const shown = (celsius: number) =>
    Math.round(10 * (units.temperatureUnit === 'F' ? celsiusToFahrenheit(celsius) : celsius)) / 10;
  const points = useMemo(
    () =>
      (data?.points ?? []).map(({ at, meanC, lowC, highC }) => ({
        at,
        mean: shown(meanC),
        band: [shown(lowC), shown(highC)],
      })),
    [data, units.temperatureUnit], // eslint-disable-line react-hooks/exhaustive-deps
  );
  const all = points.flatMap((point) => point.band);
  const [least, most] = all.length ? [Math.min(...all), Math.max(...all)] : [0, 100];
  const step = niceStep(Math.max(10, most - least));
  const low = Math.floor(least / step) * step;
  const high = Math.max(low + step, Math.ceil(most / step) * step);
  return (
    <section className="mb-6">
      <Heading aside={`${channel.count.toLocaleString('en')} readings since ${writeDay(channel.firstAt ?? 0)}`}>
        {channel.source}, {channel.name}
      </Heading>
      <div className="h-[210px]" role="img" aria-label={`${channel.source}, ${channel.name}: temperature over time`}>
        <ResponsiveContainer>
          <ComposedChart data={points} margin={{ top: 8, right: 16, bottom: 0, left: 0 }}>
            <CartesianGrid stroke="var(--rule)" vertical={false} />
            <XAxis
              dataKey="at"
              type="number"
              domain={[from, to]}
              tickFormatter={(at: number) => writeTime(at)}
              {...axis}
              ticks={timeTicks(from, to)}
            />
            <YAxis
              domain={[low, high]}
              ticks={steps(high - low, step).map((tick) => low + tick)}
              width={48}
              {...axis}
            />
            <Tooltip {...tip} labelFormatter={(at) => `${writeDay(Number(at))}, ${writeTime(Number(at))}`} />
            <Area
              dataKey="band"
              name="lowest, highest"
              stroke="none"
              fill="var(--lead)"
              fillOpacity={0.5}
              isAnimationActive={false}
            />
            <Line
              dataKey="mean"
              name={`°${units.temperatureUnit}`}
              stroke="var(--ink)"
              strokeWidth={2}
              dot={false}
              isAnimationActive={false}
            />
          </ComposedChart>
        </ResponsiveContainer>
      </div>
    </section>
  );
}

/** What the probes say, now and before; logs of other loggers come in here. */
export function ReadingsPage() {
  const { data: channels, error } = useChannels();
  const units = useUnits();
  const live = [useLive('pot'), useLive('mold'), useLive('oven')];
  const odd = [useOdd('pot'), useOdd('mold'), useOdd('oven')];
  const [span, setSpan] = useState<Span>('7200');
  const [source, setSource] = useState<string | null>(null);
  const [importing, setImporting] = useState(false);
  const { data: imports } = useImports();
  const strike = useWrite((id: number) => call('POST /channels/:id/strike', { params: { id } }));
  if (!channels) return <Waiting error={error} />;
  const sources = [...new Set(channels.map((channel) => channel.source))];
  const liveSource = channels.find((channel) => live.some((reading) => reading?.channel === channel.id))?.source;
  const newest = [...channels].sort((a, b) => (b.lastAt ?? 0) - (a.lastAt ?? 0))[0]?.source;
  const chosen = source ?? liveSource ?? newest;
  const isFile = imports?.some(({ kind, name, struck }) => kind === 'log' && name === chosen && !struck);
  const imported = isFile ? channels.find((channel) => channel.source === chosen) : undefined;
  const [pot] = live;
  return (
    <Page
      stub={
        <>
          <TheNumber
            value={
              pot ? (
                <Fig figure={probeFigure(pot.name, pot.celsius)} title="Probe in the pot">
                  {units.temperature(pot.celsius).split(' ')[0]}
                </Fig>
              ) : (
                channels.length
              )
            }
            unit={pot ? `°${units.temperatureUnit}` : undefined}
          >
            {pot
              ? 'in the pot, measured now'
              : channels.length === 1
                ? 'probe on record, none live now'
                : 'probes on record, none live now'}
          </TheNumber>
          <ul>
            {live.map(
              (reading) =>
                reading && (
                  <li
                    key={reading.channel}
                    className="flex items-baseline justify-between gap-3 border-b border-rule py-2"
                  >
                    <span>{reading.name}</span>
                    <Fig
                      figure={probeFigure(reading.name, reading.celsius)}
                      title={reading.name}
                      className="fig text-[25px]"
                    />
                  </li>
                ),
            )}
          </ul>
          {odd.map(
            (reading) =>
              reading && (
                <Caution key={reading.channel}>
                  {reading.name} reads {units.temperature(reading.celsius)}, which cannot be: look at its plug and wire.
                  It is left out.
                </Caution>
              ),
          )}
          <Button look="main" className="self-start" onClick={() => setImporting(true)}>
            Import a log
          </Button>
          <p className="quiet">
            A logger on the line protocol is read while the server runs: start it with SCHMELZ_LOGGER=host:port, or
            =simulated for one that is not there. The protocol is in docs/data-format.md.
          </p>
        </>
      }
    >
      <LeadRooms />
      <div className="mb-5 flex flex-wrap items-end gap-6">
        <Ways label="Stretch, counted from its end" value={span} options={SPANS} onChange={setSpan} />
        {sources.length > 1 && (
          <label className="text-sm font-medium text-ink-2">
            From
            <select className="field mt-1" value={chosen} onChange={(event) => setSource(event.target.value)}>
              {sources.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </select>
          </label>
        )}
      </div>
      {channels
        .filter((channel) => channel.source === chosen)
        .map((channel) => (
          <StretchChart key={channel.id} channel={channel} span={span} units={units} />
        ))}
      {imported && (
        <p>
          <Button onClick={() => strike.mutate(imported.id)} disabled={strike.isPending}>
            Strike this log out
          </Button>
          <ProblemNote error={strike.error} />
        </p>
      )}
      {channels.length === 0 && <p className="quiet">No probe has said anything yet.</p>}
      <Sheet
        open={importing}
        onOpenChange={setImporting}
        title="A log of another logger"
        says="CSV with a heading line: say which column is which."
      >
        <ImportLog onSaved={() => setImporting(false)} />
      </Sheet>
    </Page>
  );
}
