import { memo, useId } from 'react';
import { BARE, grain, headParts, sprueOutline, tones, type HeadSpec, type Paint } from './head-parts.ts';
import { mm, pathOf } from './paths.ts';

/** hook: the hook alone; cast: with its sprue; blank: trimmed; powder: not baked; baked: with its one lens of light. */
export type HeadState = 'hook' | 'cast' | 'blank' | 'powder' | 'baked';
export type Pose = 'lie' | 'hang' | 'nose';

export interface HeadProps extends HeadSpec {
  state: HeadState;
  paint?: Paint;
  pose?: Pose;
  /** Pixels per millimetre. */
  scale?: number;
  label?: string;
  className?: string;
}

function Hook({ spec, scale }: { spec: HeadSpec; scale: number }) {
  const { hook } = headParts(spec);
  const width = Math.max(mm(hook.wireM), 1.1 / scale);
  return (
    <g fill="none" stroke="var(--steel)" strokeLinecap="round" strokeLinejoin="round" strokeWidth={width}>
      <path d={pathOf(hook.wire, false)} />
      <circle cx={mm(hook.eye.x)} cy={mm(hook.eye.y)} r={mm(hook.eye.radiusM)} />
      <path d={pathOf(hook.point)} fill="var(--steel)" strokeWidth={0.3 / scale} />
      {scale > 1.7 && <path d={pathOf(hook.barb)} fill="var(--steel)" stroke="none" />}
    </g>
  );
}

/** Powder on the head: base, back with a granular edge, speckle, flake. */
function PaintedBody({ spec, paint, state }: { spec: HeadSpec; paint: Paint; state: HeadState }) {
  const head = headParts(spec);
  const thrown = grain(head, Math.round(spec.massKg * 1e5) + spec.style.length * 7);
  const outline = pathOf(head.outline);
  const x0 = Math.min(...head.outline.map(([x]) => x));
  const r = head.solid.radiusM;
  const middle = (x0 + head.bodyEnd) / 2 - 0.3 * r;
  const tone = tones(head);
  return (
    <>
      <path d={outline} fill={paint.base ?? 'var(--lead)'} />
      {paint.back && (
        <>
          <path d={thrown.backPath} fill={paint.back} />
          <path d={thrown.backDots} fill={paint.back} />
          <path d={thrown.baseDots} fill={paint.base ?? 'var(--lead)'} />
        </>
      )}
      {paint.speckle && <path d={thrown.speckles} fill={paint.speckle} />}
      {paint.flake && <path d={thrown.flakes} fill={paint.flake} opacity={state === 'powder' ? 0.5 : 0.95} />}
      <path d={tone.shade} fillRule="evenodd" fill="#0b0d10" opacity={0.22} />
      <path d={tone.deep} fillRule="evenodd" fill="#0b0d10" opacity={0.13} />
      <path d={tone.rim} fillRule="evenodd" fill="#fff" opacity={state === 'powder' ? 0.12 : 0.22} />
      {state === 'baked' && (
        <ellipse
          cx={mm(middle)}
          cy={mm(-0.56 * r)}
          rx={mm(0.34 * r)}
          ry={mm(0.1 * r)}
          fill="#fff"
          opacity={0.85}
          transform={`rotate(-12 ${mm(middle)} ${mm(-0.56 * r)})`}
        />
      )}
    </>
  );
}

function LeadBody({ spec }: { spec: HeadSpec }) {
  const head = headParts(spec);
  const tone = tones(head);
  return (
    <>
      <path d={pathOf(head.outline)} fill="var(--lead)" />
      <path d={tone.shade} fillRule="evenodd" fill="var(--lead-shade)" opacity={0.55} />
      <path d={tone.deep} fillRule="evenodd" fill="var(--lead-shade)" opacity={0.35} />
      <path d={tone.rim} fillRule="evenodd" fill="var(--lead-light)" opacity={0.85} />
    </>
  );
}

/** A head without its frame, in millimetres, lying with the nose to the left: for drawings that hold many. */
export function HeadShape({ state, paint = BARE, scale = 4, ...spec }: Omit<HeadProps, 'pose' | 'label'>) {
  const clip = useId();
  const head = headParts(spec);
  const outline = pathOf(head.outline);
  const painted = (state === 'powder' || state === 'baked') && paint.base !== null;
  const [ex, ey, er] = head.solid.style.eyeSpot.map((part) => part * head.solid.scaleM) as [number, number, number];
  return (
    <>
      <Hook spec={spec} scale={scale} />
      {state === 'cast' && (
        <path d={pathOf(sprueOutline(head))} fill="var(--lead)" stroke="var(--contour)" strokeWidth={0.8 / scale} />
      )}
      {state !== 'hook' && (
        <>
          <clipPath id={clip}>
            <path d={outline} />
          </clipPath>
          <g clipPath={`url(#${clip})`}>
            {painted ? <PaintedBody spec={spec} paint={paint} state={state} /> : <LeadBody spec={spec} />}
          </g>
          <path d={outline} fill="none" stroke="var(--contour)" strokeWidth={0.9 / scale} strokeLinejoin="round" />
          {painted && paint.eye && state === 'baked' && (
            <g>
              <circle cx={mm(ex)} cy={mm(ey)} r={mm(er)} fill={paint.eye} stroke="#111" strokeWidth={0.6 / scale} />
              <circle cx={mm(ex)} cy={mm(ey)} r={mm(er * 0.52)} fill="#0d0f11" />
              <circle cx={mm(ex - er * 0.28)} cy={mm(ey - er * 0.3)} r={mm(er * 0.16)} fill="#fff" />
            </g>
          )}
        </>
      )}
    </>
  );
}

const TURN: Record<Pose, string> = { lie: '', hang: 'rotate(-90)', nose: 'rotate(90)' };

/** One head as a picture of its own, to scale. */
export const Head = memo(function Head({ pose = 'lie', scale = 4, label, className, ...props }: HeadProps) {
  const head = headParts(props);
  let { x0, y0, x1, y1 } = head.box;
  if (props.state === 'cast') {
    const sprue = sprueOutline(head);
    x0 = Math.min(x0, ...sprue.map(([x]) => x)) - 0.0004;
    y0 = Math.min(y0, ...sprue.map(([, y]) => y)) - 0.0004;
    y1 = Math.max(y1, ...sprue.map(([, y]) => y)) + 0.0004;
  }
  if (pose === 'hang') [x0, y0, x1, y1] = [y0, -x1, y1, -x0];
  if (pose === 'nose') [x0, y0, x1, y1] = [-y1, x0, -y0, x1];
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
      <g transform={TURN[pose]}>
        <HeadShape scale={scale} {...props} />
      </g>
    </svg>
  );
});
