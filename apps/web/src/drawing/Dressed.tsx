import { memo } from 'react';
import { HeadShape, type HeadProps } from './Head.tsx';
import { Frame } from './Frame.tsx';
import { headParts, type HeadParts } from './head-parts.ts';
import { mm } from './paths.ts';

/** What can be on a head beside its paint, as it is drawn. */
export const DRESSED_WITH = [
  'guard',
  'banded skirt',
  'skirt tab',
  'collar',
  'hair',
  'feather',
  'tinsel',
  'thread',
  'eye',
  'wire',
  'wire form',
  'bead',
  'blade',
  'treble',
  'ring',
  'wire guard',
  'wire keeper',
  'shrink tube',
] as const;
type DressedWith = (typeof DRESSED_WITH)[number];

interface On {
  head: HeadParts;
  /** Pixels per millimetre. */
  scale: number;
  colour: string;
}

/** Even, and not too even: strands lie as they fall, the same way each time. */
const jitter = (n: number) => ((n * 2654435761) % 1000) / 1000 - 0.5;

/** Strands that start at the collar and fall back, m: how far, how wide, how many. */
function Strands({
  head,
  scale,
  colour,
  lengthM,
  spreadM,
  count,
  width = 0.5,
}: On & { lengthM: number; spreadM: number; count: number; width?: number }) {
  const x0 = head.bodyEnd + 0.25 * head.solid.scaleM;
  return (
    <g fill="none" strokeLinecap="round" strokeWidth={Math.max(width, 0.8 / scale)}>
      {Array.from({ length: count }, (_, i) => {
        const side = (2 * i) / Math.max(1, count - 1) - 1;
        const end = x0 + lengthM * (0.86 + 0.22 * jitter(i + 1));
        const y = side * spreadM + 0.15 * spreadM * jitter(i + 77);
        const from = 0.12 * side * spreadM;
        const bend = x0 + 0.45 * lengthM;
        return (
          <path
            key={i}
            // Two colours in a skirt, so that it is seen on any ground.
            stroke={i % 3 === 1 ? 'var(--ink-2)' : colour}
            opacity={0.6 + 0.8 * Math.abs(jitter(i + 9))}
            d={`M ${mm(x0)} ${mm(from)} Q ${mm(bend)} ${mm(1.25 * y)} ${mm(end)} ${mm(y + 0.25 * spreadM)}`}
          />
        );
      })}
    </g>
  );
}

/** A brush of fibres from its hole in the head up to the point of the hook. */
function Guard({ head, scale }: On) {
  const { hook, solid } = head;
  if (!hook) return null;
  const [px, py] = hook.point[0] ?? [hook.outerM, -0.012];
  const x0 = head.bodyEnd - 0.55 * solid.scaleM;
  const y0 = -0.6 * solid.radiusM;
  return (
    <g fill="none" stroke="var(--ink)" strokeLinecap="round" strokeWidth={Math.max(0.28, 0.9 / scale)} opacity={0.8}>
      {Array.from({ length: 9 }, (_, i) => {
        const side = (i - 4) / 4;
        return (
          <path
            key={i}
            d={`M ${mm(x0 + side * 0.0006)} ${mm(y0)} L ${mm(px + side * 0.004)} ${mm(py - 0.003 + 0.0006 * jitter(i))}`}
          />
        );
      })}
    </g>
  );
}

/** Two wires that stand before the point, with a tube over them where there is one. */
function WireGuards({ head, scale, tube }: On & { tube: boolean }) {
  const { hook, solid } = head;
  if (!hook) return null;
  const [px, py] = hook.point[0] ?? [hook.outerM, -0.012];
  const x0 = head.bodyEnd - 0.4 * solid.scaleM;
  const y0 = -0.5 * solid.radiusM;
  const line = `M ${mm(x0)} ${mm(y0)} L ${mm(px)} ${mm(py - 0.0015)}`;
  return (
    <g fill="none" strokeLinecap="round">
      <path d={line} stroke="var(--steel)" strokeWidth={Math.max(0.5, 1.1 / scale)} />
      {tube && (
        <path d={line} stroke="var(--ink)" strokeWidth={1.5} pathLength={10} strokeDasharray="6 10" opacity={0.75} />
      )}
    </g>
  );
}

/** Turns of thread, wire or rubber on the collar. */
function Wrap({ head, scale, colour, turns }: On & { turns: number }) {
  const { solid, bodyEnd } = head;
  const half = 0.42 * solid.scaleM;
  return (
    <g stroke={colour} strokeWidth={Math.max(0.45, 1 / scale)} strokeLinecap="round">
      {Array.from({ length: turns }, (_, i) => {
        const x = mm(bodyEnd + (0.12 + (0.42 * i) / Math.max(1, turns)) * solid.scaleM);
        return <line key={i} x1={x} x2={x + 0.25} y1={mm(-half)} y2={mm(half)} />;
      })}
    </g>
  );
}

