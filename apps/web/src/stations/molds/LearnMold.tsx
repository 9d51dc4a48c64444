import type { Mold } from '@schmelz/contract';
import {
  BAR_KG,
  learnedMold,
  learnedMoldFigures,
  loadsOf,
  missFigure,
  pourState,
  standing,
  type PourEntry,
  workingBlock,
  LOSS_AT_K,
  fullShotKg,
} from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { useChannels, usePoursOf, useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Ways } from '../../design/Dials.tsx';
import { Choice } from '../../design/Field.tsx';
import { Fig } from '../../design/Figure.tsx';
import { FitProgress, richest } from '../../design/Learned.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { moment, writeDayShort } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { useFit } from '../../workers/useFit.ts';
import { moldInputOf } from './rooms.tsx';

/** Less sure than this of the power of its loss, a pause would teach more. Common practice, no source. */
const PACE_SAYS_LITTLE = 0.06;

/** A mold's loss and heat capacity, learned from a probe at its back and the shots that were logged meanwhile. */
export function LearnMold({ mold, roomC, metalC }: { mold: Mold; roomC: number; metalC: number }) {
  const units = useUnits();
  const { data: channels = [] } = useChannels();
  const { data: pours } = usePoursOf({ moldId: mold.id });
  const own = useMemo(() => pours ?? [], [pours]);
  const probes = channels.filter(
    (channel) =>
      channel.place === 'mold' &&
      own.some(
        (pour) =>
          channel.firstAt !== null && pour.startedAt < channel.lastAt! && pour.startedAt > channel.firstAt! - 7_200_000,
      ),
  );
  const [chosen, setChosen] = useState<number | null>(null);
  // With two molds at the pot each may have its probe: one that is named after this mold comes first.
  const named = probes.filter((each) => each.name === mold.name);
  const channel = probes.find((each) => each.id === chosen) ?? richest(named.length ? named : probes);
  const { data: readings } = useQuery({
    queryKey: ['raw', channel?.id, channel?.count],
    queryFn: () => call('GET /readings/raw', { query: { channel: channel!.id } }),
    enabled: !!channel,
  });
  const [unused, setUnused] = useState<'filled' | 'empty'>('filled');
  const input = useMemo(() => {
    if (!readings?.length) return null;
    const [from, to] = [readings[0]!.at, readings.at(-1)!.at];
    const shots = own.flatMap((pour) => {
      const state = pourState(pour.setup, pour.log);
      if (state.startedAt === null) return [];
      const loadedKg = loadsOf(pour.setup, mold.id).reduce((sum, load) => sum + load.leadKg + load.sprueKg, 0);
      const fullKg = fullShotKg(mold.cavities);
      const blankKg = fullKg + (mold.barKg ?? BAR_KG);
      return standing<PourEntry>(pour.log)
        .filter(
          (entry) =>
            (entry.kind === 'shot' || entry.kind === 'blank') &&
            entry.moldId === mold.id &&
            entry.at >= from &&
            entry.at <= to,
        )
        .map((entry) => ({
          atS: (entry.at - from) / 1000,
          kg: entry.kind === 'blank' ? blankKg : unused === 'filled' ? fullKg : loadedKg,
          metalC,
          blank: entry.kind === 'blank',
        }));
    });
    const timed = readings.map(({ at, celsius }) => ({ atS: (at - from) / 1000, temperatureC: celsius }));
    const closedS = own
      .flatMap(({ setup }) => setup.molds.find(({ moldId }) => moldId === mold.id)?.openS ?? [])
      .at(-1);
    return shots.length && closedS !== undefined
      ? { block: workingBlock({ ...mold, learned: null }).block, closedS, shots, readings: timed, roomC }
      : null;
  }, [readings, own, mold, roomC, metalC, unused]);
  const { state, run, stop } = useFit('mold');
  const save = useSave('molds');
  const result = state.status === 'done' ? state.result : null;
  const found = result && learnedMold(result);
  const figures = found && learnedMoldFigures(found);
  const keep = (learned: Mold['learned']) =>
    save.mutate(
      { ...moldInputOf(mold), learned, id: mold.id, version: mold.version },
      { onSuccess: () => toast(`${mold.name} is known better now.`) },
    );
  return (
    <section className="max-w-[760px]">
      <Heading>What this mold really does</Heading>
      {!channel ? (
        <p className="quiet">
          No probe has sat at the back of this mold during a pour. Tape a thermocouple there, read the logger, and pour.
        </p>
      ) : (
        <div className="flex flex-col items-start gap-3">
          <Choice
            label="Readings"
            options={probes.map((each) => ({
              value: String(each.id),
              label: `${each.source}, ${each.name}, ${each.count}`,
            }))}
            value={String(channel.id)}
            onChange={(event) => setChosen(Number(event.target.value))}
          />
          <Ways
            label="Cavities without a hook were"
            value={unused}
            options={[
              { value: 'filled', label: 'filled, to keep the heat' },
              { value: 'empty', label: 'left empty' },
            ]}
            onChange={setUnused}
          />
          {input ? (
            <p>
              {input.readings.length} readings with {input.shots.length} shots among them.
            </p>
          ) : (
            <p className="quiet">
              {readings && pours ? 'No shot of this mold falls into these readings.' : 'Reading …'}
            </p>
          )}
          {input && (
            <Button onClick={() => void run(input)} disabled={state.status === 'running'}>
              Fit loss and heat capacity
            </Button>
          )}
          <div className="w-full max-w-[420px]">
            <FitProgress state={state} onStop={stop} />
          </div>
          {found && figures && (
            <>
              <p className="voice text-xl">
                It loses <Fig figure={figures.loss} title="Loss" /> ± {Math.max(0.01, 2 * found.lossSdWPerK).toFixed(2)}{' '}
                at {units.temperature(roomC + LOSS_AT_K)} and holds{' '}
                <Fig figure={figures.capacity} title="Heat capacity" /> ±{' '}
                {Math.max(1, Math.round(200 * found.capacitySdShare))} of the book&apos;s heat
              </p>
              <p className="quiet">
                The default is 0.45 W/K and 100 %: handles and hinge take part too. The model misses a reading by{' '}
                <Fig figure={missFigure(result!.rms, result!.points)} title="Miss" /> on average.
              </p>
              {found.lossPowerSd > PACE_SAYS_LITTLE && (
                <p>
                  One pace says little of what it loses when it is hotter or colder. Leave it open for ten minutes once,
                  with the probe at the back: that is worth more than ten shots.
                </p>
              )}
              <Button look="main" disabled={save.isPending} onClick={() => keep({ ...found, at: moment() })}>
                Reckon with this
              </Button>
            </>
          )}
          {mold.learned && !result && (
            <p>
              Reckoned with <Fig figure={learnedMoldFigures(mold.learned).loss} title="Loss" /> and{' '}
              <Fig figure={learnedMoldFigures(mold.learned).capacity} title="Heat capacity" /> from{' '}
              {mold.learned.readings} readings of {writeDayShort(mold.learned.at)}.{' '}
              <Button look="quiet" onClick={() => keep(null)}>
                Back to the default
              </Button>
            </p>
          )}
          <ProblemNote error={save.error} />
        </div>
      )}
    </section>
  );
}
