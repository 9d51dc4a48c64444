import { forWhom } from '@schmelz/core';
import type { TicketTrace } from '@schmelz/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { call } from '../../api/client.ts';
import { Button } from '../../design/Button.tsx';
import { TextField } from '../../design/Field.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { AsSold } from '../../shell/AsSold.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { runPath } from '../../shell/line-state.ts';
import { writeDay } from '../../units/dates.ts';
import { Holders } from './Holders.tsx';
import { Findings } from '../../shell/Findings.tsx';
import { lotSays } from '../../shell/lot-says.ts';
import { useUnits } from '../../units/Units.tsx';

const RUN_SAYS: Record<string, string> = { oven: 'Oven load', dip: 'Dips in one paint', glue: 'Mix of glue' };

/** One ticket, back to the lots it was made of and the runs it went through. */
function Back({ trace }: { trace: TicketTrace }) {
  const units = useUnits();
  return (
    <>
      <AsSold product={trace.product} scale={3.2} className="mb-4 max-h-[170px] max-w-full" />
      <Heading>Where its heads are</Heading>
      <div className="mb-6">
        <Holders ticket={trace} />
      </div>
      <Heading>What is in it, lot by lot</Heading>
      <ul className="mb-6">
        {trace.lots.map((lot) => (
          <li
            key={lot.lotId}
            className="grid grid-cols-[minmax(0,1fr)_auto_auto] items-center gap-4 border-b border-rule py-2"
          >
            <span>
              <b className="font-medium">{lot.name}</b> <span className="quiet">{lotSays(lot)}</span>
            </span>
            <b className="fig text-[19px]">{units.part(lot.kind, lot.quantity)}</b>
            <Link
              to={`/trace/lot/${lot.lotId}`}
              className="underline decoration-rule-2 underline-offset-4 print:hidden"
            >
              who else has it
            </Link>
          </li>
        ))}
        {trace.lots.length === 0 && (
          <li className="quiet">Nothing is booked for it yet: lots are named when a pour is closed.</li>
        )}
      </ul>
      <Heading>What it went through</Heading>
      <ul>
        {trace.pours.map((pour) => (
          <li key={pour.id} className="flex justify-between border-b border-rule py-2">
            <Link to={`/pour/${pour.id}`} className="hover:underline">
              Pour {pour.number}
            </Link>
            <span className="quiet">{writeDay(pour.at)}</span>
          </li>
        ))}
        {trace.runs.map((run) => (
          <li key={run.id} className="flex justify-between border-b border-rule py-2">
            <Link to={runPath(run.kind, run.id)} className="hover:underline">
              {RUN_SAYS[run.kind] ?? run.kind} {run.number}
            </Link>
            <span className="quiet">{writeDay(run.at)}</span>
          </li>
        ))}
      </ul>
    </>
  );
}

/** The way in by hand: the number that stands on a bag. */
function Ask() {
  const navigate = useNavigate();
  const [number, setNumber] = useState('');
  return (
    <form
      className="flex items-end gap-2 print:hidden"
      onSubmit={(event) => {
        event.preventDefault();
        if (/^\d+$/.test(number.trim())) void navigate(`/trace/${number.trim()}`);
      }}
    >
      <TextField
        label="Number on the bag"
        inputMode="numeric"
        value={number}
        onChange={(event) => setNumber(event.target.value)}
      />
      <Button type="submit">Trace it</Button>
    </form>
  );
}

/** From a bag back: what it is made of, lot by lot. */
export function TracePage() {
  const { number = '' } = useParams();
  const catalogue = useCatalogue();
  const { data: trace, error } = useQuery({
    queryKey: ['trace', number],
    queryFn: () => call('GET /trace/tickets/:number', { params: { number: Number(number) } }),
    enabled: /^\d+$/.test(number),
    retry: false,
  });
  if (!catalogue) return <Waiting />;
  if (!number || error) {
    return (
      <Page
        stub={
          <>
            <h1 className="voice text-2xl">Which bag?</h1>
            <Ask />
          </>
        }
      >
        {error ? (
          <ProblemNote error={error} />
        ) : (
          <>
            <p className="quiet mb-7">The number is on every label, beside the code.</p>
            <Findings catalogue={catalogue} />
          </>
        )}
      </Page>
    );
  }
  if (!trace) return <Waiting />;
  return (
    <Page
      stub={
        <>
          <TheNumber eyebrow={trace.product.name} value={trace.number}>
            is this ticket: order {trace.orderNumber}, {forWhom(trace.customer)}
          </TheNumber>
          <p className="quiet">
            {trace.closedAt === null ? 'Still on the line' : `Closed ${writeDay(trace.closedAt)}`}, {trace.good ?? 0}{' '}
            good of {trace.quantity}.
          </p>
          <Button asChild className="self-start print:hidden">
            <Link to={`/tickets/${trace.id}`}>Its log and cost</Link>
          </Button>
          <Ask />
        </>
      }
    >
      <Back trace={trace} />
    </Page>
  );
}
