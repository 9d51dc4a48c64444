import { hookShape, seeded, typicalHook, type HookSize, type Wire } from '@schmelz/core';
import { memo } from 'react';
import { mm, pathOf } from './paths.ts';

/** One drawn stands for ten. */
const STANDS_FOR = 10;
const MOST_DRAWN = 42;
const WIDTH = 150;
const HEIGHT = 92;
/** Pixels per millimetre: a box is seen from some way off. */
const SCALE = 0.95;

const WIRES: readonly (readonly [plating: RegExp, colour: string])[] = [
  [/black/i, 'var(--contour)'],
  [/bronze|brown/i, '#7c5a2a'],
  [/gold/i, '#a8822c'],
  [/red/i, '#a23a2a'],
];
const colourOf = (plating: string) => WIRES.find(([says]) => says.test(plating))?.[1] ?? 'var(--steel)';

/** A name as a seed, so that the same hooks always lie alike. */
const seedOf = (text: string) => [...text].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) | 0, 7);

interface HooksInBox {
  id: string;
  size: HookSize;
  wire: Wire;
  eyeAngleDeg: number;
  plating: string;
  pieces: number;
}

/** One compartment of a hook box, from above: hooks as they fell into it. */
export const HookCompartment = memo(function HookCompartment({
  id,
  size,
  wire,
  eyeAngleDeg,
  plating,
  pieces,
}: HooksInBox) {
  const shape = hookShape(typicalHook(size, wire), eyeAngleDeg);
  const random = seeded(seedOf(id));
  const drawn = Math.min(MOST_DRAWN, Math.ceil(Math.max(0, pieces) / STANDS_FOR));
  const half = mm(shape.outerM) / 2;
  const places = Array.from({ length: drawn }, () => {
    // They lie more or less along the box, half of them the other way round.
    const turn = (random() - 0.5) * 80 + (random() < 0.5 ? 180 : 0);
    const room = { x: WIDTH / SCALE - 2 * half - 8, y: HEIGHT / SCALE - 34 };
    const [x, y] = [half + 4 + random() * room.x, 17 + random() * room.y];
    return `translate(${x.toFixed(1)} ${y.toFixed(1)}) rotate(${Math.round(turn)}) translate(${-half} 4)`;
  });
  const colour = colourOf(plating);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full" aria-hidden="true">
      <g transform={`scale(${SCALE})`} fill="none" strokeLinecap="round" strokeLinejoin="round">
        {places.map((place) => (
          <g key={place} transform={place}>
            <path d={pathOf(shape.wire, false)} stroke="var(--well)" strokeWidth={mm(shape.wireM) * 2.4} />
            <path d={pathOf(shape.wire, false)} stroke={colour} strokeWidth={Math.max(mm(shape.wireM), 1)} />
            <circle cx={mm(shape.eye.x)} cy={mm(shape.eye.y)} r={mm(shape.eye.radiusM)} stroke={colour} />
            <path d={pathOf(shape.point)} fill={colour} stroke={colour} strokeWidth={0.4} />
          </g>
        ))}
      </g>
    </svg>
  );
});
