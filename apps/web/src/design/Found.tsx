import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Button } from './Button.tsx';

/** Something that stands out of the records: how many, what, why it is no chance, and where to look. */
export function Found({
  value,
  title,
  children,
  to,
}: {
  value: ReactNode;
  title: ReactNode;
  children?: ReactNode;
  to?: { path: string; says: string } | undefined;
}) {
  return (
    <div className="grid grid-cols-[minmax(64px,auto)_minmax(0,1fr)_auto] items-center gap-4 border-b border-rule py-3 max-sm:grid-cols-[auto_minmax(0,1fr)]">
      <b className="fig text-[46px] leading-none text-stop">{value}</b>
      <div>
        <b className="font-medium">{title}</b>
        {children}
      </div>
      {to && (
        <Button asChild className="max-sm:col-span-2 max-sm:justify-self-start">
          <Link to={to.path}>{to.says}</Link>
        </Button>
      )}
    </div>
  );
}

/** A chance in words. */
export const chanceSays = (chance: number, of: string) =>
  chance < 1e-6
    ? `Chance alone would do that to fewer than one ${of} in a million.`
    : `Chance alone would do that to one ${of} in ${Number((1 / chance).toPrecision(2)).toLocaleString('en')}.`;

/** How many times as often; nothing where the others have none. */
export function timesAsOften(own: { heads: number; bad: number }, rest: { heads: number; bad: number }): string {
  if (rest.bad === 0 || rest.heads === 0) return '';
  const times = own.bad / own.heads / (rest.bad / rest.heads);
  return `: ${times.toFixed(times < 10 ? 1 : 0)} times as often`;
}
