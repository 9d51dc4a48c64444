import type { Cavity, Mold } from '@schmelz/contract';
import {
  alloyFigures,
  alloyOf,
  antimonyFigure,
  antimonyFromHardness,
  AS_CUT,
  castFigure,
  headsFromMetal,
  massShareOfLead,
  shareFigure,
  yieldEstimate,
  type Alloy,
  type CavityVariant,
  type MetalId,
} from '@schmelz/core';
import { useState } from 'react';
import { useList, useSettings } from '../../api/queries.ts';
import { Trying, Ways } from '../../design/Dials.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Head } from '../../drawing/Head.tsx';
import type { HookSize, StyleId } from '@schmelz/core';
import { useUnits } from '../../units/Units.tsx';
import { LeadRooms } from './rooms.tsx';

const METALS = [
  { value: 'soft-lead', label: 'Soft lead', hint: 'fills far better; wanted for nearly everything' },
  { value: 'hard-lead', label: 'Hard lead', hint: 'for a coil or screw keeper that must not work loose' },
  {
    value: 'bismuth-tin',
    label: 'Bismuth-tin',
    hint: 'where lead tackle is restricted; melts far lower, casts a quarter lighter',
  },
] as const satisfies readonly { value: MetalId; label: string; hint: string }[];
const KNOWN_BY = [
  { value: 'antimony', label: 'Antimony' },
  { value: 'hardness', label: 'Hardness' },
] as const;

/** What is asked of each cavity: this metal, this much of it, by the ways of the house. */
interface Asked {
  alloy: Alloy;
  metalKg: number;
  /** Left in the pot at the end. */
  heelKg: number;
  drossShare: number;
}

function CavityRow({ cavity, atOnce, asked }: { cavity: Cavity; atOnce: number; asked: Asked }) {
  const { alloy, metalKg, heelKg, drossShare } = asked;
  const units = useUnits();
  const shape = {
    position: cavity.position,
    style: cavity.style,
    nominalMassKg: cavity.nominalMassKg,
    pin: cavity.pin ?? null,
  };
  const variants: CavityVariant[] = [AS_CUT, ...((cavity.variants ?? []) as CavityVariant[])];
  return variants.map((variant, index) => (
    <tr key={variant.name}>
      <td>
        {index === 0 && (
          <Head
            style={cavity.style as StyleId}
            massKg={cavity.nominalMassKg}
            hookSize={cavity.hookSize as HookSize}
            eyeAngleDeg={cavity.eyeAngleDeg}
            state="blank"
            scale={1.5}
          />
        )}
      </td>
      <td>
        {index === 0 ? <b className="fig text-[19px]">{cavity.position}</b> : null} {variant.name.toLowerCase()}
      </td>
      <td className="num">{units.head(cavity.nominalMassKg)}</td>
      <td className="num">
        <Fig figure={castFigure(shape, variant, alloy)} title={`Cavity ${cavity.position}`} className="font-semibold" />
      </td>
      <td className="num">
        {index === 0 && (
          <Fig
            figure={headsFromMetal({
              ...{ metalKg, style: cavity.style, nominalMassKg: cavity.nominalMassKg, cavities: atOnce, alloy },
              ...{ heelKg, drossShare },
              yieldShare: yieldEstimate(cavity.good, cavity.casts).mean,
            })}
            title={`Heads of cavity ${cavity.position}`}
          />
        )}
      </td>
    </tr>
  ));
}

const MoldWeights = ({ mold, asked }: { mold: Mold; asked: Asked }) => (
  <section className="mb-7 max-w-[620px]">
    <Heading>{mold.name}</Heading>
    <table className="sheet-table table-fixed">
      <thead>
        <tr>
          <th />
          <th>Cavity</th>
          <th className="num">Stamped</th>
          <th className="num">Casts</th>
          <th className="num">Heads</th>
        </tr>
      </thead>
      <tbody>
        {mold.cavities.map((cavity) => (
          <CavityRow
            key={cavity.id}
            cavity={cavity}
            atOnce={Math.max(1, mold.cavities.filter((each) => each.condition === 'good').length)}
            asked={asked}
          />
        ))}
      </tbody>
    </table>
  </section>
);

