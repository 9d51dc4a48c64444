import { stackTotal, type ChangedCost } from '@schmelz/core';
import { useUnits } from '../../units/Units.tsx';
import { CostBar } from '../../drawing/CostStack.tsx';

/** A head as it is, and with one thing otherwise each: bars to one scale, and how much it moves. */
export function ChangeList({ costs }: { costs: readonly ChangedCost[] }) {
  const units = useUnits();
  const most = Math.max(...costs.map(({ stack }) => stackTotal(stack)), 1e-9);
  return (
    <ul>
      {costs.map(({ id, says, stack, totalMinor, moreMinor }, at) => (
        <li
          key={id}
          className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 gap-y-1 border-b border-rule py-2 md:grid-cols-[11.5rem_minmax(0,1fr)_4.2rem_4.8rem]"
        >
          <span className={at === 0 ? 'font-semibold' : ''}>{says}</span>
          <span className="order-last col-span-2 md:order-none md:col-span-1">
            <CostBar stack={stack} of={most} />
          </span>
          <b className="fig text-right text-[21px]">{units.money(totalMinor, 1)}</b>
          <span className="fig text-right text-[19px] text-ink-2">
            {at === 0 ? '' : `${moreMinor > 0 ? '+' : '−'}${units.money(Math.abs(moreMinor), 1)}`}
          </span>
        </li>
      ))}
    </ul>
  );
}
