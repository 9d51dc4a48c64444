import { skinFigure, SKINS, type SkinColour } from '@schmelz/core';
import { Fig } from '../design/Figure.tsx';

/** The melt's skin in its own colours; the heat scale of the whole application. */
export const SKIN_FILL: Record<SkinColour, string> = {
  silver: 'var(--silver)',
  straw: 'var(--straw)',
  gold: 'var(--bronze)',
  violet: 'var(--violet)',
  blue: 'var(--blue)',
};

/** A drop of melt with its skin. */
export function SkinSwatch({ colour, size = 22 }: { colour: SkinColour; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 22 22" aria-hidden="true">
      <path d="M2 13C2 7 6 4 11 4S20 7 20 13 16 19 11 19 2 18 2 13Z" fill={SKIN_FILL[colour]} stroke="var(--contour)" />
      <path
        d="M6 11C7 8.500 9 7.500 11.500 7.500"
        fill="none"
        stroke="var(--contour)"
        strokeOpacity={0.55}
        strokeWidth={1.3}
      />
    </svg>
  );
}

/** The whole scale with its words and its degrees, the colour at hand framed. */
export function SkinScale({ now }: { now: SkinColour | null }) {
  return (
    <ol className="grid grid-cols-5 text-sm" aria-label="What the skin on the melt says">
      {SKINS.map(({ colour, says }) => (
        <li key={colour} className="min-w-0 pr-2" aria-current={now === colour ? 'true' : undefined}>
          <span
            className={`block h-4 border border-contour ${now === colour ? 'outline-2 outline-offset-2 outline-ink' : ''}`}
            style={{ background: SKIN_FILL[colour] }}
          />
          <b className="mt-1 block font-semibold">{colour}</b>
          <span className="quiet block">
            from <Fig figure={skinFigure(colour)} title={`Skin looks ${colour} from`} />
          </span>
          <span className="quiet hidden sm:block">{says}</span>
        </li>
      ))}
    </ol>
  );
}
