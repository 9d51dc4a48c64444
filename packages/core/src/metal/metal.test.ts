import fc from 'fast-check';
import table from 'periodic-table';
import { castMassKg, massShareOfLead } from '../cast/cast-mass.ts';
import { QuantityError } from '../quantity/check.ts';
import { M_PER_INCH } from '../quantity/units.ts';
import { LEAD_LIQUIDUS_J_KG, LEAD_SOLIDUS_J_KG, leadEnthalpyJKg, leadStateAt } from './enthalpy.ts';
import {
  castingMetal,
  idealMixtureKgM3,
  LEAD_MELTING_C,
  LEAD_SOLID_AT_MELTING_KG_M3,
  LEAD_SOLID_KG_M3,
} from './materials.ts';

describe('lead', () => {
  // npm periodic-table: density in g/cm3, melting point in K.
  test('density and melting point agree with an open table of the elements', () => {
    const lead = table.symbols['Pb']!;
    expect(LEAD_SOLID_KG_M3 / 1000).toBeCloseTo(Number(lead.density), 2);
    expect(Math.abs(LEAD_MELTING_C + 273.15 - Number(lead.meltingPoint))).toBeLessThan(0.5);
  });

  // CRC Handbook values, from memory: 41.5 kJ/kg solid at 327 C, 64.5 melted, 70.9 at 371 C, 75.2 at 400 C.
  test.each([
    ['solid at the melting point', LEAD_SOLIDUS_J_KG, 41_500],
    ['melted', LEAD_LIQUIDUS_J_KG, 64_500],
    ['at 371 C', leadEnthalpyJKg(371), 70_900],
    ['at 400 C', leadEnthalpyJKg(400), 75_200],
  ])('enthalpy %s', (_, ours, expected) => expect(Math.abs(ours - expected)).toBeLessThan(100));

  test('state is the inverse of enthalpy', () => {
    fc.assert(
      fc.property(fc.double({ min: -20, max: 600, noNaN: true }), (celsius) => {
        expect(leadStateAt(leadEnthalpyJKg(celsius)).temperatureC).toBeCloseTo(celsius, 6);
      }),
    );
    expect(leadStateAt((LEAD_SOLIDUS_J_KG + LEAD_LIQUIDUS_J_KG) / 2)).toEqual({
      temperatureC: LEAD_MELTING_C,
      moltenShare: expect.closeTo(0.5, 9),
    });
  });

  test('just frozen lead is 11038 kg/m3', () => expect(LEAD_SOLID_AT_MELTING_KG_M3).toBeCloseTo(11038, 0));
});

describe('cast mass', () => {
  // Published density of the eutectic 58/42 is 8.56 g/cm3 (alloy data sheets, from memory).
  test('bismuth-tin by ideal mixing', () => {
    const mixed = idealMixtureKgM3([
      { massFraction: 0.58, densityKgM3: 9790 },
      { massFraction: 0.42, densityKgM3: 7290 },
    ]);
    expect(mixed / 1000).toBeCloseTo(8.56, 2);
  });
  test('shares of lead: bismuth-tin 0.755, tyre weights 0.977', () => {
    expect(massShareOfLead('bismuth-tin')).toBeCloseTo(0.755, 2);
    expect(massShareOfLead('tyre-weight')).toBeCloseTo(0.977, 2);
    expect(() => castingMetal('gold')).toThrow(/allowed: soft-lead/);
  });
  test('the stamp is the mass in soft lead', () => expect(castMassKg({ nominalMassKg: 0.014 })).toBeCloseTo(0.014, 9));
  test('a 1/8 inch pin 10 mm deep takes 0.9 g', () => {
    const without = castMassKg({ nominalMassKg: 0.014 });
    const withPin = castMassKg({ nominalMassKg: 0.014, pinDiameterM: M_PER_INCH / 8, pinLengthM: 0.01 });
    expect((without - withPin) * 1000).toBeCloseTo(0.9, 1);
  });
  test('refuses what leaves no metal, and negative masses, by name', () => {
    expect(() => castMassKg({ nominalMassKg: 0.001, extraInsertVolumeM3: 1e-6 })).toThrow(/metalVolumeM3/);
    expect(() => castMassKg({ nominalMassKg: -1 })).toThrow(QuantityError);
    expect(() => castMassKg({ nominalMassKg: Number.NaN })).toThrow(/nominalMassKg is NaN/);
  });
});
