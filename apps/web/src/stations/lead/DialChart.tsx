import { celsiusToFahrenheit, type DialTable } from '@schmelz/core';
import {
  Area,
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { axis, mark, tip } from '../../design/chart.ts';
import type { Units } from '../../units/Units.tsx';

/** The dial's curve with its band of doubt, the measured pairs on it, newest darkest. */
export function DialChart({
  table,
  pairs,
  pourC,
  dial,
  units,
}: {
  table: DialTable;
  pairs: readonly { dial: number; temperatureC: number; at: number; how: string }[];
  pourC: number;
  /** The mark for the pouring temperature, where one reaches it. */
  dial: number | null;
  units: Units;
}) {
  const shown = (celsius: number) =>
    Math.round(10 * (units.temperatureUnit === 'F' ? celsiusToFahrenheit(celsius) : celsius)) / 10;
  const from = Math.floor(table.from - 1);
  const to = Math.ceil(table.to + 1);
  const curve = Array.from({ length: 81 }, (_, i) => {
    const at = table.from + ((table.to - table.from) * i) / 80;
    const { temperatureC, sdK } = table.at(at);
    return {
      dial: at,
      curve: shown(temperatureC),
      band: [shown(temperatureC - 2 * sdK), shown(temperatureC + 2 * sdK)],
    };
  });
  const newest = Math.max(...pairs.map((pair) => pair.at));
  const dots = pairs.map((pair) => ({
    dial: pair.dial,
    measured: shown(pair.temperatureC),
    newest: pair.at === newest,
    how: pair.how,
  }));
  const all = [...curve.flatMap((each) => each.band), ...dots.map((each) => each.measured)];
  const [low, high] = [Math.floor(Math.min(...all) / 20) * 20, Math.ceil(Math.max(...all) / 20) * 20];
  return (
    <div className="h-[380px]" role="img" aria-label={`Dial marks ${table.from} to ${table.to} against temperature`}>
      <ResponsiveContainer>
        <ComposedChart data={curve} margin={{ top: 12, right: 20, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--rule)" vertical={false} />
          <XAxis
            dataKey="dial"
            type="number"
            domain={[from, to]}
            ticks={Array.from({ length: to - from + 1 }, (_, i) => from + i)}
            {...axis}
          />
          <YAxis domain={[low, high]} width={48} {...axis} unit="°" />
          <Tooltip {...tip} labelFormatter={(at) => `mark ${Number(at).toFixed(1)}`} />
          <Area
            dataKey="band"
            name="likely"
            stroke="none"
            fill="var(--lead)"
            fillOpacity={0.4}
            isAnimationActive={false}
          />
          <ReferenceLine y={shown(pourC)} stroke="var(--straw)" strokeWidth={3} label={mark('pour', 'insideTopLeft')} />
          {dial !== null && <ReferenceLine x={dial} stroke="var(--good)" strokeWidth={2} />}
          <Line
            dataKey="curve"
            name="reckoned"
            stroke="var(--ink)"
            strokeWidth={2.5}
            dot={false}
            isAnimationActive={false}
          />
          <Scatter
            data={dots}
            dataKey="measured"
            name="measured"
            isAnimationActive={false}
            shape={(props: { cx?: number; cy?: number; payload?: (typeof dots)[number] }) => (
              <circle
                cx={props.cx}
                cy={props.cy}
                r={5}
                fill={
                  props.payload?.how === 'colour'
                    ? 'var(--sheet)'
                    : props.payload?.newest
                      ? 'var(--ink)'
                      : 'var(--lead)'
                }
                stroke="var(--ink)"
                strokeWidth={1.5}
              />
            )}
          />
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  );
}
