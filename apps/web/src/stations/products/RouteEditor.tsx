import { FINISH_TASKS, finishSchool, finishTask, ROUTE_TEMPLATES, stepStations, type RouteStep } from '@schmelz/core';
import { useState } from 'react';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { Icon } from '../../design/Icon.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';

/** A key that no other step has: the station's name, and a number where it stands in the route again. */
function newKey(station: string, route: readonly RouteStep[]): string {
  const taken = new Set(route.map((step) => step.key));
  for (let n = 1; ; n++) {
    const key = n === 1 ? station : `${station}-${n}`;
    if (!taken.has(key)) return key;
  }
}

const PRODUCTS_OWN = { value: '', label: "the product's own" };

/** A step of the finish by its task and school: its words and its wait follow. */
function followed(step: RouteStep, task: string, school: string | null): RouteStep {
  if (!task) return { ...step, task: null, school: null };
  const { id, wait } = finishSchool(task, school);
  const does = task === step.task ? step.does : finishTask(task).does;
  return { ...step, task, school: id, does, wait: wait ?? null };
}

/** Minutes that have to pass after a step: while it is typed it stands as it was typed, *0.* on its way to a half. */
function WaitField({ step, onChange }: { step: RouteStep; onChange: (step: RouteStep) => void }) {
  const seconds = step.wait?.seconds ?? 0;
  const [typed, setTyped] = useState<string | null>(null);
  const secondsIn = (text: string) => Math.max(0, Math.round(Number(text.replace(',', '.')) * 60)) || 0;
  const shown = typed !== null && secondsIn(typed) === seconds ? typed : seconds > 0 ? String(seconds / 60) : '';
  return (
    <TextField
      label="Wait after it"
      unit="min"
      inputMode="decimal"
      value={shown}
      onChange={(event) => {
        const next = secondsIn(event.target.value);
        setTyped(event.target.value);
        const name = step.wait?.name ?? (step.station === 'paint' ? 'paint dries' : 'glue sets');
        onChange({ ...step, wait: next > 0 ? { name, seconds: next } : null });
      }}
    />
  );
}

/** What a step takes beside hands: its own paint or program, and what has to pass after it. */
function StepMore({
  step,
  catalogue,
  onChange,
}: {
  step: RouteStep;
  catalogue: Catalogue;
  onChange: (step: RouteStep) => void;
}) {
  const options = (all: Iterable<{ id: string; name: string }>) => [
    PRODUCTS_OWN,
    ...[...all].map(({ id, name }) => ({ value: id, label: name })),
  ];
  return (
    <>
      {step.station === 'paint' && (
        <Choice
          label="Recipe of this step"
          options={options(catalogue.recipes.values())}
          value={step.recipeId ?? ''}
          onChange={(event) => onChange({ ...step, recipeId: event.target.value || null })}
        />
      )}
      {step.station === 'bake' && (
        <Choice
          label="Program of this step"
          options={options(catalogue.programs.values())}
          value={step.programId ?? ''}
          onChange={(event) => onChange({ ...step, programId: event.target.value || null })}
        />
      )}
      {step.station === 'finish' && (
        <Choice
          label="Done there"
          options={[
            { value: '', label: 'as its name says' },
            ...FINISH_TASKS.map(({ id, name }) => ({ value: id as string, label: name })),
          ]}
          value={step.task ?? ''}
          onChange={(event) => onChange(followed(step, event.target.value, null))}
        />
      )}
      {step.task && (
        <Choice
          label="How"
          options={finishTask(step.task).schools.map(({ id, name, suits }) => ({
            value: id,
            label: `${name}: ${suits}`,
          }))}
          value={finishSchool(step.task, step.school).id}
          onChange={(event) => onChange(followed(step, step.task!, event.target.value))}
        />
      )}
      <WaitField step={step} onChange={onChange} />
    </>
  );
}

/** The way of a head, step by step: taken from a template, then the maker's own. */
export function RouteEditor({
  route,
  catalogue,
  onChange,
}: {
  route: readonly RouteStep[];
  catalogue: Catalogue;
  onChange: (route: RouteStep[]) => void;
}) {
  const change = (at: number, step: RouteStep) => onChange(route.map((each, i) => (i === at ? step : each)));
  const move = (at: number, by: number) => {
    const next = [...route];
    const [step] = next.splice(at, 1);
    next.splice(at + by, 0, step!);
    onChange(next);
  };
  const stations = stepStations().map(({ id, name }) => ({ value: id, label: name }));
  return (
    <fieldset className="flex flex-col gap-3 sm:col-span-2">
      <legend className="stamp mb-2 text-[17px]">Its way</legend>
      <Choice
        label="Start from"
        options={[
          { value: '', label: 'a way that others follow' },
          ...ROUTE_TEMPLATES.map(({ id, name, suits }) => ({ value: id, label: `${name}: ${suits}` })),
        ]}
        value=""
        onChange={(event) => {
          const template = ROUTE_TEMPLATES.find((each) => each.id === event.target.value);
          if (template) onChange(template.steps.map((step) => ({ ...step })));
        }}
      />
      <ol aria-label="Steps">
        {route.map((step, at) => (
          <li key={step.key} className="grid gap-3 border-t border-rule py-3 sm:grid-cols-[2fr_1fr_auto] sm:items-end">
            <TextField
              label={`Step ${at + 1}`}
              value={step.does}
              onChange={(event) => change(at, { ...step, does: event.target.value })}
            />
            <Choice
              label="At"
              options={stations}
              value={step.station}
              onChange={(event) => {
                const others = route.filter((each) => each !== step);
                const station = event.target.value;
                change(at, { ...step, station, key: newKey(station, others), recipeId: null, programId: null });
              }}
            />
            <span className="flex gap-1">
              <Button
                look="quiet"
                disabled={at === 0}
                aria-label={`Step ${at + 1} earlier`}
                onClick={() => move(at, -1)}
              >
                earlier
              </Button>
              <Button
                look="quiet"
                disabled={route.length === 1}
                aria-label={`Leave out step ${at + 1}`}
                onClick={() => onChange(route.filter((each) => each !== step))}
              >
                <Icon name="close" />
              </Button>
            </span>
            <div className="grid gap-3 sm:col-span-3 sm:grid-cols-2">
              <StepMore step={step} catalogue={catalogue} onChange={(next) => change(at, next)} />
            </div>
          </li>
        ))}
      </ol>
      <Button
        className="self-start"
        onClick={() => onChange([...route, { key: newKey('finish', route), station: 'finish', does: 'A step more' }])}
      >
        Another step
      </Button>
    </fieldset>
  );
}
