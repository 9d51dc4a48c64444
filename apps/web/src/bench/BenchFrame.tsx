import { useCallback, useEffect, useLayoutEffect, useState, type MouseEvent, type ReactNode } from 'react';
import { Key } from '../design/Button.tsx';
import { Icon, type IconName } from '../design/Icon.tsx';
import { sound, SOUNDS } from '../shell/clock.ts';
import { isTyping } from '../shell/Layout.tsx';
import { now } from '../units/now.ts';
import { AtBench } from './AtBench.tsx';
import { benchOpened } from './hands.ts';

/** One thing that can be said at the bench: by its key, by a tap, by the foot switch that types Space. */
export interface BenchAction {
  key: string;
  /** What `KeyboardEvent.key` says; the key's own letter when left out. */
  code?: string;
  label: string;
  hint?: string;
  icon?: IconName;
  /** main: the one next thing, filled; due: washed in sulphur; quiet: there when it is wanted. */
  weight: 'main' | 'due' | 'quiet';
  disabled?: boolean;
  /** Why it does nothing now, in a few words: said with a sound when it is pressed all the same. */
  notNow?: string | undefined;
  /** Its key is heard here, its button stands elsewhere on the screen. */
  elsewhere?: boolean;
  run: () => void;
}

const WEIGHTS = {
  main: 'bg-ink text-on-ink font-bold',
  due: 'bg-watch-wash text-watch font-semibold',
  quiet: 'bg-sheet font-semibold hover:bg-well',
} as const;

/** What is done when an action is pressed: it, or a word why not; gloved hands hit keys too early. */
export type Press = (action: BenchAction) => void;

const NOT_NOW_MS = 2500;

/** Pressing what can be done does it; what cannot be done yet is answered by a sound and its word, for a moment. */
function usePress(actions: readonly BenchAction[]): { press: Press; refused: string | undefined } {
  const [refused, setRefused] = useState<{ key: string } | null>(null);
  useEffect(() => {
    if (!refused) return;
    const timer = setTimeout(() => setRefused(null), NOT_NOW_MS);
    return () => clearTimeout(timer);
  }, [refused]);
  const press = useCallback((action: BenchAction) => {
    if (!action.disabled) {
      setRefused(null);
      action.run();
    } else if (action.notNow) {
      sound(SOUNDS.notNow);
      setRefused({ key: action.key });
    }
  }, []);
  // Once it can be done, or for another reason than it was, the word is not what it was.
  const now = refused && actions.find(({ key }) => key === refused.key);
  return { press, refused: now?.disabled ? now.notNow : undefined };
}

const pressPlainly: Press = (action) => {
  if (!action.disabled) action.run();
};

/** Keys of the bench; anything typed into a field or a sheet is left alone, and a held key counts once. */
export function useBenchKeys(actions: readonly BenchAction[], press: Press = pressPlainly): void {
  // Before the screen shows what a key means now, the key means it: no moment in between is heard the old way.
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
      const action = actions.find((each) => (each.code ?? each.key).toLowerCase() === event.key.toLowerCase());
      if (!action) return;
      event.preventDefault();
      if (!event.repeat) press(action);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [actions, press]);
}

function ActionBar({ actions, press = pressPlainly }: { actions: readonly BenchAction[]; press?: Press }) {
  return (
    <div className="flex flex-wrap gap-2 md:max-lg:gap-1.5" role="group" aria-label="What happened">
      {actions
        .filter((action) => !action.elsewhere)
        .map((action) => (
          <button
            key={action.key}
            type="button"
            disabled={action.disabled && !action.notNow}
            aria-disabled={action.disabled && action.notNow ? true : undefined}
            onClick={(event) => {
              press(action);
              // Space must go on meaning the one next thing, not the last button that was tapped.
              event.currentTarget.blur();
            }}
            className={`cut flex min-h-16 items-center gap-2.5 px-3.5 text-lg md:max-lg:gap-1.5 md:max-lg:px-2.5 disabled:opacity-40 aria-disabled:opacity-40 ${WEIGHTS[action.weight]} ${action.weight === 'main' ? 'min-w-56 flex-[2] basis-56 md:max-lg:min-w-36 md:max-lg:basis-36' : 'flex-auto'}`}
          >
            <Key>{action.key}</Key>
            {action.icon && <Icon name={action.icon} size={18} />}
            <span>{action.label}</span>
            {action.hint && (
              <span
                className={`text-base font-normal opacity-80 ${action.weight === 'quiet' ? 'md:max-lg:hidden' : ''}`}
              >
                {action.hint}
              </span>
            )}
          </button>
        ))}
    </div>
  );
}

