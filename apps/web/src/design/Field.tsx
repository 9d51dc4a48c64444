import { useId, type ComponentProps, type ReactNode } from 'react';

/** Label, control, unit, hint and error belong together. */
function Frame({
  id,
  label,
  hint,
  error,
  unit,
  children,
}: {
  id: string;
  label: string;
  hint?: ReactNode;
  error?: string;
  unit?: string;
  children: ReactNode;
}) {
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="mb-1 block text-sm font-medium text-ink-2">
        {label}
        {unit && <span className="text-ink-3">, {unit}</span>}
      </label>
      {children}
      {hint && !error && (
        <p id={`${id}-hint`} className="quiet mt-1">
          {hint}
        </p>
      )}
      {error && (
        <p id={`${id}-hint`} className="mt-1 text-sm font-medium text-stop">
          {error}
        </p>
      )}
    </div>
  );
}

interface Common {
  label: string;
  hint?: ReactNode;
  error?: string;
  unit?: string;
}

export function TextField({ label, hint, error, unit, ...props }: Common & ComponentProps<'input'>) {
  const id = useId();
  return (
    <Frame {...{ id, label, hint, error, unit }}>
      <input
        id={id}
        className="field"
        aria-invalid={!!error}
        aria-describedby={hint || error ? `${id}-hint` : undefined}
        autoComplete="off"
        {...props}
      />
    </Frame>
  );
}

export function TextArea({ label, hint, error, unit, ...props }: Common & ComponentProps<'textarea'>) {
  const id = useId();
  return (
    <Frame {...{ id, label, hint, error, unit }}>
      <textarea
        id={id}
        className="field h-auto! py-2"
        aria-invalid={!!error}
        aria-describedby={hint || error ? `${id}-hint` : undefined}
        {...props}
      />
    </Frame>
  );
}

export function Choice({
  label,
  hint,
  error,
  unit,
  options,
  ...props
}: Common & ComponentProps<'select'> & { options: readonly { value: string; label: string }[] }) {
  const id = useId();
  return (
    <Frame {...{ id, label, hint, error, unit }}>
      <select
        id={id}
        className="field"
        aria-invalid={!!error}
        aria-describedby={hint || error ? `${id}-hint` : undefined}
        {...props}
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </Frame>
  );
}

/** Words of the trade as options. */
export const asOptions = (values: readonly (string | number)[], suffix = '') =>
  values.map((value) => ({ value: String(value), label: `${value}${suffix}` }));
