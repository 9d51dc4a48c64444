import type { Cavity, Mold as StoredMold, Part } from '@schmelz/contract';
import {
  castAs,
  castFigure,
  causeFigure,
  sinceSmokedFigure,
  SOFT_LEAD,
  yieldFigure,
  type CavityVariant,
  type HookSize,
  type StyleId,
  workingBlock,
  openingFigures,
  holdFigure,
  typicalHook,
  cavitySolid,
  metalAtMoldC,
  settledMold,
  type HouseWays,
} from '@schmelz/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { useList, useSave, useSettings } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Fig } from '../../design/Figure.tsx';
import { causeIcon, Icon } from '../../design/Icon.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { Head } from '../../drawing/Head.tsx';
import { useUnits } from '../../units/Units.tsx';
import { CavityForm, VariantForm } from './CavityForms.tsx';
import { conditionOf, moldInputOf, variantCavity, variantsOf } from './rooms.tsx';
import { inDrawer } from '../../shell/drawer.ts';

/** Rejects of a cavity by cause, as one bar of its casts. */
function RecordBar({ cavity }: { cavity: Cavity }) {
  const causes = Object.entries(cavity.rejects)
    .filter(([, count]) => count > 0)
    .sort((a, b) => b[1] - a[1]);
  if (cavity.casts === 0) return <p className="quiet">No casts on record.</p>;
  const width = (count: number) => `${(100 * count) / cavity.casts}%`;
  return (
    <div>
      <div className="flex h-4 border border-contour" aria-hidden="true">
        <span className="bg-good" style={{ width: width(cavity.good) }} />
        {causes.map(([cause, count]) => (
          <span key={cause} className="border-l border-sheet bg-stop" style={{ width: width(count) }} />
        ))}
      </div>
      <p className="mt-1.5 flex flex-wrap gap-x-4 text-sm">
        <span>
          {cavity.good} good of {cavity.casts}:{' '}
          <Fig figure={yieldFigure(cavity.good, cavity.casts)} title={`Cavity ${cavity.position}`} />
        </span>
        {causes.map(([cause, count]) => (
          <span key={cause} className="inline-flex items-center gap-1">
            <Icon name={causeIcon(cause)} size={13} />{' '}
            <Fig figure={causeFigure(cause, count, cavity.casts)} title={cause} /> {cause}
          </span>
        ))}
      </p>
    </div>
  );
}

function VariantRow({
  cavity,
  variant,
  parts,
  onRemove,
}: {
  cavity: Cavity;
  variant: CavityVariant;
  parts: readonly Part[];
  onRemove?: () => void;
}) {
  const units = useUnits();
  const cast = castAs(variantCavity(cavity), variant);
  const hook = variant.grooveFor ?? cavity.hookSize;
  return (
    <li className="border-b border-rule py-2.5">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <b className="min-w-32">{variant.name}</b>
        <Fig
          figure={castFigure(variantCavity(cavity), variant, SOFT_LEAD)}
          title={variant.name}
          className="fig text-[19px]"
        />
        <span className="quiet">
          hook {hook}
          {cast.parts.length > 0 && `, ${cast.parts.join(', ')}`}
        </span>
        {onRemove && (
          <button type="button" className="ml-auto underline decoration-rule-2 underline-offset-4" onClick={onRemove}>
            Take away
          </button>
        )}
      </div>
      {cast.mind.length > 0 && <p className="quiet mt-1">{cast.mind.join(' ')}</p>}
      {cast.parts.length > 0 && (
        <p className="quiet">
          {[...new Set(cast.parts)]
            .map((kind) => {
              const own = parts.filter((part) => part.kind === kind);
              const free = own.reduce((sum, part) => sum + inDrawer(part), 0);
              const owned = own.reduce((sum, part) => sum + part.owned, 0);
              return owned === 0 ? `no ${kind} on record` : `${free} of ${owned} ${kind}s in the drawer`;
            })
            .join('; ')}
        </p>
      )}
      {cast.takes.length > 0 && (
        <p className="quiet">{cast.takes.map(({ what, kg }) => `${what} takes ${units.head(kg)}`).join(', ')}</p>
      )}
    </li>
  );
}

/** When this mold is opened on this cavity alone, how hot its head then is, and when it can be taken in the hand. */
function Opening({ cavity, mold, ways }: { cavity: Cavity; mold: StoredMold; ways: HouseWays }) {
  const { data: pots = [] } = useList('pots');
  const metalC = metalAtMoldC(ways.pourC, pots[0]?.way);
  const { block } = workingBlock(mold);
  const { roomC } = ways;
  const { ownOpenS } = mold;
  const shots = { block, shotsSinceSmoked: cavity.shotsSinceSmoked, metalC, roomC, hands: ways, ownOpenS };
  const open = mold.cavities.filter((each) => each.condition === 'good');
  const { moldC } = settledMold({ ...shots, cavities: open.length > 0 ? open : [cavity] });
  const heat = { metalC, moldC, roomC, moldMetal: block.metal, ownOpenS, together: open.length || 1 };
  const { opens, leaves, handling, opening } = openingFigures(cavity, heat);
  const held = holdFigure({
    ...{ hook: typicalHook(cavity.hookSize as HookSize, cavity.wire), opening, roomC },
    ...{ solid: cavitySolid(cavity.style, cavity.nominalMassKg), headKg: cavity.nominalMassKg },
  });
  return (
    <>
      <dt className="quiet">open after</dt>
      <dd>
        <Fig figure={opens} title="Open after" />
      </dd>
      <dt className="quiet">comes out at</dt>
      <dd>
        <Fig figure={leaves} title="Leaves the mold at" />, in the hand after{' '}
        <Fig figure={handling} title="Can be handled after" />
      </dd>
      <dt className="quiet">its bend</dt>
      <dd>
        {held ? (
          <>
            cool for <Fig figure={held} title="Its bend stays cool for" /> after opening, then hot: not by feel alone
          </>
        ) : (
          'does not get too hot to hold'
        )}
      </dd>
    </>
  );
}

