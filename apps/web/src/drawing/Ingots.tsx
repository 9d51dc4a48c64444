/** A block of metal of a kilogram, from its end. */
const W = 30;
const H = 13;
const MOST = 48;
const A_ROW = 12;

const BAR = `M4 0H${W - 4}L${W} ${H}H0Z`;

/** Metal in kilograms, stacked; what is less than one is drawn as much lower. */
export function Ingots({ kg }: { kg: number }) {
  const whole = Math.min(MOST, Math.floor(Math.max(0, kg)));
  const rest = kg >= MOST ? 0 : Math.max(0, kg) - whole;
  const count = whole + Number(rest > 0.05);
  const rows = Math.max(1, Math.ceil(count / A_ROW));
  const place = (at: number) => ({ x: (at % A_ROW) * (W + 2), y: (rows - 1 - Math.floor(at / A_ROW)) * (H + 2) });
  return (
    <svg
      viewBox={`-1 -1 ${A_ROW * (W + 2)} ${rows * (H + 2) + 3}`}
      style={{ width: A_ROW * (W + 2) }}
      className="max-w-full"
      aria-hidden="true"
    >
      {Array.from({ length: count }, (_, at) => {
        const { x, y } = place(at);
        const tall = at === whole ? rest : 1;
        return (
          <path
            key={at}
            d={BAR}
            transform={`translate(${x} ${y + H * (1 - tall)}) scale(1 ${tall})`}
            fill={at % 2 ? 'var(--lead)' : 'var(--lead-light)'}
            stroke="var(--contour)"
            strokeWidth={1}
            vectorEffect="non-scaling-stroke"
          />
        );
      })}
      <path d={`M-1 ${rows * (H + 2) - 1}H${A_ROW * (W + 2)}`} stroke="var(--contour)" strokeWidth={2} />
    </svg>
  );
}
