const HOUR_MS = 3600 * 1000;

/** The module as a page that has just been opened has it. */
async function opened() {
  jest.resetModules();
  return import('./now.ts');
}
const server = Date.UTC(2026, 5, 1, 20, 0, 0);
const said = new Date(server).toUTCString();

describe('the time on a device', () => {
  const device = jest.spyOn(Date, 'now');
  afterAll(() => device.mockRestore());

  test.each([
    ['a year ahead', 365 * 24 * HOUR_MS, 0],
    ['a day behind', -24 * HOUR_MS, 0],
    ['five hours ahead: its own waits run by it', 5 * HOUR_MS, 5 * HOUR_MS],
    ['right', 0, 0],
  ])('%s', async (_, ahead, left) => {
    const { heedClock, now } = await opened();
    device.mockReturnValue(server + ahead);
    expect(now()).toBe(server + ahead); // nothing is known yet
    heedClock(said);
    expect(now()).toBe(server + left);
    device.mockReturnValue(server + ahead + 90_000);
    expect(now()).toBe(server + left + 90_000);
  });

  test('is settled once for a page: no wait jumps when the clock is set meanwhile; an answer without a date says nothing', async () => {
    const { heedClock, now } = await opened();
    device.mockReturnValue(server);
    heedClock(null);
    heedClock('not a date');
    heedClock(said);
    device.mockReturnValue(server + 48 * HOUR_MS);
    heedClock(said);
    expect(now()).toBe(server + 48 * HOUR_MS);
  });
});
