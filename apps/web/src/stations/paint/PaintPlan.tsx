import { mixedColour, stepOfRoute, type PaintForm, type PaintZone, type TicketProduct } from '@schmelz/core';

/** One layer as it is laid on: what of, where, with what, how often. */
interface PaintLayer {
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

/** What a product's heads take at a step of their route, in the order in which it is laid on. */
export const paintAtStep = ({ steps }: TicketProduct, key: string): PaintLayer[] =>
  (stepOfRoute(steps, key)?.layers ?? []).map(({ powder, zone, coats, mix }): PaintLayer => {
    const { name, colour = 'transparent', form = 'powder', dryS = 0 } = powder;
    return {
      name: mix ? `${name} + ${Math.round(100 * mix.share)} % ${mix.powder.name}` : name,
      colour: mix?.powder.colour ? mixedColour(colour, mix.powder.colour, mix.share) : colour,
      ...{ form, where: WHERE[zone], how: form === 'liquid' ? 'dip, drip, dry' : HOW[zone], coats, dryS },
    };
  });

/** What to paint, large and in its colour, from the first layer to the last. */
export function PaintPlan({ layers }: { layers: readonly PaintLayer[] }) {
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
