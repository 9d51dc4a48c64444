import { coldMold, type HeatRecord } from './cold.ts';

const at = (moldC: number, casts: number, shorts: number): HeatRecord => ({ moldC, casts, shorts });

describe('when a mold is too cold, by its own record', () => {
  test('nobody has poured in it: what practice says, about 40 C', () => {
    expect(coldMold([]).belowC).toBeGreaterThan(38);
    expect(coldMold([]).belowC).toBeLessThan(43);
  });
  test('shorts that it gives just as often when it is warm are not from the cold', () => {
    const usual = coldMold([]).belowC;
    for (const warmC of [60, 70, 110]) {
      expect(Math.abs(coldMold([at(warmC, 200, 40), at(45, 200, 40)]).belowC - usual)).toBeLessThan(2);
    }
    // The same shorts at 45 C are from the cold where a warm mold has next to none, or was never seen warm.
    expect(coldMold([at(70, 200, 2), at(45, 200, 40)]).belowC).toBeGreaterThan(usual + 3);
    expect(coldMold([at(45, 200, 40)]).belowC).toBeGreaterThan(usual + 3);
    // 59 C is no warm mold yet: its shorts are held against the cold.
    expect(coldMold([at(59, 200, 40), at(45, 200, 40)]).belowC).toBeGreaterThan(usual + 5);
  });
  test('a record that falls off outranks practice: the heat at which one head in five is short, by the eye', () => {
    // All good at 70, half of them at 50, next to none at 40.
    const { belowC, casts } = coldMold([at(70, 300, 3), at(60, 100, 4), at(50, 100, 50), at(40, 100, 95)]);
    expect(belowC).toBeGreaterThan(51);
    expect(belowC).toBeLessThan(59);
    expect(casts).toBe(600);
  });
  test('a cold record that is all good lets it go on colder', () => {
    expect(coldMold([at(34, 400, 2)]).belowC).toBeLessThan(coldMold([]).belowC - 2);
  });
  test('what cannot be is refused by name', () => {
    expect(() => coldMold([at(50, 10, 11)])).toThrow(/shorts is 11/);
    expect(() => coldMold([at(900, 10, 1)])).toThrow(/moldC is 900/);
  });
});
