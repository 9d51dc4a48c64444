import { useEffect } from 'react';
import { useSettings } from '../api/queries.ts';
import { sayWho, useWho } from './who.ts';

/** Who stands at this bench: asked where two or more work here, kept on this device, and put on all that is said. */
export function AtBench() {
  const { data: settings } = useSettings();
  const who = useWho();
  const people = settings?.people ?? [];
  const asked = people.length > 1;
  // A name that is no longer one of the workshop's is put on nothing more.
  const gone = settings !== undefined && who !== '' && !(asked && people.includes(who));
  useEffect(() => {
    if (gone) sayWho('');
  }, [gone]);
  if (!asked) return null;
  return (
    <label className="flex items-center gap-2 text-lg text-ink-2">
      At this bench
      <select
        className="field w-auto! text-lg"
        value={gone ? '' : who}
        onChange={(event) => {
          sayWho(event.target.value);
          // Space goes on meaning the one next thing.
          event.target.blur();
        }}
      >
        <option value="">anyone</option>
        {people.map((name) => (
          <option key={name}>{name}</option>
        ))}
      </select>
    </label>
  );
}
