import type { Material } from '@schmelz/contract';
import { partKind, type PartToBuy } from '@schmelz/core';
import type { ReactNode } from 'react';
import { Icon } from '../../design/Icon.tsx';
import { Heading } from '../../design/Page.tsx';
import { HookCompartment } from '../../drawing/HookBox.tsx';
import { Ingots } from '../../drawing/Ingots.tsx';
import { Jar } from '../../drawing/Jar.tsx';
import { Swatch } from '../../shell/Swatch.tsx';
import { useUnits } from '../../units/Units.tsx';

/** A jar as it is bought mostly, kg. Common practice, no source. */
const USUAL_JAR_KG = 0.225;

interface Shelf {
  materials: readonly Material[];
  low: ReadonlyMap<string, PartToBuy> | undefined;
  onOpen: (id: string) => void;
}

/** What runs low is washed in sulphur, what is gone is said in red lead: never by colour alone. */
function Marked({
  material,
  low,
  children,
  onOpen,
}: Omit<Shelf, 'materials'> & { material: Material; children: ReactNode }) {
  const units = useUnits();
  const { why, need } = low?.get(material.id) ?? { why: 'enough', need: 0 };
  const none = material.quantity <= 0;
  return (
    <button
      type="button"
      onClick={() => onOpen(material.id)}
      className={`group block w-full min-w-0 text-left ${why === 'enough' ? '' : none ? 'bg-stop-wash' : 'bg-watch-wash'}`}
    >
      {children}
      <span className="flex items-baseline justify-between gap-2 px-2 pb-1.5">
        <b className="fig text-[24px]">{units.part(material.kind, material.quantity)}</b>
        {why !== 'enough' && (
          <span className={`text-[13px] font-semibold ${none ? 'text-stop' : 'text-watch'}`}>
            <Icon name={none ? 'short' : 'watch'} size={12} /> {none ? 'none' : why}
          </span>
        )}
      </span>
      {need > 0 && <span className="block px-2 text-[13px]">{units.part(material.kind, need)} reserved</span>}
      <span className="quiet block px-2 pb-2 leading-snug group-hover:underline">{material.name}</span>
    </button>
  );
}

function HookBox({ materials, ...shelf }: Shelf) {
  const hooks = materials.filter(({ kind, hook }) => kind === 'hook' && hook);
  if (hooks.length === 0) return null;
  return (
    <section>
      <Heading aside="one drawn is ten">Hooks</Heading>
      <ul className="grid grid-cols-[repeat(auto-fit,minmax(136px,1fr))] gap-px border-2 border-contour bg-ink">
        {hooks.map((material) => (
          <li key={material.id} className="bg-well">
            <Marked material={material} {...shelf}>
              <HookCompartment {...material.hook!} id={material.id} pieces={Math.round(material.quantity)} />
            </Marked>
          </li>
        ))}
      </ul>
    </section>
  );
}

function PowderShelf({ materials, ...shelf }: Shelf) {
  const powders = materials.filter(({ kind, powder }) => kind === 'powder' && powder);
  if (powders.length === 0) return null;
  return (
    <section>
      <Heading>Powder and paint</Heading>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(104px,1fr))] gap-y-4">
        {powders.map((material) => {
          const kg = Math.max(0, material.quantity);
          return (
            <li key={material.id}>
              <Marked material={material} {...shelf}>
                <span className="mb-1.5 flex justify-center border-b-[3px] border-contour px-2 pt-2">
                  <Jar
                    colour={material.powder!.colour}
                    full={Math.max(USUAL_JAR_KG, kg)}
                    {...{ kg, low: kg, high: kg }}
                  />
                </span>
              </Marked>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function MetalStack({ materials, ...shelf }: Shelf) {
  const metals = materials.filter(({ kind }) => kind === 'lead');
  if (metals.length === 0) return null;
  return (
    <section>
      <Heading aside="a block is a kilogram">Metal</Heading>
      <ul className="flex flex-wrap items-end gap-x-10 gap-y-4">
        {metals.map((material) => (
          <li key={material.id}>
            <Marked material={material} {...shelf}>
              <span className="block px-2 pb-1.5">
                <Ingots kg={material.quantity} />
              </span>
            </Marked>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Drawer({ materials, ...shelf }: Shelf) {
  const others = materials.filter(({ kind }) => !['hook', 'powder', 'lead'].includes(kind));
  if (others.length === 0) return null;
  return (
    <section>
      <Heading>Everything else</Heading>
      <ul className="grid grid-cols-2 gap-px border border-contour bg-rule sm:grid-cols-3 xl:grid-cols-5">
        {others.map((material) => (
          <li key={material.id} className="bg-well">
            <Marked material={material} {...shelf}>
              <span className="flex items-center gap-2 px-2 pt-2 pb-1.5">
                <Swatch material={material} />
                <span className="quiet">{partKind(material.kind).name}</span>
              </span>
            </Marked>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The stock as it stands there: a box of hooks, a shelf of jars, a stack of metal, a drawer for the rest. */
export function Shelves(shelf: Shelf) {
  return (
    <div className="flex flex-col gap-7">
      <HookBox {...shelf} />
      <PowderShelf {...shelf} />
      <MetalStack {...shelf} />
      <Drawer {...shelf} />
    </div>
  );
}
