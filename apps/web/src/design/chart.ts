/** What all charts share: quiet axes, no movement, a plain sheet for the tip. */
export const axis = { stroke: 'var(--rule-2)', tick: { fill: 'var(--ink-2)', fontSize: 13 } } as const;

export const mark = (
  text: string,
  position: 'insideTopLeft' | 'insideTopRight' | 'insideBottomRight' | 'insideBottomLeft' | 'top' | 'right',
  colour = 'var(--ink-2)',
) => ({ value: text, fill: colour, fontSize: 13, position });

export const tip = {
  isAnimationActive: false,
  contentStyle: { background: 'var(--sheet)', border: '1px solid var(--rule-2)', color: 'var(--ink)' },
} as const;

/** Even marks from 0 to the top. */
export const steps = (top: number, by: number): number[] =>
  Array.from({ length: Math.floor(top / by + 1e-9) + 1 }, (_, i) => i * by);

/** A step that gives four to eight marks up to the top. */
export function niceStep(top: number): number {
  const rough = top / 6;
  const power = 10 ** Math.floor(Math.log10(Math.max(rough, 1e-9)));
  return [1, 2, 5, 10].map((factor) => factor * power).find((step) => step >= rough) ?? 10 * power;
}

/** An axis around what is shown: from one round number to another, with round numbers between. */
export function roundAxis(low: number, high: number): { domain: [number, number]; ticks: number[] } {
  const step = niceStep(Math.max(high - low, 1e-6));
  const [from, to] = [Math.floor(low / step + 1e-9), Math.ceil(high / step - 1e-9)];
  const ticks = Array.from({ length: to - from + 1 }, (_, i) => Number(((from + i) * step).toPrecision(9)));
  return { domain: [ticks[0]!, ticks.at(-1)!], ticks };
}

const MINUTES = [1, 2, 5, 10, 15, 30, 60, 120, 240, 720, 1440, 2880, 10_080];

/** Whole minutes and hours of the clock on the wall within a stretch, four to eight of them. */
export function timeTicks(from: number, to: number): number[] {
  const minutes = (to - from) / 60_000;
  const step = (MINUTES.find((each) => minutes / each <= 8) ?? Math.ceil(minutes / 8)) * 60_000;
  const offset = new Date(from).getTimezoneOffset() * 60_000;
  const first = Math.ceil((from - offset) / step) * step + offset;
  return Array.from({ length: Math.floor((to - first) / step) + 1 }, (_, i) => first + i * step);
}
