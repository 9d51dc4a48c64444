import { PIN_KINDS, partSchema, type Part, type PartInput } from '@schmelz/contract';
import { useState } from 'react';
import { inDrawerFigure } from '@schmelz/core';
import { useFieldArray } from 'react-hook-form';
import { Link } from 'react-router';
import { useList, useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { asOptions, Choice, TextField } from '../../design/Field.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { numberIn, useBuiltForm } from '../../design/useForm.ts';
import { inDrawer } from '../../shell/drawer.ts';
import { useUnits } from '../../units/Units.tsx';

interface Values {
  name: string;
  kind: string;
  diameter: string;
  owned: string;
  places: { where: string; count: string }[];
}

function PartForm({ part, onSaved }: { part?: Part; onSaved: () => void }) {
  const units = useUnits();
  const save = useSave('parts');
  const form = useBuiltForm<Values, PartInput>({
    defaults: part
      ? {
          name: part.name,
          kind: part.kind,
          diameter: units.lengthText(part.diameterM),
          owned: String(part.owned),
          places: part.places.map(({ where, count }) => ({ where, count: String(count) })),
        }
      : { name: '', kind: 'base-hole pin', diameter: '', owned: '', places: [] },
    schema: partSchema,
    build: ({ name, kind, diameter, owned, places }) => ({
      name: name.trim(),
      kind,
      diameterM: diameter.trim() ? units.readLength('diameter', diameter) : null,
      owned: numberIn('owned', owned),
      places: places.map(({ where, count }) => ({ where: where.trim(), count: numberIn('pieces', count) })),
    }),
    send: (input) =>
      save.mutate(part ? { ...input, id: part.id, version: part.version } : input, { onSuccess: onSaved }),
  });
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'places' });
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-4" noValidate>
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField label="Name" {...form.register('name')} autoFocus />
        <Choice label="What it is" options={asOptions(PIN_KINDS)} {...form.register('kind')} />
        <TextField label="Diameter" {...form.register('diameter')} />
        <TextField label="Owned" unit="pieces" inputMode="numeric" {...form.register('owned')} />
      </div>
      <fieldset>
        <legend className="mb-2 font-medium">Where some of them are</legend>
        {fields.map((field, index) => (
          <div key={field.id} className="mb-2 grid grid-cols-[1fr_100px_32px] items-end gap-2">
            <TextField
              label="Place"
              placeholder="in heads until the bake"
              {...form.register(`places.${index}.where`)}
            />
            <TextField label="Pieces" inputMode="numeric" {...form.register(`places.${index}.count`)} />
            <button
              type="button"
              aria-label={`Remove place ${index + 1}`}
              className="grid h-10 place-items-center"
              onClick={() => remove(index)}
            >
              <Icon name="close" size={13} />
            </button>
          </div>
        ))}
        <Button onClick={() => append({ where: '', count: '' })}>
          <Icon name="plus" size={14} /> Another place
        </Button>
      </fieldset>
      <ProblemNote error={form.problem ?? save.error} />
      <Button look="main" type="submit" className="self-start" disabled={save.isPending}>
        Keep it
      </Button>
    </form>
  );
}

/** Pins, plugs and keepers are few and go round: how many, and where they are. */
export function PartsPage() {
  const { data: parts, error } = useList('parts');
  const [open, setOpen] = useState<Part | 'new' | null>(null);
  if (!parts) return <Waiting error={error} />;
  const pins = parts.filter((part) => part.kind === 'base-hole pin');
  return (
    <Page
      stub={
        <>
          <TheNumber value={<Fig figure={inDrawerFigure(pins)} title="Pins in the drawer" />}>
            base-hole pins in the drawer
          </TheNumber>
          <p className="text-ink-2">
            They limit how many heads can be in work at once: a pin stays in its head until the paint is soft or baked.
          </p>
          <Button look="main" className="self-start" onClick={() => setOpen('new')}>
            New kind of part
          </Button>
          <Button asChild look="quiet" className="self-start">
            <Link to="/molds">All molds</Link>
          </Button>
        </>
      }
    >
      <Heading>Pins, plugs, keepers</Heading>
      <ul className="max-w-[820px]">
        {parts.map((part) => (
          <li
            key={part.id}
            className="grid gap-x-6 gap-y-1 border-b border-rule py-3 md:grid-cols-[240px_minmax(0,1fr)_auto] md:items-center"
          >
            <span>
              <b>{part.name}</b>
              <span className="quiet block">{part.kind}</span>
            </span>
            <span>
              <span
                className="flex h-5 border border-contour"
                role="img"
                aria-label={`${inDrawer(part)} of ${part.owned} in the drawer`}
              >
                <span className="bg-lead" style={{ width: `${(100 * inDrawer(part)) / Math.max(1, part.owned)}%` }} />
                {part.places.map((place) => (
                  <span
                    key={place.where}
                    className="hatch border-l border-contour"
                    style={{ width: `${(100 * place.count) / Math.max(1, part.owned)}%` }}
                  />
                ))}
              </span>
              <span className="quiet">
                <Fig figure={inDrawerFigure([part])} title={part.name} /> of {part.owned} in the drawer
                {part.places.map((place) => `, ${place.count} ${place.where}`).join('')}
              </span>
            </span>
            <Button onClick={() => setOpen(part)}>Change</Button>
          </li>
        ))}
        {parts.length === 0 && <li className="quiet">None on record yet.</li>}
      </ul>
      <Sheet
        open={open !== null}
        onOpenChange={(on) => !on && setOpen(null)}
        title={open === 'new' || open === null ? 'New kind of part' : open.name}
      >
        <PartForm part={open === 'new' || open === null ? undefined : open} onSaved={() => setOpen(null)} />
      </Sheet>
    </Page>
  );
}
