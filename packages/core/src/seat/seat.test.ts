import { seatOf, seatVerdict, type SeatTrial } from './seat.ts';

const trial = (more: Partial<SeatTrial>): SeatTrial => ({
  at: 1,
  prepared: 'as it is',
  sound: 'click',
  seamFlush: true,
  note: '',
  ...more,
});

describe('fit finder', () => {
  // Common practice, no source.
  test.each([
    ['3/0', 60, 'as cut'],
    ['3/0', 45, 'if bent'],
    ['4/0', 60, 'with a change'],
    ['5/0', 60, 'with a change'],
    ['2/0', 60, 'no'],
    ['3/0', 90, 'no'],
    ['6/0', 60, 'no'],
  ] as const)('%s with %d° in a cavity for 3/0 and 60°: %s', (hookSize, eyeAngleDeg, seat) => {
    expect(seatOf({ hookSize: '3/0', eyeAngleDeg: 60 }, { hookSize, eyeAngleDeg }).seat).toBe(seat);
  });
  test('a 30 degree eye seats where 28 was meant', () => {
    expect(seatOf({ hookSize: '1', eyeAngleDeg: 28 }, { hookSize: '1', eyeAngleDeg: 30 }).seat).toBe('as cut');
  });
  test('heavy wire and wide bends want the groove changed; thin wire lies loose', () => {
    const cut = { hookSize: '2/0', eyeAngleDeg: 60 } as const;
    expect(seatOf(cut, { ...cut, wire: 'heavy' }).seat).toBe('with a change');
    expect(seatOf(cut, { ...cut, bend: 'wide' }).seat).toBe('with a change');
    expect(seatOf(cut, { ...cut, wire: 'light' }).because).toMatch(/loose/);
    expect(seatOf({ ...cut, wire: 'heavy' }, { ...cut, wire: 'heavy' }).seat).toBe('as cut');
  });
  // Sizes from different makers under one number are not the same: common practice, no source.
  test('a measured length outranks the size number', () => {
    const cut = { hookSize: '2/0', eyeAngleDeg: 60 } as const;
    expect(seatOf(cut, { ...cut, lengthM: 0.042 }).seat).toBe('with a change');
    expect(seatOf(cut, { ...cut, hookSize: '3/0', lengthM: 0.0359 }).seat).toBe('as cut');
  });
  test('what was tried outranks the estimate, both ways', () => {
    const cut = { hookSize: '2/0', eyeAngleDeg: 60 } as const;
    const heavy = { ...cut, wire: 'heavy' } as const;
    expect(seatVerdict(cut, heavy, [])).toMatchObject({ basis: 'given', seat: 'with a change' });
    expect(seatVerdict(cut, heavy, [trial({ note: 'some fumbling' })])).toMatchObject({
      basis: 'measured',
      seat: 'as cut',
      because: 'tried, it clicks and the seam is flush: some fumbling',
    });
    expect(seatVerdict(cut, cut, [trial({ sound: 'thud' })])).toMatchObject({ seat: 'no', basis: 'measured' });
    expect(seatVerdict(cut, cut, [trial({ sound: 'thud' }), trial({ at: 2 })]).seat).toBe('as cut');
    expect(seatVerdict(cut, { ...cut, eyeAngleDeg: 45 }, [trial({ seamFlush: false })]).seat).toBe('if bent');
  });
});
