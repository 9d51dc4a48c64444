import { useId, type ReactNode } from 'react';
import { grainOf } from './grain.ts';
import { headKey, headParts, tones, type HeadSpec } from './head-parts.ts';
import type { Coat, Paint } from './paint.ts';
import { mm, pathOf } from './paths.ts';

export function LeadBody({ spec }: { spec: HeadSpec }) {
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

type Grain = ReturnType<typeof grainOf>;

/**
 * What a powder's surface shows beside its colour: grains of a mixture, points of metal, flakes, the tooth of a matte
 * one.
 */
function Surface({ coat, grain, near }: { coat: Coat; grain: Grain; near: boolean }) {
  return (
    <>
      {coat.grains && <path d={grain.grains(1 - coat.grains.share)} fill={coat.grains.first} opacity={0.55} />}
      {coat.grains && <path d={grain.seconds(coat.grains.share)} fill={coat.grains.second} opacity={0.9} />}
      {coat.gloss === 'metallic' && <path d={grain.glints} fill="#fff" opacity={0.5} />}
      {coat.gloss === 'metallic' && near && <path d={grain.shadows} fill="#0b0d10" opacity={0.28} />}
      {coat.gloss === 'flake' && <path d={grain.flakes} fill="#fff" opacity={0.55} />}
      {coat.gloss === 'matte' && near && <path d={grain.tooth} fill="#fff" opacity={0.16} />}
    </>
  );
}

/** Light on what lies on top: one lens on gloss, a band on metal, two on clear, none on matte. */
function Light({ spec, gloss }: { spec: HeadSpec; gloss: Coat['gloss'] }) {
  const head = headParts(spec);
  const r = head.solid.radiusM;
  const x0 = Math.min(...head.outline.map(([x]) => x));
  const middle = (x0 + head.bodyEnd) / 2 - 0.3 * r;
  const lens = (x: number, y: number, rx: number, ry: number, opacity: number) => (
    <ellipse
      cx={mm(x)}
      cy={mm(y * r)}
      rx={mm(rx * r)}
      ry={mm(ry * r)}
      fill="#fff"
      opacity={opacity}
      transform={`rotate(-12 ${mm(x)} ${mm(y * r)})`}
    />
  );
  if (gloss === 'matte') return null;
  if (gloss === 'metallic')
    return (
      <>
        {lens(middle + 0.18 * r, -0.5, 0.66, 0.2, 0.3)}
        {lens(middle, -0.56, 0.3, 0.07, 0.75)}
      </>
    );
  if (gloss === 'clear')
    return (
      <>
        {lens(middle, -0.56, 0.38, 0.13, 0.95)}
        {lens(middle + 0.75 * r, 0.52, 0.16, 0.05, 0.5)}
      </>
    );
  return lens(middle, -0.56, 0.34, 0.1, 0.85);
}

/** Paint on the head, as it lies: base, back and nose with granular edges, speckle, flake, clear over all. */
export function PaintedBody({
  spec,
  paint,
  baked,
  scale,
}: {
  spec: HeadSpec;
  paint: Paint;
  baked: boolean;
  scale: number;
}) {
  const clip = useId();
  const head = headParts(spec);
  const seed = Math.round(spec.massKg * 1e5) + spec.style.length * 7;
  const grain = grainOf(head, headKey(spec), seed);
  const near = scale > 1.9;
  const outline = pathOf(head.outline);
  const tone = tones(head);
  const { base, back, nose, speckle, flake, clear } = paint;
  const under = base?.colour ?? 'var(--lead)';
  const region = (id: string, path: string, children: ReactNode) => (
    <>
      <clipPath id={clip + id}>
        <path d={path} />
      </clipPath>
      <g clipPath={`url(#${clip}${id})`}>{children}</g>
    </>
  );
  const top = back ?? base ?? nose;
  const dull = top?.gloss === 'matte' && !clear;
  return (
    <>
      <path d={outline} fill={under} />
      {base && <Surface coat={base} grain={grain} near={near} />}
      {back && (
        <>
          <path d={grain.backPath} fill={back.colour} />
          {(back.grains || back.gloss !== 'gloss') &&
            region('b', grain.backPath, <Surface coat={back} grain={grain} near={near} />)}
          <path d={grain.backDots} fill={back.colour} />
          <path d={grain.baseDots} fill={under} />
        </>
      )}
      {nose && (
        <>
          <path d={grain.nosePath} fill={nose.colour} />
          {(nose.grains || nose.gloss !== 'gloss') &&
            region('n', grain.nosePath, <Surface coat={nose} grain={grain} near={near} />)}
          <path d={grain.noseDots} fill={nose.colour} />
        </>
      )}
      {speckle && <path d={grain.speckles} fill={speckle.colour} />}
      {flake && <path d={grain.flakes} fill={flake.colour} opacity={baked ? 0.95 : 0.5} />}
      <path d={tone.shade} fillRule="evenodd" fill="#0b0d10" opacity={dull ? 0.16 : 0.22} />
      <path d={tone.deep} fillRule="evenodd" fill="#0b0d10" opacity={dull ? 0.1 : 0.15} />
      <path d={tone.rim} fillRule="evenodd" fill="#fff" opacity={!baked || dull ? 0.12 : 0.22} />
      {baked && (top || clear) && <Light spec={spec} gloss={clear ? 'clear' : top!.gloss} />}
    </>
  );
}
