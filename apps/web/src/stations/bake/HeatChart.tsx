import { memo } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';

interface Point {
  minute: number;
  oven: number;
  metal: number;
  cure: number;
}

const axis = { stroke: 'var(--rule-2)', tick: { fill: 'var(--ink-2)', fontSize: 14 } } as const;
const label = (text: string, colour: string, position: 'insideTopRight' | 'insideBottomRight') => ({
  value: text,
  fill: colour,
  fontSize: 14,
  position,
});

/** Where the plot stands in its frame, px: the now line is laid over it without drawing it again. */
const AXIS_PX = 44;
const MARGIN = { top: 12, right: 16, bottom: 4, left: 0 };

interface Curves {
  points: Point[];
  unit: 'C' | 'F';
  endMinute: number;
  fullMinute: number | null;
  limit: number | null;
}

const steps = (top: number, by: number) => Array.from({ length: Math.floor(top / by) + 1 }, (_, i) => i * by);
const lastOf = (points: readonly Point[]) => points.at(-1)?.minute ?? 1;

const timeAxis = (last: number) => (
  <XAxis dataKey="minute" type="number" domain={[0, last]} ticks={steps(last, last > 90 ? 15 : 5)} {...axis} />
);
const tip = (
  <Tooltip
    isAnimationActive={false}
    contentStyle={{ background: 'var(--sheet)', border: '1px solid var(--rule-2)', color: 'var(--ink)' }}
    labelFormatter={(minute) => `${Math.round(Number(minute))} min after closing the door`}
  />
);
const endOf = (minute: number) => <ReferenceLine x={minute} stroke="var(--rule-2)" strokeDasharray="4 4" />;

/** Oven and metal; drawn when its curve changes, not when the clock ticks. */
const Heat = memo(function Heat({ points, endMinute, limit }: Curves) {
  const warmest = Math.max(limit ?? 0, ...points.map((point) => point.oven));
  const heatTop = Math.ceil((warmest * 1.12) / 50) * 50;
  return (
    <ResponsiveContainer>
      <LineChart data={points} margin={MARGIN}>
        <CartesianGrid stroke="var(--rule)" vertical={false} />
        {timeAxis(lastOf(points))}
        <YAxis {...axis} domain={[0, heatTop]} ticks={steps(heatTop, 50)} width={AXIS_PX} />
        {tip}
        {endOf(endMinute)}
        {limit !== null && (
          <ReferenceLine
            y={limit}
            stroke="var(--stop)"
            strokeDasharray="8 5"
            label={label('plating browns', 'var(--stop)', 'insideBottomRight')}
          />
        )}
        <Line
          dataKey="oven"
          name="oven air"
          stroke="var(--rule-2)"
          strokeWidth={1.5}
          strokeDasharray="3 4"
          dot={false}
          isAnimationActive={false}
        />
        <Line
          dataKey="metal"
          name="metal"
          stroke="var(--straw)"
          strokeWidth={4}
          dot={false}
          isAnimationActive={false}
        />
      </LineChart>
    </ResponsiveContainer>
  );
});

/** The cure below it, on the same minutes. */
const Cure = memo(function Cure({ points, endMinute, fullMinute }: Curves) {
  const last = lastOf(points);
  const cureTop = Math.max(100, Math.ceil(Math.max(...points.map((point) => point.cure)) / 25) * 25);
  return (
    <ResponsiveContainer>
      <LineChart data={points} margin={MARGIN}>
        <CartesianGrid stroke="var(--rule)" vertical={false} />
        {timeAxis(last)}
        <YAxis {...axis} domain={[0, cureTop]} ticks={steps(cureTop, 25)} interval={0} width={AXIS_PX} />
        {tip}
        {endOf(endMinute)}
        <ReferenceLine
          y={100}
          stroke="var(--good)"
          strokeWidth={2}
          label={label('full', 'var(--good)', 'insideTopRight')}
        />
        {fullMinute !== null && fullMinute <= last && <ReferenceLine x={fullMinute} stroke="var(--good)" />}
        <Line dataKey="cure" name="cure" stroke="var(--ink)" strokeWidth={3} dot={false} isAnimationActive={false} />
      </LineChart>
    </ResponsiveContainer>
  );
});

/** Now, over a plot that stays as it is. */
function Now({ share }: { share: number }) {
  return (
    <div
      aria-hidden
      data-now={share.toFixed(4)}
      className="pointer-events-none absolute w-0.5 bg-ink"
      style={{
        top: MARGIN.top,
        bottom: MARGIN.bottom + TIME_AXIS_PX,
        left: `calc(${AXIS_PX}px + (100% - ${AXIS_PX + MARGIN.right}px) * ${Math.min(1, Math.max(0, share))} - 1px)`,
      }}
    />
  );
}
/** As high as recharts draws a time axis. */
const TIME_AXIS_PX = 30;

/** Heat above, cure below, on one time axis, so that the eye drops from warm to full. */
export function HeatChart({
  nowMinute,
  from = 'Computed from the program, not measured.',
  ...curves
}: Curves & {
  nowMinute: number;
  /** Where the curves come from. */
  from?: string;
}) {
  const share = nowMinute / lastOf(curves.points);
  return (
    <div>
      <h2 className="stamp text-[17px]">Heat, °{curves.unit}</h2>
      <div
        className="relative h-[230px]"
        role="img"
        aria-label="Oven air and metal temperature over the bake, by the model"
      >
        <Heat {...curves} />
        <Now share={share} />
      </div>
      <h2 className="stamp mt-3 text-[17px]">Cure, %</h2>
      <div className="relative h-[190px]" role="img" aria-label="Cure over the bake, by the model">
        <Cure {...curves} />
        <Now share={share} />
      </div>
      <p className="quiet">Minutes after closing the door. {from}</p>
    </div>
  );
}
