import type { Mold as StoredMold, Pour } from '@schmelz/contract';
import {
  HANDLED_WORDS,
  loadsOf,
  parseMass,
  TRIED_AT_POT,
  type PourState,
  type TriedAtPot,
  type Turn,
} from '@schmelz/core';
import { useState, type FormEvent } from 'react';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import type { PourBench } from './usePourBench.ts';

const BIG = 'min-h-16 text-lg';

/** Which molds are at the pot: one goes to the shelf, another comes. */
export function MoldChange({
  pour,
  molds,
  bench,
  open,
  onOpenChange,
}: {
  pour: Pour;
  molds: readonly StoredMold[];
  bench: PourBench;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const put = (moldId: string, away: boolean) => {
    bench.putAway(moldId, away);
    onOpenChange(false);
  };
  return (
    <Sheet
      open={open}
      onOpenChange={onOpenChange}
      title="Change the mold"
      says="What it has cast stays. A mold that comes back cold wants blank shots again."
    >
      <ul className="flex flex-col gap-3">
        {pour.setup.molds.map(({ moldId }) => {
          const state = bench.state.molds.find((each) => each.moldId === moldId)!;
          const name = molds.find((mold) => mold.id === moldId)?.name;
          return (
            <li key={moldId} className="flex items-center justify-between gap-4 border-b border-rule pb-3 text-lg">
              <span>
                <b>{name}</b>{' '}
                <span className="quiet block">
                  {state.shots} shots, {state.shotsToGo} to go
                </span>
              </span>
              <Button className={BIG} onClick={() => put(moldId, !state.away)}>
                {state.away ? 'To the pot' : 'Off the pot'}
              </Button>
            </li>
          );
        })}
      </ul>
    </Sheet>
  );
}

/** Which end of a mold was low is asked for: of one that was only tipped it is not known. */
const TO_TRY = [...TRIED_AT_POT.filter((what) => what !== 'tilted'), 'smoked'] as const;

/** What is tried against shorts: two taps, and the shorts before and after are kept. */
export function TrySomething({
  bench,
  turnId,
  open,
  onOpenChange,
}: {
  bench: PourBench;
  turnId: string | null;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const say = (what: TriedAtPot | 'smoked') => {
    if (what !== 'smoked') bench.done(what);
    else if (turnId) bench.smoked(turnId);
    onOpenChange(false);
  };
  return (
    <Sheet
      open={open}
      onOpenChange={onOpenChange}
      title="Tried against shorts"
      says="From the next shot on. How many came short before and after is kept: what works in this mold is said the next time."
    >
      <div className="grid gap-3 sm:grid-cols-2">
        {TO_TRY.map((what) => (
          <Button key={what} className={BIG} disabled={what === 'smoked' && !turnId} onClick={() => say(what)}>
            {HANDLED_WORDS[what]}
          </Button>
        ))}
      </div>
    </Sheet>
  );
}

/** Hooks that are left to load, by kind: none, or as counted. */
export function HooksLeft({
  catalogue,
  bench,
  open,
  onOpenChange,
}: {
  catalogue: Catalogue;
  bench: PourBench;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const [texts, setTexts] = useState<Record<string, string>>({});
  const say = (materialId: string, left: number) => {
    bench.hooksLeft(materialId, left);
    setTexts({});
    onOpenChange(false);
  };
  return (
    <Sheet
      open={open}
      onOpenChange={onOpenChange}
      title="Hooks that are left"
      says="To load, those in the mold included."
    >
      <ul className="flex flex-col gap-4">
        {Object.entries(bench.state.hooksLeft).map(([materialId, left]) => {
          const text = texts[materialId] ?? '';
          const counted = /^\d{1,4}$/.test(text.trim()) ? Number(text) : null;
          return (
            <li key={materialId} className="grid grid-cols-[1fr_110px_auto_auto] items-end gap-3">
              <span className="text-lg">
                <b>{catalogue.materials.get(materialId)?.name ?? 'Hook'}</b>
                <span className="quiet block">reckoned: {left}</span>
              </span>
              <TextField
                label="Counted"
                inputMode="numeric"
                value={text}
                onChange={(event) => setTexts({ ...texts, [materialId]: event.target.value })}
              />
              <Button className={BIG} disabled={counted === null} onClick={() => say(materialId, counted!)}>
                So many
              </Button>
              <Button className={BIG} onClick={() => say(materialId, 0)}>
                None left
              </Button>
            </li>
          );
        })}
      </ul>
    </Sheet>
  );
}

/** A head on the scale, against what its cavity should give. */
export function WeighHead({
  pour,
  state,
  turn,
  molds,
  bench,
  open,
  onOpenChange,
}: {
  pour: Pour;
  state: PourState;
  turn: Turn | null;
  molds: readonly StoredMold[];
  bench: PourBench;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const units = useUnits();
  const moldId = bench.looked?.moldId ?? turn?.moldId ?? state.molds[0]!.moldId;
  const loads = loadsOf(pour.setup, moldId);
  const [position, setPosition] = useState<number | null>(null);
  const [mass, setMass] = useState('');
  const [problem, setProblem] = useState<unknown>(null);
  const load = loads.find((each) => each.position === position) ?? loads[0];
  const submit = (event: FormEvent) => {
    event.preventDefault();
    try {
      bench.weighed(moldId, load!.position, parseMass(mass, units.massUnit));
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
      title={`A head of ${molds.find((mold) => mold.id === moldId)?.name ?? 'the mold'} on the scale`}
      says="With its hook, sprue off, cold enough to hold."
    >
      <form onSubmit={submit} className="flex flex-col gap-4" noValidate>
        <Choice
          label="Out of cavity"
          options={loads.map((each) => ({ value: String(each.position), label: String(each.position) }))}
          value={String(load?.position ?? '')}
          onChange={(event) => setPosition(Number(event.target.value))}
        />
        <TextField
          label="It weighs"
          value={mass}
          onChange={(event) => setMass(event.target.value)}
          hint={load && `Reckoned: ${units.head(load.leadKg + load.hookKg)}, hook in it.`}
          autoFocus
        />
        <ProblemNote error={problem} />
        <Button look="main" type="submit" className={`self-start ${BIG}`}>
          Keep it
        </Button>
      </form>
    </Sheet>
  );
}
