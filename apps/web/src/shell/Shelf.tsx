import { writeClock, type Clock } from '@schmelz/core';
import { useEffect, useRef } from 'react';
import { Link, NavLink } from 'react-router';
import { useSettings } from '../api/queries.ts';
import { Key } from '../design/Button.tsx';
import { Icon } from '../design/Icon.tsx';
import { ClockBody } from '../drawing/Bodies.tsx';
import { sound, SOUNDS, useNow } from './clock.ts';
import { DidNotCount } from './DidNotCount.tsx';
import { benchPath, runPath, useLineState } from './line-state.ts';
import { writeTime } from '../units/dates.ts';

const SOUND_WORDS: Record<Clock['body'], string> = {
  melt: 'two low',
  freeze: 'two high',
  oven: 'three long',
  cool: 'one low',
  dry: 'two short',
  wait: 'three short',
};

/** Rings once when a clock that was running on this screen is over. */
function useRinging(clocks: readonly Clock[], now: number): void {
  const rang = useRef(new Map<string, boolean>());
  useEffect(() => {
    for (const clock of clocks) {
      const over = now >= clock.endsAt;
      if (rang.current.get(clock.id) === false && over) sound(SOUNDS[clock.body]);
      rang.current.set(clock.id, over);
    }
  }, [clocks, now]);
}

function ClockOnShelf({ clock, now, wordy }: { clock: Clock; now: number; wordy: boolean }) {
  const over = now >= clock.endsAt;
  const share = (now - clock.startedAt) / Math.max(1, clock.endsAt - clock.startedAt);
  return (
    <Link
      to={clock.to.run ? runPath(clock.to.run, clock.to.id) : benchPath(clock.to.station, clock.to.id, clock.to.step)}
      className="flex shrink-0 items-end gap-2 hover:text-good"
      aria-label={`${clock.name}, ${over ? 'over' : `${writeClock((clock.endsAt - now) / 1000)} left`}`}
    >
      <ClockBody body={clock.body} share={share} />
      <span className="pb-1.5">
        <span className={`fig block text-[29px] ${over ? 'text-good' : ''}`}>
          {over ? 'now' : writeClock((clock.endsAt - now) / 1000)}
        </span>
        <span
          className="mt-1 flex items-center gap-1 text-xs whitespace-nowrap text-ink-3"
          style={{ fontStretch: '90%' }}
        >
          {clock.name} {writeTime(clock.endsAt)}
          <span className="hidden items-center gap-1 xl:inline-flex" title={`Rings ${SOUND_WORDS[clock.body]}`}>
            <Icon name="sound" size={13} /> {wordy && SOUND_WORDS[clock.body]}
          </span>
        </span>
      </span>
    </Link>
  );
}

const PLACES = [
  ['/tonight', 'Tonight'],
  ['/orders', 'Orders'],
  ['/stock', 'Stock'],
  ['/books', 'Books'],
  ['/setup', 'Setup'],
] as const;

/** So many waits stand on the shelf with their sounds in words; more of them only with its sign. */
const ROOMY = 2;

/** Always in view: the name, every running wait on its shelf, and the places that are no station. */
export function Shelf({ onPalette }: { onPalette: () => void }) {
  const now = useNow();
  const line = useLineState(now);
  const { data: settings } = useSettings();
  const clocks = line?.clocks ?? [];
  useRinging(clocks, now);
  return (
    <header className="sticky top-0 z-30 grid bg-plate grid-cols-[1fr_auto] items-end gap-x-3 border-b-2 border-ink px-4 sm:gap-x-6 md:px-8 lg:grid-cols-[300px_minmax(0,1fr)_auto] lg:gap-x-9">
      <div className="py-2.5">
        <Link to="/" className="voice block text-[27px] leading-none font-semibold tracking-tight">
          Schmelz
        </Link>
        <DidNotCount>
          <Link to="/" className="quiet mt-1 block max-w-[200px] truncate">
            {settings?.workshopName ?? ' '}
          </Link>
        </DidNotCount>
      </div>
      <div
        aria-label="Clock shelf"
        role="group"
        className={`order-last col-span-2 flex flex-wrap items-end gap-x-7 gap-y-1 lg:order-none lg:col-span-1 lg:min-h-[64px] lg:flex-nowrap lg:overflow-x-auto ${clocks.length ? '' : 'hidden lg:flex'}`}
      >
        {clocks.map((clock) => (
          <ClockOnShelf key={clock.id} clock={clock} now={now} wordy={clocks.length <= ROOMY} />
        ))}
        {clocks.length === 0 && <span className="quiet pb-3">Nothing is melting, setting or baking.</span>}
      </div>
      <nav
        aria-label="Places"
        className="flex items-center gap-x-2 self-center text-[13px] font-medium sm:gap-x-3 sm:text-sm md:gap-x-5 md:text-base"
      >
        {PLACES.map(([to, name]) => (
          <NavLink
            key={to}
            to={to}
            className="border-b-2 border-transparent py-1.5 hover:border-rule-2 aria-[current=page]:border-ink"
          >
            {name}
          </NavLink>
        ))}
        <button
          type="button"
          onClick={onPalette}
          aria-label="Find anything, and the list of keys"
          className="hidden sm:block"
        >
          <Key>/</Key>
        </button>
      </nav>
    </header>
  );
}
