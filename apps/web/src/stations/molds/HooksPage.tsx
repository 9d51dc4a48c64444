import { recordSchemas, type Cavity, type Material, type Mold, type TrialRecord } from '@schmelz/contract';
import {
  castableFigure,
  seatVerdict,
  stockFigure,
  TRIAL_PREPARED,
  type Bend,
  type CavityCut,
  type HookOffered,
  type HookSize,
  type Seat,
  type SeatTrial,
  type SeatVerdict,
  type Wire,
} from '@schmelz/core';
import { useState } from 'react';
import { useList, useNote, useRecords, useStrike } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { asOptions, Choice, TextField } from '../../design/Field.tsx';
import { Fig } from '../../design/Figure.tsx';
import { BasisMark, Icon, type IconName } from '../../design/Icon.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { useBuiltForm } from '../../design/useForm.ts';
import { moment, writeDay } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { useMold } from './MoldPage.tsx';
import { MoldRooms } from './rooms.tsx';

const cutOf = (cavity: Cavity): CavityCut => ({
  hookSize: cavity.hookSize as HookSize,
  eyeAngleDeg: cavity.eyeAngleDeg,
  wire: cavity.wire as Wire | undefined,
  bend: cavity.bend as Bend | undefined,
});
const offered = ({ hook }: Material): HookOffered => ({
  hookSize: hook!.size as HookSize,
  eyeAngleDeg: hook!.eyeAngleDeg,
  wire: hook!.wire as Wire,
  bend: hook!.bend as Bend | undefined,
  lengthM: hook!.lengthM,
  wireM: hook!.wireM,
});

const LOOK: Record<Seat, { icon: IconName; word: string; tone: string }> = {
  'as cut': { icon: 'good', word: 'seats', tone: 'text-good' },
  'if bent': { icon: 'loose hook', word: 'if bent', tone: 'text-ink' },
  'with a change': { icon: 'watch', word: 'change', tone: 'text-watch' },
  no: { icon: 'close', word: 'no', tone: 'text-ink-3' },
};

function TrialForm({
  mold,
  cavity,
  hook,
  onSaved,
}: {
  mold: Mold;
  cavity: Cavity;
  hook: Material;
  onSaved: () => void;
}) {
  const note = useNote();
  const form = useBuiltForm<{ prepared: string; sound: string; seam: string; note: string }, TrialRecord>({
    defaults: { prepared: 'as it is', sound: 'click', seam: 'flush', note: '' },
    schema: recordSchemas.trial,
    build: ({ prepared, sound, seam, note: text }) => ({
      kind: 'trial',
      thingId: mold.id,
      at: moment(),
      cavityId: cavity.id,
      hookId: hook.id,
      prepared,
      sound,
      seamFlush: seam === 'flush',
      note: text.trim(),
    }),
    send: (input) => note.mutate(input, { onSuccess: onSaved }),
  });
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-4" noValidate>
      <div className="grid gap-4 sm:grid-cols-3">
        <Choice label="The hook or mold was" options={asOptions(TRIAL_PREPARED)} {...form.register('prepared')} />
        <Choice
          label="Closing it"
          options={[
            { value: 'click', label: 'it clicks' },
            { value: 'thud', label: 'it thuds' },
          ]}
          {...form.register('sound')}
        />
        <Choice label="The seam is" options={asOptions(['flush', 'open somewhere'])} {...form.register('seam')} />
      </div>
      <TextField label="Note" {...form.register('note')} />
      <ProblemNote error={form.problem ?? note.error} />
      <Button look="main" type="submit" className="self-start" disabled={note.isPending}>
        Keep what was tried
      </Button>
    </form>
  );
}

