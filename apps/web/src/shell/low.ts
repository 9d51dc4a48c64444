import type { Material, Supplier, UsedWeekly } from '@schmelz/contract';
import { partKind, toBuy, type PartToBuy } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { call } from '../api/client.ts';
import { useList } from '../api/queries.ts';

/** Until more is here, days, where nobody is known who sells it. Common practice, no source. */
const USUAL_DAYS = 7;

/** What each material that is not put away has left beyond what is needed of it, and when it is ordered again. */
export function leftOnShelf(
  materials: readonly Material[],
  suppliers: readonly Supplier[],
  used: readonly UsedWeekly[],
  needOf: (materialId: string) => number = () => 0,
): PartToBuy[] {
  const daysOf = (id: string) => {
    const sellers = suppliers.filter(({ offers }) => offers.some(({ materialId }) => materialId === id));
    return sellers.length ? Math.min(...sellers.map(({ days }) => days)) : USUAL_DAYS;
  };
  const parts = materials
    .filter(({ archived }) => !archived)
    .map(({ id, kind, quantity }) => ({
      ...{ materialId: id, here: quantity, days: daysOf(id), need: needOf(id), lowAt: partKind(kind).lowAt },
      weekly: used.find(({ materialId }) => materialId === id)?.weekly ?? [],
    }));
  return toBuy(parts);
}

export const useUsed = () => useQuery({ queryKey: ['stock', 'use'], queryFn: () => call('GET /stock/use') });

/** What runs low on the shelf once the open work is done, by material; undefined until it is known. */
export function useLow(reserved?: ReadonlyMap<string, number>): ReadonlyMap<string, PartToBuy> | undefined {
  const { data: materials } = useList('materials');
  const { data: suppliers } = useList('suppliers');
  const { data: used } = useUsed();
  if (!materials || !suppliers || !used) return undefined;
  const left = leftOnShelf(materials, suppliers, used, (id) => reserved?.get(id) ?? 0);
  return new Map(left.map((each) => [each.materialId, each]));
}
