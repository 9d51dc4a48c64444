import type { PotPoint } from '@schmelz/core';
import { celsiusToFahrenheit } from '@schmelz/core';
import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { axis, mark, niceStep, steps, tip } from '../../design/chart.ts';
import type { Units } from '../../units/Units.tsx';

export interface Moment {
  atS: number;
  says: string;
}

/** The pot's heat over time, with the band to pour in and the moments to do something. */
export function MeltChart({
  points,
  probe,
  moments,
  pourC,
  units,
}: {
  points: readonly PotPoint[];
  /** Readings of a real heat-up, on the same clock, where there are some. */
  probe?: readonly { atS: number; temperatureC: number }[];
  moments: readonly Moment[];
  pourC: number;
  units: Units;
}) {
  const shown = (celsius: number) => Math.round(units.temperatureUnit === 'F' ? celsiusToFahrenheit(celsius) : celsius);
  const data = points.map(({ atS, temperatureC }) => ({ minute: atS / 60, model: shown(temperatureC) }));
  const measured = probe?.map(({ atS, temperatureC }) => ({ minute: atS / 60, probe: shown(temperatureC) }));
  const last = Math.max(data.at(-1)?.minute ?? 1, measured?.at(-1)?.minute ?? 0);
  const top = Math.ceil((shown(Math.max(pourC, ...points.map((each) => each.temperatureC))) * 1.08) / 50) * 50;
  return (
    <div
      className="h-[300px]"
      role="img"
      aria-label={`The pot over ${Math.round(last)} minutes: ${moments.map(({ says, atS }) => `${says} at ${Math.round(atS / 60)}`).join(', ')}`}
    >
      <ResponsiveContainer>
        <LineChart data={data} margin={{ top: 26, right: 16, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--rule)" vertical={false} />
          <ReferenceArea y1={shown(pourC - 16)} y2={shown(pourC + 14)} fill="var(--straw)" fillOpacity={0.28} />
          <XAxis
            dataKey="minute"
            type="number"
            domain={[0, last]}
            ticks={steps(last, niceStep(last))}
            {...axis}
            unit=" min"
          />
          <YAxis domain={[0, top]} ticks={steps(top, 100)} width={48} {...axis} />
          <Tooltip {...tip} labelFormatter={(minute) => `${Math.round(Number(minute))} min`} />
          {moments.map(({ atS, says }, index) => (
            <ReferenceLine
              key={says}
              x={atS / 60}
              stroke="var(--ink-2)"
              strokeDasharray="3 4"
              label={mark(says, index % 2 ? 'insideBottomLeft' : 'insideBottomRight')}
            />
          ))}
          <Line
            dataKey="model"
            name={`°${units.temperatureUnit}, reckoned`}
            stroke="var(--ink)"
            strokeWidth={3}
            dot={false}
            isAnimationActive={false}
          />
          {measured && (
            <Line
              data={measured}
              dataKey="probe"
              name={`°${units.temperatureUnit}, probe`}
              stroke="var(--bronze)"
              strokeWidth={1.5}
              dot={false}
              isAnimationActive={false}
            />
          )}
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
