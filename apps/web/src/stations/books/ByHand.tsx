import type { PersonView } from '@schmelz/contract';
import { STATIONS, wilson } from '@schmelz/core';
import { Heading } from '../../design/Page.tsx';
import { ShareColumn } from './ShareColumn.tsx';

/** What went through whose hands, station by station; nothing where benches were never told who stood there. */
export function ByHand({ people }: { people: readonly PersonView[] }) {
  if (people.length === 0) return null;
  const stations = STATIONS.filter(({ id }) => people.some(({ station }) => station === id));
  return (
    <section>
      <Heading aside="pours and tickets that one hand did nearly all of; below, how many were not good, and how many such heads have on the whole">
        Hand by hand
      </Heading>
      <ul className="flex flex-wrap gap-x-8 gap-y-4">
        {stations.map(({ id, name }) => (
          <li key={id}>
            <p className="font-medium">{name}</p>
            <ul className="mt-1 flex flex-wrap" aria-label={name}>
              {people
                .filter(({ station }) => station === id)
                .map(({ who, heads, bad, expected, standsOut }) => {
                  const share = 1 - bad / heads;
                  return (
                    <ShareColumn named key={who} name={who} share={share} {...wilson(share, heads)} bad={standsOut}>
                      <p
                        className="quiet truncate"
                        title={`${bad} of ${heads} heads; ${Math.round(expected)} expected`}
                      >
                        {bad} ({Math.round(expected)})
                      </p>
                    </ShareColumn>
                  );
                })}
            </ul>
          </li>
        ))}
      </ul>
    </section>
  );
}
