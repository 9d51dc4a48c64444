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

/** Heat above, cure below, on one time axis, so that the eye drops from warm to full. */
export function HeatChart({
  points,
  unit,
  nowMinute,
  endMinute,
  fullMinute,
  limit,
  from = 'Computed from the program, not measured.',
}: {
  points: Point[];
  unit: 'C' | 'F';
  nowMinute: number;
  endMinute: number;
  fullMinute: number | null;
  limit: number | null;
  /** Where the curves come from. */
  from?: string;
}) {
  const last = points.at(-1)?.minute ?? 1;
  const steps = (top: number, by: number) => Array.from({ length: Math.floor(top / by) + 1 }, (_, i) => i * by);
  const warmest = Math.max(limit ?? 0, ...points.map((point) => point.oven));
  const heatTop = Math.ceil((warmest * 1.12) / 50) * 50;
  const cureTop = Math.max(100, Math.ceil(Math.max(...points.map((point) => point.cure)) / 25) * 25);
  const common = { data: points, margin: { top: 12, right: 16, bottom: 4, left: 0 } };
  const time = (
    <XAxis dataKey="minute" type="number" domain={[0, last]} ticks={steps(last, last > 90 ? 15 : 5)} {...axis} />
  );
  const marks = [
    <ReferenceLine key="now" x={Math.min(nowMinute, last)} stroke="var(--ink)" strokeWidth={2} />,
    <ReferenceLine key="end" x={endMinute} stroke="var(--rule-2)" strokeDasharray="4 4" />,
  ];
  const tip = (
    <Tooltip
      isAnimationActive={false}
      contentStyle={{ background: 'var(--sheet)', border: '1px solid var(--rule-2)', color: 'var(--ink)' }}
      labelFormatter={(minute) => `${Math.round(Number(minute))} min after closing the door`}
    />
  );
  return (
    <div>
      <h2 className="stamp text-[17px]">Heat, °{unit}</h2>
      <div className="h-[230px]" role="img" aria-label="Oven air and metal temperature over the bake, by the model">
        <ResponsiveContainer>
          <LineChart {...common}>
            <CartesianGrid stroke="var(--rule)" vertical={false} />
            {time}
            <YAxis {...axis} domain={[0, heatTop]} ticks={steps(heatTop, 50)} width={44} />
            {tip}
            {marks}
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
      </div>
      <h2 className="stamp mt-3 text-[17px]">Cure, %</h2>
      <div className="h-[190px]" role="img" aria-label="Cure over the bake, by the model">
        <ResponsiveContainer>
          <LineChart {...common}>
            <CartesianGrid stroke="var(--rule)" vertical={false} />
            {time}
            <YAxis {...axis} domain={[0, cureTop]} ticks={steps(cureTop, 25)} interval={0} width={44} />
            {tip}
            {marks}
            <ReferenceLine
              y={100}
              stroke="var(--good)"
              strokeWidth={2}
              label={label('full', 'var(--good)', 'insideTopRight')}
            />
            {fullMinute !== null && fullMinute <= last && <ReferenceLine x={fullMinute} stroke="var(--good)" />}
            <Line
              dataKey="cure"
              name="cure"
              stroke="var(--ink)"
              strokeWidth={3}
              dot={false}
              isAnimationActive={false}
            />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <p className="quiet">Minutes after closing the door. {from}</p>
    </div>
  );
}
