import type { Mold as StoredMold, Pour } from '@schmelz/contract';
import { castsSay, insertsOut, loadsOf, pourCasts, writeSpan, type CavityLoad } from '@schmelz/core';
import { Icon } from '../../design/Icon.tsx';
import { Mold, moldFrame } from '../../drawing/Mold.tsx';
import { useList } from '../../api/queries.ts';
import type { Catalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import { inDrawer } from '../../shell/drawer.ts';
import { drawnCavities } from '../../drawing/cavities.ts';

/** What goes into one cavity, in the order of laying in: small inserts first, then the hook. */
function LoadOrder({
  load,
  pinSlot,
  catalogue,
}: {
  load: CavityLoad | undefined;
  /** Whether the cavity was cut for a pin. */
  pinSlot: boolean;
  catalogue: Catalogue;
}) {
  if (!load || load.ticketIds.length === 0) return <p className="text-ink-3">stays empty</p>;
  const hook = load.hookMaterialId === null ? undefined : catalogue.materials.get(load.hookMaterialId)?.hook;
  const parts = (load.castIn ?? []).map(({ materialId, quantity }) => {
    const name = catalogue.materials.get(materialId)?.name ?? 'part';
    return quantity === 1 ? name : `${quantity} ${name}`;
  });
  const things = [...load.inserts, ...parts, hook ? `hook ${hook.size}, ${hook.eyeAngleDeg}°` : 'no hook'];
  return (
    <ol className="leading-tight">
      {things.map((thing, index) => (
        <li key={index}>
          <span className="text-ink-3">{index + 1}</span> {thing}
        </li>
      ))}
      {pinSlot && !load.inserts.includes('base-hole pin') && <li className="text-sm text-ink-3">no hole</li>}
    </ol>
  );
}

function MoldLoads({ pour, mold, catalogue }: { pour: Pour; mold: StoredMold; catalogue: Catalogue }) {
  const units = useUnits();
  const loads = loadsOf(pour.setup, mold.id);
  const { plannedBlanks, plannedShots } = pour.setup.molds.find((each) => each.moldId === mold.id)!;
  const used = new Set(loads.map((load) => load.position));
  const cavities = drawnCavities(mold, units.massUnit, (position) => (used.has(position) ? 'loaded' : 'empty'));
  const frame = moldFrame(cavities);
  const pins = loads.filter((load) => load.inserts.includes('base-hole pin'));
  return (
    <section className="mb-5">
      <h2 className="flex flex-wrap items-baseline gap-x-4 text-lg">
        <b className="stamp">{mold.name}</b>
        <span className="text-ink-2">
          {plannedBlanks} blank, then about {plannedShots} shots
        </span>
      </h2>
      <div className="max-w-[560px]">
        <Mold className="w-full" cavities={cavities} label={`${mold.name}, the cavities that are used are loaded`} />
        <ol className="relative min-h-24 text-base" aria-label={`What goes into ${mold.name}`}>
          {mold.cavities.map((cavity, index) => {
            const { left, width } = frame.column(index);
            return (
              <li
                key={cavity.id}
                className="absolute pr-1"
                style={{ left: `${left * 100}%`, width: `${width * 100}%` }}
              >
                <b className="fig text-[23px]">{cavity.position}</b>
                <LoadOrder
                  load={loads.find((load) => load.position === cavity.position)}
                  pinSlot={Boolean(cavity.pin)}
                  catalogue={catalogue}
                />
              </li>
            );
          })}
        </ol>
      </div>
      {pins.length > 0 && (
        <p className="mt-2 flex items-start gap-2 font-medium text-watch">
          <Icon name="watch" className="mt-1 shrink-0" />
          Pins first in {pins.map((load) => load.position).join(', ')}, at blank shots too: a filled cavity without its
          pin leaks. Look once more before you close.
        </p>
      )}
    </section>
  );
}

/** Before the pot is on: what to lay out, what goes where and in which order, and what to expect. */
export function LoadMap({ pour, catalogue }: { pour: Pour; catalogue: Catalogue }) {
  const { data: parts = [] } = useList('parts');
  const { setup } = pour;
  const wantsPins = setup.pinsOut ?? setup.loads.filter((load) => load.inserts.includes('base-hole pin')).length;
  const pinsFree = parts.filter((part) => part.kind === 'base-hole pin').reduce((sum, part) => sum + inDrawer(part), 0);
  const countedOut = insertsOut(setup);
  const shots = setup.molds.reduce((sum, mold) => sum + mold.plannedShots, 0);
  return (
    <div>
      <dl className="mb-5 flex flex-wrap gap-x-9 gap-y-3">
        {Object.entries(setup.hooksOut).map(([id, count]) => {
          const material = catalogue.materials.get(id);
          const short = material && material.quantity < count;
          return (
            <div key={id}>
              <dt className="text-ink-2">{material?.name ?? 'Hooks'}, count out</dt>
              <dd className="fig text-[34px]">
                {count}
                {short && (
                  <span className="ml-2 text-base font-normal text-watch">
                    <Icon name="watch" /> {Math.round(material.quantity)} in stock
                  </span>
                )}
              </dd>
            </div>
          );
        })}
        {wantsPins > 0 && (
          <div>
            <dt className="text-ink-2">base-hole pins, lay out</dt>
            <dd className="fig text-[34px]">
              {wantsPins}
              {pinsFree < wantsPins && (
                <span className="ml-2 text-base font-normal text-watch">
                  <Icon name="watch" /> {pinsFree} in the drawer
                </span>
              )}
            </dd>
          </div>
        )}
        {countedOut.map(({ insert, count }) => (
          <div key={insert}>
            <dt className="text-ink-2">{insert}, count out</dt>
            <dd className="fig text-[34px]">{count}</dd>
          </div>
        ))}
        <div>
          <dt className="text-ink-2">shots{setup.molds.length > 1 && setup.atOnce > 1 ? ', two molds in turn' : ''}</dt>
          <dd className="fig text-[34px]">{shots}</dd>
          <dd className="quiet">{castsSay(pourCasts(setup))}</dd>
        </div>
        <div>
          <dt className="text-ink-2">from cold to the last head</dt>
          <dd className="fig text-[34px]">{writeSpan(pour.plannedS)}</dd>
        </div>
      </dl>
      {setup.molds.map(({ moldId }) => {
        const mold = catalogue.molds.find((each) => each.id === moldId);
        return mold && <MoldLoads key={moldId} pour={pour} mold={mold} catalogue={catalogue} />;
      })}
    </div>
  );
}
