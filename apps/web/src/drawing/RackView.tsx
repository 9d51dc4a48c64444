import type { OvenRack, RackLoad } from '@schmelz/core';
import { useId } from 'react';
import { HeadShape, type HeadState } from './Head.tsx';
import { headParts, type HeadSpec } from './head-parts.ts';
import type { Paint } from './paint.ts';
import { mm } from './paths.ts';

export interface RackKind {
  spec: HeadSpec;
  paint: Paint;
  state: HeadState;
  pitchM: number;
}

/** More bars than this stand in two columns, so that a wide screen is used. */
const ONE_COLUMN = 4;
/** Room above the first bar, mm, and for the posts beside the bars. */
const TOP = 5;
const POST = 6;

/** Pixels per millimetre with which a rack fits a place on the screen. */
export function rackScale(rack: OvenRack, widthPx: number, heightPx: number): number {
  const columns = rack.bars > ONE_COLUMN ? 2 : 1;
  const rows = Math.ceil(rack.bars / columns);
  return Math.min(
    3,
    widthPx / (columns * (mm(rack.barM) + 2 * POST)),
    heightPx / (rows * (mm(rack.clearM) + TOP) + TOP),
  );
}

/** A rack, each bar by itself and to scale: every place, heads in those that are taken. */
export function RackView({
  rack,
  bars,
  kinds,
  pitchM,
  scale = 1.5,
  label,
}: {
  rack: OvenRack;
  bars: RackLoad['bars'];
  kinds: ReadonlyMap<string, RackKind>;
  /** Between the places that are free. */
  pitchM: number;
  scale?: number;
  label: string;
}) {
  const id = useId();
  const upright = rack.way === 'upright';
  const columns = rack.bars > ONE_COLUMN ? 2 : 1;
  const rows = Math.ceil(rack.bars / columns);
  const columnMm = mm(rack.barM) + 2 * POST;
  const width = columns * columnMm;
  const stepMm = mm(rack.clearM) + TOP;
  const height = rows * stepMm + TOP;
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={`0 0 ${width} ${height}`}
      width={width * scale}
      height={height * scale}
      className="h-auto max-w-full bg-well"
    >
      <defs>
        {[...kinds].map(([groupId, kind]) => (
          <g key={groupId} id={`${id}${groupId}`}>
            <HeadShape {...kind.spec} paint={kind.paint} state={kind.state} scale={scale} />
          </g>
        ))}
      </defs>
      <rect
        x={0.6}
        y={0.6}
        width={width - 1.2}
        height={height - 1.2}
        fill="none"
        stroke="var(--rule-2)"
        strokeWidth={1.2}
      />
      {Array.from({ length: rack.bars }, (_, bar) => {
        // Hanging heads hang under their bar; upright ones stand in a clamp at the foot of their room.
        const row = bar % rows;
        const left = Math.floor(bar / rows) * columnMm;
        const y = upright ? (row + 1) * stepMm : TOP + row * stepMm;
        let x = left + POST;
        const hung = (bars[bar] ?? []).flatMap(({ groupId, heads }) => {
          const kind = kinds.get(groupId);
          if (!kind) return [];
          const { box } = headParts(kind.spec);
          const pitch = mm(kind.pitchM);
          return Array.from({ length: heads }, (_, i) => {
            const centre = x + pitch / 2;
            x += pitch;
            // Turned on its end, a head's length runs down; the middle of its width stands on its place.
            const shift = upright
              ? `translate(${centre} ${y - mm(box.x1)}) rotate(90)`
              : `translate(${centre} ${y + mm(box.x1)}) rotate(-90)`;
            return <use key={`${groupId}${i}`} href={`#${id}${groupId}`} transform={shift} />;
          });
        });
        const free = Math.max(0, Math.floor((left + POST + mm(rack.barM) - x) / mm(pitchM) + 1e-6));
        return (
          <g key={bar}>
            {hung}
            {Array.from({ length: free }, (_, i) => (
              <path
                key={i}
                d={`M${x + mm(pitchM) * (i + 0.5)} ${upright ? y : y + 1} v${upright ? -5 : 5}`}
                stroke="var(--rule-2)"
                strokeWidth={1}
                strokeLinecap="round"
              />
            ))}
            <path
              d={`M${left + POST - 3} ${y}H${left + columnMm - POST + 3}`}
              stroke="var(--steel)"
              strokeWidth={upright ? 3 : 1.4}
            />
          </g>
        );
      })}
    </svg>
  );
}
