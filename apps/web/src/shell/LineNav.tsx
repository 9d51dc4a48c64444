import { STATIONS, type Station } from '@schmelz/core';
import { NavLink } from 'react-router';
import { useList } from '../api/queries.ts';
import { useUnits } from '../units/Units.tsx';
import { useNow } from './clock.ts';
import { useLineState, type LineState } from './line-state.ts';

/** Heat under a station colours that stretch of the runner: a pot or an oven that is on. */
const isHot = (station: string, line: LineState | null) =>
  !!line?.clocks.some(({ body, to }) => ['melt', 'freeze', 'oven'].includes(body) && to.station === station);

/** What waits at a station: a figure and what it counts. */
function useWaits(line: LineState | null): (station: Station) => { figure: string; counts: string } {
  const units = useUnits();
  const { data: materials } = useList('materials');
  const { data: molds } = useList('molds');
  const lead = materials?.filter((each) => each.kind === 'lead').reduce((sum, each) => sum + each.quantity, 0) ?? 0;
  const written = units.bulkParts(lead);
  return ({ id, verb }) => {
    if (id === 'lead') return { figure: written.figure, counts: `${written.unit} clean` };
    if (id === 'molds')
      return { figure: String(molds?.filter((mold) => !mold.archived).length ?? '–'), counts: 'molds' };
    return { figure: String(line ? (line.waiting[id] ?? 0) : '–'), counts: verb };
  };
}

/** The line as main navigation: a cast runner with the stations above it; the next one is verdigris and thicker. */
export function LineNav({ bench }: { bench: boolean }) {
  const now = useNow(2000);
  const line = useLineState(now);
  const waits = useWaits(line);
  const next = line?.next?.station ?? null;
  return (
    <nav aria-label="The line" className={`px-4 pt-3 md:px-8 ${bench ? '' : 'lg:pl-[368px]'}`}>
      <ol className="grid" style={{ gridTemplateColumns: `repeat(${STATIONS.length}, minmax(0, 1fr))` }}>
        {STATIONS.map((station) => (
          <li key={station.id} className="min-w-0">
            <NavLink to={`/${station.id}`} className={`group block pr-1 ${next === station.id ? 'text-good' : ''}`}>
              <span className="stamp block truncate text-[12px] max-sm:[font-stretch:80%] sm:text-[17px]">
                {station.name}
              </span>
              {next === station.id && <span className="sr-only">, next</span>}
              <span className={`flex flex-wrap items-baseline gap-x-1.5 pt-1.5 pb-2 ${bench ? 'hidden!' : ''}`}>
                <span className={`fig text-ink ${bench ? 'text-[19px]' : 'text-[19px] sm:text-[29px]'}`}>
                  {waits(station).figure}
                </span>
                <span className="quiet hidden leading-none md:inline">{waits(station).counts}</span>
              </span>
              <span
                className={`block border border-contour group-hover:h-[11px] ${
                  next === station.id
                    ? 'h-[11px] bg-good'
                    : isHot(station.id, line)
                      ? 'h-[9px] bg-straw'
                      : 'h-[9px] bg-lead'
                } group-aria-[current=page]:h-[13px] group-aria-[current=page]:border-ink group-aria-[current=page]:bg-ink`}
                style={{ borderColor: 'var(--alu-edge)' }}
              />
            </NavLink>
          </li>
        ))}
      </ol>
    </nav>
  );
}
