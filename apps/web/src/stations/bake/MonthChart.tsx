import type { AuditMonth } from '@schmelz/core';
import { Bar, BarChart, CartesianGrid, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { axis, tip } from '../../design/chart.ts';
import { writeMonth } from '../../units/dates.ts';

/** Heads by month: fully cured below, under-cured on top. */
export function MonthChart({ months }: { months: readonly AuditMonth[] }) {
  const data = months.map(({ at, heads, underCuredHeads }) => ({
    month: writeMonth(at),
    full: heads - underCuredHeads,
    under: underCuredHeads,
  }));
  const short = data.filter((each) => each.under > 0).map((each) => `${each.month}: ${each.under}`);
  return (
    <div className="h-[240px]" role="img" aria-label={`Heads by month. Under-cured: ${short.join(', ') || 'none'}`}>
      <ResponsiveContainer>
        <BarChart data={data} margin={{ top: 8, right: 8, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--rule)" vertical={false} />
          <XAxis dataKey="month" {...axis} tickFormatter={(month: string) => month.slice(0, 3)} />
          <YAxis {...axis} width={44} allowDecimals={false} />
          <Tooltip {...tip} />
          <Bar
            dataKey="full"
            name="full"
            stackId="heads"
            fill="var(--lead)"
            stroke="var(--contour)"
            isAnimationActive={false}
          />
          <Bar
            maxBarSize={64}
            dataKey="under"
            name="under-cured"
            stackId="heads"
            fill="var(--stop)"
            isAnimationActive={false}
          />
        </BarChart>
      </ResponsiveContainer>
    </div>
  );
}
