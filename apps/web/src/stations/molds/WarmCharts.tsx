import {
  BAR_KG,
  blankShots,
  celsiusToFahrenheit,
  shotRiseK,
  MOLD_READY_C,
  MOLD_TOO_HOT_C,
  type MoldPoint,
} from '@schmelz/core';
import {
  CartesianGrid,
  ComposedChart,
  LabelList,
  Line,
  LineChart,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { axis, mark, niceStep, steps, tip } from '../../design/chart.ts';
import type { Units } from '../../units/Units.tsx';

/** Face and block of a mold over time, into the window that fills and does not frost. */
export function MoldHeatChart({
  points,
  probe,
  units,
  label,
}: {
  points: readonly MoldPoint[];
  probe?: readonly { atS: number; temperatureC: number }[];
  units: Units;
  label: string;
}) {
  const shown = (celsius: number) => Math.round(units.temperatureUnit === 'F' ? celsiusToFahrenheit(celsius) : celsius);
  const data = points.map(({ atS, meanC, faceC }) => ({ minute: atS / 60, block: shown(meanC), face: shown(faceC) }));
  const measured = probe?.map(({ atS, temperatureC }) => ({ minute: atS / 60, probe: shown(temperatureC) }));
  const last = Math.max(1, data.at(-1)?.minute ?? 1, measured?.at(-1)?.minute ?? 0);
  const highest = Math.max(MOLD_TOO_HOT_C, ...points.map((point) => point.faceC));
  const top = Math.ceil((shown(highest) * 1.05) / 20) * 20;
  return (
    <div className="h-[280px]" role="img" aria-label={label}>
      <ResponsiveContainer>
        <LineChart data={data} margin={{ top: 10, right: 16, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--rule)" vertical={false} />
          <ReferenceArea
            y1={shown(MOLD_READY_C)}
            y2={shown(MOLD_TOO_HOT_C)}
            fill="var(--straw)"
            fillOpacity={0.28}
            label={mark('the window', 'insideTopLeft')}
          />
          <XAxis
            dataKey="minute"
            type="number"
            domain={[0, last]}
            ticks={steps(last, niceStep(last))}
            {...axis}
            unit=" min"
          />
          <YAxis domain={[0, top]} ticks={steps(top, niceStep(top))} width={48} {...axis} />
          <Tooltip {...tip} labelFormatter={(minute) => `${Number(minute).toFixed(1)} min`} />
          <Line
            dataKey="face"
            name={`face, °${units.temperatureUnit}`}
            stroke="var(--bronze)"
            strokeWidth={1}
            dot={false}
            isAnimationActive={false}
          />
          <Line
            dataKey="block"
            name={`block, °${units.temperatureUnit}`}
            stroke="var(--ink)"
            strokeWidth={3}
            dot={false}
            isAnimationActive={false}
          />
          {measured && (
            <Line
              data={measured}
              dataKey="probe"
              name={`probe, °${units.temperatureUnit}`}
              stroke="var(--violet)"
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

/** Where practice stands on the same line, bar and all. Common practice, no source. */
const SCHOOLS = [
  { bodyKg: 0.55, shotKg: 0.012, blanks: 11, name: 'micro heads' },
  { bodyKg: 0.6, shotKg: 0.08, blanks: 4.5, name: 'usual' },
  { bodyKg: 0.9, shotKg: 0.25, blanks: 2.5, name: 'heavy heads' },
];
const LAW_MOLD_KG = 0.65;
const MOST_SHOWN = 16;
const MOST_K = 40;

/** A name above and right of its dot, clear of a curve that falls to the right. */
const AboveRight = ({ x, y, value }: { x?: number | string; y?: number | string; value?: unknown }) => (
  <text x={Number(x) + 12} y={Number(y) - 6} fill="var(--ink)" fontSize={13}>
    {String(value)}
  </text>
);

/** One law behind the schools of 3, 5 and 10 blank shots: what one shot heats the mold by. */
export function LawChart({
  molds,
  metalC,
  roomC,
  units,
}: {
  molds: readonly { name: string; riseK: number; blanks: number; here: boolean }[];
  metalC: number;
  roomC: number;
  units: Units;
}) {
  const degrees = (kelvin: number) => (units.temperatureUnit === 'F' ? 1.8 : 1) * kelvin;
  const rise = (bodyKg: number, kg: number) => shotRiseK({ bodyKg }, { shotKg: kg, metalC, roomC });
  const law = Array.from({ length: 80 }, (_, i) => 0.02 + i * 0.0055).map((ratio) => ({
    rise: degrees(rise(LAW_MOLD_KG, ratio * LAW_MOLD_KG)),
    law: blankShots({ block: { bodyKg: LAW_MOLD_KG }, shotKg: ratio * LAW_MOLD_KG, barKg: 0, metalC, roomC }).shots,
  }));
  const own = molds.filter((mold) => mold.blanks <= MOST_SHOWN).map((mold) => ({ ...mold, rise: degrees(mold.riseK) }));
  const schools = SCHOOLS.map((school) => ({ ...school, rise: degrees(rise(school.bodyKg, school.shotKg + BAR_KG)) }));
  const step = units.temperatureUnit === 'F' ? 20 : 10;
  const most = step * Math.ceil(degrees(MOST_K) / step);
  return (
    <div
      className="h-[300px]"
      role="img"
      aria-label="Blank shots against what one shot heats the mold by: one falling curve, the schools and your molds on it"
    >
      <ResponsiveContainer>
        <ComposedChart
          data={law.filter((point) => point.law <= MOST_SHOWN)}
          margin={{ top: 10, right: 24, bottom: 20, left: 0 }}
        >
          <CartesianGrid stroke="var(--rule)" vertical={false} />
          <XAxis
            dataKey="rise"
            type="number"
            domain={[0, most]}
            ticks={Array.from({ length: most / step + 1 }, (_, i) => i * step)}
            {...axis}
            label={{
              value: `the first shot heats the mold by, °${units.temperatureUnit}`,
              position: 'insideBottom',
              offset: -12,
              fill: 'var(--ink-3)',
              fontSize: 13,
            }}
          />
          <YAxis domain={[0, MOST_SHOWN]} ticks={[0, 4, 8, 12, 16]} width={40} {...axis} />
          <Line
            dataKey="law"
            type="stepAfter"
            stroke="var(--ink)"
            strokeWidth={2.5}
            dot={false}
            isAnimationActive={false}
          />
          {own
            .filter((mold) => mold.here)
            .map((mold) => (
              <ReferenceLine key={mold.name} x={mold.rise} stroke="var(--good)" strokeWidth={2} />
            ))}
          <Scatter
            data={schools}
            dataKey="blanks"
            fill="var(--straw)"
            stroke="var(--contour)"
            isAnimationActive={false}
          >
            <LabelList dataKey="name" content={AboveRight} />
          </Scatter>
          <Scatter
            data={own.filter((mold) => !mold.here)}
            dataKey="blanks"
            fill="var(--lead)"
            stroke="var(--contour)"
            isAnimationActive={false}
          />
          <Scatter data={own.filter((mold) => mold.here)} dataKey="blanks" fill="var(--ink)" isAnimationActive={false}>
            <LabelList dataKey="name" content={AboveRight} />
          </Scatter>
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  );
}
