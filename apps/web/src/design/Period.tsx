import { Link, useSearchParams } from 'react-router';
import { useBookedPeriod } from '../api/queries.ts';
import { now } from '../units/now.ts';

/** A stretch of time that a page looks at, ms since 1970, and how it is called. */
export interface LookedAt {
  from: number;
  to: number;
  says: string;
}

const startOfYear = (year: number) => new Date(year, 0, 1).getTime();

/** The twelve months up to tonight. */
function lastTwelveMonths(at: number): LookedAt {
  const day = new Date(at);
  const [year, month, date] = [day.getFullYear(), day.getMonth(), day.getDate() + 1];
  return {
    from: new Date(year - 1, month, date).getTime(),
    to: new Date(year, month, date).getTime(),
    says: 'in the last twelve months',
  };
}

/** The year that the address names, or the last twelve months. */
export function usePeriod(): LookedAt {
  const [search] = useSearchParams();
  const year = Number(search.get('year'));
  if (!Number.isInteger(year) || year < 1990 || year > 2200) return lastTwelveMonths(now());
  return { from: startOfYear(year), to: startOfYear(year + 1), says: `in ${year}` };
}

/** The years that there is something of, newest first, each a place to go to. */
export function Years() {
  const [search] = useSearchParams();
  const { data: booked } = useBookedPeriod();
  if (!booked) return null;
  const [first, last] = [new Date(booked.from).getFullYear(), new Date(booked.to).getFullYear()];
  const years = Array.from({ length: last - first + 1 }, (_, i) => last - i);
  const places = [
    { year: null, says: 'Twelve months' },
    ...years.map((year) => ({ year: String(year), says: String(year) })),
  ];
  return (
    <nav aria-label="Which year" className="flex flex-wrap gap-x-4 gap-y-1">
      {places.map(({ year, says }) => {
        const here = search.get('year') === year;
        return (
          <Link
            key={says}
            to={year ? `?year=${year}` : '?'}
            aria-current={here ? 'page' : undefined}
            className={`py-1 ${here ? 'border-b-2 border-ink font-semibold' : 'text-ink-2 hover:underline'}`}
          >
            {says}
          </Link>
        );
      })}
    </nav>
  );
}
