import { Link } from 'react-router';
import { useList, useFlows } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Caution, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { IngotHeap } from '../../drawing/Bodies.tsx';
import { MaterialSheet } from '../stock/MaterialSheet.tsx';
import { useUnits } from '../../units/Units.tsx';
import type { Material } from '@schmelz/contract';

/** Where the lead went, by reason, as one bar. */
function WhereItWent({ material }: { material: Material }) {
  const units = useUnits();
  const { data: flows = [] } = useFlows(material.id);
  const sums = flows.map(({ reason, quantity }) => [reason, quantity] as const);
  const largest = Math.max(...sums.map(([, kg]) => Math.abs(kg)), 1e-9);
  return (
    <ul>
      {sums.map(([reason, kg]) => (
        <li
          key={reason}
          className="grid grid-cols-[110px_minmax(0,1fr)_auto] items-center gap-3 border-b border-rule py-1.5"
        >
          <span>{reason}</span>
          <span className="h-2.5">
            <span
              className={`block h-full ${kg < 0 ? 'hatch border border-rule-2' : 'bg-lead'}`}
              style={{ width: `${(Math.abs(kg) / largest) * 100}%` }}
            />
          </span>
          <b className="font-semibold">
            {kg > 0 ? '+' : '−'}
            {units.bulk(Math.abs(kg))}
          </b>
        </li>
      ))}
    </ul>
  );
}

export function LeadPage() {
  const { data: materials, error } = useList('materials');
  const units = useUnits();
  if (!materials) return <Waiting error={error} />;
  const leads = materials.filter((each) => each.kind === 'lead');
  const kg = leads.reduce((sum, each) => sum + each.quantity, 0);
  const total = units.bulkParts(kg);
  return (
    <Page
      stub={
        <>
          <TheNumber value={total.figure} unit={total.unit}>
            of clean metal to cast
          </TheNumber>
          <IngotHeap kg={kg} />
          <Caution>
            Damp metal under the melt explodes into steam: warm ingots on the rim of the pot, lower them in, never drop
            them.
          </Caution>
          <Caution>
            Melt dirty scrap outdoors. Lead dust stays on hands and clothes: wash before you eat, keep children away,
            and follow your local rules.
          </Caution>
        </>
      }
    >
      {leads.map((lead) => (
        <section key={lead.id} className="mb-7">
          <Heading
            aside={lead.averageMinor !== null ? `paid ${units.money(lead.averageMinor)}/kg on average` : undefined}
          >
            {lead.name}
          </Heading>
          <p className="mb-2 flex flex-wrap items-center gap-5">
            <span className="fig text-[34px]">{units.bulk(lead.quantity)}</span>
            {lead.inPotKg > 0 && (
              <span className="quiet">{units.bulk(lead.inPotKg)} of it in the pot of a pour that is open</span>
            )}
            <Sheet title={lead.name} says={lead.note} trigger={<Button>Bought, weighed</Button>}>
              <MaterialSheet material={lead} />
            </Sheet>
          </p>
          <WhereItWent material={lead} />
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
    </Page>
  );
}
