/** Small helpers from core geometry (metres) to SVG path data (millimetres, y down). */
export type Point = readonly [number, number];

const MM = 1000;
/** Two decimals of a millimetre are finer than any screen. */
export const mm = (metres: number): number => Math.round(metres * MM * 100) / 100;

/** Written once for as long as its points are kept: a bench draws the same head at every tap. */
const written = new WeakMap<readonly Point[], string>();

export function pathOf(points: readonly Point[], closed = true): string {
  if (points.length === 0) return '';
  const known = written.get(points);
  const path = known ?? `M${points.map(([x, y]) => `${mm(x)} ${mm(y)}`).join('L')}`;
  if (known === undefined) written.set(points, path);
  return closed ? `${path}Z` : path;
}

export const moved = (points: readonly Point[], dx: number, dy: number): Point[] =>
  points.map(([x, y]): Point => [x + dx, y + dy]);

/** Circles as one path, so that a hundred specks are one element. */
export function dotsPath(dots: readonly { x: number; y: number; r: number }[]): string {
  return dots
    .map(
      ({ x, y, r }) =>
        `M${mm(x - r)} ${mm(y)}a${mm(r)} ${mm(r)} 0 1 0 ${mm(2 * r)} 0a${mm(r)} ${mm(r)} 0 1 0 ${mm(-2 * r)} 0`,
    )
    .join('');
}
