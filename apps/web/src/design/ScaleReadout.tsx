import { useScale } from '../api/live.ts';
import { useUnits } from '../units/Units.tsx';
import { Button } from './Button.tsx';
import { BasisMark } from './Icon.tsx';

/** What lies on the scale, where one is connected; it can be taken once it has settled. */
export function ScaleReadout({ onTake, disabled }: { onTake: (kg: number) => void; disabled?: boolean }) {
  const scale = useScale();
  const units = useUnits();
  if (!scale) return null;
  const says = scale.empty ? 'nothing on it' : scale.steady ? 'settled' : 'settling';
  return (
    <div className="flex items-end justify-between gap-3 border-t-[3px] border-rule-2 bg-sheet px-3 pt-2 pb-3">
      <div>
        <p className="text-sm font-medium text-ink-2">On the scale, {says}</p>
        <p className={`fig text-[34px] ${scale.steady ? '' : 'text-ink-3'}`}>
          <BasisMark basis="measured" /> {units.head(Math.max(0, scale.kg))}
        </p>
      </div>
      <Button disabled={!scale.steady || disabled} onClick={() => onTake(scale.kg)}>
        Take it
      </Button>
    </div>
  );
}
