/**
 * Readings packed for the shelf: the first time and value stand outside; then each reading is two variable-length
 * numbers, milliseconds since the one before and the change in tenths of a degree. A quiet probe at one a second takes
 * 3 bytes each. Values are rounded to a tenth, finer than any thermocouple is good for.
 */
export interface Reading {
  /** ms since 1970 */
  at: number;
  celsius: number;
}

const TENTHS = 10;
/**
 * @example toTenths(371.26) // 3713
 */
export const toTenths = (celsius: number): number => Math.round(celsius * TENTHS);
/**
 * @example fromTenths(3713) // 371.3
 */
export const fromTenths = (tenths: number): number => tenths / TENTHS;

/**
 * Packs readings in rising order of time. @throws RangeError where time runs backwards
 * @example packReadings([{ at: 1000, celsius: 20.5 }]).length // 4
 */
export function packReadings(readings: readonly Reading[]): Uint8Array {
  const bytes: number[] = [];
  // Signed numbers are folded so that small ones of either sign stay short; times may need more than 32 bits.
  const put = (value: number) => {
    let rest = value < 0 ? -2 * value - 1 : 2 * value;
    while (rest >= 128) {
      bytes.push((rest % 128) + 128);
      rest = Math.floor(rest / 128);
    }
    bytes.push(rest);
  };
  let [at, tenths] = [0, 0];
  for (const reading of readings) {
    const step = Math.round(reading.at) - at;
    if (step < 0) throw new RangeError(`readings must rise in time: ${reading.at} comes after ${at}`);
    const value = toTenths(reading.celsius);
    put(step);
    put(value - tenths);
    [at, tenths] = [at + step, value];
  }
  return Uint8Array.from(bytes);
}

/**
 * Unpacks what {@link packReadings} made.
 * @example unpackReadings(packReadings([{ at: 1000, celsius: 20.5 }])) // [{ at: 1000, celsius: 20.5 }]
 */
export function unpackReadings(bytes: Uint8Array): Reading[] {
  const readings: Reading[] = [];
  let i = 0;
  const get = () => {
    let [value, scale] = [0, 1];
    for (;;) {
      const byte = bytes[i++];
      if (byte === undefined) throw new RangeError('the packed readings are cut off');
      value += (byte & 127) * scale;
      if (byte < 128) break;
      scale *= 128;
    }
    return value % 2 ? -(value + 1) / 2 : value / 2;
  };
  let [at, tenths] = [0, 0];
  while (i < bytes.length) {
    at += get();
    tenths += get();
    readings.push({ at, celsius: fromTenths(tenths) });
  }
  return readings;
}
