import { partKind } from '@schmelz/core';
import { Link } from 'react-router';
import type { Catalogue } from '../../shell/catalogue.ts';
import { Icon } from '../../design/Icon.tsx';
import { useLow } from '../../shell/low.ts';
import { useUnits } from '../../units/Units.tsx';

/** What runs low, with what is left. */
export function ShortShelf({ catalogue }: { catalogue: Catalogue }) {
  const units = useUnits();
  const left = useLow();
  const low = [...catalogue.materials.values()].filter(
    ({ id }) => left && left.get(id)?.why !== 'enough' && left.has(id),
  );
  /** Where it is ordered again. */
  const lowOf = ({ id, kind }: { id: string; kind: string }) => left?.get(id)?.point?.at ?? partKind(kind).lowAt;
  if (low.length === 0) return <p className="quiet">Nothing runs low.</p>;
  return (
    <ul>
      {low.slice(0, 5).map((material) => (
        <li key={material.id} className="border-b border-rule py-2">
          <div className="flex justify-between gap-3">
            <Link to="/stock/buy" className="truncate font-medium">
              {material.name}
            </Link>
            <span className="flex items-center gap-1.5 whitespace-nowrap text-stop">
              <Icon name="short" size={13} />
              {units.part(material.kind, material.quantity)} left
            </span>
          </div>
          <div className="mt-1.5 h-2 bg-well">
            <div
              className="h-full"
              style={{
                width: `${Math.min(100, Math.max(0, (material.quantity / lowOf(material)) * 100))}%`,
                background: material.powder?.colour ?? 'var(--lead-shade)',
              }}
            />
          </div>
        </li>
      ))}
    </ul>
  );
}
