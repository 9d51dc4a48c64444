import { recordSchemas, type DialRecord } from '@schmelz/contract';
import {
  dialFigure,
  dialMarkFigure,
  driftFigure,
  parseTemperature,
  SKIN_SD_K,
  SKINS,
  skinTemperatureC,
  type Drift,
  type SkinColour,
} from '@schmelz/core';
import { useState } from 'react';
import { useLive } from '../../api/live.ts';
import { useList, useNote, useSettings, useStrike } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { Fig } from '../../design/Figure.tsx';
import { BasisMark, Icon } from '../../design/Icon.tsx';
import { FitProgress } from '../../design/Learned.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { numberIn, useBuiltForm } from '../../design/useForm.ts';
import { SkinSwatch } from '../../drawing/Skin.tsx';
import { moment, writeDay } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { DialChart } from './DialChart.tsx';
import { LeadRooms } from './rooms.tsx';
import { useDial } from '../../shell/useDial.ts';

type Read = 'probe' | SkinColour;

/** A new pair: the mark the dial stands at and what the settled metal reads. */
function PairForm({ potId, live }: { potId: string; live: number | null }) {
  const units = useUnits();
  const note = useNote();
  const form = useBuiltForm<{ dial: string; read: Read; temperature: string }, DialRecord>({
    defaults: { dial: '', read: 'probe', temperature: '' },
    schema: recordSchemas.dial,
    build: ({ dial, read, temperature }) => ({
      kind: 'dial',
      thingId: potId,
      at: moment(),
      dial: numberIn('dial', dial),
      temperatureC: read === 'probe' ? parseTemperature(temperature, units.temperatureUnit) : skinTemperatureC(read),
      how: read === 'probe' ? 'probe' : 'colour',
    }),
    send: (input) => note.mutate(input, { onSuccess: () => form.reset({ dial: '', read: 'probe', temperature: '' }) }),
  });
  const read = form.watch('read');
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-3" noValidate>
      <TextField label="The dial stands at" inputMode="decimal" {...form.register('dial')} />
      <Choice
        label="The settled metal read by"
        options={[
          { value: 'probe', label: 'a probe' },
          ...SKINS.map(({ colour }) => ({ value: colour, label: `its skin: ${colour}` })),
        ]}
        hint={read === 'probe' ? undefined : `A colour is good to about ${units.write(SKIN_SD_K, 'K')}: a rough check.`}
        {...form.register('read')}
      />
      {read === 'probe' ? (
        <TextField
          label="It reads"
          unit={`°${units.temperatureUnit}`}
          inputMode="decimal"
          placeholder={live === null ? undefined : String(Math.round(live))}
          {...form.register('temperature')}
        />
      ) : (
        <p className="flex items-center gap-2">
          <SkinSwatch colour={read} /> taken as {units.temperature(skinTemperatureC(read))}
        </p>
      )}
      <ProblemNote error={form.problem ?? note.error} />
      <Button look="main" type="submit" className="self-start" disabled={note.isPending}>
        Keep this pair
      </Button>
    </form>
  );
}

/** So many pairs are listed before the rest is asked for. */
const SHOWN = 8;

/** Whether the dial drifts, in words. */
function DriftNote({ drift }: { drift: Drift | null }) {
  if (!drift)
    return <p className="quiet">Measure a mark again after some weeks: then it shows whether the dial drifts.</p>;
  const rate = <Fig figure={driftFigure(drift)} title="Drift" />;
  if (!drift.real) return <p>It holds: no drift beyond its doubt ({rate}).</p>;
  return (
    <p className="flex items-start gap-2 font-medium text-watch">
      <Icon name="watch" className="mt-1 shrink-0" />
      <span>
        It drifts: the same mark gets {drift.kPerMonth > 0 ? 'hotter' : 'colder'}, by {rate}. Measure it again before a
        long evening.
      </span>
    </p>
  );
}

export function DialPage() {
  const { data: pots, error } = useList('pots');
  const { data: settings } = useSettings();
  const pot = pots?.[0];
  const { marks, pairs, table, drift, state, stop } = useDial(pot?.id);
  const units = useUnits();
  const live = useLive('pot');
  const strike = useStrike();
  const [all, setAll] = useState(false);
  if (!pots || !settings || !marks) return <Waiting error={error} />;
  if (!pot) return <Waiting error={new Error('No pot is on record: add one in Setup.')} />;
  const { pourC } = settings.ways;
  const mark = table && dialMarkFigure(table, pourC);
  const dial = mark?.value ?? null;
  return (
    <Page
      stub={
        <>
          <TheNumber
            value={
              mark ? (
                <Fig figure={mark} title="Dial">
                  {mark.value.toFixed(1)}
                </Fig>
              ) : (
                '–'
              )
            }
          >
            {dial === null
              ? table
                ? `no measured mark reaches ${units.temperature(pourC)}`
                : state.status === 'running'
                  ? 'the dial is being worked out'
                  : 'no dial yet: measure two marks'
              : `on the dial for ${units.temperature(pourC)}`}
          </TheNumber>
          {table && dial !== null && (
            <p>
              There it stands for <Fig figure={dialFigure(table, Math.round(dial * 10) / 10)} title="Dial" />, ±{' '}
              {units.write(2 * table.at(dial).sdK, 'K')}.
            </p>
          )}
          <PairForm potId={pot.id} live={live?.celsius ?? null} />
        </>
      }
    >
      <LeadRooms />
      <Heading aside={pot.name}>The dial has numbers, not degrees</Heading>
      <FitProgress state={state} onStop={stop} />
      {table ? (
        <>
          <DriftNote drift={drift} />
          <DialChart table={table} pairs={pairs} pourC={pourC} dial={dial} units={units} />
          <p className="quiet mb-5">
            The curve is the dial of today: where it drifts, old pairs are brought along, and doubted the more. Dots as
            they were measured, the newest dark, rings by the colour of the skin. Outside the measured marks nothing is
            drawn, because nothing is known.
          </p>
        </>
      ) : (
        <p className="mb-5 max-w-[60ch]">
          Let the pot settle at one mark for ten minutes, read the metal, keep the pair; then another mark, well away.
          Two make a line, four make a dial.
        </p>
      )}
      <table className="sheet-table">
        <caption className="sr-only">Measured pairs</caption>
        <thead>
          <tr>
            <th>Measured</th>
            <th className="num">Mark</th>
            <th className="num">Metal</th>
            <th>By</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {[...marks]
            .reverse()
            .slice(0, all ? undefined : SHOWN)
            .map((mark) => (
              <tr key={mark.id} className={mark.struck ? 'text-ink-3 line-through' : ''}>
                <td>{writeDay(mark.at)}</td>
                <td className="num">{mark.dial}</td>
                <td className="num">{units.temperature(mark.temperatureC)}</td>
                <td>
                  <BasisMark basis={mark.how === 'probe' ? 'measured' : 'given'} />{' '}
                  {mark.how === 'probe' ? 'probe' : 'colour of the skin'}
                </td>
                <td className="num">
                  {!mark.struck && (
                    <Button look="quiet" onClick={() => strike.mutate(mark.id)}>
                      Strike out
                    </Button>
                  )}
                </td>
              </tr>
            ))}
        </tbody>
      </table>
      {marks.length > SHOWN && (
        <Button look="quiet" onClick={() => setAll(!all)}>
          {all ? 'Only the newest' : `All ${marks.length} pairs`}
        </Button>
      )}
    </Page>
  );
}
