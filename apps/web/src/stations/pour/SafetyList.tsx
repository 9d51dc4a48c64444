import { useState } from 'react';
import { Link } from 'react-router';

/** The maker's own list, ticked once before the pot is switched on; what is left unticked is left to the maker. */
export function SafetyList({ items, onTicked }: { items: readonly string[]; onTicked: (items: string[]) => void }) {
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  if (items.length === 0) return null;
  const toggle = (item: string) => {
    const next = new Set(ticked);
    if (!next.delete(item)) next.add(item);
    setTicked(next);
    onTicked(items.filter((each) => next.has(each)));
  };
  return (
    <fieldset>
      <legend className="mb-1 text-lg font-semibold">Before the pot is on</legend>
      {items.map((item) => (
        <label key={item} className="flex min-h-12 cursor-pointer items-center gap-3 border-b border-rule text-lg">
          <input
            type="checkbox"
            className="size-7 accent-[var(--good)]"
            checked={ticked.has(item)}
            onChange={() => toggle(item)}
          />
          {item}
        </label>
      ))}
      <p className="quiet mt-1">
        Your own list,{' '}
        <Link to="/setup" className="underline">
          changed in Setup
        </Link>
        . Local rules and qualified advice come first.
      </p>
    </fieldset>
  );
}
