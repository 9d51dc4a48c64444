import { KG_PER_OUNCE, type Individuals, type SampledHead } from '@schmelz/core';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { axis, mark, roundAxis, tip } from '../../design/chart.ts';
import type { Units } from '../../units/Units.tsx';

/** Individuals above with their limits, moving ranges below, on one axis of heads. */
export function WeightChart({
  heads,
  chart,
  expectedKg,
  units,
}: {
  heads: readonly SampledHead[];
  chart: Individuals;
  expectedKg: number;
  units: Units;
}) {
  const { massUnit } = units;
  // Ounces are large for it: a thousandth of one is 28 mg.
  const shown = (kg: number) =>
    massUnit === 'oz' ? Number((kg / KG_PER_OUNCE).toFixed(4)) : Number((1000 * kg).toFixed(2));
  const odd = new Set(chart.signals.map((signal) => signal.index));
  const data = heads.map((head, i) => ({
    n: i + 1,
    mass: shown(head.massKg),
    range: i ? shown(chart.ranges[i - 1]!) : null,
    odd: odd.has(i),
  }));
  const all = [...data.map((each) => each.mass), shown(chart.lower), shown(chart.upper), shown(expectedKg)];
  const spread = Math.max(...all) - Math.min(...all) || shown(expectedKg) / 100;
  const masses = roundAxis(Math.min(...all) - 0.1 * spread, Math.max(...all) + 0.1 * spread);
  const ranges = roundAxis(0, 1.1 * Math.max(shown(chart.rangeUpper), ...chart.ranges.map(shown)));
  const heading = (
    <XAxis dataKey="n" type="number" domain={[1, Math.max(2, data.length)]} allowDecimals={false} {...axis} />
  );
  return (
    <div
      role="img"
      aria-label={`Weights of ${heads.length} heads, mean ${units.head(chart.mean)}, ${odd.size} out of the ordinary`}
    >
      <div className="h-[230px]">
        <ResponsiveContainer>
          <LineChart data={data} margin={{ top: 10, right: 16, bottom: 0, left: 0 }}>
            <CartesianGrid stroke="var(--rule)" vertical={false} />
            {heading}
            <YAxis {...masses} width={72} {...axis} unit={` ${massUnit}`} />
            <Tooltip {...tip} labelFormatter={(n) => `head ${n}`} />
            <ReferenceLine y={shown(chart.upper)} stroke="var(--stop)" strokeDasharray="6 4" />
            <ReferenceLine y={shown(chart.lower)} stroke="var(--stop)" strokeDasharray="6 4" />
            <ReferenceLine y={shown(chart.mean)} stroke="var(--rule-2)" label={mark('mean', 'insideBottomRight')} />
            <ReferenceLine
              y={shown(expectedKg)}
              stroke="var(--good)"
              strokeWidth={2}
              label={mark('reckoned', 'insideTopLeft')}
            />
            <Line
              dataKey="mass"
              name={`weighs, ${massUnit}`}
              stroke="var(--ink)"
              strokeWidth={1.5}
              isAnimationActive={false}
              dot={({ cx, cy, payload }: { cx?: number; cy?: number; payload?: { n: number; odd: boolean } }) => (
                <circle
                  key={payload?.n}
                  cx={cx}
                  cy={cy}
                  r={payload?.odd ? 6 : 4}
                  fill={payload?.odd ? 'var(--stop)' : 'var(--ink)'}
                />
              )}
            />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <div className="h-[110px]">
        <ResponsiveContainer>
          <LineChart data={data} margin={{ top: 4, right: 16, bottom: 4, left: 0 }}>
            <CartesianGrid stroke="var(--rule)" vertical={false} />
            {heading}
            <YAxis {...ranges} width={72} {...axis} unit={` ${massUnit}`} />
            <Tooltip {...tip} labelFormatter={(n) => `head ${n}`} />
            <ReferenceLine y={shown(chart.rangeUpper)} stroke="var(--stop)" strokeDasharray="6 4" />
            <Line
              dataKey="range"
              name={`from the one before, ${massUnit}`}
              stroke="var(--lead)"
              strokeWidth={2}
              dot={false}
              isAnimationActive={false}
            />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <p className="quiet">Above: each head. Below: how far from the one before it.</p>
    </div>
  );
}
