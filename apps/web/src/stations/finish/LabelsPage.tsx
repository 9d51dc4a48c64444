import { settingsSchema, type Settings, type SettingsView, type Ticket } from '@schmelz/contract';
import {
  bagsOf,
  CARE_LINE,
  LABEL_SHEETS,
  labelPlaces,
  labelSheet,
  PAPERS,
  ticketState,
  type Bag,
  type LabelSheet,
  type TicketProduct,
} from '@schmelz/core';
import { useState } from 'react';
import { useParams } from 'react-router';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { useSettings, useTicket, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Page, TheNumber } from '../../design/Page.tsx';
import { numberIn, useBuiltForm } from '../../design/useForm.ts';
import { Code } from '../../drawing/Code.tsx';
import { setupOf, wholeLog } from '../../shell/line-state.ts';
import { useNow } from '../../shell/clock.ts';
import { writeDay } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';

const mm = (metres: number) => `${(1000 * metres).toFixed(2)}mm`;

/** What a phone that reads the code is sent to: this workshop's own page of the ticket. */
const tracePath = (number: number) => `${window.location.origin}/trace/${number}`;

interface Printed {
  workshop: string;
  product: string;
  says: string;
  ticket: number;
  day: string;
  care: string;
  line: string;
}

/** One label, true to size: on screen as on paper. */
function Label({ of, bag, bags, sheet }: { of: Printed; bag: Bag; bags: number; sheet: LabelSheet }) {
  const codeM = Math.min(0.024, sheet.heightM - 0.006);
  return (
    <div
      className="flex h-full items-center gap-[2mm] overflow-hidden px-[3mm] py-[1.5mm]"
      style={{ fontSize: '2.55mm', lineHeight: 1.22, color: '#000' }}
    >
      <div className="min-w-0 flex-1">
        <p className="truncate" style={{ fontSize: '2.3mm' }}>
          {of.workshop}
        </p>
        <p className="line-clamp-2 font-semibold" style={{ fontSize: '3.1mm' }}>
          {of.product}
        </p>
        <p>{of.says}</p>
        <p>
          {bag.count} in this bag · ticket {of.ticket}, {bag.number} of {bags} · {of.day}
        </p>
        {of.line && <p className="truncate">{of.line}</p>}
        <p style={{ fontSize: '2mm' }}>{of.care}</p>
      </div>
      <Code text={tracePath(of.ticket)} sizeM={codeM} label={`Code of ticket ${of.ticket}`} />
    </div>
  );
}

/** Sheets as they come out of the printer. */
function Sheets({ of, bags, sheet, firstFree }: { of: Printed; bags: Bag[]; sheet: LabelSheet; firstFree: number }) {
  const places = labelPlaces(sheet, bags.length, firstFree);
  const pages = (places.at(-1)?.page ?? 0) + 1;
  const { widthM, heightM } = PAPERS[sheet.paper];
  return (
    <div
      className="label-sheets overflow-x-auto print:overflow-visible"
      tabIndex={0}
      role="region"
      aria-label="Sheets of labels"
    >
      <style>{`@page { size: ${mm(widthM)} ${mm(heightM)}; margin: 0 }`}</style>
      {Array.from({ length: pages }, (_, page) => (
        <div
          key={page}
          className="label-sheet relative mb-6"
          style={{ width: mm(widthM), height: mm(heightM), background: '#fff' }}
          role="group"
          aria-label={`Sheet ${page + 1}`}
        >
          {bags.map((bag, i) => {
            const place = places[i]!;
            if (place.page !== page) return null;
            return (
              <div
                key={bag.number}
                data-label={bag.number}
                className="absolute outline outline-1 outline-dashed outline-black/20 print:outline-none"
                style={{ left: mm(place.xM), top: mm(place.yM), width: mm(sheet.widthM), height: mm(sheet.heightM) }}
              >
                <Label of={of} bag={bag} bags={bags.length} sheet={sheet} />
              </div>
            );
          })}
        </div>
      ))}
    </div>
  );
}

interface Values {
  perBag: string;
  sheet: string;
  line: string;
  care: string;
}

