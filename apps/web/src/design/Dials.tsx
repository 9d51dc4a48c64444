import { Slider, ToggleGroup } from 'radix-ui';
import { useId } from 'react';

/** One of a few ways, side by side; the chosen one stands in ink. */
export function Ways<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly { value: T; label: string; hint?: string }[];
  onChange: (value: T) => void;
}) {
  const chosen = options.find((option) => option.value === value);
  return (
    <div>
      <p className="mb-1 text-sm font-medium text-ink-2">{label}</p>
      <ToggleGroup.Root
        type="single"
        aria-label={label}
        value={value}
        onValueChange={(next) => next && onChange(next as T)}
        className="flex flex-wrap border border-rule-2 bg-sheet"
      >
        {options.map((option) => (
          <ToggleGroup.Item
            key={option.value}
            value={option.value}
            className="h-10 grow px-3 font-medium whitespace-nowrap text-ink-2 hover:text-ink data-[state=on]:bg-ink data-[state=on]:text-on-ink"
          >
            {option.label}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      {chosen?.hint && <p className="quiet mt-1">{chosen.hint}</p>}
    </div>
  );
}

/** A quantity to be tried: a bar with a heavy mark, the figure in the maker's units above it. */
export function Trying({
  label,
  value,
  min,
  max,
  step,
  written,
  onChange,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  written: string;
  onChange: (value: number) => void;
}) {
  const id = useId();
  return (
    <div>
      <p className="flex items-baseline justify-between gap-3 text-sm">
        <span id={id} className="font-medium text-ink-2">
          {label}
        </span>
        <b className="fig text-[19px]">{written}</b>
      </p>
      <Slider.Root
        value={[value]}
        min={min}
        max={max}
        step={step}
        onValueChange={([next]) => onChange(next!)}
        className="relative flex h-8 touch-none items-center select-none"
      >
        <Slider.Track className="relative h-1.5 grow border border-rule-2 bg-well">
          <Slider.Range className="absolute h-full bg-lead" />
        </Slider.Track>
        <Slider.Thumb
          aria-labelledby={id}
          aria-valuetext={written}
          className="block h-6 w-3 border border-contour bg-ink hover:bg-good"
        />
      </Slider.Root>
    </div>
  );
}
