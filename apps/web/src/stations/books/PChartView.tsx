import { pChart, type PChartPoint } from '@schmelz/core';
import { Link } from 'react-router';
import { Icon } from '../../design/Icon.tsx';

const WIDTH = 860;
const TALL = 190;
const LEFT = 40;
const BOTTOM = 22;

const IN_A_ROW = /in a row/;

interface PourCounted {
  number: number;
  casts: number;
  bad: number;
  /** By what its cavities give on the whole. */
  expected: number;
}

/** Share of bad casts, pour by pour, between the limits that chance alone keeps to; what is outside is marked. */
export function PChartView({ pours }: { pours: readonly PourCounted[] }) {
  const { mean, points } = pChart(pours, true);
  const top = Math.min(1, Math.max(0.1, ...points.map(({ share }) => share * 1.15), mean * 2.5));
  const x = (at: number) => LEFT + ((at + 0.5) / points.length) * (WIDTH - LEFT - 8);
  const y = (share: number) => TALL - BOTTOM - (Math.min(top, share) / top) * (TALL - BOTTOM - 10);
  const half = (WIDTH - LEFT - 8) / points.length / 2;
  const stairs = (of: (point: PChartPoint) => number) =>
    points.map((point, at) => `${x(at) - half} ${y(of(point))}H${x(at) + half}`).join('L');
  const marked = points.map((point, at) => ({ ...point, number: pours[at]!.number }));
  // A run that goes on is told once, at its end.
  const signals = marked.filter(
    ({ signal }, at) => signal && !(IN_A_ROW.test(signal) && IN_A_ROW.test(marked[at + 1]?.signal ?? '')),
  );
  const marks = [0, top / 2, top];
  return (
    <>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Bad casts pour by pour">
        <svg
          viewBox={`0 0 ${WIDTH} ${TALL}`}
          className="min-w-[560px]"
          role="img"
          aria-label={`${points.length} pours, ${Math.round(100 * mean)} % bad on average, ${signals.length} outside of chance`}
        >
          {marks.map((mark) => (
            <g key={mark}>
              <path d={`M${LEFT} ${y(mark)}H${WIDTH}`} stroke="var(--rule)" />
              <text x={LEFT - 8} y={y(mark) + 4} fontSize={12} textAnchor="end" fill="var(--ink-3)">
                {Math.round(100 * mark)} %
              </text>
            </g>
          ))}
          <path d={`M${stairs(({ high }) => high)}V${TALL - BOTTOM}H${LEFT}Z`} fill="var(--well)" />
          <path d={`M${stairs(({ centre }) => centre)}`} fill="none" stroke="var(--ink)" strokeDasharray="7 5" />
          {points.map(({ share, signal }, at) =>
            signal ? (
              <path
                key={pours[at]!.number}
                d={`M${x(at)} ${y(share) - 7}l7 12h-14z`}
                fill="var(--stop)"
                stroke="var(--sheet)"
              />
            ) : (
              <circle key={pours[at]!.number} cx={x(at)} cy={y(share)} r={3} fill="var(--ink-2)" />
            ),
          )}
          <text x={LEFT} y={TALL - 4} fontSize={12} fill="var(--ink-3)">
            pour {pours[0]?.number}
          </text>
          <text x={WIDTH - 4} y={TALL - 4} fontSize={12} textAnchor="end" fill="var(--ink-3)">
            pour {pours.at(-1)?.number}
          </text>
        </svg>
      </div>
      <p className="quiet">
        {Math.round(1000 * mean) / 10} % bad on average. The line is what each pour’s cavities give on the whole; grey
        is what chance alone gives about it, three standard deviations wide.
      </p>
      <ul className="mt-1">
        {signals.slice(-5).map(({ number, share, signal, casts, bad }) => (
          <li key={number}>
            <Icon name="watch" size={13} />{' '}
            <Link to={`/pour?number=${number}`} className="font-medium">
              Pour {number}
            </Link>
            : {bad} of {casts} bad, {Math.round(100 * share)} %, {signal}.
          </li>
        ))}
        {signals.length === 0 && <li className="quiet">No pour is beyond what chance gives.</li>}
      </ul>
    </>
  );
}
