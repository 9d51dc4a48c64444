/**
 * The line protocol of probes and scales, real or simulated: lines of ASCII over TCP, each ended by a line feed.
 *
 *   schmelz-device 1                 greeting with the version   channel 1 pot C                  a channel: number,
 * name, unit (C, F or kg)   r 1 1764057600000 371.4          a reading: channel, ms since 1970, value   r 1
 * 1764057601000 -              a drop-out: the probe gave nothing
 *
 * Lines of other words are passed over, so that a device may say more than we understand.
 */
const PROTOCOL_VERSION = 1;
export const LONGEST_LINE = 200;
export type DeviceUnit = 'C' | 'F' | 'kg';

type DeviceLine =
  | { kind: 'greeting'; version: number }
  | { kind: 'channel'; channel: number; name: string; unit: DeviceUnit }
  | { kind: 'reading'; channel: number; at: number; value: number | null }
  | { kind: 'other' };

/**
 * Reads one line; throws a RangeError that quotes a line which begins right and goes on wrong.
 * @example parseDeviceLine('battery 80').kind // 'other'
 */
export function parseDeviceLine(line: string): DeviceLine {
  const words = line.trim().split(/\s+/);
  const bad = () =>
    new RangeError(`The device sent ${JSON.stringify(line.slice(0, 60))}, which is no line of its protocol.`);
  const whole = (text: string | undefined) => {
    if (!text || !/^\d{1,15}$/.test(text)) throw bad();
    return Number(text);
  };
  switch (words[0]) {
    case 'schmelz-device':
      return { kind: 'greeting', version: whole(words[1]) };
    case 'channel': {
      const unit = words[3];
      if (!/^[a-z][a-z0-9-]{0,30}$/.test(words[2] ?? '') || (unit !== 'C' && unit !== 'F' && unit !== 'kg'))
        throw bad();
      return { kind: 'channel', channel: whole(words[1]), name: words[2]!, unit };
    }
    case 'r': {
      const text = words[3];
      if (text === undefined || (text !== '-' && !/^-?\d{1,6}(\.\d{1,6})?$/.test(text))) throw bad();
      return {
        kind: 'reading',
        channel: whole(words[1]),
        at: whole(words[2]),
        value: text === '-' ? null : Number(text),
      };
    }
    default:
      return { kind: 'other' };
  }
}

/**
 * The first line of a device.
 * @example greetingLine().trim() // 'schmelz-device 1'
 */
export const greetingLine = () => `schmelz-device ${PROTOCOL_VERSION}\n`;
/**
 * What a device says of one of its channels.
 * @example channelLine(2, 'mold', 'C').trim() // 'channel 2 mold C'
 */
export const channelLine = (channel: number, name: string, unit: DeviceUnit) => `channel ${channel} ${name} ${unit}\n`;
/**
 * One reading of a device; a dash where its probe gave none.
 * @example readingLine(1, 1700000000000, null).trim() // 'r 1 1700000000000 -'
 */
export const readingLine = (channel: number, at: number, value: number | null, digits = 1) =>
  `r ${channel} ${Math.round(at)} ${value === null ? '-' : value.toFixed(digits)}\n`;
