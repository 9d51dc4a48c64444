import type { Clock } from '@schmelz/core';

/** Small bodies that stand on the shelf and fill as their wait passes; share is 0 to 1. */
export function ClockBody({ body, share }: { body: Clock['body']; share: number }) {
  const full = Math.min(1, Math.max(0, share));
  const line = { fill: 'none', stroke: 'var(--ink)', strokeWidth: 1.5 } as const;
  return (
    <svg width={40} height={42} viewBox="0 0 44 44" aria-hidden="true">
      {body === 'melt' && (
        <>
          <path d="M6 6H34L31.500 34H8.500Z" fill="var(--well)" />
          <path
            d={`M${6 + 2.5 * (1 - full)} ${34 - 28 * full}H${34 - 2.5 * (1 - full)}L31.500 34H8.500Z`}
            fill="var(--silver)"
          />
          <path d="M4 6H36M6 6 8.500 34H31.500L34 6M17 34V39H23V34M11 34 8 44M29 34 32 44" {...line} />
        </>
      )}
      {body === 'freeze' && (
        <>
          <path d="M5 8H39V36L35 40H5Z" fill="var(--well)" />
          <path d={`M5 ${40 - 32 * full}H39V${Math.max(36, 40 - 32 * full)}L35 40H5Z`} fill="var(--lead)" />
          <path d="M5 8H39V36L35 40H5ZM17 8 20 16H24L27 8M22 16V18" {...line} />
          <circle cx={22} cy={25} r={7} {...line} />
        </>
      )}
      {body === 'dry' && (
        <>
          <circle cx={22} cy={26} r={12} fill="var(--well)" />
          <path d={`M${22 - 12} 26a12 12 0 0 0 24 0Z`} fill="var(--good)" opacity={full} />
          <circle cx={22} cy={26} r={12} {...line} />
          <path d="M22 14V3H30M20 38V42M24 38V41" {...line} />
        </>
      )}
      {body === 'wait' && (
        <>
          <path d="M10 4H34L24 22 34 40H10L20 22Z" fill="var(--well)" />
          <path d={`M${22 - 12 * full} 40 22 ${40 - 18 * full} ${22 + 12 * full} 40Z`} fill="var(--good)" />
          <path d="M10 4H34L24 22 34 40H10L20 22Z" {...line} />
        </>
      )}
      {body === 'cool' && (
        <>
          <circle cx={22} cy={28} r={12} fill="var(--straw)" />
          <path d={`M${22 - 12} 28a12 12 0 0 0 24 0Z`} fill="var(--lead)" opacity={full} />
          <path d={`M${22 - 12} 28a12 12 0 0 1 24 0Z`} fill="var(--lead)" opacity={Math.max(0, 2 * full - 1)} />
          <circle cx={22} cy={28} r={12} {...line} />
          <path d="M22 16V4M14 12C12 9 16 8 14 4M30 12C28 9 32 8 30 4" {...line} />
        </>
      )}
      {body === 'oven' && (
        <>
          <path d="M4 4H40V42H4Z" fill="var(--well)" />
          <path d={`M4 ${42 - 38 * full}H40V42H4Z`} fill="var(--straw)" />
          <path d="M4 4H40V42H4ZM4 14H40M10 14V21M18 14V21M26 14V21M34 14V21" {...line} />
          {[10, 18, 26, 34].map((x) => (
            <circle key={x} cx={x} cy={24} r={2.8} fill="var(--ink)" />
          ))}
        </>
      )}
    </svg>
  );
}

/** Ingots in a heap: as many as there are kilograms, to a point. */
export function IngotHeap({ kg, className }: { kg: number; className?: string }) {
  const count = Math.max(0, Math.min(28, Math.round(kg / 1.5)));
  const perRow = 6;
  const bars = Array.from({ length: count }, (_, i) => {
    const row = Math.floor(i / perRow);
    return { x: (i % perRow) * 19 + (row % 2 ? 8 : 0), y: 62 - row * 12 };
  });
  return (
    <svg className={className} width={124} height={76} viewBox="0 0 124 76" aria-hidden="true">
      {bars.map(({ x, y }) => (
        <g key={`${x} ${y}`} stroke="var(--contour)" strokeWidth={0.8}>
          <path d={`M${x} ${y + 11}L${x + 3} ${y + 3}H${x + 15}L${x + 18} ${y + 11}Z`} fill="var(--lead)" />
          <path d={`M${x + 3} ${y + 3}L${x + 5} ${y}H${x + 13}L${x + 15} ${y + 3}Z`} fill="var(--lead-light)" />
        </g>
      ))}
      <path d="M0 74H124" stroke="var(--rule-2)" />
    </svg>
  );
}

/** The pot with its level; the figure beside it says how warm. */
export function PotBody({ share, hot }: { share: number; hot: boolean }) {
  const top = 62 - 50 * Math.min(1, Math.max(0.04, share));
  const inset = (y: number) => 8 + (7 * (y - 8)) / 54;
  return (
    <svg width={92} height={76} viewBox="0 0 92 76" aria-hidden="true">
      <path d="M8 8H84L77 62H15Z" fill="var(--well)" />
      <path d={`M${inset(top)} ${top}H${92 - inset(top)}L77 62H15Z`} fill={hot ? 'var(--straw)' : 'var(--silver)'} />
      <path d="M4 8H88M8 8 15 62H77L84 8M41 62V70H51V62" fill="none" stroke="var(--ink)" strokeWidth={1.6} />
    </svg>
  );
}
