import type { Mold, Pour } from '@schmelz/contract';
import {
  heatThen,
  celsiusToFahrenheit,
  MOLD_READY_C,
  MOLD_TOO_HOT_C,
  sessionHeat,
  sessionMold,
  standing,
  type PourEntry,
} from '@schmelz/core';
import { useMemo } from 'react';
import {
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { axis, mark, timeTicks, tip } from '../../design/chart.ts';
import { Heading } from '../../design/Page.tsx';
import { writeTime } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import type { PourBench } from './usePourBench.ts';

/**
 * The session again: heat of pot and mold over time, shots along the foot, rejects struck, pauses and feeding marked.
 */
export function SessionTimeline({ pour, molds, bench }: { pour: Pour; molds: readonly Mold[]; bench: PourBench }) {
  const units = useUnits();
  const { entries, state } = bench;
  const shown = useMemo(() => {
    const heat = sessionHeat({
      setup: pour.setup,
      log: entries,
      molds: molds.map((mold) => sessionMold(mold, pour.setup, pour.knownThen.blocks)),
      ...heatThen(pour.knownThen),
      now: entries.at(-1)?.at ?? 0,
    });
    const degrees = (celsius: number) =>
      Math.round(units.temperatureUnit === 'F' ? celsiusToFahrenheit(celsius) : celsius);
    const line = (points: readonly { at: number; temperatureC: number }[], key: string) =>
      points.map(({ at, temperatureC }) => ({ at, [key]: degrees(temperatureC) }));
    const foot = degrees(0);
    const shots = state.shots.map((shot) => ({
      at: shot.at,
      foot,
      bad: shot.heads.filter((head) => head.verdict !== 'good').length,
    }));
    return {
      pot: line(heat.pot, 'pot'),
      molds: molds.map((mold) => line(heat.molds[mold.id] ?? [], 'mold')),
      shots,
      degrees,
    };
  }, [pour, molds, entries, state, units.temperatureUnit]);
  if (shown.pot.length < 2) return null;
  const [from, to] = [shown.pot[0]!.at as number, shown.pot.at(-1)!.at as number];
  const marks = standing<PourEntry>(entries).filter(
    (entry) => entry.kind === 'pause' || entry.kind === 'feed' || entry.kind === 'smoked',
  );
  return (
    <section className="mb-7">
      <Heading aside="by the model, from the log">The session again</Heading>
      <div
        className="h-[280px]"
        role="img"
        aria-label={`Heat of pot and mold from ${writeTime(from)} to ${writeTime(to)} with ${shown.shots.length} shots`}
      >
        <ResponsiveContainer>
          <ComposedChart margin={{ top: 10, right: 16, bottom: 4, left: 0 }}>
            <CartesianGrid stroke="var(--rule)" vertical={false} />
            <ReferenceArea
              y1={shown.degrees(MOLD_READY_C)}
              y2={shown.degrees(MOLD_TOO_HOT_C)}
              fill="var(--straw)"
              fillOpacity={0.22}
              label={mark("the mold's window", 'insideTopLeft')}
            />
            <XAxis
              dataKey="at"
              type="number"
              domain={[from, to]}
              ticks={timeTicks(from, to)}
              tickFormatter={(at: number) => writeTime(at)}
              {...axis}
            />
            <YAxis
              domain={[0, shown.degrees(420)]}
              ticks={[0, 100, 200, 300, 400].map((c) => shown.degrees(c))}
              width={48}
              {...axis}
            />
            <Tooltip {...tip} labelFormatter={(at) => writeTime(Number(at))} />
            {marks.map((entry) => (
              <ReferenceLine
                key={entry.id}
                x={entry.at}
                stroke="var(--rule-2)"
                strokeDasharray="3 4"
                label={mark(
                  entry.kind === 'feed' ? 'fed' : entry.kind === 'pause' ? 'pause' : 'smoked',
                  'insideTopRight',
                )}
              />
            ))}
            <Line
              data={shown.pot}
              dataKey="pot"
              name="metal"
              stroke="var(--bronze)"
              strokeWidth={2.5}
              dot={false}
              isAnimationActive={false}
            />
            {shown.molds.map((points, index) => (
              <Line
                key={molds[index]!.id}
                data={points}
                dataKey="mold"
                name={molds.length > 1 ? molds[index]!.name : 'mold'}
                stroke="var(--ink)"
                strokeWidth={2.5}
                strokeDasharray={index ? '7 4' : undefined}
                dot={false}
                isAnimationActive={false}
              />
            ))}
            <Scatter
              data={shown.shots}
              dataKey="foot"
              name="shots"
              isAnimationActive={false}
              shape={(props: { cx?: number; cy?: number; payload?: { bad: number } }) => (
                <rect
                  x={(props.cx ?? 0) - 2}
                  y={(props.cy ?? 0) - 12}
                  width={4}
                  height={12}
                  fill={props.payload?.bad ? 'var(--stop)' : 'var(--ink)'}
                />
              )}
            />
          </ComposedChart>
        </ResponsiveContainer>
      </div>
      <p className="quiet">
        At the foot: shots, in red lead those with a reject.
        {molds.length > 1 &&
          ` Heavy lines: the molds, ${molds.map((mold, i) => `${mold.name}${i ? ' dashed' : ''}`).join(', ')}.`}
      </p>
    </section>
  );
}
