import type { Basis } from '@schmelz/core';
import { ArrowRight, Plus, Volume2, VolumeX, X, type LucideIcon } from 'lucide-react';
import type { ReactNode } from 'react';

/** General signs come from the icon set. */
const SIGNS = { sound: Volume2, quiet: VolumeX, go: ArrowRight, plus: Plus, close: X } satisfies Record<
  string,
  LucideIcon
>;

/** 16 px grid. Each state owns a shape, drawn for it, so that it is never told by colour alone. */
const SHAPES = {
  good: <path d="M2.500 8.600 6.300 12.400 13.500 4" fill="none" stroke="currentColor" strokeWidth={2.4} />,
  short: (
    <>
      <path d="M8 2.200A5.800 5.800 0 1 0 13.800 8H8Z" fill="currentColor" />
      <path
        d="M9.600 6.400V2.400A5.800 5.800 0 0 1 13.600 6.400Z"
        fill="none"
        stroke="currentColor"
        strokeDasharray="1.6 1.3"
      />
    </>
  ),
  flash: (
    <>
      <circle cx={8} cy={8} r={4} fill="currentColor" />
      <path d="M8 .8V3M8 13V15.200M.8 8H3M13 8H15.200" stroke="currentColor" strokeWidth={2.2} />
    </>
  ),
  void: (
    <>
      <circle cx={8} cy={8} r={5.8} fill="none" stroke="currentColor" strokeWidth={1.8} />
      <circle cx={6} cy={7} r={1.5} fill="currentColor" />
      <circle cx={9.6} cy={9.6} r={1.9} fill="currentColor" />
    </>
  ),
  'loose hook': (
    <path d="M4 2V5M4 7.500V10A4 4 0 0 0 12 10V7L9.500 9.500" fill="none" stroke="currentColor" strokeWidth={1.9} />
  ),
  'eye full': (
    <>
      <circle cx={8} cy={6} r={4} fill="currentColor" stroke="currentColor" strokeWidth={1.6} />
      <path d="M8 10V15" stroke="currentColor" strokeWidth={2} />
    </>
  ),
  'no pin': (
    <>
      <circle cx={8} cy={8} r={5.8} fill="none" stroke="currentColor" strokeWidth={1.8} />
      <path d="M3.500 12.500 12.500 3.500" stroke="currentColor" strokeWidth={1.8} />
    </>
  ),
  leaked: (
    <>
      <circle cx={8} cy={5.5} r={4.3} fill="none" stroke="currentColor" strokeWidth={1.8} />
      <path d="M8 9.500C5.800 12.300 6.400 15 8 15S10.200 12.300 8 9.500Z" fill="currentColor" />
    </>
  ),
  'wrong hook': (
    <path
      d="M3.500 2V9A3 3 0 0 0 9.500 9V7M10 2.500 14 6.500M14 2.500 10 6.500"
      fill="none"
      stroke="currentColor"
      strokeWidth={1.8}
    />
  ),
  divot: <path d="M13.500 9.500A5.800 5.800 0 1 1 6 2.600C5.500 5.500 8.500 8.800 13.500 9.500Z" fill="currentColor" />,
  'bent hook': (
    <path d="M4 2V8.500A3 3 0 0 0 8 11.300L13.500 9.500" fill="none" stroke="currentColor" strokeWidth={1.9} />
  ),
  'rusty hook': (
    <>
      <path d="M4 1.500V9.500A4 4 0 0 0 12 9.500V6.500" fill="none" stroke="currentColor" strokeWidth={1.9} />
      <path d="M1.500 5.500H2.500M6 4H7M1.500 10H2.500M14 9H15M7 14.500H8" stroke="currentColor" strokeWidth={1.4} />
    </>
  ),
  'browned hook': (
    <>
      <path d="M4 2V9.500A4 4 0 0 0 12 9.500V6.500" fill="none" stroke="currentColor" strokeWidth={1.9} />
      <path d="M7.500 5.500C6.500 4 9.500 3.500 8 1.500" fill="none" stroke="currentColor" strokeWidth={1.4} />
    </>
  ),
  runs: (
    <path
      d="M2.500 3H13.500M4 3V8.500M7.300 3V13.500M10.500 3V6.500M12.800 3V10.500"
      fill="none"
      stroke="currentColor"
      strokeWidth={1.9}
      strokeLinecap="round"
    />
  ),
  bubbles: (
    <g fill="none" stroke="currentColor" strokeWidth={1.6}>
      <circle cx={5.2} cy={10} r={3.2} />
      <circle cx={11.5} cy={7} r={2.2} />
      <circle cx={7} cy={3.2} r={1.4} />
    </g>
  ),
  thin: (
    <path
      d="M8 2.200A5.800 5.800 0 1 0 13.800 8"
      fill="none"
      stroke="currentColor"
      strokeWidth={1.8}
      strokeDasharray="2.400 1.800"
    />
  ),
  dull: (
    <>
      <circle cx={8} cy={8} r={5.8} fill="none" stroke="currentColor" strokeWidth={1.6} />
      <path d="M3.500 10.500H12.500M3 7.500H13M4.500 4.800H11.500" stroke="currentColor" strokeWidth={1.2} />
    </>
  ),
  'eye closed': (
    <path
      d="M1.500 7C4.500 11 11.500 11 14.500 7M4 9.500 2.800 11.500M8 10.200V12.600M12 9.500 13.200 11.500"
      fill="none"
      stroke="currentColor"
      strokeWidth={1.8}
    />
  ),
  'hole filled': (
    <>
      <path d="M2 2.500H14V13.500H2Z" fill="none" stroke="currentColor" strokeWidth={1.6} />
      <path d="M6 2.500H10V10H6Z" fill="currentColor" />
    </>
  ),
  'colour bled': (
    <>
      <path
        d="M2 8A6 6 0 0 1 14 8C12.500 6.500 11.500 10 9.800 8.500S6.500 10.500 5 8.600 3 9 2 8Z"
        fill="currentColor"
      />
      <path d="M2 8A6 6 0 0 0 14 8" fill="none" stroke="currentColor" strokeWidth={1.6} />
    </>
  ),
  soft: (
    <>
      <path d="M3 13V7.500A5 5 0 0 1 13 7.500V13" fill="none" stroke="currentColor" strokeWidth={1.7} />
      <path d="M8 5V10M6 8.500 8 10.500 10 8.500" fill="none" stroke="currentColor" strokeWidth={1.6} />
    </>
  ),
  drip: (
    <>
      <path d="M8 1.500V5" stroke="currentColor" strokeWidth={2.4} />
      <path d="M8 5.500C11.500 9.500 11.500 14 8 14S4.500 9.500 8 5.500Z" fill="currentColor" />
    </>
  ),
  chipped: (
    <path
      d="M8 2.200 9.500 5.500 12.500 4.500A5.800 5.800 0 1 1 8 2.200Z"
      fill="none"
      stroke="currentColor"
      strokeWidth={1.8}
      strokeLinejoin="round"
    />
  ),
  'comes apart': (
    <path
      d="M2 8H6.500M9.500 8H14M6.500 4.500V11.500M9.500 4.500V11.500"
      fill="none"
      stroke="currentColor"
      strokeWidth={2}
    />
  ),
  crooked: <path d="M3 13.500H13M8 13.500 12 2.500" fill="none" stroke="currentColor" strokeWidth={2} />,
  other: <path d="M3 8H5M7 8H9M11 8H13" stroke="currentColor" strokeWidth={2.4} />,
  watch: <path d="M8 1.600 15 14H1ZM8 6V10M8 11.400V12.800" fill="none" stroke="currentColor" strokeWidth={1.7} />,
  stop: (
    <>
      <path d="M5.200 1.500H10.800L14.500 5.200V10.800L10.800 14.500H5.200L1.500 10.800V5.200Z" fill="currentColor" />
      <path d="M4.800 8H11.200" stroke="var(--plate)" strokeWidth={2.2} />
    </>
  ),
  measured: <circle cx={8} cy={8} r={5.2} fill="currentColor" />,
  fitted: (
    <>
      <circle cx={8} cy={8} r={4.6} fill="none" stroke="currentColor" strokeWidth={1.5} />
      <path d="M8 3.400A4.600 4.600 0 0 1 8 12.600Z" fill="currentColor" />
    </>
  ),
  given: <circle cx={8} cy={8} r={4.6} fill="none" stroke="currentColor" strokeWidth={1.5} />,
} satisfies Record<string, ReactNode>;
export type IconName = keyof typeof SHAPES | keyof typeof SIGNS;

const isSign = (name: IconName): name is keyof typeof SIGNS => name in SIGNS;

export function Icon({ name, size = 16, className }: { name: IconName; size?: number; className?: string }) {
  if (isSign(name)) {
    const Sign = SIGNS[name];
    return <Sign className={className} size={size} strokeWidth={2.4} aria-hidden="true" />;
  }
  return (
    <svg className={className} width={size} height={size} viewBox="0 0 16 16" aria-hidden="true">
      {SHAPES[name]}
    </svg>
  );
}

const BASIS_WORDS: Record<Basis, string> = {
  measured: 'measured',
  fitted: 'from your records',
  given: 'default, not checked',
};

/** Full dot: measured; half: fitted to records; ring: a default. */
export function BasisMark({ basis }: { basis: Basis }) {
  return (
    <svg
      className="basis mr-1 inline-block align-baseline"
      width={9}
      height={9}
      viewBox="2 2 12 12"
      role="img"
      aria-label={BASIS_WORDS[basis]}
    >
      {SHAPES[basis]}
    </svg>
  );
}
export { BASIS_WORDS };

/** Causes that have a shape of their own; every other one gets the plain one. */
export const causeIcon = (cause: string): IconName => (cause in SHAPES ? (cause as IconName) : 'other');
