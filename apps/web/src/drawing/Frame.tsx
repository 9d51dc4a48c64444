import type { ReactNode } from 'react';
import { mm } from './paths.ts';

/** A drawing to scale, in metres: what it shows from x0, y0 to x1, y1, in so many pixels a millimetre. */
export function Frame({
  box: { x0, y0, x1, y1 },
  scale,
  label,
  className,
  children,
}: {
  box: { x0: number; y0: number; x1: number; y1: number };
  scale: number;
  /** Without one it is an ornament, and is not read out. */
  label: string | undefined;
  className: string | undefined;
  children: ReactNode;
}) {
  const [width, height] = [mm(x1 - x0), mm(y1 - y0)];
  return (
    <svg
      className={className}
      width={width * scale}
      height={height * scale}
      viewBox={`${mm(x0)} ${mm(y0)} ${width} ${height}`}
      role={label ? 'img' : undefined}
      aria-label={label}
      aria-hidden={label ? undefined : true}
    >
      {children}
    </svg>
  );
}
