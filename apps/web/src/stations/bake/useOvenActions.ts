import type { Ticket } from '@schmelz/contract';
import { bakeCounts } from '@schmelz/core';
import { useList } from '../../api/queries.ts';
import type { BenchAction } from '../../bench/BenchFrame.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import type { TicketBench } from '../count/useTicketBench.ts';

/** What a ticket's product is baked with; the first program on record where the product names none. */
export function programOf(ticket: Ticket, catalogue: Catalogue) {
  const product = catalogue.product(ticket.productId);
  return catalogue.programs.get(product?.bakeProgramId ?? '') ?? [...catalogue.programs.values()][0];
}

/** Keys at the oven: in, out, undo. */
export function useOvenActions(ticket: Ticket, bench: TicketBench | null, catalogue: Catalogue): BenchAction[] {
  const { data: ovens } = useList('ovens');
  const program = programOf(ticket, catalogue);
  if (!bench || !program) return [];
  const { toLoad, inOven } = bakeCounts(bench.state);
  const places = ovens?.[0]?.places ?? toLoad;
  const { setC, seconds } = program;
  const load = () => bench.load(Math.min(places, toLoad), { setC, seconds, preheated: Boolean(program.preheated) });
  return [
    inOven > 0
      ? { key: 'Space', code: ' ', label: 'Taken out', weight: 'main', run: bench.unload }
      : {
          key: 'Space',
          code: ' ',
          label: 'Door is shut',
          hint: `${Math.min(places, toLoad)} heads`,
          weight: 'main',
          disabled: toLoad === 0,
          run: load,
        },
    { key: 'Z', label: 'Undo', hint: bench.last?.kind, weight: 'quiet', disabled: !bench.last, run: bench.undo },
  ];
}
