import type { ReactNode } from 'react';

/** The grammar of every screen: left the stub (what it is, the one number, what to do), right how it goes along. */
export function Page({ stub, children }: { stub: ReactNode; children: ReactNode }) {
  return (
    <div className="grid gap-x-9 gap-y-6 px-4 py-5 md:px-8 lg:grid-cols-[300px_minmax(0,1fr)]">
      <section aria-label="What it is" className="flex min-w-0 flex-col gap-4">
        {stub}
      </section>
      <section aria-label="How it goes" className="min-w-0">
        {children}
      </section>
    </div>
  );
}

/** The largest thing on a screen: a number, with the sentence that says what it counts. */
export function TheNumber({
  value,
  unit,
  children,
  eyebrow,
}: {
  value: ReactNode;
  unit?: string;
  children: ReactNode;
  eyebrow?: string;
}) {
  return (
    <div>
      {eyebrow && <p className="quiet mb-2">{eyebrow}</p>}
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        {/* The mark of what it rests on stands high: at the foot of a large number it would be a decimal point. */}
        <span className="fig text-[104px] [&_.basis]:-translate-y-[60px]">
          {value}
          {unit && <span className="ml-1.5 text-2xl">{unit}</span>}
        </span>
        <h1 className="voice min-w-[150px] flex-1 text-[25px] font-normal">{children}</h1>
      </div>
    </div>
  );
}

export function Heading({ children, aside }: { children: ReactNode; aside?: ReactNode }) {
  return (
    <div className="mb-2 flex flex-wrap items-baseline justify-between gap-x-4">
      <h2 className="stamp text-[17px]">{children}</h2>
      {aside && <div className="quiet">{aside}</div>}
    </div>
  );
}
