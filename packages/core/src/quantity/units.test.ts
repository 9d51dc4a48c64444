import fc from 'fast-check';
import { QuantityError } from './check.ts';
import {
  currencyDigits,
  ounceText,
  writeBulkMass,
  writeClock,
  writeHeadMass,
  writeMoney,
  writeSpan,
  writeTemperature,
} from './format.ts';
import { parseMass, parseNumber, parseTemperature } from './parse.ts';
import {
  celsiusToFahrenheit,
  celsiusToKelvin,
  fahrenheitToCelsius,
  J_PER_KWH,
  KG_PER_OUNCE,
  KG_PER_POUND,
  kgToOunces,
  kgToPounds,
  M_PER_INCH,
  ouncesToKg,
  poundsToKg,
} from './units.ts';

describe('unit conversions, NIST SP 811 (2008) appendix B', () => {
  // B.8: ounce (avoirdupois) 2.834 952 E-02 kg, pound (avoirdupois) 4.535 924 E-01 kg, inch 2.54 E-02 m, kilowatt hour
  // 3.6 E+06 J.
  test.each([
    ['ounce to kg', KG_PER_OUNCE, 2.834952e-2],
    ['pound to kg', KG_PER_POUND, 4.535924e-1],
    ['inch to m', M_PER_INCH, 2.54e-2],
    ['kilowatt hour to J', J_PER_KWH, 3.6e6],
  ])('%s', (_, ours, published) => expect(ours / published).toBeCloseTo(1, 6));

  test('sixteen ounces are a pound', () => expect(16 * KG_PER_OUNCE).toBeCloseTo(KG_PER_POUND, 15));

  // B.9: t/C = (t/F - 32)/1.8; K = C + 273.15
  test('degrees', () => {
    expect(fahrenheitToCelsius(621)).toBeCloseTo(327.2, 1);
    expect(celsiusToFahrenheit(-40)).toBe(-40);
    expect(fahrenheitToCelsius(700)).toBeCloseTo(371.11, 2);
    expect(celsiusToKelvin(0)).toBe(273.15);
  });

  test('there and back is the same mass', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-4, max: 100, noNaN: true }), (kg) => {
        expect(ouncesToKg(kgToOunces(kg))).toBeCloseTo(kg, 10);
        expect(poundsToKg(kgToPounds(kg))).toBeCloseTo(kg, 10);
      }),
    );
  });
});

describe('masses as a maker writes them', () => {
  test.each([
    ['3/8 oz', 0.010631071171875],
    ['10 g', 0.01],
    ['10', 0.01],
    ['1 1/2 oz', 1.5 * KG_PER_OUNCE],
    ['2,5 kg', 2.5],
    ['20 lb', 9.0718474],
  ])('%s', (text, kg) => expect(parseMass(text, 'g')).toBeCloseTo(kg, 12));

  test.each(['', 'ten', '3/0 oz', '5 stone', '--4 g'])('refuses %p and says what is allowed', (text) => {
    expect(() => parseMass(text, 'g')).toThrow(QuantityError);
    expect(() => parseMass(text, 'g')).toThrow(/such as 10 g or 3\/8 oz/);
  });

  test.each([
    [0.375, '3/8'],
    [0.5, '1/2'],
    [1.5, '1 1/2'],
    [1 / 32, '1/32'],
    [2, '2'],
    [0.37, '0.37'],
  ])('%d oz is written %s', (ounces, text) => expect(ounceText(ounces)).toBe(text));

  test('a stamped fraction survives writing and reading', () => {
    const fractions = [1, 2, 3, 4, 6, 8, 12, 16, 24, 32, 48, 64, 96].map((n) => n / 64);
    for (const ounces of fractions) {
      const { figure, unit } = writeHeadMass(ounces * KG_PER_OUNCE, 'oz');
      expect(parseMass(`${figure} ${unit}`, 'oz')).toBeCloseTo(ounces * KG_PER_OUNCE, 12);
    }
  });

  test('figures and units apart', () => {
    expect(writeHeadMass(0.0009, 'g')).toEqual({ figure: '0.9', unit: 'g' });
    expect(writeBulkMass(31.42, 'g')).toEqual({ figure: '31.4', unit: 'kg' });
    expect(writeBulkMass(0.64, 'g')).toEqual({ figure: '640', unit: 'g' });
    expect(writeBulkMass(9.07, 'oz')).toEqual({ figure: '20.0', unit: 'lb' });
    expect(writeTemperature(371.1, 'F')).toEqual({ figure: '700', unit: '°F' });
    expect(parseTemperature('700 F', 'C')).toBeCloseTo(371.1, 1);
    expect(parseTemperature('370', 'C')).toBe(370);
    expect(() => parseTemperature('warm', 'C')).toThrow(/370 C or 700 F/);
    expect(parseNumber('1/0')).toBeNull();
  });

  test('clocks, spans and money', () => {
    expect([9, 135, 3760].map(writeClock)).toEqual(['9', '2:15', '1:02:40']);
    expect([40, 360, 4800].map(writeSpan)).toEqual(['40 s', '6 min', '80 min']);
    expect(writeMoney(4130, 'EUR')).toBe('€41.30');
    expect(writeMoney(41.3, 'EUR', 1)).toBe('€0.413');
    // ISO 4217: the yen has no minor unit, the dinar of Kuwait three places.
    expect([currencyDigits('JPY'), currencyDigits('KWD')]).toEqual([0, 3]);
  });
});
