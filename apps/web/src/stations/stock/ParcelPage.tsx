import type { Material, ParcelInput } from '@schmelz/contract';
import { freightShares, lineMassKg, parseMass, partKind, sumMinor, type FreightBy } from '@schmelz/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { newId } from '../../api/id.ts';
import { useList, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Ways } from '../../design/Dials.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { minorIn, numberIn } from '../../design/useForm.ts';
import { today } from '../../units/dates.ts';
import { useUnits, type Units } from '../../units/Units.tsx';

/** A line as it is typed; its id goes with it, so that a second try is no second purchase. */
interface Line {
  id: string;
  materialId: string;
  quantity: string;
  price: string;
}
const newLine = (materialId: string): Line => ({ id: newId(), materialId, quantity: '', price: '' });

/** What was typed, read; what cannot be read is thrown with its field named. */
function readLine({ id, materialId, quantity, price }: Line, material: Material, units: Units) {
  const { unit } = partKind(material.kind);
  const read = unit === 'kg' ? parseMass(quantity, units.massUnit) : numberIn(material.name, quantity, unit);
  return { id, materialId, quantity: read, priceMinor: minorIn(`price of ${material.name}`, price, units.currency) };
}

interface Read {
  lines: ReturnType<typeof readLine>[];
  shares: number[];
  freightMinor: number;
}

/** Several purchases that came in one parcel: what was paid for the way is shared among them. */
export function ParcelPage() {
  const units = useUnits();
  const navigate = useNavigate();
  const { data: materials, error } = useList('materials');
  const [typed, setLines] = useState<Line[] | null>(null);
  const [freight, setFreight] = useState('0');
  const [by, setBy] = useState<FreightBy>('value');
  const [on, setOn] = useState(today);
  const [lot, setLot] = useState('');
  const [problem, setProblem] = useState<unknown>(null);
  const receive = useWrite((parcel: ParcelInput) => call('POST /parcels', { body: parcel }));
  if (!materials) return <Waiting error={error} />;
  const here = materials.filter(({ archived }) => !archived);
  const lines = typed ?? (here[0] ? [newLine(here[0].id)] : []);
  const materialOf = (id: string) => materials.find((each) => each.id === id)!;
  const change = (id: string, part: Partial<Line>) =>
    setLines(lines.map((each) => (each.id === id ? { ...each, ...part } : each)));
  const read = (): Read => {
    const all = lines.map((line) => readLine(line, materialOf(line.materialId), units));
    const freightMinor = minorIn('freight', freight, units.currency);
    const shares = freightShares(
      all.map(({ materialId, quantity, priceMinor }) => {
        const material = materialOf(materialId);
        return { name: material.name, priceMinor, massKg: lineMassKg(material, quantity) };
      }),
      freightMinor,
      by,
    );
    return { lines: all, shares, freightMinor };
  };
  let now: Read | null = null;
  try {
    now = lines.length ? read() : null;
  } catch {
    // Half typed: what is wrong is said when it is sent.
  }
  const send = () => {
    try {
      const { lines: all, freightMinor } = read();
      setProblem(null);
      receive.mutate(
        { on, lot, freightMinor, by, lines: all },
        {
          onSuccess: () => {
            toast(`${all.length} ${all.length === 1 ? 'purchase is' : 'purchases are'} on the shelf.`);
            void navigate('/stock');
          },
        },
      );
    } catch (wrong) {
      setProblem(wrong);
    }
  };
  const total = now ? sumMinor([...now.lines.map(({ priceMinor }) => priceMinor), now.freightMinor]) : null;
  return (
    <Page
      stub={
        <>
          <TheNumber eyebrow="A parcel" value={total === null ? '…' : units.money(total)}>
            freight and all
          </TheNumber>
          <TextField label="Came on" type="date" value={on} onChange={(event) => setOn(event.target.value)} />
          <TextField
            label="Freight"
            unit={units.currency}
            inputMode="decimal"
            value={freight}
            onChange={(event) => setFreight(event.target.value)}
          />
          <Ways
            label="Shared by"
            value={by}
            onChange={setBy}
            options={[
              { value: 'value', label: 'what each cost' },
              { value: 'mass', label: 'what each weighs' },
            ]}
          />
          <TextField
            label="Lot or note, of all of it"
            value={lot}
            onChange={(event) => setLot(event.target.value)}
            maxLength={60}
          />
          <ProblemNote error={problem ?? receive.error} />
          <Button look="main" disabled={receive.isPending || lines.length === 0} onClick={send}>
            All of it is here
          </Button>
        </>
      }
    >
      <Heading aside="all of it is booked, or nothing">What was in it</Heading>
      {here.length === 0 && <p className="quiet">Nothing is on record yet: add a material to Stock first.</p>}
      <ul>
        {lines.map((line, at) => {
          const material = materialOf(line.materialId);
          const { unit } = partKind(material.kind);
          const share = now?.shares[at];
          const own = now?.lines[at];
          return (
            <li
              key={line.id}
              className="grid grid-cols-2 items-end gap-3 border-b border-rule py-3 xl:grid-cols-[minmax(0,2fr)_130px_130px_minmax(120px,1fr)_auto]"
            >
              <div className="col-span-2 xl:col-span-1">
                <Choice
                  label="Material"
                  options={here.map(({ id, name }) => ({ value: id, label: name }))}
                  value={line.materialId}
                  onChange={(event) => change(line.id, { materialId: event.target.value })}
                />
              </div>
              <TextField
                label={unit === 'kg' ? 'How much' : 'How many'}
                unit={unit === 'kg' ? undefined : unit}
                inputMode={unit === 'kg' ? undefined : 'decimal'}
                value={line.quantity}
                onChange={(event) => change(line.id, { quantity: event.target.value })}
              />
              <TextField
                label="Paid for it"
                unit={units.currency}
                inputMode="decimal"
                value={line.price}
                onChange={(event) => change(line.id, { price: event.target.value })}
              />
              <p className="min-h-11 text-right leading-tight">
                {own && share !== undefined && (
                  <>
                    <b className="fig text-[21px]">{units.money(own.priceMinor + share)}</b>
                    <span className="quiet block">
                      {units.money(share)} of it freight
                      {unit === 'pieces' && own.quantity > 0
                        ? `, ${units.money((own.priceMinor + share) / own.quantity, 1)} each`
                        : ''}
                    </span>
                  </>
                )}
              </p>
              <Button
                look="quiet"
                disabled={lines.length === 1}
                aria-label={`Leave out ${material.name}`}
                onClick={() => setLines(lines.filter(({ id }) => id !== line.id))}
              >
                Leave out
              </Button>
            </li>
          );
        })}
      </ul>
      {here.length > 0 && (
        <Button
          className="mt-4"
          onClick={() => {
            const next = here.find(({ id }) => !lines.some(({ materialId }) => materialId === id)) ?? here[0]!;
            setLines([...lines, newLine(next.id)]);
          }}
        >
          Another line
        </Button>
      )}
    </Page>
  );
}