/** What each cavity will weigh in another metal, against its stamp. */
export function CastPage() {
  const { data: molds, error } = useList('molds');
  const [metal, setMetal] = useState<(typeof METALS)[number]['value']>('hard-lead');
  const [knownBy, setKnownBy] = useState<(typeof KNOWN_BY)[number]['value']>('antimony');
  const [antimony, setAntimony] = useState(3);
  const [brinell, setBrinell] = useState(10.5);
  const { data: settings } = useSettings();
  const units = useUnits();
  const [metalKg, setMetalKg] = useState(2.5);
  const [leftKg, setLeftKg] = useState<number | null>(null);
  if (!molds || !settings) return <Waiting error={error} />;
  // The usual heel, until the maker says which is meant; there is no more left than there was.
  const heelKg = Math.min(metalKg, leftKg ?? settings.ways.heelKg);
  const estimate = antimonyFromHardness(brinell);
  const percent =
    metal !== 'hard-lead' ? 0 : knownBy === 'antimony' ? antimony : Math.round(estimate.percent * 10) / 10;
  const alloy = alloyOf(metal, { antimonyPercent: percent, tinPercent: metal === 'hard-lead' ? 0.5 : 0 });
  const facts = alloyFigures(alloy);
  return (
    <Page
      stub={
        <>
          <TheNumber
            value={
              <Fig figure={shareFigure(alloy)} title="Share of the stamp">
                {(100 * massShareOfLead(alloy)).toFixed(1)}
              </Fig>
            }
            unit="%"
          >
            of its stamp is what a cavity casts in this metal
          </TheNumber>
          <Ways label="Metal" value={metal} options={METALS} onChange={setMetal} />
          {metal === 'hard-lead' && (
            <>
              <Ways label="Known by" value={knownBy} options={KNOWN_BY} onChange={setKnownBy} />
              {knownBy === 'antimony' ? (
                <Trying
                  label="Antimony"
                  value={antimony}
                  min={0}
                  max={11}
                  step={0.1}
                  written={`${antimony.toFixed(1)} %`}
                  onChange={setAntimony}
                />
              ) : (
                <>
                  <Trying
                    label="Hardness"
                    value={brinell}
                    min={4}
                    max={22}
                    step={0.1}
                    written={`${brinell.toFixed(1)} BHN`}
                    onChange={setBrinell}
                  />
                  <p className="quiet">
                    An estimate: <Fig figure={antimonyFigure(brinell)} title="Antimony" /> antimony,{' '}
                    {estimate.low.toFixed(1)} to {estimate.high.toFixed(1)} %.
                  </p>
                </>
              )}
            </>
          )}
          <Trying
            label="How many heads from"
            value={metalKg}
            min={0.5}
            max={20}
            step={0.1}
            written={units.bulk(metalKg)}
            onChange={setMetalKg}
          />
          <Trying
            label="of it left in the pot"
            value={heelKg}
            min={0}
            max={2}
            step={0.05}
            written={units.bulk(heelKg)}
            onChange={setLeftKg}
          />
          <dl className="grid grid-cols-[1fr_auto] gap-x-3 gap-y-1 text-sm">
            <dt>Begins to freeze at</dt>
            <dd className="text-right font-semibold">
              <Fig figure={facts.liquidus} title="Begins to freeze at" />
            </dd>
            <dt>Is solid at</dt>
            <dd className="text-right font-semibold">
              <Fig figure={facts.solidus} title="Is solid at" />
            </dd>
            <dt>Pour at about</dt>
            <dd className="text-right font-semibold">
              <Fig figure={facts.pour} title="Pour at about" />
            </dd>
            <dt>Density</dt>
            <dd className="text-right font-semibold">
              <Fig figure={facts.density} title="Density" />
            </dd>
          </dl>
          {alloy.pasty > 0.5 && (
            <p className="text-sm text-ink-2">
              It freezes over a long range and turns pasty: fine barbs fill worse than in soft lead.
            </p>
          )}
        </>
      }
    >
      <LeadRooms />
      {molds.map((mold) => (
        <MoldWeights
          key={mold.id}
          mold={mold}
          asked={{ alloy, metalKg, heelKg, drossShare: settings.ways.drossShare }}
        />
      ))}
      {molds.length === 0 && <p className="quiet">No mold yet.</p>}
    </Page>
  );
}
