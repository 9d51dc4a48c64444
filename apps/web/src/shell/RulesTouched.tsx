import type { Product } from '@schmelz/contract';
import { useList } from '../api/queries.ts';
import { Icon } from '../design/Icon.tsx';
import { rulesTouched } from './rules.ts';

/** Where these products may not be used with lead, by the maker's own notes of local rules. */
export function RulesTouched({ products }: { products: readonly Pick<Product, 'nominalMassKg'>[] }) {
  const { data: rules = [] } = useList('rules');
  const says = [...new Set(products.flatMap((product) => rulesTouched(product, rules)))];
  if (says.length === 0) return null;
  return (
    <p className="quiet mt-1 flex gap-1.5">
      <Icon name="watch" size={13} className="mt-0.5 shrink-0" />
      <span>{says.join(' ')}</span>
    </p>
  );
}
