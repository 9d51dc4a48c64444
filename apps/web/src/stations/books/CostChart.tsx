import { CartesianGrid, ResponsiveContainer, Scatter, ScatterChart, Tooltip, XAxis, YAxis } from 'recharts';
import { writeMonth } from '../../units/dates.ts';

const axis = { stroke: 'var(--rule-2)', tick: { fill: 'var(--ink-2)', fontSize: 12.5 } } as const;

/** Unit cost of every closed ticket over time. */
export function CostChart({
  points,
  write,
}: {
  points: { at: number; cost: number; name: string }[];
  write: (minor: number) => string;
}) {
  return (
    <div className="h-[220px]" role="img" aria-label="Unit cost of closed tickets over time">
      <ResponsiveContainer>
        <ScatterChart margin={{ top: 8, right: 12, bottom: 0, left: 4 }}>
          <CartesianGrid stroke="var(--rule)" vertical={false} />
          <XAxis dataKey="at" type="number" domain={['dataMin', 'dataMax']} tickFormatter={writeMonth} {...axis} />
          <YAxis dataKey="cost" domain={[0, 'auto']} tickFormatter={write} width={56} {...axis} />
          <Tooltip
            isAnimationActive={false}
            content={({ payload }) => {
              const point = payload?.[0]?.payload as { name: string; cost: number; at: number } | undefined;
              return point ? (
                <p className="border border-rule-2 bg-sheet p-2 text-sm">
                  {point.name}: {write(point.cost)}
                </p>
              ) : null;
            }}
          />
          <Scatter data={points} fill="var(--ink-2)" isAnimationActive={false} />
        </ScatterChart>
      </ResponsiveContainer>
    </div>
  );
}
