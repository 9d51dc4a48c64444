import type { Station } from '@schmelz/core';
import { NavLink } from 'react-router';
import { useList } from '../api/queries.ts';
import { useUnits } from '../units/Units.tsx';
import { useNow } from './clock.ts';
import { useLineState, type LineState } from './line-state.ts';

/** The seven stations in working order. */
export const LINE = ['Lead', 'Molds', 'Pour', 'Trim', 'Paint', 'Bake', 'Finish'] as const;
export type LineStation = (typeof LINE)[number];

/** Heat under a station colours that stretch of the runner: a pot or an oven that is on. */
const isHot = (station: LineStation, line: LineState | null) =>
  !!line?.clocks.some((clock) =>
    station === 'Bake'
      ? clock.body === 'oven'
      : station === 'Pour' && (clock.body === 'melt' || clock.body === 'freeze'),
  );

const NEXT_STATION: Record<string, LineStation> = {
  'take out': 'Bake',
  'pour on': 'Pour',
  pour: 'Pour',
  trim: 'Trim',
  paint: 'Paint',
  bake: 'Bake',
  finish: 'Finish',
  close: 'Finish',
};

/** What waits at a station: a figure and what it counts. */
function useWaits(line: LineState | null): Record<LineStation, { figure: string; counts: string }> {
  const units = useUnits();
  const { data: materials } = useList('materials');
  const { data: molds } = useList('molds');
  const lead = materials?.filter((each) => each.kind === 'lead').reduce((sum, each) => sum + each.quantity, 0) ?? 0;
  const written = units.bulkParts(lead);
  const waits = (station: Station, counts: string) => ({ figure: String(line?.waiting[station] ?? '–'), counts });
  return {
    Lead: { figure: written.figure, counts: `${written.unit} clean` },
    Molds: { figure: String(molds?.length ?? '–'), counts: 'molds' },
    Pour: waits('pour', 'to pour'),
    Trim: waits('trim', 'to trim'),
    Paint: waits('paint', 'to paint'),
    Bake: waits('bake', 'to bake'),
    Finish: waits('finish', 'to finish'),
  };
}

/** The line as main navigation: a cast runner with the stations above it; the next one is verdigris and thicker. */
export function LineNav({ bench }: { bench: boolean }) {
  const now = useNow(2000);
  const line = useLineState(now);
  const waits = useWaits(line);
  const next = line?.next ? NEXT_STATION[line.next.what] : null;
  return (
    <nav aria-label="The line" className={`px-4 pt-3 md:px-8 ${bench ? '' : 'lg:pl-[368px]'}`}>
      <ol className="grid grid-cols-7">
        {LINE.map((station) => (
          <li key={station} className="min-w-0">
            <NavLink
              to={`/${station.toLowerCase()}`}
              className={`group block pr-1 ${next === station ? 'text-good' : ''}`}
            >
              <span className="stamp block truncate text-[12px] max-sm:[font-stretch:80%] sm:text-[17px]">
                {station}
              </span>
              {next === station && <span className="sr-only">, next</span>}
              <span className={`flex flex-wrap items-baseline gap-x-1.5 pt-1.5 pb-2 ${bench ? 'hidden!' : ''}`}>
                <span className={`fig text-ink ${bench ? 'text-[19px]' : 'text-[19px] sm:text-[29px]'}`}>
                  {waits[station].figure}
                </span>
                <span className="quiet hidden leading-none md:inline">{waits[station].counts}</span>
              </span>
              <span
                className={`block border border-contour group-hover:h-[11px] ${
                  next === station ? 'h-[11px] bg-good' : isHot(station, line) ? 'h-[9px] bg-straw' : 'h-[9px] bg-lead'
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
