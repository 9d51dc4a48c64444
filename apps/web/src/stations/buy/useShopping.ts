import type { Lacking, NeedTonight, Offer, Shopping, Supplier as Sells, TonightAsked } from '@schmelz/core';
import type { Supplier } from '@schmelz/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { wrap, type Remote } from 'comlink';
import { useEffect, useRef } from 'react';
import { startBuyer } from '../../workers/start.ts';
import type { Buyer } from '../../workers/buyer.worker.ts';

/** The worker that reckons: begun with the first question, ended with the page. */
export function useBuyer(): () => Remote<Buyer> {
  const held = useRef<{ worker: Worker; remote: Remote<Buyer> } | null>(null);
  useEffect(
    () => () => {
      held.current?.worker.terminate();
      held.current = null;
    },
    [],
  );
  return () => {
    if (!held.current) {
      const worker = startBuyer();
      held.current = { worker, remote: wrap<Buyer>(worker) };
    }
    return held.current.remote;
  };
}

/** What suppliers sell, as the core asks for it. */
export const soldBy = (suppliers: readonly Supplier[]): { sellers: Sells[]; offers: Offer[] } => ({
  sellers: suppliers.map(({ name, freightMinor, freeAboveMinor, days }) => {
    return { name, freightMinor, freeAboveMinor, days };
  }),
  offers: suppliers.flatMap(({ name, offers }) =>
    offers.map(({ materialId, pack, prices }, at) => {
      return { id: `${name} ${at}`, supplier: name, materialId, pack, prices };
    }),
  ),
});

/** What all open work takes of each material, and the cheapest way to buy what is then lacking. */
export function useShopping(
  asked: TonightAsked | undefined,
  suppliers: readonly Supplier[] | undefined,
  lackingOf: (needs: readonly NeedTonight[]) => Lacking[],
) {
  const buyer = useBuyer();
  const needs = useQuery({
    queryKey: ['worked out', 'needs', asked],
    queryFn: async () => (await buyer().needs(asked!)) as NeedTonight[],
    enabled: asked !== undefined,
    gcTime: 0,
  });
  const lacking = needs.data ? lackingOf(needs.data) : null;
  const shopping = useQuery({
    queryKey: ['worked out', 'shopping', lacking, suppliers],
    queryFn: async () => {
      const { offers, sellers } = soldBy(suppliers!);
      return (await buyer().buy(lacking!, offers, sellers)) as Shopping;
    },
    enabled: lacking !== null && suppliers !== undefined,
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
  return { needs: needs.data, shopping: shopping.data, error: needs.error ?? shopping.error };
}
