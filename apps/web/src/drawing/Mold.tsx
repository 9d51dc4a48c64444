import { sprueOf, type HookSize, type StyleId } from '@schmelz/core';
import { memo, useId, type CSSProperties } from 'react';
import { headKey, headParts, tones, type HeadSpec } from './head-parts.ts';
import { mm, pathOf } from './paths.ts';

/** One cavity of a drawn mold. */
export interface DrawnCavity {
  position: number;
  style: StyleId;
  massKg: number;
  hookSize: HookSize;
  eyeAngleDeg: number;
  stamp: string;
  /** empty: nothing in it; loaded: a hook lies in its groove; filled: metal in it; blocked: struck out. */
  state: 'empty' | 'loaded' | 'filled' | 'blocked';
  /** Of a filled cavity: share that is solid, 0 to 1. */
  frozen?: number;
}

/** The least that a cavity takes of the plate, and the plate's least height, m. */
const PITCH = 0.026;
const HEIGHT = 0.047;
/** Metal that is left between two cavities, and below one, m. */
const WALL = 0.007;
const NOSE = 0.009;
const CUT = 0.0022;
/** Lines of the drawing are so many times thinner than a millimetre of the mold. */
const SCALE = 5;

/** Where cavities lie in their plate, m: as far apart as the widest needs, as low as the longest reaches. */
function plateSize(cavities: readonly DrawnCavity[]) {
  let [pitch, height] = [PITCH, HEIGHT];
  for (const cavity of cavities) {
    const { outline, noseX, solid } = headParts(specOf(cavity));
    const broadest = Math.max(sprueOf(solid).topRadiusM, ...outline.map(([, y]) => Math.abs(y)));
    pitch = Math.max(pitch, 2 * broadest + WALL);
    height = Math.max(height, NOSE - noseX + Math.max(...outline.map(([x]) => x)) + WALL);
  }
  return { pitch, height, first: 0.48 * pitch, width: pitch * cavities.length + 0.004 };
}

/** Size of a mold's drawing in millimetres, hooks below the edge included; columns under it line up with `columnMm`. */
export function moldFrame(cavities: readonly DrawnCavity[]) {
  const { pitch, height, first, width: widthM } = plateSize(cavities);
  const low = Math.max(
    height,
    ...cavities.map((cavity) => {
      const head = headParts(specOf(cavity));
      return NOSE - head.noseX + (head.hook?.outerM ?? 0) + 0.001;
    }),
  );
  return {
    x0: mm(-0.006),
    width: mm(widthM + 0.018),
    height: mm(low + 0.001),
    /** Left edge and width of a cavity's column as shares of the drawing's width. */
    column: (index: number) => ({
      left: (mm(first + pitch * (index - 0.28)) + 6) / mm(widthM + 0.018),
      width: mm(pitch * 0.94) / mm(widthM + 0.018),
    }),
  };
}

const specOf = ({ style, massKg, hookSize, eyeAngleDeg }: DrawnCavity): HeadSpec => ({
  style,
  massKg,
  hookSize,
  eyeAngleDeg,
});

/** Metal that sets from the wall: the hot core shrinks as the frozen share grows. */
function Filling({ cavity, scale }: { cavity: DrawnCavity; scale: number }) {
  const head = headParts(specOf(cavity));
  const frozen = cavity.frozen ?? 1;
  const core = Math.sqrt(Math.max(0, 1 - frozen));
  const tone = tones(head);
  const middle = (head.noseX + head.bodyEnd) / 2;
  return (
    <>
      <path d={pathOf(head.outline)} fill="var(--lead)" stroke="var(--contour)" strokeWidth={1 / scale} />
      <path d={tone.shade} fillRule="evenodd" fill="var(--lead-shade)" opacity={0.5} />
      {core > 0.05 && (
        <path
          d={pathOf(
            head.outline
              .filter(([x]) => x <= head.bodyEnd)
              .map(([x, y]) => [middle + (x - middle) * core * 0.9, y * core * 0.9]),
          )}
          fill="var(--straw)"
        />
      )}
    </>
  );
}

