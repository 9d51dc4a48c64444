import fc from 'fast-check';
import { mixedColour } from './mix-colour.ts';

const colour = () => fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);

describe('two powders shaken together', () => {
  // IEC 61966-2-1 worked by hand: half the light of white is 0.7354 of full scale, 188 of 255.
  test('half black, half white has half the light', () =>
    expect(mixedColour('#000000', '#ffffff', 0.5)).toBe('#bcbcbc'));
  test('none and all of the second are the powders themselves', () => {
    fc.assert(
      fc.property(colour(), colour(), (a, b) => {
        expect(mixedColour(a, b, 0)).toBe(a);
        expect(mixedColour(a, b, 1)).toBe(b);
      }),
    );
  });
  test('more of the second never moves a channel away from it', () => {
    const red = (hex: string) => parseInt(hex.slice(1, 3), 16);
    fc.assert(
      fc.property(
        colour(),
        colour(),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (a, b, p, q) => {
          const away = (share: number) => Math.abs(red(mixedColour(a, b, share)) - red(b));
          expect(away(Math.max(p, q))).toBeLessThanOrEqual(away(Math.min(p, q)));
        },
      ),
    );
  });
  test('what is no colour and no share is refused by name', () => {
    expect(() => mixedColour('red', '#ffffff', 0.5)).toThrow(/colour is red; allowed: a colour as #a1b2c3/);
    expect(() => mixedColour('#000000', '#ffffff', 1.5)).toThrow(/share is 1.5/);
  });
});
