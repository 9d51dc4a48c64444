import type { Pour, Ticket } from '@schmelz/contract';
import { castingProblem, type PlanMold } from '@schmelz/core';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { request } from '../../api/client.ts';
import { useList, useLine, usePours, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Caution, ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Head } from '../../drawing/Head.tsx';
import { Mold } from '../../drawing/Mold.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import { drawnCavities } from '../molds/drawn.ts';
import { writeDay } from '../../units/dates.ts';

/** Molds that can cast a ticket, with the number of cavities that do, best first. */
function moldsFor(ticket: Ticket, catalogue: Catalogue) {
  const product = catalogue.product(ticket.productId);
  const hook = product && catalogue.materials.get(product.hookId)?.hook;
  if (!product || !hook) return [];
  const wanted = {
    ...product,
    hook: { ...hook, materialId: product.hookId, name: '', massKg: 0 },
    layers: [],
    bake: null,
  };
  return catalogue.molds
    .filter((mold) => castingProblem(wanted, [mold as PlanMold]) === null)
    .map((mold) => ({
      mold,
      fits: mold.cavities.filter((each) => each.nominalMassKg === product.nominalMassKg).length,
    }))
    .sort((a, b) => b.fits - a.fits)
    .map(({ mold }) => mold);
}

/** Tickets that wait for the same mold are poured together. */
function groupsOf(tickets: Ticket[], catalogue: Catalogue) {
  const groups = new Map<string, Ticket[]>();
  const homeless: Ticket[] = [];
  for (const ticket of tickets) {
    const [best] = moldsFor(ticket, catalogue);
    if (best) groups.set(best.id, [...(groups.get(best.id) ?? []), ticket]);
    else homeless.push(ticket);
  }
  return { groups: [...groups], homeless };
}

function Group({ moldId, tickets, catalogue }: { moldId: string; tickets: Ticket[]; catalogue: Catalogue }) {
  const navigate = useNavigate();
  const units = useUnits();
  const { data: pots } = useList('pots');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const start = useWrite((input: { moldId: string; potId: string; batchIds: string[] }) => request<Pour>('POST', '/pours', input)); // prettier-ignore
  const mold = catalogue.molds.find((each) => each.id === moldId)!;
  const taken = tickets.filter((ticket) => !left.has(ticket.id));
  const masses = new Set(taken.map((ticket) => catalogue.product(ticket.productId)?.nominalMassKg));
  const begin = () =>
    start.mutate(
      { moldId, potId: pots![0]!.id, batchIds: taken.map((ticket) => ticket.id) },
      { onSuccess: (pour) => void navigate(`/pour/${pour.id}`) },
    );
  return (
    <section className="mb-8">
      <Heading>{mold.name}</Heading>
      <div className="grid items-start gap-6 xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <Mold
          className="w-full max-w-[470px]"
          cavities={drawnCavities(mold, units.massUnit, (position) =>
            masses.has(mold.cavities[position - 1]!.nominalMassKg) ? 'loaded' : 'empty',
          )}
          sootWear={1 - Math.exp(-mold.shotsSinceSmoked / 40)}
          label={`${mold.name}, the cavities that are used tonight are loaded`}
        />
        <div>
          <ul>
            {tickets.map((ticket) => {
              const product = catalogue.product(ticket.productId)!;
              return (
                <li key={ticket.id} className="border-b border-rule">
                  <label className="grid cursor-pointer grid-cols-[24px_44px_64px_minmax(0,1fr)_auto] items-center gap-2 py-2">
                    <input
                      type="checkbox"
                      className="size-5 accent-[var(--good)]"
                      checked={!left.has(ticket.id)}
                      onChange={() =>
                        setLeft((before) => {
                          const next = new Set(before);
                          if (!next.delete(ticket.id)) next.add(ticket.id);
                          return next;
                        })
                      }
                    />
                    <span className="fig text-[21px]">{ticket.number}</span>
                    <Head {...catalogue.spec(product)} state="blank" scale={1.3} />
                    <span className="truncate">{product.name}</span>
                    <span className="fig text-[21px]">{ticket.quantity - ticket.poured}</span>
                  </label>
                </li>
              );
            })}
          </ul>
          <div className="mt-4 flex flex-col gap-3">
            <Caution>Tools, mold and ingots dry; eyes and face covered; long sleeves; nobody else near.</Caution>
            <ProblemNote error={start.error} />
            <Button
              look="main"
              className="self-start"
              disabled={taken.length === 0 || !pots?.length || start.isPending}
              onClick={begin}
            >
              To the pot
            </Button>
          </div>
        </div>
      </div>
    </section>
  );
}

export function PourDesk() {
  const { data: line, error } = useLine();
  const { data: pours } = usePours();
  const catalogue = useCatalogue();
  if (!line || !catalogue) return <Waiting error={error} />;
  const open = line.pours;
  const busy = new Set(open.flatMap((pour) => Object.keys(pour.setup.needs)));
  const waiting = line.tickets.filter((ticket) => ticket.poured < ticket.quantity && !busy.has(ticket.id) && ticket.log.length === 0); // prettier-ignore
  const { groups, homeless } = groupsOf(waiting, catalogue);
  return (
    <Page
      stub={
        <>
          <TheNumber value={waiting.reduce((sum, ticket) => sum + ticket.quantity - ticket.poured, 0)}>
            heads to pour
          </TheNumber>
          {open.map((pour) => (
            <Button key={pour.id} look="main" asChild className="self-start">
              <Link to={`/pour/${pour.id}`}>Back to pour {pour.number}</Link>
            </Button>
          ))}
          <p className="quiet">
            Tickets that want the same mold are poured together; each cavity knows whose head it casts.
          </p>
        </>
      }
    >
      {groups.map(([moldId, tickets]) => (
        <Group key={moldId} moldId={moldId} tickets={tickets} catalogue={catalogue} />
      ))}
      {homeless.map((ticket) => (
        <p key={ticket.id} className="text-stop">
          Ticket {ticket.number}: no mold casts this head with its hook.
        </p>
      ))}
      {waiting.length === 0 && <p className="quiet mb-6">No ticket waits for the pot.</p>}
      <Heading>Pours</Heading>
      <ul>
        {pours?.slice(0, 14).map((pour) => (
          <li key={pour.id} className="flex justify-between border-b border-rule py-1.5">
            <Link to={`/pour/${pour.id}`} className="hover:underline">
              <b className="fig mr-3 inline-block w-8 text-[19px]">{pour.number}</b>
              {catalogue.molds.find((mold) => mold.id === pour.moldId)?.name}
            </Link>
            <span className="quiet">
              {writeDay(pour.startedAt)}
              {!pour.closed && <b className="ml-2 text-watch">open</b>}
            </span>
          </li>
        ))}
      </ul>
    </Page>
  );
}
