import { parseMass, partKind } from '@schmelz/core';
import { numberIn } from '../../design/useForm.ts';
import { useUnits } from '../../units/Units.tsx';

/** How so much of a part is asked for and read: by the unit of its kind. */
export function useQuantity(kind: string) {
  const { massUnit } = useUnits();
  const { unit } = partKind(kind);
  return {
    read: (text: string) => (unit === 'kg' ? parseMass(text, massUnit) : numberIn('quantity', text, unit)),
    label: { pieces: 'Pieces', kg: 'How much', m: 'Metres', ml: 'Millilitres' }[unit],
    hint: unit === 'kg' ? 'Such as 25 kg, 225 g or 5 lb.' : undefined,
  };
}
