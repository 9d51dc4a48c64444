/** A clock off by less is what a bench goes by; by more it is wrong by a day or a year. The server trusts as much. */
const TRUST_MS = 6 * 3600 * 1000;

let aheadMs: number | null = null;

/**
 * Hears from the server what time it is, once for as long as the page is open: waits that another device has begun end
 * by the server's clock, and a device with the wrong day or year would show them for ever or not at all.
 * @param said the Date header of an answer
 */
export function heedClock(said: string | null): void {
  const server = Date.parse(said ?? '');
  if (aheadMs !== null || Number.isNaN(server)) return;
  const ahead = Date.now() - server;
  aheadMs = Math.abs(ahead) > TRUST_MS ? ahead : 0;
}

/** The time, ms since 1970: this device's, put right where it is far off. */
export const now = (): number => Date.now() - (aheadMs ?? 0);
