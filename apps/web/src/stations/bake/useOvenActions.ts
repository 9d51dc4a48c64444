import type { BakeProgram, Oven, Ticket } from '@schmelz/contract';
import { bakeCounts, rackPlaces, stepBy, warmUpS } from '@schmelz/core';
import { useEffect } from 'react';
import { useList } from '../../api/queries.ts';
import type { BenchAction } from '../../bench/BenchFrame.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import type { TicketBench } from '../count/useTicketBench.ts';
import { bakedHead } from './baked.ts';
import { racksOf, roomFor } from './loads.ts';
import { coolDownS } from './cool.ts';
import { realOven } from './oven.ts';
import type { RunningLoad } from './useBake.ts';

/** What a ticket is baked with at a step; the first program on record where neither step nor product names one. */
export function programOf(
  ticket: Pick<Ticket, 'productId' | 'route'>,
  step: string,
  catalogue: Catalogue,
): BakeProgram | undefined {
  const named = stepBy(ticket.route, step)?.programId ?? catalogue.product(ticket.productId)?.bakeProgramId;
  return catalogue.programs.get(named ?? '') ?? [...catalogue.programs.values()][0];
}

/** How many heads of a ticket go in at once: on the rack that takes most of them, or by the oven's plain count. */
export function fitsIn(oven: Oven | undefined, ticket: Pick<Ticket, 'productId'>, catalogue: Catalogue): number {
  const { pitchM, hangsM } = roomFor(ticket.productId, catalogue);
  const most = Math.max(
    0,
    ...racksOf(oven)
      .filter((rack) => hangsM <= rack.clearM && pitchM <= rack.barM)
      .map((rack) => rackPlaces(rack, pitchM)),
  );
  return most || (oven?.places ?? Infinity);
}

/** Keys at the oven: in, warm, door, out, undo. The metal's being warm says itself as soon as it is. */
export function useOvenActions(
  ticket: Ticket,
  bench: TicketBench | null,
  running: RunningLoad | null,
  catalogue: Catalogue,
): BenchAction[] {
  const { data: ovens } = useList('ovens');
  const step = bench?.here.key ?? '';
  const program = programOf(ticket, step, catalogue);
  const oven = ovens?.[0];
  const load = running?.load;
  const { state } = running?.course ?? {};
  const nowWarm = !!load && load.from === 'metal' && load.warmAt === null && !!state && state.warmAt !== null;
  const by = state?.probed ? 'probe' : 'model';
  useEffect(() => {
    if (nowWarm) bench?.warm(by);
  }, [nowWarm]); // eslint-disable-line react-hooks/exhaustive-deps
  if (!bench || !program) return [];
  const undo: BenchAction = {
    key: 'Z',
    label: 'Undo',
    hint: bench.last?.kind,
    weight: 'quiet',
    disabled: !bench.last,
    run: bench.undo,
  };
  if (load) {
    const open = load.doors.at(-1)?.toAt === null;
    return [
      {
        key: 'Space',
        code: ' ',
        label: 'Taken out',
        weight: 'main',
        run: () => bench.unload(coolDownS(ticket, state?.metalC ?? load.setC, catalogue)),
      },
      {
        key: 'D',
        label: open ? 'Door is shut again' : 'Door is open',
        weight: open ? 'due' : 'quiet',
        run: () => bench.door(!open),
      },
      ...(load.from === 'metal' && load.warmAt === null
        ? [
            {
              key: 'W',
              label: 'Metal is warm',
              hint: 'the count begins',
              weight: 'quiet',
              run: () => bench.warm('hand'),
            } as const,
          ]
        : []),
      undo,
    ];
  }
  const { toLoad } = bakeCounts(bench.state, step);
  const count = Math.min(fitsIn(oven, ticket, catalogue), toLoad);
  const { setC, seconds, preheated, from } = program;
  const product = catalogue.product(ticket.productId);
  const head = product && bakedHead(product, catalogue, step);
  const hang = () => {
    const { lagS, offsetK } = realOven(oven);
    const warmS = head ? warmUpS({ setC: setC + offsetK, headLagS: head.headLagS, ovenLagS: preheated ? 0 : lagS }) : 0;
    bench.load(count, {
      setC,
      seconds,
      preheated: Boolean(preheated),
      ...(from === 'metal' ? { from, warmS: Math.round(warmS) } : {}),
    });
  };
  return [
    {
      key: 'Space',
      code: ' ',
      label: 'Door is shut',
      hint: `${count} heads`,
      weight: 'main',
      disabled: toLoad === 0,
      run: hang,
    },
    undo,
  ];
}
