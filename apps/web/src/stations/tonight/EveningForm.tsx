import { Choice, TextField } from '../../design/Field.tsx';
import { type Wishes } from './wishes.ts';

/** What is said of an evening: when, who, with what. */
export function EveningForm({ wishes }: { wishes: Wishes }) {
  const { form, change } = wishes;
  const counts = (most: number, one: string, many: string) =>
    Array.from({ length: most }, (_, at) => ({ value: String(at + 1), label: `${at + 1} ${at === 0 ? one : many}` }));
  return (
    <div className="grid grid-cols-2 gap-3 border-y border-rule-2 py-3">
      <div className="col-span-2">
        <TextField
          label="Evening of"
          type="date"
          value={form.day}
          onChange={(event) => event.target.value && change({ day: event.target.value })}
        />
      </div>
      <TextField
        label="From"
        type="time"
        value={form.from}
        onChange={(event) => event.target.value && change({ from: event.target.value })}
      />
      <TextField
        label="Until"
        type="time"
        value={form.to}
        onChange={(event) => event.target.value && change({ to: event.target.value })}
      />
      <Choice
        label="Hands"
        options={counts(4, 'person', 'people')}
        value={String(form.people)}
        onChange={(event) => change({ people: Number(event.target.value) })}
      />
      <Choice
        label="Heat guns"
        options={counts(3, 'gun', 'guns')}
        value={String(form.guns)}
        onChange={(event) => change({ guns: Number(event.target.value) })}
      />
      <div className="col-span-2">
        <Choice
          label="At the pot"
          options={[
            { value: '1', label: 'one mold after another' },
            { value: '2', label: 'two molds in turn' },
          ]}
          value={String(form.atOnce)}
          onChange={(event) => change({ atOnce: Number(event.target.value) })}
        />
      </div>
    </div>
  );
}
