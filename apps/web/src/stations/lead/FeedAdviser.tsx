import type { Pot } from '@schmelz/contract';
import { DRY_KG, refillFigures, type Alloy, type KnownPot } from '@schmelz/core';
import { useState } from 'react';
import { Trying } from '../../design/Dials.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Icon } from '../../design/Icon.tsx';
import { Caution } from '../../design/Notice.tsx';
import { PotBody } from '../../drawing/Bodies.tsx';
import { useUnits } from '../../units/Units.tsx';

/** Largest safe addition now, and the wait after it; says when the pot runs low. */
export function FeedAdviser({
  pot,
  heat,
  alloy,
  pourC,
  roomC,
  heelKg,
  live,
}: {
  pot: Pot;
  heat: KnownPot;
  alloy: Alloy;
  pourC: number;
  roomC: number;
  heelKg: number;
  /** What the probe says, or null. */
  live: number | null;
}) {
  const units = useUnits();
  const [kg, setKg] = useState(0.55 * pot.capacityKg);
  const [tried, setTried] = useState<number | null>(null);
  const [keepK, setKeepK] = useState(15);
  const potC = tried ?? live ?? pourC;
  const keepAboveC = Math.min(alloy.liquidusC + keepK, 590);
  const { refill, add, recover, after } = refillFigures(
    { potKg: kg, potC, capacityKg: pot.capacityKg, pot: heat, keepAboveC, pourC, roomC, alloy },
    tried === null && live !== null ? 'measured' : 'given',
  );
  const low = kg < Math.max(heelKg, 4 * DRY_KG);
  return (
    <div className="grid gap-x-9 gap-y-4 md:grid-cols-[260px_minmax(0,1fr)]">
      <div>
        <Trying
          label="In the pot"
          value={kg}
          min={DRY_KG}
          max={pot.capacityKg}
          step={0.05}
          written={units.bulk(kg)}
          onChange={setKg}
        />
        <Trying
          label="It is at"
          value={potC}
          min={Math.ceil(alloy.liquidusC)}
          max={450}
          step={1}
          written={units.temperature(potC)}
          onChange={setTried}
        />
        <Trying
          label="Not nearer to freezing than"
          value={keepK}
          min={5}
          max={40}
          step={1}
          written={units.write(keepK, 'K')}
          onChange={setKeepK}
        />
      </div>
      <div className="flex flex-wrap items-start gap-6">
        <PotBody share={kg / pot.capacityKg} hot={potC > 350} />
        <div className="min-w-[240px] flex-1">
          {refill.addKg > 0 ? (
            <p className="voice text-xl">
              Add up to <Fig figure={add} title="Largest addition" className="fig" />, then wait{' '}
              <Fig figure={recover} title="Wait" className="fig" />.
            </p>
          ) : (
            <p className="voice text-xl">
              {refill.limit === 'room in the pot' ? (
                'Add nothing: it is full.'
              ) : (
                <>
                  Add nothing yet: it pours again in <Fig figure={recover} title="Wait" className="fig" />.
                </>
              )}
            </p>
          )}
          <p className="quiet mt-2">
            It falls to <Fig figure={after} title="Falls to" />. Held back by: {refill.limit}.
          </p>
          {low && (
            <p className="mt-2 flex items-center gap-2 font-semibold text-stop">
              <Icon name="stop" /> Nearly dry: under the heel of {units.bulk(heelKg)}. Stop pouring, feed it in small
              lots.
            </p>
          )}
          <div className="mt-3">
            <Caution>Dry and warm, lowered in with tongs, never dropped: a splash burns eyes and arms.</Caution>
          </div>
        </div>
      </div>
    </div>
  );
}