/** One cavity; drawn anew only when something in it has changed. */
const Cavity = memo(function Cavity({
  x,
  stampX,
  stampY,
  scale,
  ...cavity
}: DrawnCavity & { x: number; stampX: number; stampY: number; scale: number }) {
  const head = headParts(specOf(cavity));
  const sprue = sprueOf(head.solid);
  const gate = (inset: number) =>
    `M${mm(-sprue.topRadiusM * inset)} 0H${mm(sprue.topRadiusM * inset)}L${mm(sprue.neckRadiusM * inset)} ${mm(NOSE - 0.0016)}V${mm(NOSE + 0.0005)}H${mm(-sprue.neckRadiusM * inset)}V${mm(NOSE - 0.0016)}Z`;
  const { hook } = head;
  const filled = cavity.state === 'filled';
  const core = Math.sqrt(Math.max(0, 1 - (cavity.frozen ?? 1)));
  return (
    <g transform={`translate(${x} 0)`}>
      <path
        d={gate(1)}
        fill={filled ? 'var(--lead)' : 'var(--cavity)'}
        stroke="var(--alu-edge)"
        strokeWidth={0.9 / scale}
      />
      {filled && core > 0.05 && <path d={gate(core * 0.9)} fill="var(--straw)" />}
      <g transform={`translate(0 ${mm(NOSE - head.noseX)}) rotate(90)`}>
        {hook && (
          <g fill="none" stroke="var(--cavity)" strokeOpacity={0.85} strokeLinecap="round">
            <path d={pathOf(hook.wire, false)} strokeWidth={mm(hook.wireM) + 1.5} />
            <circle
              cx={mm(hook.eye.x)}
              cy={mm(hook.eye.y)}
              r={mm(hook.eye.radiusM) + 0.5}
              fill="var(--cavity)"
              stroke="none"
            />
          </g>
        )}
        <path d={pathOf(head.outline)} fill="var(--cavity)" stroke="var(--alu-edge)" strokeWidth={0.9 / scale} />
        {hook && (cavity.state === 'loaded' || filled) && (
          <g
            fill="none"
            stroke="var(--in-groove)"
            strokeLinecap="round"
            strokeLinejoin="round"
            strokeWidth={Math.max(mm(hook.wireM), 1.4 / scale)}
          >
            <path d={pathOf(hook.wire, false)} />
            <circle cx={mm(hook.eye.x)} cy={mm(hook.eye.y)} r={mm(hook.eye.radiusM)} />
            <path d={pathOf(hook.point)} fill="var(--in-groove)" strokeWidth={0.3} />
          </g>
        )}
        {filled && <Filling cavity={cavity} scale={scale} />}
      </g>
      {cavity.state === 'blocked' && (
        <path d={`M-7 12L7 30M7 12L-7 30`} stroke="var(--stop)" strokeWidth={2.4 / scale} />
      )}
      <text
        x={stampX}
        y={stampY}
        fontSize={cavity.stamp.length > 3 ? 3.6 : 4.6}
        fontWeight={640}
        textAnchor="middle"
        style={{ fontStretch: '116%' }}
        fill="var(--ink)"
      >
        {cavity.stamp}
      </text>
    </g>
  );
});

/** The outline of the plate, with its corners cut. */
function plateOf(w: number, h: number): string {
  const c = mm(CUT);
  return `M${c} 0H${w - c}L${w} ${c}V${h - c}L${w - c} ${h}H${c}L0 ${h - c}V${c}Z`;
}

interface PlateProps {
  cavities: readonly DrawnCavity[];
  soot: number;
}
/** Whether two plates look alike: what lies in their cavities does not count. */
const sameCut = (a: PlateProps, b: PlateProps) =>
  a.soot === b.soot &&
  a.cavities.length === b.cavities.length &&
  a.cavities.every((cavity, i) => headKey(specOf(cavity)) === headKey(specOf(b.cavities[i]!)));

