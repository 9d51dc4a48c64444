import fc from 'fast-check';
import { packReadings, unpackReadings } from './block-codec.ts';
import { fullestHeatUp, heatUpsIn } from './heat-ups.ts';
import { gapsIn, guessMapping, importLog, tooHotForCelsius, type LogMapping } from './import-log.ts';
import { channelLine, greetingLine, parseDeviceLine, readingLine } from './line-protocol.ts';

describe('packed readings', () => {
  test('come back as they were, to a tenth, whatever the times and jumps', () => {
    const reading = fc.record({
      at: fc.integer({ min: 0, max: 4e12 }),
      celsius: fc.double({ min: -60, max: 900, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(reading, { maxLength: 60 }), (all) => {
        const rising = [...all].sort((a, b) => a.at - b.at);
        const back = unpackReadings(packReadings(rising));
        expect(back).toHaveLength(rising.length);
        back.forEach(({ at, celsius }, i) => {
          expect(at).toBe(rising[i]!.at);
          expect(Math.abs(celsius - rising[i]!.celsius)).toBeLessThan(0.0501);
        });
      }),
    );
  });
  test('a quiet probe at one a second takes about three bytes a reading', () => {
    const readings = Array.from({ length: 1000 }, (_, i) => ({
      at: 1.7e12 + 1000 * i,
      celsius: 371 + Math.sin(i / 9),
    }));
    expect(packReadings(readings).length / 1000).toBeLessThan(4);
  });
  test('time that runs backwards and a torn block are refused', () => {
    expect(() =>
      packReadings([
        { at: 2, celsius: 1 },
        { at: 1, celsius: 1 },
      ]),
    ).toThrow(/rise in time/);
    expect(() => unpackReadings(packReadings([{ at: 1e12, celsius: 300 }]).slice(0, 3))).toThrow(/cut off/);
  });
});

describe('line protocol', () => {
  test('what is written is read', () => {
    expect(parseDeviceLine(greetingLine())).toEqual({ kind: 'greeting', version: 1 });
    expect(parseDeviceLine(channelLine(2, 'mold', 'C'))).toEqual({
      kind: 'channel',
      channel: 2,
      name: 'mold',
      unit: 'C',
    });
    expect(parseDeviceLine(readingLine(1, 17e11, 371.44))).toEqual({
      kind: 'reading',
      channel: 1,
      at: 17e11,
      value: 371.4,
    });
    expect(parseDeviceLine(readingLine(1, 17e11, null))).toMatchObject({ value: null });
    expect(parseDeviceLine('battery 80')).toEqual({ kind: 'other' });
  });
  test.each(['r 1 soon 371', 'r 1 1700000000000', 'r one 1 2', 'channel 1 POT C', 'channel 1 pot K', 'r 1 1 1e9'])(
    '%s is refused',
    (line) => expect(() => parseDeviceLine(line)).toThrow(/no line of its protocol/),
  );
});

describe('importing a log', () => {
  const mapping: LogMapping = {
    timeColumn: 'Time',
    timeIs: 'date and time',
    startAt: Date.UTC(2026, 4, 31, 12),
    columns: [{ column: 'Oven F', place: 'oven', unit: 'F' }],
  };
  const row = (Time: string, value: string) => ({ Time, 'Oven F': value });

  test('Fahrenheit, decimal commas, empty cells and gaps', () => {
    const rows = [
      row('2026-05-31 18:00:00', '212'),
      row('2026-05-31 18:00:10', '351,5'),
      row('2026-05-31 18:00:20', '--'),
      row('2026-05-31 18:00:30', '350 °F'),
      row('2026-05-31 18:09:00', '350'),
    ];
    const log = importLog(rows, mapping);
    expect(log).toMatchObject({ rows: 5, empty: 1 });
    expect(log.series[0]!.readings[0]!.celsius).toBeCloseTo(100, 9);
    expect(log.series[0]!.readings[1]!.celsius).toBeCloseTo(177.5, 9);
    expect(log.gaps).toHaveLength(1);
    expect(log.gaps[0]!.toAt - log.gaps[0]!.fromAt).toBe(510_000);
  });
  test('clock times go on past midnight; passed time counts from the start', () => {
    const clock = importLog([row('23:59:50', '200'), row('00:00:10', '200')], mapping).series[0]!.readings;
    expect(clock[1]!.at - clock[0]!.at).toBe(20_000);
    const passed = importLog([row('0', '200'), row('1,5', '200')], { ...mapping, timeIs: 'minutes' }).series[0]!
      .readings;
    expect(passed[0]!.at).toBe(mapping.startAt);
    expect(passed[1]!.at - passed[0]!.at).toBe(90_000);
  });
  test.each([
    [row('soon', '200'), /Time, row 2 is "soon"/],
    [row('18:00', 'hot'), /Oven F, row 2 is "hot"; allowed: a temperature from -60 to 900 C/],
    [row('18:00', '9999'), /Oven F, row 2/],
  ])('%j is refused by row, column and value', (bad, message) =>
    expect(() => importLog([bad], mapping)).toThrow(message),
  );
  test('rows out of order and a column that is not there are refused', () => {
    expect(() => importLog([row('2026-05-31 18:00', '1'), row('2026-05-31 17:00', '1')], mapping)).toThrow(
      /row before/,
    );
    expect(() => importLog([row('18:00', '1')], { ...mapping, timeColumn: 'When' })).toThrow(/allowed: Time, Oven F/);
    expect(() => importLog([], { ...mapping, columns: [] })).toThrow(/one probe column/);
  });
  test('headings are guessed', () => {
    const guess = guessMapping(['Elapsed s', 'Melt °F', 'Mold C'], 0);
    expect(guess.timeIs).toBe('seconds');
    expect(guess.columns).toEqual([
      { column: 'Melt °F', place: 'pot', unit: 'F' },
      { column: 'Mold C', place: 'mold', unit: 'C' },
    ]);
  });
  test.each([
    ['Oven Fahrenheit', 'F'],
    ['oven_f', 'F'],
    ['OVEN (F)', 'F'],
    ['temp_oven_F', 'F'],
    ['oven fan', 'C'],
    ['Oven first', 'C'],
    ['oven_c', 'C'],
  ])('a probe headed %s is in %s', (heading, unit) =>
    expect(guessMapping(['Time', heading], 0).columns).toEqual([{ column: heading, place: 'oven', unit }]),
  );
  test('figures that can be no Celsius are noticed: an oven that bakes at 350, a pot at 700', () => {
    const rows = ['68', '349.6', '', 'open', '351,2'].map((Oven) => ({ Oven }));
    expect(tooHotForCelsius(rows, { column: 'Oven', place: 'oven' })).toBe(351.2);
    expect(tooHotForCelsius(rows, { column: 'Oven', place: 'pot' })).toBeNull();
    expect(tooHotForCelsius([{ Melt: '700' }], { column: 'Melt', place: 'pot' })).toBe(700);
    expect(tooHotForCelsius([{ Oven: '230' }], { column: 'Oven', place: 'oven' })).toBeNull();
    expect(tooHotForCelsius([{ Room: '999' }], { column: 'Room', place: 'other' })).toBeNull();
  });
  test('a steady log has no gap', () =>
    expect(gapsIn([[0, 1, 2, 3].map((i) => ({ at: 60_000 * i, celsius: 1 }))])).toEqual([]));
});

describe('heat-ups in a record', () => {
  const at = (celsius: number[], from = 0) => celsius.map((c, i) => ({ at: from + 10_000 * i, celsius: c }));
  const up = (from: number, to: number) => Array.from({ length: 30 }, (_, i) => from + ((to - from) * i) / 29);
  test('the plateau of the melting metal belongs to it, the fall after feeding ends it', () => {
    const plateau = new Array<number>(60).fill(327.4);
    const readings = at([...up(20, 327), ...plateau, ...up(328, 372), ...up(371, 350), ...up(350, 372)]);
    const found = heatUpsIn(readings);
    expect(found).toHaveLength(1);
    expect(found[0]![0]!.celsius).toBe(20);
    expect(found[0]!.at(-1)!.celsius).toBeGreaterThan(362);
    expect(found[0]!.at(-1)!.celsius).toBeLessThan(368);
  });
  test('after a cold charge it heats up again: the fuller of the two tells of the pot', () => {
    const readings = at([...up(20, 372), ...up(371, 286), ...up(286, 372)]);
    expect(heatUpsIn(readings).length).toBe(2);
    expect(fullestHeatUp(readings)![0]!.celsius).toBe(20);
  });
  test('a pot that only holds its heat is none', () => {
    expect(heatUpsIn(at(Array.from({ length: 200 }, (_, i) => 370 + 4 * Math.sin(i / 5))))).toEqual([]);
    expect(heatUpsIn([])).toEqual([]);
    expect(fullestHeatUp([])).toBeUndefined();
  });
});
