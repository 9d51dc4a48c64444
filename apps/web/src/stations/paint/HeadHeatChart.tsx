import {
  celsiusToFahrenheit,
  headTemperatureC,
  MELTS_C,
  TARGET_C,
  TOO_COLD_C,
  TOO_HOT_C,
  type HeatInput,
} from '@schmelz/core';
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
import { axis, mark, tip } from '../../design/chart.ts';
import type { Units } from '../../units/Units.tsx';

/** A head's heat over the seconds under its tool, between too cold to wet and too hot to hold its paint. */
export function HeadHeatChart({ input, seconds, units }: { input: HeatInput; seconds: number; units: Units }) {
  const shown = (celsius: number) => Math.round(units.temperatureUnit === 'F' ? celsiusToFahrenheit(celsius) : celsius);
  const last = Math.ceil(Math.max(6, seconds * 2.2));
  const points = Array.from({ length: 81 }, (_, i) => ({
    s: (last * i) / 80,
    head: shown(Math.min(MELTS_C, headTemperatureC(input, (last * i) / 80))),
  }));
  return (
    <div
      className="h-[300px]"
      role="img"
      aria-label={`Heat of the head over ${last} seconds; right after ${Math.round(seconds)} seconds`}
    >
      <ResponsiveContainer>
        <LineChart data={points} margin={{ top: 10, right: 16, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--rule)" vertical={false} />
          <XAxis dataKey="s" type="number" domain={[0, last]} {...axis} unit=" s" />
          <YAxis
            domain={[0, shown(340)]}
            ticks={[0, TOO_COLD_C, TARGET_C, TOO_HOT_C, MELTS_C].map(shown)}
            interval={0}
            width={52}
            {...axis}
            unit="°"
          />
          <Tooltip {...tip} labelFormatter={(at) => `${Number(at).toFixed(1)} s`} />
          <ReferenceArea
            y1={shown(TARGET_C - 20)}
            y2={shown(TOO_HOT_C)}
            fill="var(--straw)"
            fillOpacity={0.28}
            label={mark('paint flows', 'insideTopLeft')}
          />
          <ReferenceLine
            y={shown(TOO_COLD_C)}
            stroke="var(--rule-2)"
            strokeDasharray="4 4"
            label={mark('below: powder does not wet', 'insideBottomRight')}
          />
          <ReferenceLine
            y={shown(MELTS_C)}
            stroke="var(--stop)"
            strokeWidth={2}
            label={mark('the head melts', 'insideTopLeft')}
          />
          <ReferenceLine x={seconds} stroke="var(--good)" strokeWidth={2} />
          <Line dataKey="head" name="head" stroke="var(--ink)" strokeWidth={3} dot={false} isAnimationActive={false} />
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
