/** Exact by definition: NIST SP 811 (2008), appendix B.8. */
export const KG_PER_OUNCE = 0.028349523125;
export const KG_PER_POUND = 0.45359237;
export const M_PER_INCH = 0.0254;
export const J_PER_KWH = 3.6e6;

/** CODATA 2018, exact: J/(mol K). */
export const GAS_CONSTANT = 8.314462618;

export const ZERO_CELSIUS_K = 273.15;

export const celsiusToFahrenheit = (celsius: number): number => (celsius * 9) / 5 + 32;
export const fahrenheitToCelsius = (fahrenheit: number): number => ((fahrenheit - 32) * 5) / 9;
export const celsiusToKelvin = (celsius: number): number => celsius + ZERO_CELSIUS_K;
export const kgToOunces = (kg: number): number => kg / KG_PER_OUNCE;
export const ouncesToKg = (ounces: number): number => ounces * KG_PER_OUNCE;
export const kgToPounds = (kg: number): number => kg / KG_PER_POUND;
export const poundsToKg = (pounds: number): number => pounds * KG_PER_POUND;
