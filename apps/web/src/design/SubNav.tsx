import { NavLink } from 'react-router';

/** The rooms of one station: plain words in a row, the one you are in underlined in ink. */
export function SubNav({ label, rooms }: { label: string; rooms: readonly { to: string; name: string }[] }) {
  return (
    <nav aria-label={label} className="mb-5 flex flex-wrap gap-x-6 gap-y-1 border-b border-rule-2">
      {rooms.map(({ to, name }) => (
        <NavLink
          key={to}
          to={to}
          end
          className="-mb-px border-b-[3px] border-transparent py-2 font-medium text-ink-2 hover:text-ink aria-[current=page]:border-ink aria-[current=page]:text-ink"
        >
          {name}
        </NavLink>
      ))}
    </nav>
  );
}
