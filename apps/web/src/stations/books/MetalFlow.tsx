import type { LeadBalance } from '@schmelz/core';
import { useUnits } from '../../units/Units.tsx';

const OUT = [
  { of: 'headsKg', says: 'in good heads', fill: 'var(--lead-light)', back: false },
  { of: 'sprueBackKg', says: 'sprues, back to the pot', fill: 'var(--lead)', back: true },
  { of: 'rejectsBackKg', says: 'rejects, back to the pot', fill: 'var(--lead)', back: true },
  { of: 'heelKg', says: 'left in the pot', fill: 'var(--lead)', back: true },
  { of: 'drossKg', says: 'skimmed off', fill: 'var(--lead-shade)', back: false },
  { of: 'unexplainedKg', says: 'unexplained', fill: 'url(#unexplained)', back: false },
] as const;

const WIDTH = 540;
const TALL = 250;
const GAP = 16;
const TRUNK = 150;
const BEND = 250;
/** Less than this is drawn as a line, so that it can be seen at all. */
const THINNEST = 1.5;

/** Where the metal of some pours went: one runner that is charged on the left, gated off to the right. */
export function MetalFlow({ flow }: { flow: LeadBalance }) {
  const units = useUnits();
  const charged = Math.max(1e-9, flow.chargedKg);
  const parts = OUT.map((part) => ({ ...part, kg: flow[part.of] }));
  const thick = (kg: number) => Math.max(THINNEST, (TALL * Math.max(0, kg)) / charged);
  const start = (GAP * (parts.length - 1)) / 2;
  const gates = parts.map((part, at) => {
    const before = parts.slice(0, at).map(({ kg }) => thick(kg));
    const from = start + before.reduce((sum, tall) => sum + tall, 0);
    const to = before.reduce((sum, tall) => sum + Math.max(tall, 24) + GAP, 0);
    return { ...part, tall: thick(part.kg), from, to };
  });
  const last = gates.at(-1)!;
  const from = last.from + last.tall;
  const to = last.to + Math.max(last.tall, 24) + GAP;
  const height = Math.max(from, to) + 4;
  const [first] = gates;
  return (
    <svg
      viewBox={`0 0 ${WIDTH + 320} ${height}`}
      className="w-full max-w-[880px]"
      role="img"
      aria-label={`${units.bulk(flow.chargedKg)} charged: ${parts.map(({ says, kg }) => `${units.bulk(kg)} ${says}`).join(', ')}`}
    >
      <defs>
        <pattern id="unexplained" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="6" height="6" fill="var(--sheet)" />
          <rect width="2" height="6" fill="var(--stop)" />
        </pattern>
      </defs>
      <path
        d={`M8 ${first!.from}H${TRUNK}V${from}H8L0 ${from - 8}V${first!.from + 8}Z`}
        fill="var(--lead)"
        stroke="var(--contour)"
      />
      <text x={16} y={(first!.from + from) / 2 - 4} className="fig" fontSize={30} fill="#15181a">
        {units.bulk(flow.chargedKg)}
      </text>
      <text x={16} y={(first!.from + from) / 2 + 18} fontSize={14} fill="#15181a">
        charged
      </text>
      {gates.map(({ of, says, fill, back, kg, tall, from: y0, to: y1 }) => (
        <g key={of}>
          <path
            d={`M${TRUNK} ${y0}L${BEND} ${y1}H${WIDTH - 14}l14 ${tall / 2}l-14 ${tall / 2}H${BEND}L${TRUNK} ${y0 + tall}Z`}
            fill={fill}
            stroke="var(--contour)"
            strokeWidth={1}
            strokeLinejoin="round"
          />
          <text x={WIDTH + 14} y={y1 + Math.max(tall, 20) / 2 + 2} className="fig" fontSize={22} fill="var(--ink)">
            {units.bulk(kg)}
          </text>
          <text x={WIDTH + 108} y={y1 + Math.max(tall, 20) / 2 + 2} fontSize={14} fill="var(--ink-2)">
            {`${says}, ${Math.round((1000 * kg) / charged) / 10} %${back ? ' ↺' : ''}`}
          </text>
        </g>
      ))}
    </svg>
  );
}
