import type { Pour } from '@schmelz/contract';
import { expectedClose, leadBalance, parseMass, writeBulkMass } from '@schmelz/core';
import { useState, type FormEvent } from 'react';
import { useSettings } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { TextField } from '../../design/Field.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { useUnits } from '../../units/Units.tsx';
import type { PourBench } from './usePourBench.ts';

const asText = (kg: number, unit: 'g' | 'oz') => {
  // To the gram, as a kitchen scale reads.
  if (unit === 'g') return `${Math.round(kg * 1000)} g`;
  const { figure, unit: written } = writeBulkMass(kg, unit);
  return `${figure} ${written}`;
};

/** Before the pot is switched on: how much goes in. */
export function ChargeForm({ pour, onCharge }: { pour: Pour; onCharge: (kg: number) => void }) {
  const units = useUnits();
  const [mass, setMass] = useState(asText(pour.plannedChargeKg, units.massUnit));
  const [problem, setProblem] = useState<unknown>(null);
  const planned = units.bulkParts(pour.plannedChargeKg);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    try {
      onCharge(parseMass(mass, units.massUnit));
    } catch (error) {
      setProblem(error);
    }
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-4" noValidate>
      <h1 className="voice text-2xl font-normal">Charge the pot</h1>
      <p className="flex items-end gap-3">
        <span className="fig text-[150px]">{planned.figure}</span>
        <span className="voice pb-1 text-2xl">{planned.unit}</span>
      </p>
      <TextField
        label="Weighed into the pot"
        value={mass}
        onChange={(event) => setMass(event.target.value)}
        hint="Heel that is left in it included."
      />
      <ProblemNote error={problem} />
      <Button look="main" type="submit" className="h-16 text-lg">
        Pot is on
      </Button>
    </form>
  );
}

export function FeedForm({
  open,
  onOpenChange,
  onFeed,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onFeed: (kg: number) => void;
}) {
  const { massUnit } = useUnits();
  const [mass, setMass] = useState('');
  const [problem, setProblem] = useState<unknown>(null);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    try {
      onFeed(parseMass(mass, massUnit));
      setMass('');
      setProblem(null);
      onOpenChange(false);
    } catch (error) {
      setProblem(error);
    }
  };
  return (
    <Sheet
      open={open}
      onOpenChange={onOpenChange}
      title="Lead added"
      says="Fresh metal only. Sprues of this pour that go back need not be said."
    >
      <form onSubmit={submit} className="flex flex-col gap-4" noValidate>
        <TextField
          label="How much"
          hint={`Such as ${massUnit === 'g' ? '400 g' : '14 oz'}. Dry, warmed, lowered in.`}
          value={mass}
          onChange={(event) => setMass(event.target.value)}
          autoFocus
        />
        <ProblemNote error={problem} />
        <Button look="main" type="submit" className="self-start">
          It is in
        </Button>
      </form>
    </Sheet>
  );
}

const PARTS = [
  ['sprueBackKg', 'Sprues, back to the shelf'],
  ['rejectsBackKg', 'Rejects, back to the shelf'],
  ['drossKg', 'Dross, skimmed off'],
  ['heelKg', 'Left in the pot'],
] as const;
type Part = (typeof PARTS)[number][0];

/** The end of a pour: what is weighed back, and what that leaves unexplained. */
export function CloseForm({
  open,
  onOpenChange,
  bench,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  bench: PourBench;
}) {
  return (
    <Sheet
      open={open}
      onOpenChange={onOpenChange}
      title="Weigh back and close"
      says="What the model expects is filled in; write over it what the scale says."
    >
      {open && <CloseFields bench={bench} onDone={() => onOpenChange(false)} />}
    </Sheet>
  );
}

function CloseFields({ bench, onDone }: { bench: PourBench; onDone: () => void }) {
  const units = useUnits();
  const { data: settings } = useSettings();
  const { state } = bench;
  const expected = expectedClose(state, settings?.ways.drossShare ?? 0);
  const [texts, setTexts] = useState<Partial<Record<Part, string>>>({});
  const [problem, setProblem] = useState<unknown>(null);
  const textOf = (part: Part) => texts[part] ?? asText(expected[part], units.massUnit);
  // An untouched estimate counts as itself, not as its rounded text.
  const kgOf = (part: Part) => (texts[part] === undefined ? expected[part] : parseMass(texts[part], units.massUnit));
  let unexplained: number | null = null;
  try {
    const { chargedKg, headsKg } = state;
    unexplained = leadBalance({
      chargedKg,
      headsKg,
      sprueBackKg: kgOf('sprueBackKg'),
      rejectsBackKg: kgOf('rejectsBackKg'),
      drossKg: kgOf('drossKg'),
      heelKg: kgOf('heelKg'),
    }).unexplainedKg;
  } catch {
    unexplained = null; // half-typed; the field says so when it is sent
  }
  const submit = (event: FormEvent) => {
    event.preventDefault();
    try {
      bench.close({
        sprueBackKg: kgOf('sprueBackKg'),
        rejectsBackKg: kgOf('rejectsBackKg'),
        drossKg: kgOf('drossKg'),
        heelKg: kgOf('heelKg'),
      });
      onDone();
    } catch (error) {
      setProblem(error);
    }
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-4" noValidate>
      <dl className="grid grid-cols-[1fr_auto] gap-y-1">
        <dt>Charged</dt>
        <dd className="text-right font-semibold">{units.bulk(state.chargedKg)}</dd>
        <dt>In good heads, by count</dt>
        <dd className="text-right font-semibold">{units.bulk(state.headsKg)}</dd>
      </dl>
      <div className="grid gap-3 sm:grid-cols-2">
        {PARTS.map(([part, label]) => (
          <TextField
            key={part}
            label={label}
            value={textOf(part)}
            onChange={(event) => setTexts({ ...texts, [part]: event.target.value })}
            hint={texts[part] === undefined ? 'expected, not weighed' : 'weighed'}
          />
        ))}
      </div>
      <p className="flex justify-between border-y border-rule-2 py-2 font-semibold">
        <span>Unexplained</span>
        <span>{unexplained === null ? '–' : units.bulk(Math.abs(unexplained) < 5e-8 ? 0 : unexplained)}</span>
      </p>
      {state.shotsToGo > 0 && (
        <p className="text-sm text-watch">Some tickets still want heads; they can be poured another evening.</p>
      )}
      <ProblemNote error={problem} />
      <Button look="main" type="submit" className="self-start">
        Close the pour
      </Button>
    </form>
  );
}