/** Stub left, run right, the keys below: legible at two metres. */
export function BenchFrame({
  stub,
  children,
  actions,
  tapAnywhere,
}: {
  stub: ReactNode;
  children: ReactNode;
  actions: readonly BenchAction[];
  /** What a tap beside every button means, as Space does. */
  tapAnywhere?: BenchAction | undefined;
}) {
  // From here on hands are at this bench, and at no other.
  useEffect(() => benchOpened(now()), []);
  const { press, refused } = usePress(actions);
  useBenchKeys(actions, press);
  const onTap = (event: MouseEvent<HTMLElement>) => {
    const onSomething = (event.target as Element).closest('button, a, input, label, select, textarea, [role="dialog"]');
    if (!onSomething && !window.getSelection()?.toString() && tapAnywhere) press(tapAnywhere);
  };
  return (
    <div className="flex min-h-[calc(100vh-124px)] flex-col gap-4 px-4 pt-4 md:px-8">
      {/* A gloved hand may land anywhere; keys and buttons say the same for everybody else. */}
      <div
        onClick={onTap}
        className="grid flex-1 gap-x-8 gap-y-5 lg:grid-cols-[350px_minmax(0,1fr)] xl:grid-cols-[500px_minmax(0,1fr)]"
      >
        <section
          aria-label="What to do"
          className="flex min-w-0 flex-col gap-4 md:max-lg:grid md:max-lg:grid-cols-2 md:max-lg:items-start"
        >
          {stub}
          <AtBench />
        </section>
        <section aria-label="How it goes" className="min-w-0">
          {children}
        </section>
      </div>
      <div className="sticky bottom-0 z-10 -mx-4 bg-plate px-4 pt-2 pb-4 max-md:static md:-mx-8 md:px-8">
        <p aria-live="assertive" className="pointer-events-none absolute bottom-full left-4 md:left-8">
          {refused && (
            <span className="cut flex items-center gap-2 bg-watch-wash px-4 py-2 text-xl font-semibold text-watch">
              <Icon name="watch" size={20} /> {refused}
            </span>
          )}
        </p>
        <ActionBar actions={actions} press={press} />
      </div>
    </div>
  );
}

/** The sentence and the one number of a bench screen; nothing moves when the number changes. */
export function BenchNumber({ says, value, unit }: { says: string; value: string; unit?: string }) {
  // At a desk's width its digits are 160 px high or more, so that it is read at two metres.
  const size =
    value.length <= 3
      ? 'text-[min(232px,42vw)] md:max-lg:text-[175px]'
      : value.length <= 5
        ? 'text-[min(160px,32vw)] xl:text-[232px] md:max-lg:text-[140px]'
        : 'text-[min(112px,24vw)]';
  return (
    <div>
      <h1 className="voice text-[40px] leading-none font-normal max-md:text-2xl">{says}</h1>
      <p className="flex h-[200px] items-end gap-3 overflow-hidden max-lg:h-[150px]">
        <span className={`fig ${size}`}>{value}</span>
        {unit && <span className="voice pb-1 text-2xl">{unit}</span>}
      </p>
    </div>
  );
}

/** Taps that are on this device but not yet on the server's disk. */
export function Unsaved({ count }: { count: number }) {
  if (count === 0) return null;
  return (
    <p role="status" className="flex items-center gap-2 text-watch">
      <Icon name="watch" /> {count} {count === 1 ? 'tap is' : 'taps are'} kept here until the server answers.
    </p>
  );
}
