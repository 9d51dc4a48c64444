import type { Settings, SettingsView } from '@schmelz/contract';
import {
  schoolsFollowed,
  paintSecondsFigure,
  schoolCostFigure,
  schoolsAt,
  spoiledShare,
  schoolStepsAt,
  trimSecondsFigure,
  workBeforeS,
  type Schools,
  type HouseWays,
  type KnownWays,
  type School,
  type Step,
  type StepId,
} from '@schmelz/core';
import { RadioGroup } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import { call } from '../api/client.ts';
import { settingsInput, useSave, useSettings, useWrite } from '../api/queries.ts';
import { Button } from '../design/Button.tsx';
import { Choice } from '../design/Field.tsx';
import { Fig } from '../design/Figure.tsx';
import { Icon } from '../design/Icon.tsx';
import { Caution, ProblemNote, Waiting } from '../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../design/Page.tsx';
import { useCatalogue, type Catalogue } from '../shell/catalogue.ts';
import { useUnits } from '../units/Units.tsx';
import { useKnownWays } from '../shell/known-ways.ts';
import { plannedProduct } from '../shell/planned.ts';

const HOUSE = '';

function SchoolRow({
  school,
  chosen,
  usual,
  ways,
  beforeS,
  onChoose,
}: {
  school: School;
  chosen: boolean;
  usual: boolean;
  ways: HouseWays;
  beforeS: number;
  onChoose: () => void;
}) {
  const units = useUnits();
  const cost = schoolCostFigure(school, ways.labourMinorPerHour, beforeS);
  return (
    <div className="border-b border-rule">
      <div
        className={`grid grid-cols-[28px_minmax(0,1fr)_64px_92px_84px] items-center gap-3 py-2 ${chosen ? 'bg-sheet' : ''}`}
      >
        <RadioGroup.Item
          value={school.id}
          aria-label={school.name}
          className="grid size-7 cursor-pointer place-items-center border-2 border-rule-2 hover:border-ink aria-checked:border-good aria-checked:bg-good aria-checked:text-sheet"
        >
          {chosen && <Icon name="good" size={15} />}
        </RadioGroup.Item>
        <span className="min-w-0 cursor-pointer" onClick={onChoose}>
          <span className={`block leading-tight ${chosen ? 'font-semibold' : 'font-medium'}`}>
            {school.name}
            {usual && !chosen && <span className="quiet"> · the usual</span>}
          </span>
          <span className="quiet block leading-tight">{school.suits}</span>
        </span>
        <span className="text-right">
          <b className="fig text-[19px]">{school.seconds}</b> <span className="quiet">s</span>
        </span>
        <span className="text-right leading-tight">
          {school.spoils ? (
            <>
              <b className="fig text-[19px]">{Math.round(1000 * school.spoils.share) / 10}</b>
              <span className="quiet"> in 100</span>
              <span className="quiet block">{school.spoils.cause}</span>
            </>
          ) : (
            <span className="quiet">none</span>
          )}
        </span>
        <span className="text-right">
          <Fig figure={cost} title={`${school.name} costs`} className="fig text-[17px]">
            {units.write(cost.value, cost.unit)}
          </Fig>
        </span>
      </div>
      {chosen && school.caution && (
        <div className="bg-sheet pb-2 pl-10">
          <Caution>{school.caution}</Caution>
        </div>
      )}
    </div>
  );
}

/** The steps of a station with their schools: what the house does, and what one product does otherwise. */
export function WaysPage({ station, rooms }: { station: Step['station']; rooms: ReactNode }) {
  const { data: settings, error } = useSettings();
  const catalogue = useCatalogue();
  const known = useKnownWays(settings?.ways, catalogue);
  if (!settings || !catalogue || !known) return <Waiting error={error} />;
  return <Choosing station={station} rooms={rooms} settings={settings} known={known} catalogue={catalogue} />;
}