function Answer({
  mold,
  cavity,
  hook,
  verdict,
  onClose,
}: {
  mold: Mold;
  cavity: Cavity;
  hook: Material;
  verdict: SeatVerdict;
  onClose: () => void;
}) {
  const { data: trials = [] } = useRecords('trial', mold.id);
  const strike = useStrike();
  const { said } = useUnits();
  const own = trials.filter((trial) => trial.cavityId === cavity.id && trial.hookId === hook.id);
  return (
    <div className="flex flex-col gap-4">
      <p className="voice text-lg">
        {LOOK[verdict.seat].word === 'seats'
          ? 'It seats'
          : verdict.seat === 'no'
            ? 'It does not seat'
            : `It seats ${verdict.seat}`}
        : {said(verdict.because)}.
      </p>
      {verdict.basis === 'measured' && (
        <p className="quiet">The estimate was: {said(verdict.estimate.because)}. What was tried outranks it.</p>
      )}
      {own.length > 0 && (
        <ul>
          {own.map((trial) => (
            <li
              key={trial.id}
              className={`flex items-baseline gap-3 border-b border-rule py-1.5 ${trial.struck ? 'text-ink-3 line-through' : ''}`}
            >
              <span>
                {writeDay(trial.at)}: {trial.prepared}, {trial.sound}, seam {trial.seamFlush ? 'flush' : 'open'}
                {trial.note && `, ${trial.note}`}
              </span>
              {!trial.struck && (
                <Button look="quiet" className="ml-auto" onClick={() => strike.mutate(trial.id)}>
                  Strike out
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
      <h3 className="font-medium">Tried it? Say how it went.</h3>
      <TrialForm mold={mold} cavity={cavity} hook={hook} onSaved={onClose} />
    </div>
  );
}

/** Cavities of a mold against the hooks in the house: seats, if bent, with a change, does not. */
export function HooksPage() {
  const { mold, error } = useMold();
  const { data: materials } = useList('materials');
  const { data: trials } = useRecords('trial', mold?.id);
  const units = useUnits();
  const [asked, setAsked] = useState<{ cavityId: string; hookId: string } | null>(null);
  if (!mold || !materials || !trials) return <Waiting error={error} />;
  const hooks = materials.filter((each) => each.kind === 'hook');
  const verdictOf = (cavity: Cavity, hook: Material) => {
    const own = trials.filter((trial) => !trial.struck && trial.cavityId === cavity.id && trial.hookId === hook.id);
    return seatVerdict(cutOf(cavity), offered(hook), own as SeatTrial[]);
  };
  const castable = castableFigure(
    mold.cavities.map((cavity) => ({
      position: cavity.position,
      hooks: hooks
        .filter((hook) => hook.quantity >= 1 && ['as cut', 'if bent'].includes(verdictOf(cavity, hook).seat))
        .map(({ name }) => name),
    })),
  );
  const cavity = mold.cavities.find((each) => each.id === asked?.cavityId);
  const hook = hooks.find((each) => each.id === asked?.hookId);
  return (
    <Page
      stub={
        <>
          <TheNumber eyebrow={mold.name} value={<Fig figure={castable} title="Cavities with a hook" />}>
            of {mold.cavities.length} cavities have a hook in the house
          </TheNumber>
          <p className="text-ink-2">
            An estimate from length, wire and eye angle: sizes from different makers under one number are not the same.
            Close the mold on it, listen and look: your own trial outranks every table.
          </p>
          <p className="quiet">
            <BasisMark basis="measured" /> tried, <BasisMark basis="given" /> estimated
          </p>
        </>
      }
    >
      <MoldRooms id={mold.id} />
      <Heading>Hooks against cavities</Heading>
      <div className="overflow-x-auto">
        <table className="sheet-table min-w-[640px]">
          <thead>
            <tr>
              <th>Hook in the house</th>
              {mold.cavities.map((each) => (
                <th key={each.id}>
                  <b className="fig text-[19px] text-ink">{each.position}</b>{' '}
                  <span className="whitespace-nowrap">
                    {units.head(each.nominalMassKg)}, {each.hookSize}
                  </span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {hooks.map((each) => (
              <tr key={each.id}>
                <td>
                  {each.name}{' '}
                  <span className="quiet block">
                    <Fig figure={stockFigure(each.name, Math.round(each.quantity))} title={each.name} /> there
                    {each.hook?.lengthM ? ', measured' : ''}
                  </span>
                </td>
                {mold.cavities.map((one) => {
                  const verdict = verdictOf(one, each);
                  const look = LOOK[verdict.seat];
                  return (
                    <td key={one.id}>
                      <button
                        type="button"
                        aria-label={`${each.name} in cavity ${one.position}: ${look.word}, ${verdict.seat}. Why?`}
                        className={`flex items-center gap-1.5 border-b border-dotted border-rule-2 whitespace-nowrap hover:border-ink ${look.tone}`}
                        onClick={() => setAsked({ cavityId: one.id, hookId: each.id })}
                      >
                        <BasisMark basis={verdict.basis} />
                        <Icon name={look.icon} size={13} />
                        {look.word}
                      </button>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {hooks.length === 0 && <p className="quiet">No hook in Stock yet.</p>}
      <Sheet
        open={!!cavity && !!hook}
        onOpenChange={(on) => !on && setAsked(null)}
        title={cavity && hook ? `${hook.name} in cavity ${cavity.position}` : ''}
      >
        {cavity && hook && (
          <Answer
            mold={mold}
            cavity={cavity}
            hook={hook}
            verdict={verdictOf(cavity, hook)}
            onClose={() => setAsked(null)}
          />
        )}
      </Sheet>
    </Page>
  );
}
