import { CARE_KINDS, recordSchemas, type Care, type CareRecord, type Cavity, type Mold } from '@schmelz/contract';
import {
  sinceSmokedFigure,
  smokeDueFigure,
  smokeInFigure,
  SOOT_SCHOOLS,
  sootDue,
  sootLeft,
  type SootSchool,
} from '@schmelz/core';
import { useState } from 'react';
import { useNote, useRecords, useSave, useStrike } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { DatedRow } from '../../design/DatedRow.tsx';
import { Choice, TextField, asOptions } from '../../design/Field.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Icon } from '../../design/Icon.tsx';
import { Caution, ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { numberIn, useBuiltForm } from '../../design/useForm.ts';
import { moment, writeDay } from '../../units/dates.ts';
import { useMold } from './MoldPage.tsx';
import { MoldRooms, moldInputOf } from './rooms.tsx';

function CareForm({ mold, onSaved }: { mold: Mold; onSaved: () => void }) {
  const note = useNote();
  const form = useBuiltForm<{ what: string; positions: string; note: string }, CareRecord>({
    defaults: { what: 'smoked', positions: '', note: '' },
    schema: recordSchemas.care,
    build: ({ what, positions, note: text }) => ({
      kind: 'care',
      thingId: mold.id,
      at: moment(),
      what,
      positions: positions.trim()
        ? positions
            .trim()
            .split(/[\s,]+/)
            .map((each) => numberIn('cavities', each))
        : [],
      note: text.trim(),
    }),
    send: (input) => note.mutate(input, { onSuccess: onSaved }),
  });
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-4" noValidate>
      <div className="grid gap-4 sm:grid-cols-2">
        <Choice label="What was done" options={asOptions(CARE_KINDS)} {...form.register('what')} />
        <TextField label="Cavities" hint="Empty: all of them." {...form.register('positions')} />
      </div>
      <TextField label="Note" {...form.register('note')} />
      <ProblemNote error={form.problem ?? note.error} />
      <Button look="main" type="submit" className="self-start" disabled={note.isPending}>
        Write it down
      </Button>
    </form>
  );
}

/** A cavity's soot as a bar that fades as it wears, with what is due. */
function SootRow({ cavity, school, onSmoke }: { cavity: Cavity; school: SootSchool; onSmoke: () => void }) {
  const due = sootDue(school, cavity.shotsSinceSmoked, cavity.everSmoked);
  const left = cavity.everSmoked ? sootLeft(cavity.shotsSinceSmoked) : 0;
  const smokeIn = smokeInFigure(school, cavity);
  return (
    <tr>
      <td>
        <b className="fig text-[19px]">{cavity.position}</b>
      </td>
      <td className="num">
        <Fig figure={sinceSmokedFigure(cavity)} title="Shots since smoked" />
      </td>
      <td>
        <span
          className="block h-4 w-full max-w-[240px] border border-rule-2"
          role="img"
          aria-label={`${Math.round(100 * left)} % of its soot left`}
        >
          <span
            className="block h-full"
            style={{
              width: `${100 * left}%`,
              background: 'var(--soot)',
              borderRight: left > 0 ? '1px solid var(--contour)' : undefined,
            }}
          />
        </span>
      </td>
      <td>
        {due.due ? (
          <span className="flex items-center gap-1.5 font-medium text-watch">
            <Icon name="watch" size={13} /> due
          </span>
        ) : (
          <span className="quiet">
            {smokeIn ? (
              <>
                in <Fig figure={smokeIn} title="Shots until it is due" /> shots
              </>
            ) : (
              'not counted'
            )}
          </span>
        )}
      </td>
      <td className="num">
        <Button look="quiet" onClick={onSmoke}>
          Smoked now
        </Button>
      </td>
    </tr>
  );
}

const lastOf = (care: readonly Care[], what: CareRecord['what']) =>
  care.filter((each) => !each.struck && each.what === what).at(-1);

export function CarePage() {
  const { mold, error } = useMold();
  const { data: care } = useRecords('care', mold?.id);
  const note = useNote();
  const strike = useStrike();
  const save = useSave('molds');
  const [writing, setWriting] = useState(false);
  if (!mold || !care) return <Waiting error={error} />;
  const school = mold.sootSchool ?? 'fifty';
  const open = mold.cavities.filter((cavity) => cavity.condition === 'good');
  const due = open.filter((cavity) => sootDue(school, cavity.shotsSinceSmoked, cavity.everSmoked).due);
  const smoke = (positions: number[]) =>
    note.mutate({ kind: 'care', thingId: mold.id, at: moment(), what: 'smoked', positions, note: '' });
  const degreased = lastOf(care, 'degreased');
  const waxed = lastOf(care, 'hinge waxed');
  return (
    <Page
      stub={
        <>
          <TheNumber eyebrow={mold.name} value={<Fig figure={smokeDueFigure(school, open)} title="Cavities due" />}>
            {due.length === 1 ? 'cavity wants' : 'cavities want'} the candle
          </TheNumber>
          <Choice
            label="Smoked"
            options={SOOT_SCHOOLS.map(({ id, name }) => ({ value: id, label: name }))}
            value={school}
            hint={SOOT_SCHOOLS.find((each) => each.id === school)!.says}
            onChange={(event) =>
              save.mutate({
                ...moldInputOf(mold),
                sootSchool: event.target.value as SootSchool,
                id: mold.id,
                version: mold.version,
              })
            }
          />
          <Button look="main" className="self-start" onClick={() => smoke([])}>
            All smoked now
          </Button>
          <Button className="self-start" onClick={() => setWriting(true)}>
            Something else was done
          </Button>
          <Caution>
            Candle and lighter away from alcohol: let a degreased mold dry first. Soot wears off over some forty shots.
          </Caution>
        </>
      }
    >
      <MoldRooms id={mold.id} />
      <Heading>Soot</Heading>
      <table className="sheet-table mb-7 max-w-[760px]">
        <thead>
          <tr>
            <th>Cavity</th>
            <th className="num">Shots since</th>
            <th>What is left of it</th>
            <th>By your way</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {open.map((cavity) => (
            <SootRow key={cavity.id} cavity={cavity} school={school} onSmoke={() => smoke([cavity.position])} />
          ))}
        </tbody>
      </table>
      <Heading>The rest</Heading>
      <ul className="mb-7">
        <li>
          {degreased
            ? `Degreased on ${writeDay(degreased.at)}.`
            : 'Never degreased on record: a new mold wants alcohol before its first soot.'}
        </li>
        <li>
          {waxed
            ? `Hinge waxed on ${writeDay(waxed.at)}.`
            : 'Hinge never waxed on record: candle wax on the hot hinge keeps it moving.'}
        </li>
      </ul>
      <Heading>Log</Heading>
      <ul className="max-w-[760px]">
        {[...care].reverse().map((each) => (
          <DatedRow key={each.id} at={each.at} struck={each.struck} onStrike={() => strike.mutate(each.id)}>
            <span>
              {each.what}
              {each.positions.length > 0 && `, cavity ${each.positions.join(', ')}`}
              {each.note && `: ${each.note}`}
            </span>
          </DatedRow>
        ))}
        {care.length === 0 && <li className="quiet">Nothing written down yet.</li>}
      </ul>
      <Sheet open={writing} onOpenChange={setWriting} title={`Care of ${mold.name}`}>
        <CareForm mold={mold} onSaved={() => setWriting(false)} />
      </Sheet>
    </Page>
  );
}
