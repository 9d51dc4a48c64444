import { ruleSchema, type LocalRule, type RuleInput } from '@schmelz/contract';
import { parseMass } from '@schmelz/core';
import { useState } from 'react';
import { useList, useSave } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { useBuiltForm } from '../../design/useForm.ts';
import { PutAway } from '../../shell/PutAway.tsx';
import { useUnits } from '../../units/Units.tsx';

type What = 'none' | 'below' | 'from';
interface Values {
  where: string;
  what: What;
  mass: string;
  note: string;
}

function RuleForm({ rule, onSaved }: { rule?: LocalRule; onSaved: () => void }) {
  const units = useUnits();
  const save = useSave('rules');
  const kg = rule?.fromKg ?? rule?.belowKg ?? null;
  const form = useBuiltForm<Values, RuleInput>({
    defaults: rule
      ? {
          where: rule.where,
          what: rule.noLead ? 'none' : rule.fromKg === null ? 'below' : 'from',
          mass: kg === null ? '' : `${Math.round(kg * 1e5) / 100} g`,
          note: rule.note,
        }
      : { where: '', what: 'none', mass: '', note: '' },
    schema: ruleSchema,
    build: ({ where, what, mass, note }) => ({
      where: where.trim(),
      noLead: what === 'none',
      fromKg: what === 'from' ? parseMass(mass, units.massUnit) : null,
      belowKg: what === 'below' ? parseMass(mass, units.massUnit) : null,
      note,
    }),
    send: (input) =>
      save.mutate(rule ? { ...input, id: rule.id, version: rule.version } : input, { onSuccess: onSaved }),
  });
  const what = form.watch('what');
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-4" noValidate>
      <TextField label="Where" placeholder="a water, a shop, a country" {...form.register('where')} autoFocus />
      <Choice
        label="Not allowed there"
        options={[
          { value: 'none', label: 'lead of any kind' },
          { value: 'below', label: 'lead lighter than' },
          { value: 'from', label: 'lead as heavy as, or heavier' },
        ]}
        {...form.register('what')}
      />
      {what !== 'none' && <TextField label="Mass" hint="Such as 28 g or 1 oz." {...form.register('mass')} />}
      <TextField label="Where you have it from, and when" {...form.register('note')} />
      <ProblemNote error={form.problem ?? save.error} />
      <Button look="main" type="submit" className="self-start" disabled={save.isPending}>
        Keep it
      </Button>
    </form>
  );
}

/** What is allowed where, as the maker has found it out: products and orders that it touches are marked by it. */
export function Rules() {
  const units = useUnits();
  const { data: rules } = useList('rules');
  const [open, setOpen] = useState<LocalRule | 'new' | null>(null);
  if (!rules) return null;
  const says = ({ noLead, fromKg, belowKg }: LocalRule) =>
    noLead
      ? 'no lead'
      : fromKg === null
        ? `no lead lighter than ${units.head(belowKg ?? 0)}`
        : `no lead of ${units.head(fromKg)} and more`;
  return (
    <section>
      <Heading>What is allowed where</Heading>
      <p className="quiet">
        Rules on lead differ from place to place and change. Ask the authority of the place; write down here what it
        said.
      </p>
      <ul className="mt-2">
        {rules.map((rule) => (
          <li key={rule.id} className="flex items-baseline justify-between gap-3 border-b border-rule py-2">
            <button
              type="button"
              className="text-left underline decoration-rule-2 underline-offset-4"
              onClick={() => setOpen(rule)}
            >
              {rule.where}
            </button>
            <span className="text-right">
              {says(rule)}
              {rule.note && <span className="quiet block">{rule.note}</span>}
            </span>
          </li>
        ))}
      </ul>
      <Button className="mt-3" onClick={() => setOpen('new')}>
        Another rule
      </Button>
      <Sheet
        open={open !== null}
        onOpenChange={(on) => !on && setOpen(null)}
        title={open === 'new' || open === null ? 'Another rule' : open.where}
      >
        {open !== null && (
          <>
            <RuleForm rule={open === 'new' ? undefined : open} onSaved={() => setOpen(null)} />
            {open !== 'new' && (
              <div className="mt-6">
                <PutAway path="rules" thing={{ ...open, name: open.where }} onGone={() => setOpen(null)} />
              </div>
            )}
          </>
        )}
      </Sheet>
    </section>
  );
}
