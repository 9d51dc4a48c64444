import type { LineView, PourAhead, StartPourInput, Ticket } from '@schmelz/contract';
import {
  castsSay,
  headsWithPin,
  moldsCasting,
  partKind,
  pinInWorkM,
  pinLimits,
  pinsFree,
  pinsOf,
  pinsSay,
  sootLeft,
  ticketState,
  LEAD_FREE_CAUTION,
  metalKind,
  usualLead,
  writeSpan,
  type PlanMold,
} from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { call } from '../../api/client.ts';
import { useList, useLine, usePours, useSettings, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Ways } from '../../design/Dials.tsx';
import { Choice } from '../../design/Field.tsx';
import { Caution, ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Part } from '../../design/Part.tsx';
import { Icon } from '../../design/Icon.tsx';
import { Head } from '../../drawing/Head.tsx';
import { Mold } from '../../drawing/Mold.tsx';
import { specOf } from '../../drawing/product.ts';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import { setupOf, wholeLog } from '../../shell/line-state.ts';
import { drawnCavities } from '../../drawing/cavities.ts';
import { writeDay } from '../../units/dates.ts';

/** Molds that can cast a ticket, with the number of cavities that do, best first. */
function moldsFor(ticket: Ticket, catalogue: Catalogue) {
  const molds = catalogue.molds.filter((mold) => !mold.archived) as PlanMold[];
  return moldsCasting(ticket.product, molds).map(({ mold }) => mold);
}

/** Molds that can cast all of some tickets. */
function moldsOfAll(tickets: readonly Ticket[], catalogue: Catalogue) {
  const [first, ...others] = tickets.map((ticket) => moldsFor(ticket, catalogue));
  return (first ?? []).filter((mold) => others.every((each) => each.some(({ id }) => id === mold.id)));
}

/** Where a ticket is cast as it was planned, as far as those molds still do; else on the mold with most cavities. */
function plannedMolds(ticket: Ticket, catalogue: Catalogue): string[] {
  const able = moldsFor(ticket, catalogue).map(({ id }) => id);
  const planned = (ticket.planned.molds ?? []).map(({ moldId }) => moldId);
  return planned.length > 0 && planned.every((id) => able.includes(id)) ? planned : able.slice(0, 1);
}

/** Tickets that wait for the same mold are poured together. */
function groupsOf(tickets: Ticket[], catalogue: Catalogue) {
  const groups = new Map<string, Ticket[]>();
  const noMold: Ticket[] = [];
  for (const ticket of tickets) {
    const [best] = plannedMolds(ticket, catalogue);
    if (best) groups.set(best, [...(groups.get(best) ?? []), ticket]);
    else noMold.push(ticket);
  }
  return { groups: [...groups], noMold };
}