function Choosing({
  station,
  rooms,
  settings,
  known,
  catalogue,
}: {
  station: Step['station'];
  rooms: ReactNode;
  settings: SettingsView;
  /** The ways with what the maker's records taught. */
  known: KnownWays;
  catalogue: Catalogue;
}) {
  const [productId, setProductId] = useState(HOUSE);
  const saveProduct = useSave('products');
  const saveSettings = useWrite((input: Settings & { version: number }) => call('PUT /settings', { body: input }));
  const { ways } = settings;
  const product = catalogue.product(productId);
  // The house is reckoned on its first product, so that its heads have a size.
  const reckoned =
    product ?? catalogue.products.find((each) => station === 'trim' || each.recipeId) ?? catalogue.products[0];
  const followed = schoolsFollowed(ways.schools, product?.ways);
  const house = schoolsFollowed(ways.schools);
  const choose = (step: StepId, school: string) => {
    if (product) {
      const { id, version, ...input } = product;
      const own: Partial<Record<StepId, string>> = { ...product.ways, [step]: school };
      if (house[step] === school) delete own[step];
      saveProduct.mutate({ ...input, id, version, ways: Object.keys(own).length ? (own as Partial<Schools>) : null });
    } else {
      saveSettings.mutate({
        ...settingsInput(settings),
        ways: { ...ways, schools: { ...ways.schools, [step]: school } as Partial<Schools> },
      });
    }
  };
  const planned = reckoned && plannedProduct({ ...reckoned, ways: product ? product.ways : null }, catalogue);
  const figure = planned ? (station === 'trim' ? trimSecondsFigure : paintSecondsFigure)(planned, known) : null;
  const needs = [...new Set(schoolsAt(station, followed).flatMap(({ school }) => school.needs))];
  return (
    <Page
      stub={
        <>
          <TheNumber
            value={
              figure ? (
                <Fig figure={figure} title="Seconds a head">
                  {String(Math.round(figure.value))}
                </Fig>
              ) : (
                '–'
              )
            }
            unit="s"
          >
            a head{reckoned ? `, for ${reckoned.name}` : ''}
          </TheNumber>
          <Choice
            label="The ways of"
            options={[
              { value: HOUSE, label: 'the house' },
              ...catalogue.products.map(({ id, name }) => ({ value: id, label: name })),
            ]}
            value={productId}
            onChange={(event) => setProductId(event.target.value)}
          />
          <p className="text-ink-2">
            They spoil about{' '}
            <b className="fig text-[19px]">{Math.round(1000 * spoiledShare(station, followed)) / 10}</b> heads in 100.
          </p>
          {needs.length > 0 && (
            <div>
              <p className="text-sm font-medium text-ink-2">To lay ready</p>
              <ul className="mt-1">
                {needs.map((each) => (
                  <li key={each} className="border-b border-rule py-1">
                    {each}
                  </li>
                ))}
              </ul>
            </div>
          )}
          {product?.ways && (
            <Button
              className="self-start"
              onClick={() => {
                const { id, version, ...input } = product;
                saveProduct.mutate({ ...input, id, version, ways: null });
              }}
            >
              As the house does
            </Button>
          )}
          <ProblemNote error={saveProduct.error ?? saveSettings.error} />
        </>
      }
    >
      {rooms}
      {reckoned &&
        schoolStepsAt(station).map((step) => (
          <section key={step.id} className="mb-6 max-w-[860px]">
            <Heading aside={product && product.ways?.[step.id] ? 'its own way' : undefined}>{step.name}</Heading>
            <RadioGroup.Root
              aria-label={step.name}
              value={followed[step.id]}
              onValueChange={(school) => choose(step.id, school)}
              className="border-t border-rule-2"
            >
              {step.schools.map((school) => (
                <SchoolRow
                  key={school.id}
                  school={school}
                  chosen={followed[step.id] === school.id}
                  usual={step.schools[0]!.id === school.id}
                  ways={ways}
                  beforeS={workBeforeS(station, known, reckoned)}
                  onChoose={() => choose(step.id, school.id)}
                />
              ))}
            </RadioGroup.Root>
          </section>
        ))}
      <p className="quiet max-w-[70ch]">
        None of these is wrong. Seconds and spoiled heads are common practice, until the counts of your own benches say
        otherwise; what a spoiled head costs is its work, since lead and hook come back.
      </p>
    </Page>
  );
}
