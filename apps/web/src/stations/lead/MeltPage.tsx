import {
  atTheGateFigure,
  metalAtMoldC,
  potWay,
  fumeFigure,
  meltPlan,
  potFigure,
  skinAt,
  writeClock,
  type DialSchool,
  type MeltPlan,
  knownPot,
} from '@schmelz/core';
import { useState } from 'react';
import { useLive } from '../../api/live.ts';
import { useList, useSettings } from '../../api/queries.ts';
import { Trying, Ways } from '../../design/Dials.tsx';
import { Choice } from '../../design/Field.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Caution, ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { SkinScale } from '../../drawing/Skin.tsx';
import { useUnits } from '../../units/Units.tsx';
import { FeedAdviser } from './FeedAdviser.tsx';
import { LearnPot } from './LearnPot.tsx';
import { MeltChart, type Moment } from './MeltChart.tsx';
import { LeadRooms } from './rooms.tsx';
import { useMetal } from '../../shell/useMetal.tsx';
import { useDial } from '../../shell/useDial.ts';

const SCHOOLS = [
  { value: 'full then down', label: 'Full, then down', hint: 'quicker; forget it and the metal overheats' },
  {
    value: 'left at the mark',
    label: 'Left at the mark',
    hint: 'nothing to forget; as quick while it heats at full power',
  },
] as const satisfies readonly { value: DialSchool; label: string; hint: string }[];