/** One mold of the session to be: drawn with what it would cast, its tickets ticked. */
function Group({
  moldId,
  tickets,
  catalogue,
  left,
  onToggle,
  used,
  onUse,
}: {
  moldId: string;
  tickets: Ticket[];
  catalogue: Catalogue;
  left: ReadonlySet<string>;
  onToggle: (ids: string[]) => void;
  /** The molds that they are cast on: one, or several that share them. */
  used: readonly string[];
  onUse: (moldIds: string[]) => void;
}) {
  const units = useUnits();
  const mold = catalogue.molds.find((each) => each.id === moldId)!;
  const taken = tickets.filter((ticket) => !left.has(ticket.id));
  // Molds that cast every head that is ticked here.
  const able = moldsOfAll(taken.length ? taken : tickets, catalogue);
  const masses = new Set(taken.map(({ product }) => product.nominalMassKg));
  return (
    <section className="mb-7">
      <Heading
        aside={
          tickets.length > 1 && (
            <button
              type="button"
              className="underline decoration-rule-2 underline-offset-4"
              onClick={() => onToggle((taken.length ? taken : tickets).map((ticket) => ticket.id))}
            >
              {taken.length ? 'none of these' : 'all of these'}
            </button>
          )
        }
      >
        {mold.name}
      </Heading>
      <div className="grid items-start gap-6 xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <Mold
          className={`w-full max-w-[430px] ${taken.length ? '' : 'opacity-45'}`}
          cavities={drawnCavities(mold, units.massUnit, (position) =>
            masses.has(mold.cavities[position - 1]!.nominalMassKg) ? 'loaded' : 'empty',
          )}
          sootWear={1 - sootLeft(mold.shotsSinceSmoked)}
          label={`${mold.name}, the cavities that are used tonight are loaded`}
        />
        <div>
          {able.length > 1 && (
            <p className="mb-2 flex flex-wrap items-center gap-2">
              <span className="quiet">Cast on</span>
              {able.map(({ id, name }) => {
                const on = used.includes(id);
                return (
                  <button
                    key={id}
                    type="button"
                    aria-pressed={on}
                    disabled={on && used.length === 1}
                    onClick={() => onUse(on ? used.filter((each) => each !== id) : [...used, id])}
                    className={`border px-3 py-1.5 font-medium ${on ? 'border-ink bg-ink text-on-ink' : 'border-rule-2 hover:bg-well'}`}
                  >
                    {name}
                  </button>
                );
              })}
            </p>
          )}
          <ul>
            {tickets.map((ticket) => {
              const { product } = ticket;
              return (
                <li key={ticket.id} className="border-b border-rule">
                  <label className="grid cursor-pointer grid-cols-[24px_44px_64px_minmax(0,1fr)_auto] items-center gap-2 py-2">
                    <input
                      type="checkbox"
                      className="size-5 accent-[var(--good)]"
                      checked={!left.has(ticket.id)}
                      onChange={() => onToggle([ticket.id])}
                    />
                    <span className="fig text-[21px]">{ticket.number}</span>
                    <Head {...specOf(product)} state="blank" scale={1.3} />
                    <span className="truncate">{product.name}</span>
                    <span className="text-right">
                      <b className="fig block text-[21px] font-semibold">{ticket.toCast}</b>
                      {ticket.toCast > ticket.missing && (
                        <span className="quiet block text-sm whitespace-nowrap">
                          {ticket.missing} {ticket.poured ? 'missing' : 'wanted'}
                        </span>
                      )}
                    </span>
                  </label>
                </li>
              );
            })}
          </ul>
        </div>
      </div>
    </section>
  );
}

/** Base-hole pins that do not reach for all that is ticked. */
function PinsHere({ chosen, line, catalogue }: { chosen: Ticket[]; line: LineView; catalogue: Catalogue }) {
  const units = useUnits();
  const { data: settings } = useSettings();
  const { data: tools } = useList('parts');
  if (!settings || !tools) return null;
  const molds = catalogue.molds as PlanMold[];
  const { ways } = settings;
  const inWork = line.tickets.flatMap((ticket) => {
    const { product } = ticket;
    const diameterM = pinInWorkM(product, molds, ways.schools);
    const state = ticketState(setupOf(ticket), wholeLog(ticket));
    return diameterM === null ? [] : [{ diameterM, count: headsWithPin(state, product, ways.schools) }];
  });
  const lines = chosen.map(({ product, toCast }) => ({ product, quantity: toCast }));
  return pinLimits(lines, { molds, ways, pins: pinsOf(tools), pinsInWork: inWork })
    .filter((limit) => limit.wanted > pinsFree(limit))
    .map((limit) => (
      <p key={limit.diameterM} className="flex gap-2 text-watch">
        <Icon name="watch" className="mt-0.5 shrink-0" /> {pinsSay(limit, units.massUnit)}
      </p>
    ));
}

type AtOnce = 'in turn' | 'one by one';
const AT_ONCE = [
  { value: 'in turn', label: 'Two in turn', hint: 'while one sets, the other is loaded: nobody waits' },
  { value: 'one by one', label: 'One by one', hint: 'slower, calmer; the next mold comes cold' },
] as const satisfies readonly { value: AtOnce; label: string; hint: string }[];

/** Tickets of one mold, and the molds that they are cast on. */
interface Chosen {
  moldIds: string[];
  tickets: Ticket[];
  /** Molds that the maker has chosen share their heads by their cavities; planned ones as it was planned. */
  byHand: boolean;
}

/** What a session would take, as it will go by it: while what is ticked changes, what was said before stands. */
const useAhead = (input: StartPourInput | null) =>
  useQuery({
    queryKey: ['ahead', input],
    queryFn: () => call('POST /pours/prepare', { body: input! }),
    enabled: input !== null,
    placeholderData: (before) => before,
  });

