import type { Ticket } from '@schmelz/contract';
import { writeSpan, type StepState, type TicketState } from '@schmelz/core';
import { useState, type FormEvent } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/client.ts';
import { newId } from '../../api/id.ts';
import { useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { TextField } from '../../design/Field.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { numberIn } from '../../design/useForm.ts';
import { benchPath, castsOfTicket } from '../../shell/line-state.ts';
import { moment } from '../../units/dates.ts';

const thrownBack = (rejects: Record<string, number>) =>
  Object.entries(rejects)
    .map(([cause, count]) => `${count} ${cause}`)
    .join(', ');

/** Says what the hands took at a step, s. */
function useMinutes(ticket: Ticket) {
  return useWrite(({ step, seconds }: { step: string; seconds: number }) =>
    call('POST /tickets/:id/entries', {
      params: { id: ticket.id },
      body: { kind: 'minutes', step, seconds, id: newId(), at: moment() },
    }),
  );
}

/** Minutes of a step, typed. */
function MinutesForm({ step, done, ticket }: { step: StepState; done: () => void; ticket: Ticket }) {
  const say = useMinutes(ticket);
  const [minutes, setMinutes] = useState(String(Math.round((step.workS + step.notTimedS) / 60)));
  const [wrong, setWrong] = useState<unknown>(null);
  const keep = (event: FormEvent) => {
    event.preventDefault();
    try {
      const seconds = 60 * numberIn(`minutes at ${step.does.toLowerCase()}`, minutes, 'min');
      say.mutate({ step: step.key, seconds }, { onSuccess: done });
    } catch (error) {
      setWrong(error);
    }
  };
  return (
    <form onSubmit={keep} noValidate className="flex flex-wrap items-end gap-3 py-2">
      <TextField
        label={`Hands at ${step.does.toLowerCase()}`}
        unit="min"
        value={minutes}
        onChange={(event) => setMinutes(event.target.value)}
      />
      <Button look="main" type="submit" disabled={say.isPending}>
        Keep
      </Button>
      <Button look="quiet" type="button" onClick={done}>
        Never mind
      </Button>
      <ProblemNote error={wrong ?? say.error} />
    </form>
  );
}

/** Heads of which no clock can say how long they took: asked once, in one line; until then they go by the ways. */
function NotTimed({ step, ticket, part }: { step: StepState; ticket: Ticket; part: () => void }) {
  const say = useMinutes(ticket);
  const known = step.notTimedS > 0;
  const keep = (seconds: number) => say.mutate({ step: step.key, seconds });
  const heads = `${step.notTimed} ${step.notTimed === 1 ? 'head' : 'heads'}`;
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-rule py-2">
      <span className="flex min-w-[26ch] flex-1 items-start gap-2">
        <Icon name="watch" className="mt-0.5 shrink-0 text-watch" />
        <span>
          {step.does}:{' '}
          {known
            ? `${heads} took ${writeSpan(step.notTimedS)}: all of it work?`
            : `${heads} were not timed. How long did they take?`}
        </span>
      </span>
      <span className="flex flex-wrap gap-2">
        {known && (
          <Button look="quiet" disabled={say.isPending} onClick={() => keep(step.workS + step.notTimedS)}>
            All of it
          </Button>
        )}
        <Button look="quiet" onClick={part}>
          {known ? 'A part' : 'So many minutes'}
        </Button>
        <Button look="quiet" disabled={say.isPending} onClick={() => keep(step.workS)}>
          Leave it out
        </Button>
      </span>
      <ProblemNote error={say.error} />
    </li>
  );
}

/** What came to each step of a ticket, what of it was good, and what the hands took: put right where it is off. */
export function AlongTheLine({ ticket, state }: { ticket: Ticket; state: TicketState }) {
  const [typing, setTyping] = useState<string | null>(null);
  const { poured } = ticket;
  const untimed = state.steps.filter((step) => step.notTimed > 0);
  const typed = state.steps.find(({ key }) => key === typing);
  return (
    <section className="mb-6">
      <Heading>Along the line</Heading>
      <div className="overflow-x-auto">
        <table className="sheet-table min-w-[460px]">
          <thead>
            <tr>
              <th>Step</th>
              <th className="num">Came</th>
              <th className="num">Good</th>
              <th>Thrown back</th>
              <th className="num">Hands-on</th>
            </tr>
          </thead>
          <tbody>
            {ticket.source === 'pour' ? (
              <tr>
                <td className="stamp">Pour</td>
                <td className="num">{castsOfTicket(ticket)}</td>
                <td className="num font-semibold">{poured}</td>
                <td className="text-stop">
                  {thrownBack({
                    ...ticket.pourCauses,
                    ...(ticket.pourKept > 0 ? { 'second grade': ticket.pourKept } : {}),
                  })}
                </td>
                <td className="num" />
              </tr>
            ) : (
              <tr>
                <td className="stamp">Off the shelf</td>
                <td className="num">{state.taken}</td>
                <td className="num font-semibold">{state.taken}</td>
                <td />
                <td className="num" />
              </tr>
            )}
            {state.steps.map((step) => (
              <tr key={step.key}>
                <td className="stamp">
                  <Link to={benchPath(step.station, ticket.id, step.key)} className="hover:underline">
                    {step.does}
                  </Link>
                </td>
                <td className="num">{step.arrived}</td>
                <td className="num font-semibold">{step.good}</td>
                <td className="text-stop">{thrownBack(step.rejects)}</td>
                <td className="num">
                  <button
                    type="button"
                    title="Put these minutes right"
                    className="min-h-6 underline decoration-rule-2 decoration-dotted underline-offset-4"
                    onClick={() => setTyping(step.key)}
                  >
                    {step.notTimed > 0 ? (
                      <span className="text-watch">{step.notTimed} not timed</span>
                    ) : (
                      writeSpan(step.workS)
                    )}
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {typed && <MinutesForm key={typed.key} step={typed} ticket={ticket} done={() => setTyping(null)} />}
      {untimed.length > 0 && (
        <ul aria-label="Not timed" className="mt-2">
          {untimed.map((step) => (
            <NotTimed key={step.key} step={step} ticket={ticket} part={() => setTyping(step.key)} />
          ))}
        </ul>
      )}
    </section>
  );
}
