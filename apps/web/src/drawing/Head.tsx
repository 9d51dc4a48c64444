import type { HeadLook } from '@schmelz/core';
import { memo, useId } from 'react';
import { LeadBody, PaintedBody } from './Body.tsx';
import { Frame } from './Frame.tsx';
import { headParts, sprueOutline, type HeadSpec } from './head-parts.ts';
import { BARE, isPainted, type Paint } from './paint.ts';
import { mm, pathOf } from './paths.ts';

/** hook: the hook alone; cast: with its sprue; blank: trimmed; powder: not baked; baked: with its one lens of light. */
export type HeadState = HeadLook;
type Pose = 'lie' | 'hang' | 'nose';

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
  if (!hook) return null;
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

/** A head without its frame, in millimetres, lying with the nose to the left: for drawings that hold many. */
export function HeadShape({ state, paint = BARE, scale = 4, ...spec }: Omit<HeadProps, 'pose' | 'label'>) {
  const clip = useId();
  const head = headParts(spec);
  const outline = pathOf(head.outline);
  const painted = (state === 'powder' || state === 'baked') && isPainted(paint);
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
            {painted ? (
              <PaintedBody spec={spec} paint={paint} baked={state === 'baked'} scale={scale} />
            ) : (
              <LeadBody spec={spec} />
            )}
          </g>
          <path d={outline} fill="none" stroke="var(--contour)" strokeWidth={0.9 / scale} strokeLinejoin="round" />
          {paint.eye && state === 'baked' && (
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
  return (
    <Frame box={{ x0, y0, x1, y1 }} scale={scale} label={label} className={className}>
      <g transform={TURN[pose]}>
        <HeadShape scale={scale} {...props} />
      </g>
    </Frame>
  );
});
