import { averagePriceFigure, metalFigure, probeFigure, skinAt, stockFigure, waitingFigure } from '@schmelz/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { useLive } from '../../api/live.ts';
import { useList, useLots } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { IngotHeap } from '../../drawing/Bodies.tsx';
import { SkinSwatch } from '../../drawing/Skin.tsx';
import { useUnits } from '../../units/Units.tsx';
import { LotForm } from './LotForms.tsx';
import { LotStrip } from './LotStrip.tsx';
import { LeadRooms } from './rooms.tsx';

/** What the probe in the pot says now, with the skin that goes with it. */
export function PotNow() {
  const pot = useLive('pot');
  if (!pot) return null;
  const skin = skinAt(pot.celsius);
  return (
    <p className="flex items-center gap-2" aria-live="off">
      {skin && <SkinSwatch colour={skin.colour} />}
      <span>
        The pot is at{' '}
        <Fig figure={probeFigure(pot.name, pot.celsius)} title="Probe in the pot" className="fig text-[19px]" />
        {skin ? `: ${skin.colour}, ${skin.says}` : ', not molten'}
      </span>
    </p>
  );
}

export function LeadPage() {
  const { data: materials, error } = useList('materials');
  const { data: lots } = useLots();
  const units = useUnits();
  const [adding, setAdding] = useState(false);
  if (!materials || !lots) return <Waiting error={error} />;
  const leads = materials.filter((each) => each.kind === 'lead');
  const kg = leads.reduce((sum, each) => sum + each.quantity, 0);
  const total = units.bulkParts(kg);
  const mostKg = Math.max(1, ...lots.map((lot) => lot.grossKg));
  const waiting = lots.filter((lot) => lot.cleanKg === null);
  return (
    <Page
      stub={
        <>
          <TheNumber
            value={
              <Fig
                figure={metalFigure(leads.map(({ name, quantity, inPotKg }) => ({ name, kg: quantity, inPotKg })))}
                title="Metal"
              >
                {total.figure}
              </Fig>
            }
            unit={total.unit}
          >
            of clean metal to cast
          </TheNumber>
          <IngotHeap kg={kg} />
          {waiting.length > 0 && (
            <p>
              <Fig figure={waitingFigure(waiting)} title="Scrap that waits" /> of scrap wait to be melted down.
            </p>
          )}
          <PotNow />
          {leads.length > 0 && (
            <Sheet
              open={adding}
              onOpenChange={setAdding}
              title="Metal came in"
              says="Scrap and tyre weights wait until they are skimmed; ingots go straight on the shelf."
              trigger={
                <Button look="main" className="self-start">
                  Metal came in
                </Button>
              }
            >
              <LotForm leads={leads} onSaved={() => setAdding(false)} />
            </Sheet>
          )}
          <Caution>
            Damp metal under the melt explodes into steam: warm ingots on the rim of the pot, lower them in, never drop
            them.
          </Caution>
          <Caution>
            Melt dirty scrap outdoors. Lead dust stays on hands and clothes: wash before you eat, keep children and food
            away. Lead tackle is restricted in many places: check your local rules.
          </Caution>
        </>
      }
    >
      <LeadRooms />
      {leads.map((lead) => (
        <section key={lead.id} className="mb-7">
          <Heading
            aside={
              lead.averageMinor ? (
                <>
                  paid <Fig figure={averagePriceFigure(lead.averageMinor, lead.quantity)} title="Average price" /> on
                  average
                </>
              ) : undefined
            }
          >
            {lead.name}{' '}
            <span className="ml-2 font-normal text-ink-3 [font-stretch:100%]">
              <Fig figure={stockFigure(lead.name, lead.quantity, 'kg')} title={lead.name} />
              {lead.inPotKg > 0 && `, ${units.bulk(lead.inPotKg)} of it in a pot`}
            </span>
          </Heading>
          <ul>
            {lots
              .filter((lot) => lot.materialId === lead.id)
              .slice(0, 12)
              .map((lot) => (
                <LotStrip key={lot.id} lot={lot} mostKg={mostKg} />
              ))}
          </ul>
        </section>
      ))}
      {leads.length === 0 && (
        <p>
          No lead on record.{' '}
          <Link className="underline underline-offset-4" to="/stock">
            Add it to Stock
          </Link>
          .
        </p>
      )}
      {lots.length > 0 && (
        <p className="quiet">
          First in, first out: lots are not kept apart in a pot, so what is left of each is bookkeeping, not assay.
        </p>
      )}
    </Page>
  );
}