/** The plate that the cavities are cut in, with its grain and its soot: it does not change from tap to tap. */
const Plate = memo(function Plate({ cavities, soot }: PlateProps) {
  const id = useId();
  const { width, height, first, pitch } = plateSize(cavities);
  const [w, h] = [mm(width), mm(height)];
  const marks = Array.from({ length: Math.ceil((w + 60) / 2.4) }, (_, i) => -30 + i * 2.4);
  return (
    <>
      <defs>
        <clipPath id={`${id}p`}>
          <path d={plateOf(w, h)} />
        </clipPath>
        <filter id={`${id}s`} x="-50%" y="-50%" width="200%" height="200%">
          <feGaussianBlur stdDeviation={1.5} />
        </filter>
      </defs>
      <g stroke="var(--alu-edge)" strokeWidth={0.2}>
        <path d="M-4.6 5H0V15H-4.600ZM-4.600 31H0V41H-4.600Z" fill="var(--alu-2)" />
        <path d="M-4.600 15H-1.600V31H-4.600Z" fill="var(--alu)" />
        <path d={`M${w} 15H${w + 8}L${w + 9.5} 17V30L${w + 8} 32H${w}Z`} fill="var(--alu-2)" />
        <circle cx={w + 4.2} cy={20} r={1.3} fill="var(--cavity)" />
        <circle cx={w + 4.2} cy={27} r={1.3} fill="var(--cavity)" />
      </g>
      <path d={plateOf(w, h)} fill="var(--alu)" />
      <g clipPath={`url(#${id}p)`}>
        <path
          d={marks.map((x) => `M${x} ${h}Q${x + 11} ${h / 2} ${x} 0`).join('')}
          fill="none"
          stroke="var(--alu-edge)"
          strokeOpacity={0.18}
          strokeWidth={0.2}
        />
        <g filter={`url(#${id}s)`} opacity={soot}>
          {cavities.map((cavity, index) => {
            const head = headParts(specOf(cavity));
            return (
              <g
                key={cavity.position}
                transform={`translate(${mm(first + pitch * index)} ${mm(NOSE - head.noseX)}) rotate(90)`}
              >
                <path d={pathOf(head.outline)} fill="var(--soot)" stroke="var(--soot)" strokeWidth={4.5} />
              </g>
            );
          })}
        </g>
      </g>
    </>
  );
}, sameCut);

/** The open half of a mold, to scale, gates up; soot fades as it wears. */
export function Mold({
  cavities,
  sootWear = 0,
  edge = 'var(--alu-edge)',
  label,
  className,
  style,
}: {
  cavities: readonly DrawnCavity[];
  /** 0: freshly smoked, 1: worn bare. */
  sootWear?: number;
  /** Colour of the rim: the mold's heat, where it is known. */
  edge?: string;
  label: string;
  className?: string;
  style?: CSSProperties;
}) {
  const frame = moldFrame(cavities);
  const { width, height, first, pitch } = plateSize(cavities);
  // Of wide heads the stamp stands below, of others beside the collar.
  const [stampX, stampY] = pitch > PITCH ? [5 - mm(pitch / 2), mm(height) - 2.4] : [8.6, 27];
  return (
    <svg
      className={className}
      style={style}
      viewBox={`${frame.x0} -1 ${frame.width} ${frame.height + 1}`}
      role="img"
      aria-label={label}
    >
      {/* Wear by tenths: nobody sees less, and the plate is drawn seldom. */}
      <Plate cavities={cavities} soot={Math.round(10 * (0.2 + 0.7 * (1 - sootWear))) / 10} />
      <path
        d={plateOf(mm(width), mm(height))}
        fill="none"
        stroke={edge}
        strokeWidth={edge === 'var(--alu-edge)' ? 0.25 : 0.5}
      />
      {cavities.map((cavity, index) => (
        <Cavity
          key={cavity.position}
          {...cavity}
          x={mm(first + pitch * index)}
          stampX={stampX}
          stampY={stampY}
          scale={SCALE}
        />
      ))}
    </svg>
  );
}
