import type { LeadLot } from '@schmelz/contract';
import { useState } from 'react';
import { cleanShareFigure, ingotsFromScrap, leftFigure, lotPriceFigure, USUALLY_CLEAN } from '@schmelz/core';
import { call } from '../../api/client.ts';
import { useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Fig } from '../../design/Figure.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { writeDay } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { CleanForm } from './LotForms.tsx';

/** A purchase that was booked without a lot of its own goes by its movement. */
const strikeLot = (id: string) =>
  id.startsWith('move-')
    ? call('POST /moves/:id/strike', { params: { id: Number(id.slice('move-'.length)) } })
    : call('POST /lead-lots/:id/strike', { params: { id } });

/** One lot as a bar to scale: what is left in lead, what was used as an outline, what was skimmed off hatched. */
export function LotStrip({ lot, mostKg }: { lot: LeadLot; mostKg: number }) {
  const units = useUnits();
  const [cleaning, setCleaning] = useState(false);
  const clean = lot.cleanKg ?? 0;
  const width = (kg: number) => `${(100 * kg) / mostKg}%`;
  const waits = lot.cleanKg === null;
  const went = lot.went.filter(({ kg }) => kg > 0).sort((a, b) => b.kg - a.kg);
  const untouched = lot.went.length === 0;
  const strike = useWrite(strikeLot);
  const back = -lot.went.reduce((sum, { kg }) => sum + Math.min(0, kg), 0);
  return (
    <li className="grid gap-x-5 gap-y-1 border-b border-rule py-2.5 md:grid-cols-[230px_minmax(0,1fr)_220px] md:items-center">
      <div className="min-w-0">
        <p className="truncate font-medium">{lot.label}</p>
        <p className="quiet">
          {lot.source}, {writeDay(lot.on)}
          {lot.brinell !== null && ` · ${lot.brinell} BHN`}
          {lot.note && ` · ${lot.note}`}
        </p>
      </div>
      <div
        className="flex h-5"
        role="img"
        aria-label={
          waits
            ? `${units.bulk(lot.grossKg)}, not melted down`
            : `${units.bulk(lot.leftKg)} left of ${units.bulk(clean)} clean`
        }
      >
        {waits ? (
          <span className="hatch border border-dashed border-rule-2" style={{ width: width(lot.grossKg) }} />
        ) : (
          <>
            <span
              className="border border-contour bg-lead"
              style={{ width: width(lot.leftKg) }}
              hidden={lot.leftKg < 0.01}
            />
            <span
              className="border border-rule-2 bg-sheet"
              style={{ width: width(clean - lot.leftKg) }}
              hidden={clean - lot.leftKg < 0.01}
            />
            <span
              className="hatch border border-l-0 border-rule"
              style={{ width: width(lot.grossKg - clean) }}
              hidden={lot.grossKg - clean < 0.01}
            />
          </>
        )}
      </div>
      <div className="flex items-baseline justify-between gap-3 md:justify-end">
        {waits && (
          <p className="quiet">
            about{' '}
            <Fig
              figure={ingotsFromScrap({ grossKg: lot.grossKg, cleanShare: USUALLY_CLEAN })}
              title="Half-pound ingots"
            />{' '}
            half-pound ingots
          </p>
        )}
        {waits ? (
          <Button onClick={() => setCleaning(true)}>Melted down, skimmed</Button>
        ) : (
          <p className="text-right">
            {lot.leftKg < 0.005 ? (
              <span className="text-ink-3">used up</span>
            ) : (
              <>
                <Fig
                  figure={leftFigure(lot.leftKg, clean, clean - lot.leftKg)}
                  title={lot.label}
                  className="fig text-[19px]"
                />{' '}
                <span className="quiet">left</span>
              </>
            )}
            <span className="quiet block">
              {clean < lot.grossKg - 1e-9 && (
                <>
                  <Fig figure={cleanShareFigure(lot.grossKg, clean)} title="Clean" /> clean ·{' '}
                </>
              )}
              {lot.priceMinor === 0 ? (
                'came free'
              ) : (
                <Fig figure={lotPriceFigure(lot.priceMinor, lot.grossKg, clean)} title="Price of the clean metal" />
              )}
              {lot.ingots > 0 && ` · ${lot.ingots} ingots`}
            </span>
          </p>
        )}
      </div>
      {lot.went.length > 0 && (
        <p className="quiet md:col-start-2 md:col-end-4">
          went to: {went.map(({ reason, kg }) => `${reason} ${units.bulk(kg)}`).join(', ')}
          {back > 0.005 && `; ${units.bulk(back)} came back`}
        </p>
      )}
      {untouched && (
        <p className="md:col-start-2 md:col-end-4">
          <button
            type="button"
            className="quiet underline decoration-rule-2 hover:text-stop"
            onClick={() => strike.mutate(lot.id)}
          >
            Strike this lot out
          </button>
          <ProblemNote error={strike.error} />
        </p>
      )}
      <Sheet open={cleaning} onOpenChange={setCleaning} title={`${lot.label}, melted down`}>
        <CleanForm lot={lot} onSaved={() => setCleaning(false)} />
      </Sheet>
    </li>
  );
}
