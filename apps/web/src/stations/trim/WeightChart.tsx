import type { Individuals, SampledHead } from '@schmelz/core';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { axis, mark, tip } from '../../design/chart.ts';
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
  const gram = (kg: number) => Math.round(1e5 * kg) / 100;
  const odd = new Set(chart.signals.map((signal) => signal.index));
  const data = heads.map((head, i) => ({
    n: i + 1,
    mass: gram(head.massKg),
    range: i ? gram(chart.ranges[i - 1]!) : null,
    odd: odd.has(i),
  }));
  const all = [...data.map((each) => each.mass), gram(chart.lower), gram(chart.upper), gram(expectedKg)];
  const pad = Math.max(0.05, 0.12 * (Math.max(...all) - Math.min(...all)));
  const domain: [number, number] = [
    Math.round(100 * (Math.min(...all) - pad)) / 100,
    Math.round(100 * (Math.max(...all) + pad)) / 100,
  ];
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
            <YAxis domain={domain} width={56} {...axis} unit=" g" />
            <Tooltip {...tip} labelFormatter={(n) => `head ${n}`} />
            <ReferenceLine y={gram(chart.upper)} stroke="var(--stop)" strokeDasharray="6 4" />
            <ReferenceLine y={gram(chart.lower)} stroke="var(--stop)" strokeDasharray="6 4" />
            <ReferenceLine y={gram(chart.mean)} stroke="var(--rule-2)" label={mark('mean', 'insideBottomRight')} />
            <ReferenceLine
              y={gram(expectedKg)}
              stroke="var(--good)"
              strokeWidth={2}
              label={mark('reckoned', 'insideTopLeft')}
            />
            <Line
              dataKey="mass"
              name="weighs, g"
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
            <YAxis
              domain={[0, Math.ceil(20 * 1.15 * Math.max(gram(chart.rangeUpper), ...chart.ranges.map(gram))) / 20]}
              width={56}
              {...axis}
              unit=" g"
            />
            <Tooltip {...tip} labelFormatter={(n) => `head ${n}`} />
            <ReferenceLine y={gram(chart.rangeUpper)} stroke="var(--stop)" strokeDasharray="6 4" />
            <Line
              dataKey="range"
              name="from the one before, g"
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
