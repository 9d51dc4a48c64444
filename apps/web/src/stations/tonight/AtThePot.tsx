import {
  heatTonight,
  needsTonight,
  pinsTonight,
  wantedFirst,
  writeSpan,
  type TonightAsked,
  type TonightPlan,
} from '@schmelz/core';
import { Icon } from '../../design/Icon.tsx';
import { useUnits } from '../../units/Units.tsx';
import { when } from './when.ts';
import { type Wishes } from './wishes.ts';

const MS = 1000;
/** A minute at the pot is no loss. */
const NO_LOSS_S = 60;

/** The pot's part: molds in their order, shots and what goes into which cavity. */
export function AtThePot({ plan }: { plan: TonightPlan }) {
  const units = useUnits();
  const { casts, pours } = plan;
  return (
    <>
      <ul>
        {pours.map(({ id, molds, meltS, pins, round, rounds }) => (
          <li key={id} className="border-b border-rule py-2">
            {molds.map(({ moldId, name, shots, blanks, uses, castKg }) => (
              <div key={moldId} className="grid grid-cols-[minmax(0,1fr)_auto] gap-4">
                <span className="min-w-0">
                  <b className="font-medium">{name}</b>
                  <span className="quiet">
                    {' '}
                    {blanks} blank shots first, {units.bulk(castKg)} through it
                  </span>
                  {uses.map((use) => (
                    <span key={use.blankId} className="block text-sm text-ink-2">
                      cavities {use.positions.join(', ')}: {use.casts} × {use.name}
                    </span>
                  ))}
                </span>
                <span className="text-right">
                  <b className="fig text-[34px] leading-none">{shots}</b>
                  <span className="quiet block">{shots === 1 ? 'shot' : 'shots'}</span>
                </span>
              </div>
            ))}
            <span className="quiet">
              {rounds > 1 && `round ${round + 1} of ${rounds}, `}melts in {writeSpan(meltS)}
              {pins.length > 0 &&
                `; when the pins of ${pins.map((m) => units.write(m, 'm')).join(' and ')} are back from the heads before`}
            </span>
          </li>
        ))}
      </ul>
      {pours.length === 0 && <p className="quiet">Nothing is poured tonight.</p>}
      <ul className="mt-2 flex flex-col gap-1 text-sm text-ink-2">
        {casts.says.map((line) => (
          <li key={line}>{line}</li>
        ))}
        {pours.length > 0 && (
          <li className="quiet">
            {casts.optimal || casts.seconds - casts.boundS < NO_LOSS_S
              ? 'No choice of molds and cavities takes less time at the pot.'
              : `At most ${writeSpan(casts.seconds - casts.boundS)} more at the pot than the best there can be.`}
          </li>
        )}
      </ul>
    </>
  );
}

/** What it takes off the shelf, what is missing first. */
export function Needs({ asked, plan, wishes }: { asked: TonightAsked; plan: TonightPlan; wishes: Wishes }) {
  const units = useUnits();
  const needs = needsTonight(asked, wishes.wishes, plan.casts).sort((a, b) => b.missing - a.missing);
  const first = wantedFirst(asked, plan);
  const { potKWh, ovenKWh, gunKWh, gasKg, costMinor, meltKg } = heatTonight(asked, plan);
  const drawnKWh = potKWh + ovenKWh + gunKWh;
  const byWhen = (materialId: string) => {
    const atS = first.get(materialId);
    return atS === undefined ? '' : `, by ${when(plan.startMs + MS * atS, plan.startMs)}`;
  };
  return (
    <ul>
      {needs.map(({ materialId, name, kind, need, have, missing }) => (
        <li key={materialId} className="flex items-baseline justify-between gap-3 border-b border-rule py-1.5">
          <span className="min-w-0 truncate">{name}</span>
          <span className="text-right whitespace-nowrap">
            <b className="fig text-[19px]">{units.part(kind, kind === 'hook' ? Math.ceil(need) : need)}</b>
            {missing > 0 ? (
              <span className="ml-3 font-semibold text-stop">
                <Icon name="short" size={13} /> {units.part(kind, kind === 'hook' ? Math.ceil(missing) : missing)}{' '}
                missing{byWhen(materialId)}
              </span>
            ) : (
              <span className="quiet ml-3">{units.part(kind, have)} here</span>
            )}
          </span>
        </li>
      ))}
      {pinsTonight(asked, plan).map(({ diameterM, need, free, rounds }) => (
        <li key={diameterM} className="flex items-baseline justify-between gap-3 border-b border-rule py-1.5">
          <span className="min-w-0 truncate">Base-hole pins, {units.write(diameterM, 'm')}</span>
          <span className="text-right whitespace-nowrap">
            <b className="fig text-[19px]">{need}</b>
            {need > free ? (
              <span className="ml-3 font-semibold text-watch">
                {free} free{rounds > 1 ? `: in ${rounds} rounds` : ''}
              </span>
            ) : (
              <span className="quiet ml-3">{free} free</span>
            )}
          </span>
        </li>
      ))}
      {needs.length === 0 && <li className="quiet">Nothing more than what is on the bench already.</li>}
      {drawnKWh > 0 && (
        <li className="flex items-baseline justify-between gap-3 py-1.5">
          <span className="min-w-0 truncate">{gasKg > 0 ? 'Electricity, and gas' : 'Electricity'}</span>
          <span className="text-right whitespace-nowrap">
            <b className="fig text-[19px]">{units.write(drawnKWh, 'kWh')}</b>
            {gasKg > 0 && <b className="fig ml-3 text-[19px]">{units.head(gasKg)}</b>}
            <span className="quiet ml-3">{units.money(costMinor)}</span>
          </span>
        </li>
      )}
      {meltKg > 0 && <li className="quiet">{units.bulk(meltKg)} of metal in the pot at the most.</li>}
    </ul>
  );
}
