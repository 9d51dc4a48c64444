import { celsiusToFahrenheit, fittedAirC, type FittedOven, type Reading } from '@schmelz/core';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { axis, mark, niceStep, steps, tip } from '../../design/chart.ts';
import type { Units } from '../../units/Units.tsx';

const MOST_POINTS = 400;

/** An empty run: what the probe read, the rise that was fitted, and the mark it was set to. */
export function OvenChart({
  readings,
  fit,
  setC,
  units,
}: {
  readings: readonly Reading[];
  fit: FittedOven;
  setC: number;
  units: Units;
}) {
  const shown = (celsius: number) =>
    Math.round(10 * (units.temperatureUnit === 'F' ? celsiusToFahrenheit(celsius) : celsius)) / 10;
  const start = readings[0]!;
  const held = setC + fit.offsetK;
  const every = Math.max(1, Math.ceil(readings.length / MOST_POINTS));
  const some = readings.filter((_, i) => i % every === 0);
  const atS = some.map(({ at }) => (at - start.at) / 1000);
  const fitted = fittedAirC(fit, setC, start.celsius, atS);
  const points = some.map(({ celsius }, i) => ({
    minute: atS[i]! / 60,
    read: shown(celsius),
    fitted: shown(fitted[i]!),
  }));
  const last = points.at(-1)!.minute;
  const top = Math.max(...points.map((point) => point.read)) * 1.08;
  return (
    <div
      className="h-[260px]"
      role="img"
      aria-label={`Empty run of ${Math.round(last)} minutes: set to ${units.temperature(setC)}, held ${units.temperature(held)}`}
    >
      <ResponsiveContainer>
        <LineChart data={points} margin={{ top: 10, right: 16, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--rule)" vertical={false} />
          <XAxis
            dataKey="minute"
            type="number"
            domain={[0, last]}
            ticks={steps(last, niceStep(last))}
            {...axis}
            unit=" min"
          />
          <YAxis domain={[0, Math.ceil(top / 20) * 20]} width={52} {...axis} unit="°" />
          <Tooltip {...tip} labelFormatter={(minute) => `${Math.round(10 * Number(minute)) / 10} min`} />
          <ReferenceLine
            y={shown(setC)}
            stroke="var(--rule-2)"
            strokeDasharray="6 4"
            label={mark('set to', 'insideBottomRight')}
          />
          <Line
            dataKey="fitted"
            name="fitted"
            stroke="var(--good)"
            strokeWidth={4}
            strokeOpacity={0.55}
            dot={false}
            isAnimationActive={false}
          />
          <Line
            dataKey="read"
            name="probe"
            stroke="var(--ink)"
            strokeWidth={1.4}
            dot={false}
            isAnimationActive={false}
          />
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
