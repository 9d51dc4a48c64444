import type { Material } from '@schmelz/contract';
import { knownMetal, SOFT_LEAD, type Alloy } from '@schmelz/core';
import { useState, type ReactNode } from 'react';
import { Choice } from '../design/Field.tsx';

/** Which metal is meant: one of the leads on the shelf, or soft lead while there is none. */
export function useMetal(materials: readonly Material[] | undefined): { alloy: Alloy; choice: ReactNode } {
  const [leadId, setLeadId] = useState<string | null>(null);
  const leads = (materials ?? []).filter((each) => each.kind === 'lead');
  const chosen = leads.find((each) => each.id === leadId) ?? leads[0];
  const options = leads.length
    ? leads.map(({ id, name }) => ({ value: id, label: name }))
    : [{ value: '', label: SOFT_LEAD.name }];
  return {
    alloy: knownMetal(chosen),
    choice: (
      <Choice
        label="Metal"
        options={options}
        value={chosen?.id ?? ''}
        onChange={(event) => setLeadId(event.target.value)}
      />
    ),
  };
}
