import type { Cavity, Mold as StoredMold } from '@schmelz/contract';
import type { Figure } from '@schmelz/core';
import type { ReactNode } from 'react';
import { Fig } from '../../design/Figure.tsx';
import { moldFrame } from '../../drawing/Mold.tsx';
import { useUnits } from '../../units/Units.tsx';
import { drawnCavities } from '../../drawing/cavities.ts';

/** One column under each cavity of a drawn mold. */
export function CavityColumns({
  mold,
  label,
  className,
  children,
}: {
  mold: StoredMold;
  label: string;
  /** The height it keeps free, since its columns stand outside the flow. */
  className: string;
  children: (cavity: Cavity) => ReactNode;
}) {
  const units = useUnits();
  const frame = moldFrame(drawnCavities(mold, units.massUnit));
  return (
    <ol className={`relative ${className}`} aria-label={label}>
      {mold.cavities.map((cavity, index) => {
        const { left, width } = frame.column(index);
        return (
          <li key={cavity.id} className="absolute" style={{ left: `${left * 100}%`, width: `${width * 100}%` }}>
            {children(cavity)}
          </li>
        );
      })}
    </ol>
  );
}

/** A cavity to choose, with its figure, which can be asked why, and what is said of it below. */
export const CavityPick = ({
  cavity,
  chosen,
  onChoose,
  figure,
  written,
  children,
}: {
  cavity: Cavity;
  chosen: boolean;
  onChoose: () => void;
  figure: Figure | null;
  written: string;
  children: ReactNode;
}) => (
  <div className={`border-t-[3px] pt-1 ${chosen ? 'border-ink' : 'border-rule-2'}`}>
    <span className="flex items-baseline gap-1.5">
      <span className="text-ink-3" aria-hidden="true">
        {cavity.position}
      </span>
      {figure ? (
        <Fig figure={figure} title={`Cavity ${cavity.position}`} className="fig text-[23px]">
          {written}
        </Fig>
      ) : (
        <b className="fig text-[23px]">–</b>
      )}
    </span>
    <button
      type="button"
      aria-pressed={chosen}
      onClick={onChoose}
      className="block w-full text-left text-sm text-ink-2 hover:text-ink"
    >
      <span className="sr-only">Cavity {cavity.position}: </span>
      {children}
    </button>
  </div>
);