/** An eye where the head has its place for one. */
function Eye({ head, scale }: On) {
  const { solid } = head;
  const [x, y, r] = solid.style.eyeSpot.map((part) => mm(part * solid.scaleM)) as [number, number, number];
  return (
    <g>
      <circle cx={x} cy={y} r={r} fill="var(--straw)" stroke="#111" strokeWidth={0.6 / scale} />
      <circle cx={x} cy={y} r={0.55 * r} fill="#0d0f11" />
      <circle cx={x - 0.28 * r} cy={y - 0.3 * r} r={0.18 * r} fill="#fff" />
    </g>
  );
}

/** Wire behind the head with what hangs on it: beads, blade, treble; or ring and hook alone. */
function Tail({ head, scale, colour, has }: On & { has: (kind: DressedWith) => boolean }) {
  const { solid, bodyEnd } = head;
  const x0 = mm(bodyEnd);
  const long = has('wire form') ? 22 : 5;
  const end = x0 + long;
  const wire = Math.max(0.7, 1.1 / scale);
  const barbs = [-1, 0, 1];
  return (
    <g strokeLinecap="round" fill="none">
      <line x1={x0} y1={0} x2={end} y2={0} stroke="var(--steel)" strokeWidth={wire} />
      <circle cx={end + 1.2} cy={0} r={1.2} stroke="var(--steel)" strokeWidth={wire} />
      {has('bead') &&
        [0.25, 0.38, 0.72, 0.85].map((at) => (
          <circle
            key={at}
            cx={x0 + at * long}
            cy={0}
            r={1.5}
            fill={colour}
            stroke="var(--contour)"
            strokeWidth={0.5 / scale}
          />
        ))}
      {has('blade') && (
        <ellipse
          cx={x0 + 0.55 * long + 8}
          cy={-4.5}
          rx={9}
          ry={2.6}
          transform={`rotate(-14 ${x0 + 0.55 * long} 0)`}
          fill="var(--lead)"
          stroke="var(--contour)"
          strokeWidth={0.9 / scale}
        />
      )}
      {has('treble') &&
        barbs.map((side) => (
          <path
            key={side}
            d={`M ${end + 2.4} 0 l 7 0 q 3.4 ${side * 5} -1.2 ${side * 5.4} l -1.6 ${side * 0.4}`}
            stroke="var(--steel)"
            strokeWidth={wire}
          />
        ))}
      {has('ring') && !has('wire form') && (
        <circle cx={end + 1.2} cy={0} r={2.2} stroke="var(--steel)" strokeWidth={wire * 0.8} />
      )}
      <title>{solid.style.name}</title>
    </g>
  );
}

const HANGING: readonly DressedWith[] = ['treble', 'blade', 'wire form', 'ring'];

/** A head as it is sold, to scale: what is on it by then is drawn where it sits. */
export const Dressed = memo(function Dressed({
  on,
  colour = 'var(--ink-2)',
  scale = 4,
  label,
  className,
  ...props
}: Omit<HeadProps, 'pose'> & { on: readonly string[]; colour?: string }) {
  const head = headParts(props);
  const has = (kind: DressedWith) => on.includes(kind);
  const skirted = has('banded skirt') || has('skirt tab');
  const haired = has('hair') || has('feather');
  const hanging = HANGING.some(has);
  const shankM = head.hook ? head.hook.outerM - head.bodyEnd : 0.02;
  const tailM = skirted
    ? Math.max(0.05, 1.25 * shankM)
    : haired
      ? Math.max(0.03, 1.5 * shankM, 5 * head.solid.radiusM)
      : 0;
  const spreadM = skirted ? 0.016 : 0.3 * shankM;
  const { x0 } = head.box;
  let { y0, x1, y1 } = head.box;
  if (tailM > 0) {
    x1 = Math.max(x1, head.bodyEnd + tailM * 1.05);
    y1 = Math.max(y1, 1.4 * spreadM);
    y0 = Math.min(y0, -1.25 * spreadM);
  }
  if (has('guard') || has('wire guard')) y0 -= 0.0045;
  if (hanging) {
    x1 = Math.max(x1, head.bodyEnd + (has('wire form') ? 0.036 : 0.019));
    [y0, y1] = [Math.min(y0, -0.0095), Math.max(y1, 0.0075)];
  }
  const drawn = { head, scale, colour };
  return (
    <Frame box={{ x0, y0, x1, y1 }} scale={scale} label={label} className={className}>
      {hanging && <Tail {...drawn} has={has} />}
      {skirted && <Strands {...drawn} lengthM={tailM} spreadM={spreadM} count={26} width={0.8} />}
      {has('hair') && <Strands {...drawn} lengthM={tailM} spreadM={0.5 * spreadM} count={44} width={0.25} />}
      {has('feather') && <Strands {...drawn} lengthM={tailM} spreadM={0.35 * spreadM} count={30} width={0.2} />}
      <HeadShape scale={scale} {...props} />
      {(has('thread') || has('wire') || has('collar') || has('banded skirt') || has('tinsel')) && (
        <Wrap
          {...drawn}
          colour={has('thread') || has('collar') ? 'var(--ink)' : 'var(--steel)'}
          turns={has('thread') ? 9 : 4}
        />
      )}
      {has('guard') && <Guard {...drawn} />}
      {has('wire guard') && <WireGuards {...drawn} tube={has('shrink tube')} />}
      {has('eye') && <Eye {...drawn} />}
    </Frame>
  );
});
