import { partKind, POUR_STEP, type RouteStep } from '@schmelz/core';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { Icon } from '../../design/Icon.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';

/** A line of the bill as it is written; figures are text until it is kept. */
export interface PartLine {
  partId: string;
  quantity: string;
  /** In percent. */
  waste: string;
  step: string;
}

const UNIT_WORDS = { kg: 'kg', pieces: 'pieces', m: 'm', ml: 'ml' } as const;

/** Kinds that a product's own fields or recipes name already. */
const ELSEWHERE: readonly string[] = ['lead', 'hook', 'powder', 'bare head', 'used jig'];

/** What else goes into a head: guard, skirt, ring, treble, glue, bag; how much of it, and at which step. */
export function PartsEditor({
  parts,
  route,
  catalogue,
  onChange,
}: {
  parts: readonly PartLine[];
  route: readonly RouteStep[];
  catalogue: Catalogue;
  onChange: (parts: PartLine[]) => void;
}) {
  const shelf = [...catalogue.materials.values()].filter((each) => !ELSEWHERE.includes(each.kind));
  const steps = [
    { value: POUR_STEP, label: 'cast in' },
    ...route.map(({ key, does }) => ({ value: key, label: does })),
  ];
  const change = (at: number, line: Partial<PartLine>) =>
    onChange(parts.map((each, i) => (i === at ? { ...each, ...line } : each)));
  return (
    <fieldset className="flex flex-col gap-2 sm:col-span-2">
      <legend className="stamp mb-1 text-[17px]">Other parts</legend>
      {shelf.length === 0 && (
        <p className="quiet">None on record: a guard, a ring or a skirt is added in Stock first.</p>
      )}
      <ul>
        {parts.map((line, at) => {
          const kind = catalogue.materials.get(line.partId)?.kind;
          return (
            <li
              key={at}
              className="grid gap-3 border-t border-rule py-3 sm:grid-cols-[2fr_1fr_1fr_1.4fr_auto] sm:items-end"
            >
              <Choice
                label="Part"
                options={shelf.map(({ id, name }) => ({ value: id, label: name }))}
                value={line.partId}
                onChange={(event) => change(at, { partId: event.target.value })}
              />
              <TextField
                label="A head"
                unit={kind ? UNIT_WORDS[partKind(kind).unit] : undefined}
                inputMode="decimal"
                value={line.quantity}
                onChange={(event) => change(at, { quantity: event.target.value })}
              />
              <TextField
                label="Wasted"
                unit="%"
                inputMode="decimal"
                value={line.waste}
                onChange={(event) => change(at, { waste: event.target.value })}
              />
              <Choice
                label="At the step"
                options={steps}
                value={line.step}
                onChange={(event) => change(at, { step: event.target.value })}
              />
              <Button look="quiet" aria-label="Leave it out" onClick={() => onChange(parts.filter((_, i) => i !== at))}>
                <Icon name="close" />
              </Button>
            </li>
          );
        })}
      </ul>
      {shelf.length > 0 && (
        <Button
          className="self-start"
          onClick={() =>
            onChange([
              ...parts,
              { partId: shelf[0]!.id, quantity: '1', waste: '0', step: route.at(-1)?.key ?? POUR_STEP },
            ])
          }
        >
          Another part
        </Button>
      )}
    </fieldset>
  );
}
