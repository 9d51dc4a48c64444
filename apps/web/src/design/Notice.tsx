import { InvalidInput } from '@schmelz/contract';
import type { ReactNode } from 'react';
import { ApiProblem, Unreachable } from '../api/client.ts';
import { useUnits } from '../units/Units.tsx';
import { Icon } from './Icon.tsx';

/** A short warning where the danger is. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <p className="flex items-start gap-2 text-sm text-watch">
      <Icon name="watch" className="mt-0.5 shrink-0" />
      <span>{children}</span>
    </p>
  );
}

/** What went wrong, field by field where the server says so. */
export function ProblemNote({ error }: { error: unknown }) {
  const { said } = useUnits();
  if (!error) return null;
  const problem = error instanceof ApiProblem ? error.problem : null;
  const fields = problem?.fields ?? (error instanceof InvalidInput ? error.fields : undefined);
  // What breaks two rules at once is told once.
  const lines = new Set(
    fields?.map((field) => field.message) ?? [error instanceof Error ? error.message : String(error)],
  );
  return (
    <div role="alert" className="cut border-l-4 border-stop bg-stop-wash px-4 py-3 text-sm text-stop">
      <p className="flex items-center gap-2 font-semibold">
        <Icon name="stop" />
        {problem?.title ?? 'That did not work'}.{' '}
        {error instanceof Unreachable ? 'Asking again …' : 'Nothing was changed.'}
      </p>
      <ul className="mt-1">
        {[...lines].map((line) => (
          <li key={line}>{said(line)}</li>
        ))}
      </ul>
      {problem?.changes?.map((change) => (
        <p key={change.field}>
          {change.field}: yours {JSON.stringify(change.yours)}, now {JSON.stringify(change.now)}
        </p>
      ))}
    </div>
  );
}

/** Records that a page could make nothing of, by name; nothing where there is none. */
export function LeftOut({ odd }: { odd: readonly { name: string; why: string }[] }) {
  const { said } = useUnits();
  if (odd.length === 0) return null;
  return (
    <p role="alert" className="cut mb-4 border-l-4 border-stop bg-stop-wash px-4 py-3 text-sm text-stop">
      Left out, because nothing could be reckoned from {odd.length === 1 ? 'it' : 'them'}:{' '}
      {odd
        .slice(0, 3)
        .map(({ name, why }) => `${name} (${said(why)})`)
        .join('; ')}
      {odd.length > 3 && ` and ${odd.length - 3} more`}.
    </p>
  );
}

/** While something is read, and when it cannot be. */
export function Waiting({ error }: { error?: unknown }) {
  if (error)
    return (
      <div className="p-8">
        <ProblemNote error={error} />
      </div>
    );
  return <p className="quiet p-8">Reading …</p>;
}
