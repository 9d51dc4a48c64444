import type { Material } from '@schmelz/contract';
import type { Shopping } from '@schmelz/core';
import { moment, writeDayShort, writeWeekday } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';

const DAY_MS = 24 * 3600_000;

/** What is bought of one supplier: a slip with its lines, its freight and its sum. */
export function Slip({
  slip,
  bought,
  materialOf,
}: {
  slip: Shopping['freight'][number];
  bought: Shopping['bought'];
  materialOf: (id: string) => Material | undefined;
}) {
  const units = useUnits();
  const here = moment() + slip.days * DAY_MS;
  return (
    <article className="cut bg-well px-5 py-4">
      <h3 className="flex items-baseline justify-between gap-4">
        <b className="stamp text-[17px]">{slip.supplier}</b>
        <span className="quiet">
          here {writeWeekday(here)} {writeDayShort(here)}
        </span>
      </h3>
      <ul className="mt-2">
        {bought.map(({ offerId, materialId, packs, quantity, minor }) => {
          const material = materialOf(materialId);
          return (
            <li
              key={offerId}
              className="grid grid-cols-[3.2rem_minmax(0,1fr)_auto] items-baseline gap-3 border-b border-rule py-1.5"
            >
              <b className="fig text-[21px]">{packs} ×</b>
              <span className="min-w-0">
                <span className="block truncate">{material?.name ?? '?'}</span>
                <span className="quiet">{material && units.part(material.kind, quantity / packs)} in a pack</span>
              </span>
              <span className="fig">{units.money(minor)}</span>
            </li>
          );
        })}
        <li className="flex justify-between gap-3 py-1.5">
          <span className="quiet">{slip.freightMinor > 0 ? 'freight' : 'no freight'}</span>
          <span className="fig">{slip.freightMinor > 0 ? units.money(slip.freightMinor) : '–'}</span>
        </li>
      </ul>
      <p className="flex justify-end border-t-2 border-contour pt-1.5">
        <b className="fig text-[24px]">{units.money(slip.goodsMinor + slip.freightMinor)}</b>
      </p>
    </article>
  );
}
