import { writeSpan, type TicketProduct, type WetCoat } from '@schmelz/core';
import { Icon } from '../../design/Icon.tsx';
import { writeTime } from '../../units/dates.ts';
import { paintAtStep } from './PaintPlan.tsx';

export interface LiquidCoat {
  coat: number;
  paint: string;
  dryS: number;
}

/**
 * The coats that a ticket's heads take one after another at a step with liquid paint in it, powder among them in its
 * place; none where all of it is powder.
 */
export function liquidCoats(product: TicketProduct, key: string): LiquidCoat[] {
  const layers = paintAtStep(product, key);
  if (!layers.some(({ form }) => form === 'liquid')) return [];
  return layers
    .flatMap(({ name: paint, form, coats, dryS }) =>
      Array.from({ length: coats }, () => ({ paint, dryS: form === 'liquid' ? dryS : 0 })),
    )
    .map((each, i) => ({ coat: i + 1, ...each }));
}

/** Coat by coat: what is on and dry, what dries, what comes next. */
export function LiquidCoats({ coats, on, now }: { coats: readonly LiquidCoat[]; on: readonly WetCoat[]; now: number }) {
  return (
    <section aria-label="Coats" className="mb-5">
      <ol className="text-lg">
        {coats.map(({ coat, paint, dryS }) => {
          const done = on.find((each) => each.coat === coat);
          const dry = done && done.dryAt <= now;
          return (
            <li
              key={coat}
              className={`flex items-baseline gap-4 border-b border-rule py-2 ${done ? '' : 'text-ink-2'}`}
            >
              <b className="fig text-[29px]">{coat}</b>
              <span className="min-w-0 flex-1">{paint}</span>
              <span className={`flex items-center gap-2 ${dry ? 'text-good' : done ? 'text-watch' : ''}`}>
                {done && <Icon name={dry ? 'good' : 'watch'} size={18} />}
                {dry
                  ? dryS
                    ? 'dry'
                    : 'on'
                  : done
                    ? `wet until ${writeTime(done.dryAt)}`
                    : dryS
                      ? `dries ${writeSpan(dryS)}`
                      : 'powder, it sets as it cools'}
              </span>
            </li>
          );
        })}
      </ol>
      <p className="mt-2 text-lg text-ink-2">
        Hung on a screw, dipped, dripped, the nose tapped, the leader hole cleared each time; turned over on a second
        rack.
      </p>
    </section>
  );
}
