import type { Ticket } from '@schmelz/contract';
import { mixedColour, stepBy, type PaintForm, type PaintZone } from '@schmelz/core';
import type { Catalogue } from '../../shell/catalogue.ts';

/** One layer as it is laid on: what of, where, with what, how often. */
export interface LaidOn {
  name: string;
  colour: string;
  form: PaintForm;
  where: string;
  how: string;
  coats: number;
  dryS: number;
}

const WHERE: Record<PaintZone, string> = {
  whole: 'whole head',
  nose: 'nose',
  back: 'back',
  speckle: 'specks all over',
  flake: 'flakes all over',
};
const HOW: Record<PaintZone, string> = {
  whole: 'dip',
  nose: 'dip the nose',
  back: 'tap off a soft brush',
  speckle: 'tap off a soft brush',
  flake: 'tap off a soft brush',
};

/** What a ticket's heads take at a step of their route, in the order in which it is laid on. */
export function laidOn(ticket: Pick<Ticket, 'productId' | 'route'>, key: string, catalogue: Catalogue): LaidOn[] {
  const step = stepBy(ticket.route, key);
  const recipe = catalogue.recipes.get(step?.recipeId ?? catalogue.product(ticket.productId)?.recipeId ?? '');
  return (recipe?.layers ?? []).flatMap(({ powderId, zone, coats, mix }): LaidOn[] => {
    const { name, powder } = catalogue.materials.get(powderId) ?? {};
    if (!name || !powder) return [];
    const form = powder.form ?? 'powder';
    if (step?.only && step.only !== form) return [];
    const second = mix ? catalogue.materials.get(mix.powderId) : undefined;
    return [
      {
        name: second ? `${name} + ${Math.round(100 * mix!.share)} % ${second.name}` : name,
        colour: second?.powder ? mixedColour(powder.colour, second.powder.colour, mix!.share) : powder.colour,
        form,
        where: WHERE[zone],
        how: form === 'liquid' ? 'dip, drip, dry' : HOW[zone],
        coats,
        dryS: powder.dryS ?? 0,
      },
    ];
  });
}

/** What to paint, large and in its colour, from the first layer to the last. */
export function PaintPlan({ layers }: { layers: readonly LaidOn[] }) {
  if (layers.length === 0) return null;
  return (
    <ol aria-label="What to paint" className="mb-4 grid auto-cols-fr grid-flow-col gap-1">
      {layers.map(({ name, colour, where, how, coats }, i) => (
        <li key={i} className="flex min-w-0 items-stretch gap-3 bg-sheet pr-3">
          <span
            className="fig grid w-16 shrink-0 border border-rule"
            style={{ background: colour }}
            aria-hidden="true"
          />
          <span className="min-w-0 py-2">
            <b className="block truncate text-[22px] leading-tight font-semibold">
              {layers.length > 1 && <span className="fig mr-2">{i + 1}</span>}
              {name}
            </b>
            <span className="block truncate text-base text-ink-2">
              {where}, {how}
              {coats > 1 && <b className="text-ink">, {coats} coats</b>}
            </span>
          </span>
        </li>
      ))}
    </ol>
  );
}