export function MeltPage() {
  const { data: pots, error } = useList('pots');
  const { data: materials } = useList('materials');
  const { alloy, choice } = useMetal(materials);
  const { data: settings } = useSettings();
  const units = useUnits();
  const live = useLive('pot');
  const [potId, setPotId] = useState<string | null>(null);
  const [share, setShare] = useState(0.9);
  const [fromC, setFromC] = useState<number | null>(null);
  const [school, setSchool] = useState<DialSchool>('full then down');
  const pot = pots?.find((each) => each.id === potId) ?? pots?.[0];
  const pourC = settings?.ways.pourC ?? 371;
  const { table } = useDial(pot?.id);
  const dialMark = table?.dialFor(pourC) ?? null;
  if (!pots || !materials || !settings) return <Waiting error={error} />;
  if (!pot) return <Waiting error={new Error('No pot is on record: add one in Setup.')} />;
  const leadKg = Math.max(0.05, share * pot.capacityKg);
  const startC = fromC ?? settings.ways.roomC;
  const heat = knownPot(pot);
  let plan: MeltPlan | null = null;
  let problem: unknown = null;
  try {
    plan = meltPlan({ leadKg, fromC: startC, roomC: settings.ways.roomC, pourC, school, alloy, ...heat });
  } catch (refusal) {
    problem = refusal;
  }
  const moments: Moment[] = plan
    ? [
        { atS: plan.skim.value, says: 'skim' },
        ...(plan.turnDown ? [{ atS: plan.turnDown.value, says: 'turn down' }] : []),
      ]
    : [];
  return (
    <Page
      stub={
        <>
          {plan && (
            <TheNumber
              value={
                <Fig figure={plan.ready} title="Ready in">
                  {String(Math.max(0, Math.round(plan.ready.value / 60)))}
                </Fig>
              }
              unit="min"
            >
              from {units.temperature(startC)} to {units.temperature(pourC)}
            </TheNumber>
          )}
          {potWay(pot.way).usualK > 0 && (
            <p>
              By {pot.way} it reaches the mold at{' '}
              <Fig figure={atTheGateFigure(pourC, pot.way)} title="At the gate">
                {units.temperature(metalAtMoldC(pourC, pot.way))}
              </Fig>
              .
            </p>
          )}
          <ProblemNote error={problem} />
          {pots.length > 1 && (
            <Choice
              label="Pot"
              options={pots.map(({ id, name }) => ({ value: id, label: name }))}
              value={pot.id}
              onChange={(event) => setPotId(event.target.value)}
            />
          )}
          {choice}
          <Trying
            label="In the pot"
            value={share}
            min={0.05}
            max={1}
            step={0.01}
            written={units.bulk(leadKg)}
            onChange={setShare}
          />
          <Trying
            label="It is at"
            value={startC}
            min={-10}
            max={360}
            step={5}
            written={units.temperature(startC)}
            onChange={setFromC}
          />
          {live && (
            <button
              type="button"
              className="self-start underline decoration-rule-2 underline-offset-4"
              onClick={() => setFromC(Math.min(360, Math.round(live.celsius)))}
            >
              From the probe: {units.temperature(live.celsius)}
            </button>
          )}
          <Ways label="The dial" value={school} options={SCHOOLS} onChange={setSchool} />
          <Caution>{potWay(pot.way).caution}</Caution>
          <Caution>
            Never leave a pot that is on. Never run it dry: the heater burns out and the last metal overheats.
          </Caution>
        </>
      }
    >
      <LeadRooms />
      {plan && (
        <section className="mb-7">
          <Heading aside={pot.name}>From here to ready</Heading>
          <dl className="mb-3 flex flex-wrap gap-x-9 gap-y-3">
            <Moments
              name="skim at"
              fig={
                <Fig figure={plan.skim} title="Skim">
                  {writeClock(plan.skim.value)}
                </Fig>
              }
            />
            {plan.turnDown && (
              <Moments
                name={dialMark ? `turn down to ${dialMark.toFixed(1)} at` : 'turn down at'}
                fig={
                  <Fig figure={plan.turnDown} title="Turn down">
                    {writeClock(plan.turnDown.value)}
                  </Fig>
                }
              />
            )}
            <Moments
              name="ready at"
              fig={
                <Fig figure={plan.ready} title="Ready">
                  {writeClock(plan.ready.value)}
                </Fig>
              }
            />
            <Moments name="electricity" fig={<Fig figure={plan.energy} title="Electricity" />} />
            <Moments name="power" fig={<Fig figure={potFigure('power', pot, pot.learned ?? null)} title="Power" />} />
            <Moments name="loss" fig={<Fig figure={potFigure('loss', pot, pot.learned ?? null)} title="Loss" />} />
            <Moments
              name="crucible"
              fig={<Fig figure={potFigure('crucible', pot, pot.learned ?? null)} title="Crucible and element hold" />}
            />
          </dl>
          <MeltChart points={plan.points} moments={moments} pourC={pourC} units={units} />
        </section>
      )}
      <section className="mb-7">
        <Heading>Feeding it</Heading>
        <FeedAdviser
          pot={pot}
          heat={heat}
          alloy={alloy}
          pourC={pourC}
          roomC={settings.ways.roomC}
          heelKg={settings.ways.heelKg}
          live={live?.celsius ?? null}
        />
      </section>
      <section className="mb-7">
        <Heading
          aside={
            <>
              at most, over the melt at {units.temperature(pourC)}:{' '}
              <Fig figure={fumeFigure(pourC)} title="Vapour ceiling" />
            </>
          }
        >
          Skin and fume
        </Heading>
        <SkinScale now={skinAt(pourC)?.colour ?? null} />
        <p className="mt-3 max-w-[72ch] text-sm text-ink-2">
          At casting heat lead gives off next to no vapour; dust, dross and smoke carry it. From about{' '}
          {units.temperature(470)} the vapour itself passes the action level of 30 µg/m³:{' '}
          <Fig figure={fumeFigure(480)} title="Vapour ceiling at 480 C" /> at {units.temperature(480)}. This is a bound
          from physics, no measurement, and it clears nobody: ventilate, and ask somebody qualified where it matters.
        </p>
      </section>
      <LearnPot pot={pot} roomC={settings.ways.roomC} units={units} />
    </Page>
  );
}

const Moments = ({ name, fig }: { name: string; fig: React.ReactNode }) => (
  <div>
    <dt className="quiet">{name}</dt>
    <dd className="fig mt-1 text-[25px]">{fig}</dd>
  </div>
);
