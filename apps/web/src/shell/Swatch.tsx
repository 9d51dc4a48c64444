import { partKind, type PartKind } from '@schmelz/core';
import type { Material } from '@schmelz/contract';

/** Signs of kinds that have no colour of their own, on a grid of 20. */
const SIGNS: Record<PartKind['sign'], string> = {
  bar: 'M3 7H17L15 14H5Z',
  hook: 'M4 4V11A5 5 0 0 0 14 11V8',
  dot: 'M10 4a6 6 0 1 0 .01 0Z',
  ring: 'M10 4a6 6 0 1 0 .01 0ZM10 7a3 3 0 1 1-.01 0Z',
  strand: 'M4 3Q9 10 4 17M10 3Q15 10 10 17M16 3Q19 10 16 17',
  drop: 'M10 3Q17 11 13 15A4.500 4.500 0 0 1 7 15Q3 11 10 3Z',
  leaf: 'M10 2Q18 10 10 18Q2 10 10 2ZM10 5V18',
  head: 'M3 10a6 6 0 1 0 12 0a6 6 0 1 0-12 0M15 10H19',
};

/** A part's colour, or the sign of its kind. */
export function Swatch({ material }: { material: Material }) {
  const { sign } = partKind(material.kind);
  const colour = material.powder?.colour ?? (material.kind === 'lead' ? 'var(--lead)' : undefined);
  return (
    <span
      className="inline-flex size-5 shrink-0 items-center justify-center border border-rule-2"
      style={{ background: colour }}
    >
      {!colour && (
        <svg viewBox="0 0 20 20" width={18} height={18} aria-hidden="true">
          <path d={SIGNS[sign]} fill="none" stroke="currentColor" strokeWidth={1.6} />
        </svg>
      )}
    </span>
  );
}
