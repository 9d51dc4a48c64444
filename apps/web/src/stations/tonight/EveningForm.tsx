import { stationOf } from '@schmelz/core';
import { Choice, TextField } from '../../design/Field.tsx';
import { HAND_STATIONS, type Wishes } from './wishes.ts';

/** What is said of an evening: when, who, with what. */
export function EveningForm({ wishes }: { wishes: Wishes }) {
  const { form, names, change } = wishes;
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
      {form.people > 1 && (
        <fieldset className="col-span-2 flex flex-col gap-2">
          <legend className="mb-1 text-sm font-medium text-ink-2">Who does what</legend>
          {names.slice(0, form.people).map((name, at) => (
            <div key={name} className="flex flex-wrap items-center gap-1">
              <span className="w-[52px] truncate text-sm">{name}</span>
              {HAND_STATIONS.map((station) => {
                const not = form.cannot?.[at] ?? [];
                const does = !not.includes(station);
                const next = does ? [...not, station] : not.filter((each) => each !== station);
                return (
                  <button
                    key={station}
                    type="button"
                    aria-pressed={does}
                    aria-label={`${name}: ${stationOf(station).name}`}
                    className={`border px-1.5 py-1 text-[13px] ${does ? 'border-ink bg-ink text-sheet' : 'border-rule-2 text-ink-3 line-through'}`}
                    onClick={() =>
                      change({ cannot: names.map((_, nth) => (nth === at ? next : (form.cannot?.[nth] ?? []))) })
                    }
                  >
                    {stationOf(station).name}
                  </button>
                );
              })}
            </div>
          ))}
        </fieldset>
      )}
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
