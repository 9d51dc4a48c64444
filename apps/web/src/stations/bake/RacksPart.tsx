import type { Oven, OvenInput, ovenSchema } from '@schmelz/contract';
import { rackPlaces, roomFor, RACK_WAYS, type OvenRack } from '@schmelz/core';
import { useState } from 'react';
import { toast } from '../../design/toast.ts';
import { useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { numberIn, useBuiltForm } from '../../design/useForm.ts';
import { RackView, rackScale } from '../../drawing/RackView.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';

const SAYS: Record<OvenRack['way'], string> = {
  hanging: 'hanging by the bend from wires: most heads; thick paint can pool on the nose',
  upright: 'upright in a clamp: a drip runs down the shank',
};

/** What is written back of an oven. */
export const withoutId = ({ id: _id, version: _version, ...oven }: Oven) => oven;

function RackForm({ oven, schema, onSaved }: { oven: Oven; schema: typeof ovenSchema; onSaved: () => void }) {
  const units = useUnits();
  const save = useSave('ovens');
  const form = useBuiltForm<{ name: string; way: string; bars: string; bar: string; clear: string }, OvenInput>({
    defaults: { name: '', way: 'hanging', bars: '5', bar: units.lengthText(0.3), clear: units.lengthText(0.075) },
    schema,
    build: ({ name, way, bars, bar, clear }) => ({
      ...withoutId(oven),
      racks: [
        ...(oven.racks ?? []),
        {
          name: name.trim(),
          way,
          bars: numberIn('bars', bars),
          barM: units.readLength('length of a bar', bar),
          clearM: units.readLength('air under a bar', clear),
        },
      ],
    }),
    send: (input) =>
      save.mutate(
        { ...input, id: oven.id, version: oven.version },
        {
          onSuccess: () => {
            toast('The rack stands in the oven.');
            onSaved();
          },
        },
      ),
  });
  const way = form.watch('way') as OvenRack['way'];
  return (
    <form onSubmit={form.onSubmit} className="grid gap-4 sm:grid-cols-2" noValidate>
      <TextField label="Name" hint="Such as wires, top half." {...form.register('name')} />
      <Choice
        label="Heads"
        hint={SAYS[way]}
        options={RACK_WAYS.map((value) => ({ value, label: value }))}
        {...form.register('way')}
      />
      <TextField label="Bars" inputMode="numeric" {...form.register('bars')} />
      <TextField label="Length of a bar" {...form.register('bar')} />
      <TextField
        label={way === 'hanging' ? 'Air under a bar' : 'Air above a bar'}
        hint="How long a head with its hook may be."
        {...form.register('clear')}
      />
      <div className="flex flex-col gap-3 sm:col-span-2">
        <ProblemNote error={form.problem ?? save.error} />
        <Button look="main" type="submit" className="self-start" disabled={save.isPending}>
          Put it in the oven
        </Button>
      </div>
    </form>
  );
}

/** The racks that stand in an oven, drawn with their places for one head. */
export function RacksPart({ oven, schema }: { oven: Oven; schema: typeof ovenSchema }) {
  const catalogue = useCatalogue();
  const units = useUnits();
  const save = useSave('ovens');
  const [productId, setProductId] = useState<string | null>(null);
  const [adding, setAdding] = useState(false);
  const product = catalogue?.products.find((each) => each.id === productId) ?? catalogue?.products[0];
  if (!catalogue) return null;
  const racks = oven.racks ?? [];
  const room = product && roomFor(catalogue.known(product));
  const remove = (at: number) =>
    save.mutate({ ...withoutId(oven), id: oven.id, version: oven.version, racks: racks.filter((_, i) => i !== at) });
  return (
    <section>
      <Heading aside="to scale">Racks</Heading>
      <div className="mb-4 flex flex-wrap items-end gap-4">
        {product && (
          <div className="w-80">
            <Choice
              label="Places for"
              options={catalogue.products.map(({ id, name }) => ({ value: id, label: name }))}
              value={product.id}
              onChange={(event) => setProductId(event.target.value)}
            />
          </div>
        )}
        <Sheet
          open={adding}
          onOpenChange={setAdding}
          title="A rack"
          says="Bars across the oven, heads side by side on each."
          trigger={<Button>Another rack</Button>}
        >
          <RackForm oven={oven} schema={schema} onSaved={() => setAdding(false)} />
        </Sheet>
      </div>
      <ul className="grid gap-8 xl:grid-cols-2">
        {racks.map((rack, at) => {
          const fits = !!room && room.hangsM <= rack.clearM && room.pitchM <= rack.barM;
          const places = fits ? rackPlaces(rack, room.pitchM) : 0;
          const perBar = places / rack.bars;
          const drawn =
            product && fits ? Array.from({ length: rack.bars }, () => [{ groupId: 'one', heads: perBar }]) : [];
          return (
            <li key={`${rack.name}${at}`}>
              <div className="mb-2 flex items-baseline justify-between gap-3">
                <h3 className="font-medium">
                  {rack.name} <span className="quiet">· {rack.way}</span>
                </h3>
                <span>
                  <b className="fig text-[25px]">{places}</b>{' '}
                  <span className="quiet">{fits ? 'places' : 'too long or too wide'}</span>
                </span>
              </div>
              <RackView
                rack={rack}
                bars={drawn}
                kinds={
                  new Map(
                    product && room
                      ? [
                          [
                            'one',
                            {
                              spec: catalogue.spec(product),
                              paint: catalogue.paint(product),
                              state: product.recipeId ? 'powder' : 'blank',
                              pitchM: room.pitchM,
                            },
                          ],
                        ]
                      : [],
                  )
                }
                pitchM={room?.pitchM ?? 0.02}
                scale={rackScale(rack, 420, 360)}
                label={`${rack.name}: ${rack.bars} bars of ${units.write(rack.barM, 'm')}, ${places} places`}
              />
              <p className="quiet mt-1 flex items-center justify-between gap-3">
                {rack.bars} bars of {units.write(rack.barM, 'm')}, {units.write(rack.clearM, 'm')} of air
                <Button look="quiet" onClick={() => remove(at)} disabled={save.isPending}>
                  Take it out
                </Button>
              </p>
            </li>
          );
        })}
      </ul>
      {racks.length === 0 && (
        <p className="max-w-[60ch]">
          None yet. Count your wires or clamps and measure one: a large toaster oven with added wires took 88 heads of
          1/2 oz.
        </p>
      )}
      <ProblemNote error={save.error} />
    </section>
  );
}
