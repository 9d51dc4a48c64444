import { logMappingSchema, parseWith, PROBE_PLACES, type LogMappingInput, type ProbePlace } from '@schmelz/contract';
import { guessMapping, tooHotForCelsius } from '@schmelz/core';
import Papa from 'papaparse';
import { useState } from 'react';
import { toast } from '../design/toast.ts';
import { ApiProblem, call } from '../api/client.ts';
import { useWrite } from '../api/queries.ts';
import { Button } from '../design/Button.tsx';
import { asOptions, Choice, TextField } from '../design/Field.tsx';
import { ProblemNote } from '../design/Notice.tsx';
import { isoDay, today } from '../units/dates.ts';

interface Opened {
  name: string;
  csv: string;
  headings: string[];
  rows: Record<string, string>[];
}

/** Reads a file, shows its columns, and sends it with what each of them means. */
export function ImportLog({ onSaved }: { onSaved: () => void }) {
  const [file, setFile] = useState<Opened | null>(null);
  const [mapping, setMapping] = useState<LogMappingInput | null>(null);
  /** Columns that are in °C, however hot they are: it was asked. */
  const [isCelsius, setIsCelsius] = useState<readonly string[]>([]);
  const [problem, setProblem] = useState<unknown>(null);
  const send = useWrite((input: { csv: string; mapping: LogMappingInput; again: boolean }) =>
    call('POST /readings/import', {
      query: { mapping: JSON.stringify(input.mapping), again: input.again ? 'true' : undefined },
      body: input.csv,
    }),
  );
  const open = async (picked: File | undefined) => {
    if (!picked) return;
    setProblem(null);
    const csv = await picked.text();
    const { data, meta } = Papa.parse<Record<string, string>>(csv, { header: true, skipEmptyLines: true });
    const headings = (meta.fields ?? []).filter((each) => each.trim());
    if (headings.length < 2) {
      setFile(null);
      setProblem(new Error(`${picked.name} has no heading line with two columns or more.`));
      return;
    }
    const guess = guessMapping(headings, new Date(`${today()}T00:00:00`).getTime());
    setFile({ name: picked.name, csv, headings, rows: data });
    setIsCelsius([]);
    setMapping({
      ...guess,
      name: picked.name.slice(0, 40),
      columns: guess.columns.map((each) => ({ ...each, place: each.place as ProbePlace })),
    });
  };
  const change = (part: Partial<LogMappingInput>) => setMapping((now) => now && { ...now, ...part });
  const column = (heading: string) => mapping?.columns.find((each) => each.column === heading);
  const changeColumn = (heading: string, place: string, unit: 'C' | 'F') => {
    const others = mapping!.columns.filter((each) => each.column !== heading);
    change({
      columns: place === 'no probe' ? others : [...others, { column: heading, place: place as ProbePlace, unit }],
    });
  };
  const submit = (again: boolean) => {
    try {
      const checked = parseWith(logMappingSchema, mapping) as LogMappingInput;
      setProblem(null);
      send.mutate(
        { csv: file!.csv, mapping: checked, again },
        {
          onSuccess: ({ rows, empty, gaps }) => {
            toast(
              `${rows} rows read, ${empty} empty cells passed over, ${gaps.length} ${gaps.length === 1 ? 'gap' : 'gaps'}.`,
            );
            onSaved();
          },
        },
      );
    } catch (error) {
      setProblem(error);
    }
  };
  // A column that can only be in Fahrenheit is asked about, until it is said.
  const doubted = (mapping?.columns ?? []).flatMap(({ column: heading, place, unit }) => {
    if (unit === 'F' || isCelsius.includes(heading)) return [];
    const hottest = tooHotForCelsius(file!.rows, { column: heading, place });
    return hottest === null ? [] : [{ heading, place, hottest }];
  });
  const takenBefore = send.error instanceof ApiProblem && send.error.problem.title === 'Taken already';
  return (
    <div className="flex flex-col gap-4">
      <TextField
        label="File"
        type="file"
        accept=".csv,text/csv"
        onChange={(event) => void open(event.target.files?.[0])}
      />
      {file && mapping && (
        <>
          <div className="grid gap-4 sm:grid-cols-2">
            <TextField
              label="Its name here"
              value={mapping.name}
              onChange={(event) => change({ name: event.target.value })}
            />
            <Choice
              label="Time is in"
              options={asOptions(file.headings)}
              value={mapping.timeColumn}
              onChange={(event) => change({ timeColumn: event.target.value })}
            />
            <Choice
              label="and is"
              options={asOptions(['date and time', 'seconds', 'minutes'])}
              value={mapping.timeIs}
              onChange={(event) => change({ timeIs: event.target.value as LogMappingInput['timeIs'] })}
            />
            <TextField
              label="The log began on"
              type="date"
              hint="Where times are clock times or count from the start."
              value={isoDay(mapping.startAt)}
              onChange={(event) =>
                event.target.value && change({ startAt: new Date(`${event.target.value}T00:00:00`).getTime() })
              }
            />
          </div>
          <table className="sheet-table">
            <thead>
              <tr>
                <th>Column</th>
                <th>First value</th>
                <th>It is</th>
                <th>In</th>
              </tr>
            </thead>
            <tbody>
              {file.headings
                .filter((heading) => heading !== mapping.timeColumn)
                .map((heading) => {
                  const now = column(heading);
                  return (
                    <tr key={heading}>
                      <td>{heading}</td>
                      <td>{file.rows[0]?.[heading] ?? ''}</td>
                      <td>
                        <select
                          aria-label={`${heading} is`}
                          className="field"
                          value={now?.place ?? 'no probe'}
                          onChange={(event) => changeColumn(heading, event.target.value, now?.unit ?? 'C')}
                        >
                          {['no probe', ...PROBE_PLACES].map((place) => (
                            <option key={place}>{place}</option>
                          ))}
                        </select>
                      </td>
                      <td>
                        <select
                          aria-label={`${heading} is in`}
                          className="field"
                          disabled={!now}
                          value={now?.unit ?? 'C'}
                          onChange={(event) => changeColumn(heading, now!.place, event.target.value as 'C' | 'F')}
                        >
                          <option value="C">°C</option>
                          <option value="F">°F</option>
                        </select>
                      </td>
                    </tr>
                  );
                })}
            </tbody>
          </table>
          {doubted.map(({ heading, place, hottest }) => (
            <div key={heading} role="note" className="flex flex-wrap items-center gap-3 text-watch">
              <p>
                {heading} reaches {hottest}: no {place} is as hot as that in °C. Is it in °F?
              </p>
              <Button onClick={() => changeColumn(heading, place, 'F')}>In °F</Button>
              <Button look="quiet" onClick={() => setIsCelsius([...isCelsius, heading])}>
                In °C all the same
              </Button>
            </div>
          ))}
          <Button
            look="main"
            className="self-start"
            disabled={send.isPending || doubted.length > 0}
            onClick={() => submit(false)}
          >
            Take it in
          </Button>
        </>
      )}
      <ProblemNote error={problem ?? send.error} />
      {takenBefore && <Button onClick={() => submit(true)}>Take it once more</Button>}
    </div>
  );
}
