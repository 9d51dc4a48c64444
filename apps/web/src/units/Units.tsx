import {
  KG_PER_POUND,
  M_PER_INCH,
  writeBulkMass,
  lengthText,
  parseLength,
  writeLength,
  writeHeadMass,
  writeMoney,
  writeSpan,
  partKind,
  saidAs,
  writeTemperature,
  type MassUnit,
  type SaidUnit,
  type TemperatureUnit,
  type Unit,
  type Written,
} from '@schmelz/core';
import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { useSettings } from '../api/queries.ts';

export interface Units {
  massUnit: MassUnit;
  temperatureUnit: TemperatureUnit;
  currency: string;
  head(kg: number): string;
  bulk(kg: number): string;
  bulkParts(kg: number): Written;
  /** So much of a part, in the unit of its kind. */
  part(kind: string, quantity: number): string;
  temperature(celsius: number): string;
  money(minor: number, extraDigits?: number): string;
  /** A length in a form; none is empty. And what was typed there, m: in mm or inches where no unit is said. */
  lengthText(metres: number | null | undefined): string;
  readLength(field: string, text: string): number;
  /** A sentence of the core or the server with its quantities as the maker writes them. */
  said(sentence: string): string;
  /** Any figure of the core with its unit, as the maker writes it. */
  write(value: number | string, unit: Unit): string;
}

const joined = ({ figure, unit }: Written) => (unit.startsWith('°') ? `${figure} ${unit}` : `${figure} ${unit}`);

const KG_PER_GRAIN = KG_PER_POUND / 7000;

/** What powder weighs on one head: milligrams, or grains beside ounces. */
function small(kg: number, massUnit: MassUnit): string {
  const [size, unit] = massUnit === 'oz' ? [kg / KG_PER_GRAIN, 'gr'] : [1e6 * kg, 'mg'];
  return `${size < 9.95 ? size.toFixed(1) : Math.round(size)} ${unit}`;
}

/** Below it a mass is that of a head, kg. */
const LARGEST_HEAD_KG = 0.5;
const ofMass = (kg: number): [number, Unit] => [kg, Math.abs(kg) < LARGEST_HEAD_KG ? 'head-kg' : 'kg'];
const SAID: Record<SaidUnit, (value: number) => [number, Unit]> = {
  kg: ofMass,
  g: (value) => ofMass(value / 1000),
  C: (value) => [value, 'C'],
  '°C': (value) => [value, 'C'],
  K: (value) => [value, 'K'],
  mm: (value) => [value / 1000, 'm'],
  m: (value) => [value, 'm'],
};

function makeUnits(massUnit: MassUnit, temperatureUnit: TemperatureUnit, currency: string): Units {
  const kelvin = (value: number) =>
    temperatureUnit === 'F' ? `${Math.round(value * 18) / 10} °F` : `${Math.round(value * 10) / 10} K`;
  const money = (minor: number, extraDigits = 0) => writeMoney(minor, currency, extraDigits);
  const units: Units = {
    massUnit,
    temperatureUnit,
    currency,
    head: (kg) => joined(writeHeadMass(kg, massUnit)),
    bulk: (kg) => joined(writeBulkMass(kg, massUnit)),
    bulkParts: (kg) => writeBulkMass(kg, massUnit),
    part(kind, quantity) {
      switch (partKind(kind).unit) {
        case 'kg':
          return units.bulk(quantity);
        case 'pieces':
          return String(Math.round(quantity));
        case 'm':
          return joined(writeLength(quantity, massUnit));
        case 'ml':
          return `${Math.round(quantity * 10) / 10} ml`;
      }
    },
    lengthText: (metres) => (metres ? lengthText(metres, massUnit) : ''),
    readLength: (field, text) => parseLength(text, massUnit, field),
    temperature: (celsius) => joined(writeTemperature(celsius, temperatureUnit)),
    money,
    said: (sentence) => saidAs(sentence, (value, unit) => units.write(...SAID[unit](value))),
    write(value, unit) {
      if (typeof value === 'string') return value;
      switch (unit) {
        case 'head-kg':
          return units.head(value);
        case 'kg':
          return units.bulk(value);
        case 'powder-kg':
          return small(value, massUnit);
        case 's':
          return writeSpan(value);
        case 'C':
          return units.temperature(value);
        case 'minor':
          return money(value);
        case 'minor/head':
          return money(value, 1);
        case 'minor/kg':
          return massUnit === 'oz' ? `${money(value * KG_PER_POUND)}/lb` : `${money(value)}/kg`;
        case 'minor/h':
          return `${money(value)}/h`;
        case 'minor/kWh':
          return `${money(value)}/kWh`;
        case 'ratio':
          return `${Math.round(value * 1000) / 10} %`;
        case 'count':
          return String(Math.round(value * 100) / 100);
        case 'm':
          return joined(writeLength(value, massUnit));
        case 'ml':
          return `${Math.round(value * 10) / 10} ml`;
        case 'm2':
          return massUnit === 'oz'
            ? `${(value / M_PER_INCH ** 2).toFixed(2)} in²`
            : `${Math.round(value * 1e6) / 100} cm²`;
        case 'W':
          return `${Math.round(value)} W`;
        case 'kWh':
          return `${Math.round(value * 100) / 100} kWh`;
        case 'K':
          return kelvin(value);
        case 'W/K':
          return temperatureUnit === 'F' ? `${(value / 1.8).toFixed(2)} W/°F` : `${Math.round(value * 100) / 100} W/K`;
        case 'J/K':
          return temperatureUnit === 'F' ? `${Math.round(value / 1.8)} J/°F` : `${Math.round(value)} J/K`;
        case 'W/m2K':
          return `${Math.round(value)} W/m²K`;
        case 'm/s':
          return `${Math.round(value * 100) / 100} m/s`;
        case 'ug/m3':
          return `${value < 1 ? Math.round(value * 100) / 100 : Math.round(value)} µg/m³`;
        case 'kg/m3':
          return massUnit === 'oz'
            ? `${((value * M_PER_INCH ** 3) / KG_PER_POUND).toFixed(3)} lb/in³`
            : `${(value / 1000).toFixed(2)} g/cm³`;
        case 'K/month':
          return `${kelvin(value)} a month`;
        case 'text':
          return String(value);
      }
    },
  };
  return units;
}

const UnitsContext = createContext<Units>(makeUnits('g', 'C', 'EUR'));

/** The maker's units for everything below. */
export function UnitsProvider({ children }: { children: ReactNode }) {
  const { data } = useSettings();
  const { massUnit = 'g', temperatureUnit = 'C', currency = 'EUR' } = data ?? {};
  const units = useMemo(() => makeUnits(massUnit, temperatureUnit, currency), [massUnit, temperatureUnit, currency]);
  return <UnitsContext value={units}>{children}</UnitsContext>;
}

export const useUnits = (): Units => useContext(UnitsContext);
