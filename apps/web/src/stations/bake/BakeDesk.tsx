import { writeSpan } from '@schmelz/core';
import { Heading } from '../../design/Page.tsx';
import { useList } from '../../api/queries.ts';
import { PutAway } from '../../shell/PutAway.tsx';
import { useUnits } from '../../units/Units.tsx';
import { CountDesk } from '../../counting/CountDesk.tsx';
import { BakeRooms } from './rooms.tsx';
import { ProgramForm } from '../setup/ToolForms.tsx';

/** What waits for the oven, and the programs it knows. */
export function BakeDesk() {
  const { data: programs } = useList('bake-programs');
  const units = useUnits();
  return (
    <CountDesk
      station="bake"
      rooms={<BakeRooms />}
      aside={
        <div className="mt-9">
          <Heading>Bake programs</Heading>
          <ul className="mb-5">
            {programs?.map((program) => (
              <li key={program.id} className="flex flex-wrap justify-between gap-x-4 border-b border-rule py-2">
                <span className="font-medium">{program.name}</span>
                <span className="quiet">
                  {units.temperature(program.setC)}, {writeSpan(program.seconds)},{' '}
                  {program.preheated ? 'oven hot first' : 'from cold'}, from{' '}
                  {program.from === 'metal' ? 'warm metal' : 'the door'}
                </span>
                <PutAway path="bake-programs" thing={program} />
              </li>
            ))}
          </ul>
          <ProgramForm />
        </div>
      }
    />
  );
}