/** What is the maker's own on every label: kept for the next ticket. */
function OwnWords({ settings }: { settings: SettingsView }) {
  const units = useUnits();
  const save = useWrite((input: Settings) => call('PUT /settings', { body: { ...input, version: settings.version } }));
  const { labels } = settings;
  const form = useBuiltForm<Values, Settings>({
    defaults: {
      perBag: String(labels?.perBag ?? 5),
      sheet: labels?.sheet ?? LABEL_SHEETS[0]!.id,
      line: labels?.line ?? '',
      care: labels?.care ?? CARE_LINE,
    },
    schema: settingsSchema,
    build: ({ perBag, sheet, line, care }) => {
      const { version: _version, dataFolder: _folder, passwordSet: _set, sessions: _sessions, ...own } = settings;
      return {
        ...own,
        labels: { perBag: numberIn('heads a bag', perBag), sheet, line: line.trim(), care: care.trim() },
      };
    },
    send: (input) => save.mutate(input, { onSuccess: () => void toast('Kept for the next labels.') }),
  });
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-3" noValidate>
      <TextField label="Heads a bag" inputMode="numeric" {...form.register('perBag')} />
      <Choice
        label="Sheet"
        options={LABEL_SHEETS.map((sheet) => ({
          value: sheet.id,
          label: `${sheet.paper}, ${sheet.columns} × ${sheet.rows}, each ${units.write(sheet.widthM, 'm')} × ${units.write(sheet.heightM, 'm')}`,
        }))}
        {...form.register('sheet')}
      />
      <TextField label="Your own line" hint="A web page, a number, nothing." {...form.register('line')} />
      <TextField label="Care" hint="Ask locally what must stand there." {...form.register('care')} />
      <ProblemNote error={form.problem ?? save.error} />
      <Button type="submit" className="self-start" disabled={save.isPending}>
        Keep this
      </Button>
    </form>
  );
}

function View({ ticket, product, settings }: { ticket: Ticket; product: TicketProduct; settings: SettingsView }) {
  const units = useUnits();
  const now = useNow(60_000);
  const [first, setFirst] = useState('1');
  const sheet = labelSheet(settings.labels?.sheet ?? LABEL_SHEETS[0]!.id);
  const heads = ticketState(setupOf(ticket), wholeLog(ticket)).good;
  const bags = bagsOf(heads, settings.labels?.perBag ?? 5);
  const onSheet = sheet.columns * sheet.rows;
  const firstFree = Math.min(onSheet, Math.max(1, Math.round(Number(first)) || 1));
  const { hook } = product;
  const of: Printed = {
    workshop: settings.workshopName,
    product: product.name,
    says: `${units.head(product.nominalMassKg)}${hook ? `, hook ${hook.size}` : ''}`,
    ticket: ticket.number,
    day: writeDay(now),
    care: settings.labels?.care ?? CARE_LINE,
    line: settings.labels?.line ?? '',
  };
  return (
    <Page
      stub={
        <div className="flex flex-col gap-4 print:hidden">
          <TheNumber eyebrow={`Ticket ${ticket.number}, ${product.name}`} value={bags.length}>
            {bags.length === 1 ? 'bag' : 'bags'} of {heads} heads
          </TheNumber>
          <TextField
            label="First free label of the sheet"
            hint={`1 to ${onSheet}: a sheet that is begun goes on there.`}
            inputMode="numeric"
            value={first}
            onChange={(event) => setFirst(event.target.value)}
          />
          <Button look="main" className="self-start" disabled={bags.length === 0} onClick={() => window.print()}>
            Print
          </Button>
          <p className="quiet">
            At 100 %, no scaling. Try it on plain paper first and hold it behind a sheet: packs differ by a millimetre.
          </p>
          <OwnWords key={settings.version} settings={settings} />
        </div>
      }
    >
      {bags.length === 0 ? (
        <p className="quiet">
          No head of this ticket is finished yet: what is counted good at its last step is bagged.
        </p>
      ) : (
        <Sheets {...{ of, bags, sheet, firstFree }} />
      )}
    </Page>
  );
}

/** Labels for the bags of a ticket, true to size. */
export function LabelsPage() {
  const { id = '' } = useParams();
  const { data: ticket, error } = useTicket(id);
  const { data: settings } = useSettings();
  if (!ticket || !settings) return <Waiting error={error} />;
  return <View ticket={ticket} product={ticket.product} settings={settings} />;
}