/** One cavity: what it was cut for, what it gave, and what can be cast in it. */
export function CavityPanel({ mold, cavity }: { mold: StoredMold; cavity: Cavity }) {
  const units = useUnits();
  const { data: parts = [] } = useList('parts');
  const { data: settings } = useSettings();
  const save = useSave('molds');
  const [open, setOpen] = useState<'cavity' | 'variant' | null>(null);
  const condition = conditionOf(cavity);
  const write = (changed: Partial<Cavity>, done?: () => void) => {
    const input = moldInputOf(mold);
    const cavities = input.cavities.map((each) => (each.position === cavity.position ? { ...each, ...changed } : each));
    save.mutate({ ...input, cavities, id: mold.id, version: mold.version }, { onSuccess: done });
  };
  const facts: [string, string][] = [
    ['stamped', units.head(cavity.nominalMassKg)],
    [
      'cut for',
      `${cavity.hookSize}, ${cavity.wire ?? 'standard'} wire, ${cavity.bend ?? 'round'} bend, eye ${cavity.eyeAngleDeg}°`,
    ],
    [
      'pin',
      cavity.pin
        ? `${units.write(cavity.pin.diameterM, 'm')}, ${units.write(cavity.pin.lengthM, 'm')} in the metal`
        : 'none',
    ],
    ['keeper', cavity.keeper ? 'cast with a barb or slot for a keeper' : 'none'],
    ['below', cavity.openBelow ? 'open: no blank shots' : 'closed'],
    ['condition', condition],
  ];
  return (
    <div className="cut mt-5 grid gap-x-9 gap-y-4 bg-sheet p-5 md:grid-cols-[300px_minmax(0,1fr)]">
      <div>
        <h3 className="flex items-baseline gap-3">
          <span className="fig text-[44px]">{cavity.position}</span>
          <Head
            style={cavity.style as StyleId}
            massKg={cavity.nominalMassKg}
            hookSize={cavity.hookSize as HookSize}
            eyeAngleDeg={cavity.eyeAngleDeg}
            state="blank"
            scale={3}
          />
        </h3>
        <dl className="mt-3 grid grid-cols-[80px_1fr] gap-x-3 gap-y-1">
          {facts.map(([name, value]) => (
            <div key={name} className="contents">
              <dt className="quiet">{name}</dt>
              <dd>{value}</dd>
            </div>
          ))}
          <dt className="quiet">soot</dt>
          <dd>
            <Fig figure={sinceSmokedFigure(cavity)} title="Shots since smoked" />{' '}
            {cavity.everSmoked ? 'shots since smoked' : 'shots, never smoked on record'}
          </dd>
          {settings && <Opening cavity={cavity} mold={mold} ways={settings.ways} />}
        </dl>
        <Button className="mt-4" onClick={() => setOpen('cavity')}>
          Change this cavity
        </Button>
      </div>
      <div>
        <h4 className="mb-1.5 font-medium">What it gave</h4>
        <RecordBar cavity={cavity} />
        <h4 className="mt-5 font-medium">What can be cast in it</h4>
        <ul>
          {variantsOf(cavity).map((variant, index) => (
            <VariantRow
              key={variant.name}
              cavity={cavity}
              variant={variant}
              parts={parts}
              onRemove={
                index === 0
                  ? undefined
                  : () => write({ variants: (cavity.variants ?? []).filter((each) => each.name !== variant.name) })
              }
            />
          ))}
        </ul>
        <div className="mt-3 flex flex-wrap gap-3">
          <Button onClick={() => setOpen('variant')}>
            <Icon name="plus" size={14} /> Another way to cast it
          </Button>
          <Button asChild look="quiet">
            <Link to="/molds/parts">Pins, plugs, keepers</Link>
          </Button>
        </div>
      </div>
      <Sheet
        open={open === 'cavity'}
        onOpenChange={(on) => !on && setOpen(null)}
        title={`Cavity ${cavity.position} of ${mold.name}`}
      >
        <CavityForm cavity={cavity} error={save.error} onChange={(changed) => write(changed, () => setOpen(null))} />
      </Sheet>
      <Sheet
        open={open === 'variant'}
        onOpenChange={(on) => !on && setOpen(null)}
        title={`Another way to cast cavity ${cavity.position}`}
        says="Something changed, added or left out: each is a thing of its own to cast."
      >
        <VariantForm
          mold={mold}
          cavity={cavity}
          error={save.error}
          onAdd={(variant) => write({ variants: [...(cavity.variants ?? []), variant] }, () => setOpen(null))}
        />
      </Sheet>
    </div>
  );
}
