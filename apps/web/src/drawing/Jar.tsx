import { useId } from 'react';

const WIDTH = 58;
const TOP = 16;
const HEIGHT = 66;

/** A jar of powder: full up to what is sure, hatched between the least and the most that it may hold. */
export function Jar({
  colour,
  full,
  kg,
  low,
  high,
}: {
  colour: string;
  full: number;
  kg: number;
  low: number;
  high: number;
}) {
  const hatch = useId();
  const y = (mass: number) => TOP + HEIGHT - (Math.min(full, Math.max(0, mass)) / full) * HEIGHT;
  const glass = `M8 ${TOP} H${WIDTH - 8} V${TOP + 4} L${WIDTH - 3} ${TOP + 12} V${TOP + HEIGHT} H3 V${TOP + 12} L8 ${TOP + 4} Z`;
  return (
    <svg
      width={WIDTH}
      height={TOP + HEIGHT + 2}
      viewBox={`0 0 ${WIDTH} ${TOP + HEIGHT + 2}`}
      aria-hidden="true"
      className="shrink-0"
    >
      <defs>
        <pattern id={hatch} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="2.4" height="6" fill={colour} />
        </pattern>
        <clipPath id={`${hatch}c`}>
          <path d={glass} />
        </clipPath>
      </defs>
      <path d={glass} fill="var(--sheet)" />
      <g clipPath={`url(#${hatch}c)`}>
        <rect x="0" width={WIDTH} y={y(high)} height={Math.max(0, y(low) - y(high))} fill={`url(#${hatch})`} />
        <rect x="0" width={WIDTH} y={y(low)} height={Math.max(0, TOP + HEIGHT - y(low))} fill={colour} />
        <path d={`M0 ${y(kg)}H${WIDTH}`} stroke="var(--contour)" strokeWidth="1.5" />
      </g>
      <path d={glass} fill="none" stroke="var(--contour)" strokeWidth="1.5" strokeLinejoin="round" />
      <rect x="5" y="3" width={WIDTH - 10} height="12" fill="var(--lead)" stroke="var(--contour)" strokeWidth="1.5" />
      <path d={`M12 3V15M20 3V15M29 3V15M38 3V15M46 3V15`} stroke="var(--contour)" strokeWidth="0.8" opacity="0.6" />
    </svg>
  );
}
