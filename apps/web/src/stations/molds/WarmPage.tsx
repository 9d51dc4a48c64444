import {
  BAR_KG,
  COLD_BELOW_C,
  MOLD_READY_C,
  shotRiseK,
  MOLD_TOO_HOT_C,
  settledMold,
  usualColdC,
  paceFigures,
  POT_TOP_S,
  probeFigure,
  readyFigure,
  massShareOfLead,
  SOFT_LEAD,
  WARM_SCHOOLS,
  warmPlan,
  warmTimeFigure,
  type WarmSchool,
  workingBlock,
  fullShotKg,
} from '@schmelz/core';
import { useState } from 'react';
import { useLive } from '../../api/live.ts';
import { useList, useSave, useSettings } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Trying, Ways } from '../../design/Dials.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Icon } from '../../design/Icon.tsx';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { useUnits } from '../../units/Units.tsx';
import { useMetal } from '../../shell/useMetal.tsx';
import { LearnMold } from './LearnMold.tsx';
import { useMold } from './MoldPage.tsx';
import { MoldRooms, moldInputOf } from './rooms.tsx';
import { LawChart, MoldHeatChart } from './WarmCharts.tsx';

const SAYS: Record<WarmSchool, string> = {
  'blank shots': 'without hooks, metal back in the pot; quick, costs nothing but the shots',
  'pot top': 'laid on the rim while the lead melts; no hands, needs the time',
  both: 'on the rim first, then a few blank shots',
};
/** Held in the lower part of its window: hot enough to fill, and no hotter than the pace allows. */
const HOLD_C = MOLD_READY_C + 15;

