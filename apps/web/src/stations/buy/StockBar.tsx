import type { Material } from '@schmelz/contract';
import { partKind, type PartToBuy } from '@schmelz/core';
import { useId } from 'react';
import { Icon } from '../../design/Icon.tsx';
import { Swatch } from '../../shell/Swatch.tsx';
import { useUnits } from '../../units/Units.tsx';
import { amountIn } from './amount.ts';

const percent = (share: number) => `${Math.min(100, Math.max(0, 100 * share))}%`;

/** What is here as a bar of it: hatched what the open work takes, a notch where it is ordered again. */
export function StockBar({
  row,
  material,
  typed,
  onType,
}: {
  row: PartToBuy;
  material: Material;
  /** What the maker would rather buy, as typed; left out: what was worked out. */
  typed: string | undefined;
  onType: (text: string) => void;
}) {
  const units = useUnits();
  const id = useId();
  const { here, need, free, point, buy, why } = row;
  const { unit } = partKind(material.kind);
  const whole = (quantity: number) => (unit === 'pieces' ? Math.ceil(quantity) : Math.ceil(quantity * 100) / 100);
  const say = (quantity: number) => units.part(material.kind, quantity);
  const most = Math.max(here, need, (point?.at ?? 0) * 1.25, 1e-9) * 1.04;
  const left = Math.max(0, free);
  const wrong = typed !== undefined && amountIn(typed) === null;
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_6.5rem] items-center gap-x-5 gap-y-1 border-b border-rule py-3">
      <div className="min-w-0">
        <p className="flex items-center gap-2.5">
          <Swatch material={material} /> <b className="truncate font-medium">{material.name}</b>
          {why !== 'enough' && (
            <span className={`whitespace-nowrap ${why === 'short' ? 'font-semibold text-stop' : ''}`}>
              <Icon name={why === 'short' ? 'short' : 'watch'} size={13} />{' '}
              {why === 'short' ? `${say(whole(-free))} short` : 'runs low'}
            </span>
          )}
        </p>
        <div
          role="img"
          aria-label={`${say(here)} here, ${say(need)} for the open work${point ? `, ordered again at ${say(point.at)}` : ''}`}
          className="relative mt-1.5 h-5 border-b-2 border-contour"
        >
          <span className="absolute inset-y-0 left-0 bg-lead" style={{ width: percent(left / most) }} />
          <span
            className="hatch absolute inset-y-0 border border-contour"
            style={{ left: percent(left / most), width: percent((Math.max(0, here) - left) / most) }}
          />
          {free < 0 && (
            <span
              className="absolute inset-y-0 border-2 border-dashed border-stop"
              style={{ left: percent(Math.max(0, here) / most), width: percent(-free / most) }}
            />
          )}
          {point && (
            <span className="absolute -top-1 -bottom-1 w-[3px] bg-ink" style={{ left: percent(point.at / most) }} />
          )}
        </div>
        <p className="quiet mt-1">
          {say(here)} here
          {need > 0 && `, ${say(whole(need))} of it for what is open`}
          {point && `, ordered again at ${say(whole(point.at))}`}
        </p>
      </div>
      <div>
        <label htmlFor={id} className="quiet mb-1 block">
          Buy, {unit}
        </label>
        <input
          id={id}
          className="field fig text-right text-[19px]"
          inputMode="decimal"
          aria-invalid={wrong}
          aria-describedby={wrong ? `${id}-wrong` : undefined}
          value={typed ?? String(whole(buy))}
          onChange={(event) => onType(event.target.value)}
        />
      </div>
      {wrong && (
        <p id={`${id}-wrong`} role="alert" className="col-span-2 text-sm font-medium text-stop">
          {typed} is no amount; allowed: 0 and more. {say(whole(buy))} is bought instead.
        </p>
      )}
    </li>
  );
}