/** How many, how long, and what is short for it. */
function Ahead({ ahead }: { ahead: PourAhead }) {
  const shots = ahead.molds.reduce((sum, mold) => sum + mold.shots, 0);
  const short = ahead.needs.filter(({ missing }) => missing > 0);
  return (
    <div className="border-y border-rule-2 py-2.5">
      <p>
        <b className="font-semibold">{castsSay(ahead.casts)}</b>, {shots} {shots === 1 ? 'shot' : 'shots'};{' '}
        {writeSpan(ahead.plannedS)} from cold
      </p>
      {ahead.leftOut.map(({ id, number, name, why }) => (
        <p key={id} className="flex gap-2 text-watch">
          <Icon name="watch" size={14} className="mt-1 shrink-0" />
          <span>
            Ticket {number}, {name}, is left out: {why}. Pour it afterwards.
          </span>
        </p>
      ))}
      {short.length > 0 && (
        <p className="flex gap-2 text-stop">
          <Icon name="short" size={14} className="mt-1 shrink-0" /> Short of {short.map(({ name }) => name).join(', ')}
        </p>
      )}
    </div>
  );
}

/** What it takes off the shelf, and what is done to it first. */
function FromShelf({ ahead }: { ahead: PourAhead }) {
  const units = useUnits();
  const amount = (kind: string, value: number) =>
    units.part(kind, partKind(kind).unit === 'pieces' ? Math.ceil(value) : value);
  return (
    <div>
      <Heading>From the shelf</Heading>
      <ul>
        {ahead.needs.map(({ materialId, name, kind, need, have, missing }) => (
          <li key={materialId} className="border-b border-rule py-1.5">
            <span className="block">{name}</span>
            <span className="flex justify-between gap-3">
              <b className="fig text-[19px]">{amount(kind, need)}</b>
              {missing > 0 ? (
                <b className="font-semibold text-stop">{amount(kind, missing)} missing</b>
              ) : (
                <span className="quiet">{amount(kind, have)} here</span>
              )}
            </span>
          </li>
        ))}
        {ahead.bent.map(({ materialId, name, says, seconds }) => (
          <li key={materialId + says} className="quiet py-1.5">
            {name}: {says}, {writeSpan(seconds)}.
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What starts a session: everything that is ticked, on one pot. */
function Begin({ chosen, heads }: { chosen: Chosen[]; heads: number }) {
  const navigate = useNavigate();
  const { data: pots } = useList('pots');
  const { data: materials } = useList('materials');
  const units = useUnits();
  const [atOnce, setAtOnce] = useState<AtOnce>('in turn');
  const [leadId, setLeadId] = useState<string | null>(null);
  const leads = (materials ?? []).filter((each) => each.kind === 'lead' && each.quantity > 0.05);
  // What the products of the tickets are cast in; one that asks for nothing takes the usual.
  const asked = chosen.flatMap(({ tickets }) => tickets.flatMap(({ product }) => product.metal?.materialId ?? []))[0];
  const lead = leads.find(({ id }) => id === (leadId ?? asked)) ?? usualLead(leads);
  const moldIds = [...new Set(chosen.flatMap((each) => each.moldIds))];
  const start = useWrite((input: StartPourInput) => call('POST /pours', { body: input }));
  const planned = chosen.flatMap(({ tickets, byHand }) =>
    byHand
      ? []
      : tickets.flatMap(({ id, planned: { molds = [] } }) => molds.map((mold) => ({ ticketId: id, ...mold }))),
  );
  const known = planned.filter(({ moldId }) => moldIds.includes(moldId));
  const ready = chosen.length > 0 && pots?.length;
  const input: StartPourInput | null = ready
    ? {
        moldIds,
        atOnce: moldIds.length > 1 && atOnce === 'in turn' ? 2 : 1,
        ...(chosen.some((each) => each.byHand && each.moldIds.length > 1) ? { spread: true } : {}),
        ...(known.length > 0 ? { planned: known } : {}),
        potId: pots[0]!.id,
        ...(leadId ? { leadId } : {}),
        ticketIds: chosen.flatMap(({ tickets }) => tickets.map((ticket) => ticket.id)),
      }
    : null;
  // Once it is begun nothing is ahead any more.
  const { data: ahead, error: wrong } = useAhead(start.isIdle || start.isError ? input : null);
  return (
    <div className="flex flex-col gap-3">
      {moldIds.length > 1 && <Ways label="Molds are poured" value={atOnce} options={AT_ONCE} onChange={setAtOnce} />}
      {leads.length > 1 && (
        <Choice
          label="Metal"
          options={leads.map(({ id, name, quantity }) => ({ value: id, label: `${name}, ${units.bulk(quantity)}` }))}
          value={lead!.id}
          onChange={(event) => setLeadId(event.target.value)}
        />
      )}
      {ahead && <Ahead ahead={ahead} />}
      {lead && leads.length > 1 && metalKind(lead.metalId) === 'lead-free' && <Caution>{LEAD_FREE_CAUTION}</Caution>}
      <Caution>Tools, mold and ingots dry; eyes and face covered; long sleeves; nobody else near.</Caution>
      <ProblemNote error={start.error ?? wrong} />
      <Button
        look="main"
        className="self-start"
        disabled={!input || start.isPending}
        onClick={() => input && start.mutate(input, { onSuccess: (pour) => void navigate(`/pour/${pour.id}`) })}
      >
        {moldIds.length > 1 ? `To the pot: ${heads} heads, ${moldIds.length} molds` : 'To the pot'}
      </Button>
      {ahead && <FromShelf ahead={ahead} />}
    </div>
  );
}

export function PourDesk() {
  const { data: line, error } = useLine();
  const { data: pours } = usePours();
  const catalogue = useCatalogue();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [used, setUsed] = useState<Readonly<Record<string, string[]>>>({});
  if (!line || !catalogue) return <Waiting error={error} />;
  const open = line.pours;
  const busy = new Set(open.flatMap((pour) => Object.keys(pour.setup.needs)));
  const waiting = line.tickets.filter((ticket) => ticket.toCast > 0 && !busy.has(ticket.id));
  const { groups, noMold } = groupsOf(waiting, catalogue);
  const headsOf = (tickets: readonly Ticket[]) => tickets.reduce((sum, ticket) => sum + ticket.toCast, 0);
  const usedOf = (moldId: string, tickets: readonly Ticket[]) =>
    used[moldId] ?? [...new Set(tickets.flatMap((ticket) => plannedMolds(ticket, catalogue)))];
  const chosen = groups
    .map(([moldId, tickets]): Chosen => {
      const taken = tickets.filter((ticket) => !left.has(ticket.id));
      return { moldIds: usedOf(moldId, taken), tickets: taken, byHand: used[moldId] !== undefined };
    })
    .filter(({ tickets }) => tickets.length > 0);
  const toggle = (ids: string[]) =>
    setLeft((before) => {
      const next = new Set(before);
      for (const id of ids) if (!next.delete(id)) next.add(id);
      return next;
    });
  return (
    <Page
      stub={
        <>
          <TheNumber value={headsOf(waiting)}>heads to pour</TheNumber>
          {open.map((pour) => (
            <Button key={pour.id} look="main" asChild className="self-start">
              <Link to={`/pour/${pour.id}`}>Back to pour {pour.number}</Link>
            </Button>
          ))}
          <p className="quiet">
            Tickets that want the same mold are poured together; what is not ticked stays for another evening. A few
            more are cast than are wanted: later steps will spoil some.
          </p>
          <PinsHere chosen={chosen.flatMap(({ tickets }) => tickets)} line={line} catalogue={catalogue} />
          {groups.length > 0 && <Begin chosen={chosen} heads={headsOf(chosen.flatMap(({ tickets }) => tickets))} />}
        </>
      }
    >
      {groups.map(([moldId, tickets]) => (
        <Part key={moldId} of="A mold of this list">
          {() => (
            <Group
              moldId={moldId}
              tickets={tickets}
              catalogue={catalogue}
              left={left}
              onToggle={toggle}
              used={usedOf(moldId, tickets)}
              onUse={(moldIds) => setUsed({ ...used, [moldId]: moldIds })}
            />
          )}
        </Part>
      ))}
      {noMold.map((ticket) => (
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
              {pour.moldIds.map((moldId) => catalogue.molds.find((mold) => mold.id === moldId)?.name).join(', ')}
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
