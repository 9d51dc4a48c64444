import type { Pot } from '@schmelz/contract';
import { fullestHeatUp, missFigure, potFigure, usualCrucibleJPerK } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { useChannels, usePoursOf, useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice } from '../../design/Field.tsx';
import { Fig } from '../../design/Figure.tsx';
import { FitProgress, richest } from '../../design/Learned.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { Trying } from '../../design/Dials.tsx';
import { moment, writeDayShort, writeTime } from '../../units/dates.ts';
import type { Units } from '../../units/Units.tsx';
import { useFit } from '../../workers/useFit.ts';

/** A pot's power and loss, learned from a heat-up that a probe has seen. */
export function LearnPot({ pot, roomC, units }: { pot: Pot; roomC: number; units: Units }) {
  const { data: channels = [] } = useChannels();
  const pots = channels.filter((channel) => channel.place === 'pot' && channel.count > 8);
  const [chosen, setChosen] = useState<number | null>(null);
  const channel = pots.find((each) => each.id === chosen) ?? richest(pots);
  const [said, setKg] = useState<number | null>(null);
  const { data: readings } = useQuery({
    queryKey: ['raw', channel?.id, channel?.count],
    queryFn: () => call('GET /readings/raw', { query: { channel: channel!.id } }),
    enabled: !!channel,
  });
  const heatUp = useMemo(() => (readings ? fullestHeatUp(readings) : undefined), [readings]);
  // The pour that was going on knows what was charged.
  const { data: pours } = usePoursOf(heatUp ? { at: heatUp.at(-1)!.at } : null);
  const charge = pours?.[0]?.log.find((entry) => entry.kind === 'charge');
  const charged = charge?.kind === 'charge' ? charge.massKg : null;
  const kg = said ?? charged ?? 0.9 * pot.capacityKg;
  const { state, run, stop } = useFit('pot');
  const save = useSave('pots');
  const result = state.status === 'done' ? state.result : null;
  const of = (name: string) => result!.parameters.find((each) => each.name === name)!;
  const found = result && {
    powerW: of('powerW').value,
    powerSdW: of('powerW').sd,
    lossWPerK: of('lossWPerK').value,
    lossSdWPerK: of('lossWPerK').sd,
    crucibleJPerK: of('crucibleJPerK').value,
    crucibleSdJPerK: of('crucibleJPerK').sd,
    readings: result.points,
  };
  const keep = () => {
    const learned = { ...found!, at: moment() };
    const { id, version, name, capacityKg, powerW, lossWPerK, way = null } = pot;
    save.mutate(
      { id, version, name, capacityKg, powerW, lossWPerK, way, learned },
      { onSuccess: () => toast(`${pot.name} is known better now.`) },
    );
  };
  const forget = () => {
    const { id, version, name, capacityKg, powerW, lossWPerK, way = null } = pot;
    save.mutate({ id, version, name, capacityKg, powerW, lossWPerK, way, learned: null });
  };
  return (
    <section>
      <Heading>What this pot really does</Heading>
      {!channel ? (
        <p className="quiet">No probe has seen this pot yet. Read a logger, or import its log under Probes.</p>
      ) : (
        <div className="grid max-w-[760px] gap-x-9 gap-y-4 md:grid-cols-[260px_minmax(0,1fr)]">
          <div className="flex flex-col gap-2">
            <Choice
              label="Readings"
              options={pots.map((each) => ({ value: String(each.id), label: `${each.source}, ${each.count}` }))}
              value={String(channel.id)}
              onChange={(event) => setChosen(Number(event.target.value))}
            />
            <Trying
              label="There was in it"
              value={kg}
              min={0.2}
              max={pot.capacityKg}
              step={0.05}
              written={units.bulk(kg)}
              onChange={setKg}
            />
          </div>
          <div className="flex flex-col items-start gap-3">
            {heatUp ? (
              <p>
                A heat-up from {units.temperature(heatUp[0]!.celsius)} to {units.temperature(heatUp.at(-1)!.celsius)},
                on {writeDayShort(heatUp[0]!.at)} at {writeTime(heatUp[0]!.at)}, {heatUp.length} readings.
                {charged !== null && ` The pour of that time charged ${units.bulk(charged)}.`}
              </p>
            ) : (
              <p className="quiet">{readings ? 'No heat-up is in these readings.' : 'Reading …'}</p>
            )}
            {heatUp && (
              <Button
                onClick={() => {
                  const readingsS = heatUp.map(({ at, celsius }) => ({
                    atS: (at - heatUp[0]!.at) / 1000,
                    temperatureC: celsius,
                  }));
                  void run({
                    readings: readingsS,
                    leadKg: kg,
                    roomC,
                    powerW: pot.powerW,
                    lossWPerK: pot.lossWPerK,
                    crucibleJPerK: usualCrucibleJPerK(pot.capacityKg),
                    heating: true,
                  });
                }}
                disabled={state.status === 'running'}
              >
                Fit power, loss and crucible
              </Button>
            )}
            <div className="w-full">
              <FitProgress state={state} onStop={stop} />
            </div>
            {result && found && (
              <>
                <p className="voice text-xl">
                  <Fig figure={potFigure('power', pot, found)} title="Power" /> ±{' '}
                  {Math.max(1, Math.round(2 * found.powerSdW))}, losing{' '}
                  <Fig figure={potFigure('loss', pot, found)} title="Loss" /> ±{' '}
                  {Math.max(0.01, 2 * found.lossSdWPerK).toFixed(2)}; crucible and element hold{' '}
                  <Fig figure={potFigure('crucible', pot, found)} title="Crucible" />
                </p>
                <p className="quiet">
                  Given were {pot.powerW} W and {pot.lossWPerK} W/K. The model misses a reading by{' '}
                  <Fig figure={missFigure(result.rms, result.points)} title="Miss" /> on average.
                </p>
                <Button look="main" onClick={keep} disabled={save.isPending}>
                  Reckon with this
                </Button>
              </>
            )}
            {pot.learned && !result && (
              <p>
                Reckoned with: <Fig figure={potFigure('power', pot, pot.learned)} title="Power" /> and{' '}
                <Fig figure={potFigure('loss', pot, pot.learned)} title="Loss" /> from {pot.learned.readings} readings
                of {writeDayShort(pot.learned.at)}.{' '}
                {pot.learned.crucibleJPerK === undefined &&
                  'That was before the crucible was reckoned with: fit it again, and a low pot is told right too. '}
                <Button look="quiet" onClick={forget}>
                  Back to the plate
                </Button>
              </p>
            )}
            <ProblemNote error={save.error} />
          </div>
        </div>
      )}
    </section>
  );
}
