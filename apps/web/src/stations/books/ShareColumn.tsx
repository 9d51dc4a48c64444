import type { ReactNode } from 'react';

/** Good ones as a column, with how sure that is: a share of what was cast, between its bounds nine times in ten. */
export function ShareColumn({
  name,
  share,
  low,
  high,
  bad = false,
  named = false,
  children,
}: {
  name: ReactNode;
  share: number;
  low: number;
  high: number;
  /** Whether it is worse than chance explains. */
  bad?: boolean;
  /** Whether its name is a word: it stands in a line of its own. */
  named?: boolean;
  children?: ReactNode;
}) {
  // The upper half of the scale is all that is of interest: nobody keeps a cavity below it.
  const y = (of: number) => `${Math.max(0, Math.min(100, (1 - of) * 200))}%`;
  return (
    <li className={`${named ? 'w-[124px]' : 'w-[84px]'} min-w-0 px-2 pt-2 pb-1.5 ${bad ? 'bg-stop-wash' : ''}`}>
      <div className="relative h-[74px] border-b-2 border-contour bg-well">
        <span className="absolute inset-x-0 bottom-0 bg-lead" style={{ top: y(share) }} />
        <span
          className="absolute left-1/2 w-[3px] -translate-x-1/2 bg-ink"
          style={{ top: y(high), bottom: `calc(100% - ${y(low)})` }}
        />
      </div>
      <p className={named ? 'mt-1 flex flex-col' : 'mt-1 flex items-baseline justify-between gap-1'}>
        <b
          className={`stamp ${named ? 'leading-tight [overflow-wrap:anywhere]' : 'whitespace-nowrap'}`}
          title={typeof name === 'string' ? name : undefined}
        >
          {name}
        </b>
        <b className="fig text-[21px] whitespace-nowrap">{Math.round(100 * share)} %</b>
      </p>
      {children}
    </li>
  );
}