export function WarmPage() {
  const { mold, error } = useMold();
  const { data: molds } = useList('molds');
  const { data: materials } = useList('materials');
  const { alloy, choice } = useMetal(materials);
  const { data: settings } = useSettings();
  const units = useUnits();
  const live = useLive('mold');
  const save = useSave('molds');
  const [chosen, setSchool] = useState<WarmSchool | null>(null);
  const [potTopS, setPotTopS] = useState(POT_TOP_S);
  const [tried, setCycleS] = useState<number | null>(null);
  if (!mold || !molds || !materials || !settings) return <Waiting error={error} />;
  const { pourC, roomC } = settings.ways;
  // As far above its own melting point as lead is poured.
  const metalC = pourC - SOFT_LEAD.liquidusC + alloy.liquidusC;
  const own = mold.warmSchool ?? 'blank shots';
  const school = chosen ?? own;
  const { block, basis } = workingBlock(mold);
  const shotKg = fullShotKg(mold.cavities) * massShareOfLead(alloy);
  const openBelow = mold.cavities.some((cavity) => cavity.openBelow);
  const barKg = mold.barKg ?? undefined;
  const plan = warmPlan({ block, basis, shotKg, barKg, metalC, roomC, school, potTopS, openBelow, alloy });
  const open = mold.cavities.filter(({ condition }) => condition === 'good');
  const settled = settledMold({
    ...{
      block,
      metalC,
      roomC,
      alloy,
      hands: settings.ways,
      shotsSinceSmoked: mold.shotsSinceSmoked,
      ownOpenS: mold.ownOpenS,
    },
    cavities: open.length ? open : mold.cavities,
  });
  const coldC = usualColdC(mold, { metalC, roomC, hands: settings.ways }) ?? COLD_BELOW_C;
  const cycleS = tried ?? Math.round(settled.cycleS / 5) * 5;
  const pace = paceFigures({ block, shotKg, metalC, roomC, closedS: settled.openS, alloy }, HOLD_C, cycleS);
  const others = molds.map((each) => {
    const kg = fullShotKg(each.cavities);
    const { blanks } = warmPlan({
      ...workingBlock(each),
      shotKg: kg,
      barKg: each.barKg ?? undefined,
      metalC,
      roomC,
      school: 'blank shots',
      openBelow: false,
    });
    const riseK = shotRiseK(workingBlock(each).block, { shotKg: kg + (each.barKg ?? BAR_KG), metalC, roomC });
    return { name: each.name, riseK, blanks: blanks.value, here: each.id === mold.id };
  });
  return (
    <Page
      stub={
        <>
          <TheNumber eyebrow={mold.name} value={<Fig figure={plan.blanks} title="Blank shots" />}>
            {school === 'pot top' ? 'blank shots: the pot does it' : 'blank shots before the first hook'}
          </TheNumber>
          <Ways
            label="Warmed by"
            value={school}
            options={WARM_SCHOOLS.map((each) => ({ value: each, label: each, hint: SAYS[each] }))}
            onChange={setSchool}
          />
          {school !== own && (
            <Button
              className="self-start"
              onClick={() =>
                save.mutate({ ...moldInputOf(mold), warmSchool: school, id: mold.id, version: mold.version })
              }
            >
              This is how I warm it
            </Button>
          )}
          {school !== 'blank shots' && (
            <Trying
              label="On the pot for"
              value={potTopS}
              min={120}
              max={1800}
              step={60}
              written={`${Math.round(potTopS / 60)} min`}
              onChange={setPotTopS}
            />
          )}
          {choice}
          {plan.impossible && (
            <p className="flex items-start gap-2 font-medium text-stop">
              <Icon name="stop" className="mt-1 shrink-0" /> {units.said(plan.impossible)}
            </p>
          )}
          {live && (
            <p>
              Now, at the back:{' '}
              <Fig
                figure={probeFigure(live.name, live.celsius)}
                title="Probe at the back"
                className="fig text-[19px]"
              />
            </p>
          )}
          <Caution>
            By hand: at {units.temperature(50)} to {units.temperature(65)} the bare back can only just be touched. Never
            test with water: no drop of it near the melt.
          </Caution>
        </>
      }
    >
      <MoldRooms id={mold.id} />
      <section className="mb-7">
        <Heading
          aside={
            <>
              ready at <Fig figure={readyFigure(plan)} title="Ready at" /> after{' '}
              <Fig figure={warmTimeFigure(plan)} title="Warming takes" />
            </>
          }
        >
          Into the window
        </Heading>
        <MoldHeatChart
          points={plan.points}
          units={units}
          label={`Block and face of ${mold.name} while it warms, to ${units.temperature(plan.readyC)}`}
        />
        <p className="quiet">
          Heavy: the block as a whole. Thin: the cavity face, which leaps at each shot and shares its heat in seconds.
        </p>
      </section>
      <section className="mb-7">
        <Heading>One law behind 3, 5 and 10</Heading>
        <LawChart molds={others} metalC={pourC} roomC={roomC} units={units} />
        <p className="quiet">
          What counts is the heat of a shot over what the mold takes up a degree: iron and aluminium lie on one curve.
          Straw: the law; dark: this mold; grey: your others.
        </p>
      </section>
      <section className="mb-7">
        <Heading>Going on at one pace</Heading>
        <div className="grid max-w-[760px] gap-x-9 gap-y-3 md:grid-cols-[260px_minmax(0,1fr)]">
          <Trying
            label="A shot every"
            value={cycleS}
            min={20}
            max={300}
            step={5}
            written={units.write(cycleS, 's')}
            onChange={setCycleS}
          />
          <p className="voice text-lg">
            It tends to <Fig figure={pace.steady} title="Steady temperature" className="fig" />.
            {pace.steady.value > MOLD_TOO_HOT_C
              ? ' Too hot: heads come out frosted. '
              : pace.steady.value < coldC
                ? ' Too cold: heads come out short. '
                : ' That is in its window. '}
            A shot every <Fig figure={pace.cycle} title="Pace" className="fig" /> holds {units.temperature(HOLD_C)}.
          </p>
        </div>
      </section>
      <LearnMold mold={mold} roomC={roomC} metalC={pourC} />
    </Page>
  );
}
