import type { Ticket } from '@schmelz/contract';
import { stepBy, writeSpan, type WetCoat } from '@schmelz/core';
import { Icon } from '../../design/Icon.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { writeTime } from '../../units/dates.ts';

export interface LiquidCoat {
  coat: number;
  paint: string;
  dryS: number;
}

/** The coats of liquid paint that a ticket's heads take at a step, one after another; none for powder. */
export function liquidCoats(
  ticket: Pick<Ticket, 'productId' | 'route'>,
  key: string,
  catalogue: Catalogue,
): LiquidCoat[] {
  const recipeId = stepBy(ticket.route, key)?.recipeId ?? catalogue.product(ticket.productId)?.recipeId;
  const layers = catalogue.recipes.get(recipeId ?? '')?.layers ?? [];
  return layers
    .flatMap(({ powderId, coats }) => {
      const { name, powder } = catalogue.materials.get(powderId) ?? {};
      return powder?.form === 'liquid'
        ? Array.from({ length: coats }, () => ({ paint: name!, dryS: powder.dryS ?? 0 }))
        : [];
    })
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
                {dry ? 'dry' : done ? `wet until ${writeTime(done.dryAt)}` : `dries ${writeSpan(dryS)}`}
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
