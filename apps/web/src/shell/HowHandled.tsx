import { handledSays, type Handled, type SureBlanks } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { handlingOfMold } from '../api/fill-records.ts';
import { Icon } from '../design/Icon.tsx';

const LOOK = {
  fewer: { icon: 'good', tone: 'text-good', says: '' },
  more: { icon: 'stop', tone: 'text-stop', says: ': worse' },
  'may be chance': { icon: null, tone: 'text-ink-3', says: ': may be chance' },
} as const;

function Line({ handled }: { handled: Handled }) {
  const { icon, tone, says } = LOOK[handled.says];
  return (
    <li className="flex items-baseline gap-2">
      <span className={`inline-block w-4 shrink-0 ${tone}`}>{icon && <Icon name={icon} />}</span>
      <span>
        {handled.position !== null && `Cavity ${handled.position}: `}
        {handledSays(handled)}
        {says}
      </span>
    </li>
  );
}

const Blanks = ({ sure: { blanks, first } }: { sure: SureBlanks }) => (
  <p>
    <b>
      {blanks === 0 ? 'No blank shot' : `${blanks} blank ${blanks === 1 ? 'shot' : 'shots'}`}
      {blanks === 1 || blanks === 0 ? ' does' : ' do'} here:
    </b>{' '}
    of {first.casts} first heads {first.shorts === 0 ? 'none' : first.shorts} {first.shorts <= 1 ? 'was' : 'were'}{' '}
    short.
  </p>
);

/** How many lines a bench has room for, and a page. */
const AT_BENCH = 2;

/** How this mold is handled in this house: what worked, what did not; nothing until something is known. */
export function HowHandled({ moldId, at }: { moldId: string; at: 'bench' | 'page' }) {
  const { data } = useQuery(handlingOfMold(moldId));
  if (!data) return null;
  const { blanks, handled } = data;
  const shown = at === 'page' ? handled : handled.filter(({ says }) => says !== 'may be chance').slice(0, AT_BENCH);
  if (!blanks && shown.length === 0) return null;
  return (
    <section
      aria-label="What works in this mold"
      className={at === 'bench' ? 'mb-2 border-b border-rule pb-2 text-lg leading-snug' : 'mt-6 max-w-[720px]'}
    >
      <h3 className={at === 'bench' ? 'voice text-ink-2' : 'mb-1.5 font-medium'}>What works in this mold</h3>
      {blanks && <Blanks sure={blanks} />}
      {shown.length > 0 && (
        <ul className={at === 'page' ? 'mt-1 grid gap-1' : ''}>
          {shown.map((each) => (
            <Line key={`${each.what} ${each.position ?? ''}`} handled={each} />
          ))}
        </ul>
      )}
    </section>
  );
}
