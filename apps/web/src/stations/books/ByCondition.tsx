import type { CavityPour, Mold } from '@schmelz/contract';
import { byValue, celsiusToFahrenheit, roundEdges, type CastsAt } from '@schmelz/core';
import { useState } from 'react';
import { useFillRecords } from '../../api/fill-records.ts';
import { Choice } from '../../design/Field.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { useUnits } from '../../units/Units.tsx';
import { ShareColumn } from './ShareColumn.tsx';

/** Shots since a mold was smoked: soot wears off quickly at first. */
const SOOT_EDGES = [0, 10, 20, 40, 80, 160];
/** So many stretches of heat stand beside each other. */
const MOST = 6;

/** What a mold was like when it was shot, each as its maker reads it. */
function conditionsOf(records: readonly CavityPour[], inUnit: (celsius: number) => number, unit: string) {
  const at = (value: (record: CavityPour) => number): CastsAt[] =>
    records.map((record) => ({ value: value(record), casts: record.casts, bad: record.shorts }));
  const soot = at(({ shotsSinceSmoked }) => shotsSinceSmoked);
  const mold = at(({ moldC }) => inUnit(moldC));
  const metal = at(({ pourC }) => inUnit(pourC));
  const even = (own: readonly CastsAt[]) =>
    roundEdges(
      own.map(({ value }) => value),
      MOST,
    );
  return [
    { name: 'Shots since it was smoked', stretches: byValue(soot, SOOT_EDGES), open: SOOT_EDGES.at(-1)! },
    { name: `Heat of the mold before the shot, ${unit}`, stretches: byValue(mold, even(mold)), open: Infinity },
    { name: `Heat of the metal at the gate, ${unit}`, stretches: byValue(metal, even(metal)), open: Infinity },
  ];
}

/** How many of a mold's casts filled, by its soot and its heat: its last pours, by the model that the coach goes by. */
export function ByCondition({ molds }: { molds: readonly Mold[] }) {
  const units = useUnits();
  const [chosen, setChosen] = useState('');
  const mold = molds.find(({ id }) => id === chosen) ?? molds[0];
  const { data, error } = useFillRecords(mold?.id);
  if (!mold) return null;
  const fahrenheit = units.temperatureUnit === 'F';
  const inUnit = (celsius: number) => (fahrenheit ? celsiusToFahrenheit(celsius) : celsius);
  const all = data?.length ? conditionsOf(data, inUnit, fahrenheit ? '°F' : '°C') : [];
  // What was always alike tells nothing apart.
  const conditions = all.filter(({ stretches }) => stretches.length > 1);
  const alike = all.filter(({ stretches }) => stretches.length === 1);
  return (
    <section>
      <Heading aside="how many of its last pours’ casts filled; below, how many did not">Soot and heat</Heading>
      <div className="w-64">
        <Choice
          label="Mold"
          options={molds.map(({ id, name }) => ({ value: id, label: name }))}
          value={mold.id}
          onChange={(event) => setChosen(event.target.value)}
        />
      </div>
      {!data && <Waiting error={error} />}
      {data?.length === 0 && <p className="quiet mt-3">None of its pours is on record with its heat.</p>}
      {data && data.length > 0 && (
        <div className="mt-4 flex flex-wrap gap-x-9 gap-y-5">
          {conditions.map(({ name, stretches, open }) => (
            <div key={name}>
              <p className="font-medium">{name}</p>
              <ul className="mt-1 flex flex-wrap" aria-label={name}>
                {stretches.map(({ from, to, casts, bad, goodShare, low, high }) => (
                  <ShareColumn key={from} name={to === open ? `${from}+` : from} share={goodShare} {...{ low, high }}>
                    <p className="quiet truncate" title={`${bad} of ${casts} casts were short`}>
                      {bad} of {casts}
                    </p>
                  </ShareColumn>
                ))}
              </ul>
            </div>
          ))}
        </div>
      )}
      {alike.map(({ name, stretches: [only] }) => (
        <p key={name} className="quiet mt-3">
          {name}: always from {only!.from} to {only!.to}, so that it tells nothing.
        </p>
      ))}
    </section>
  );
}
