/** Exact by definition: NIST SP 811 (2008), appendix B.8. */
export const KG_PER_OUNCE = 0.028349523125;
export const KG_PER_POUND = 0.45359237;
export const M_PER_INCH = 0.0254;
export const J_PER_KWH = 3.6e6;

/** CODATA 2018, exact: J/(mol K). */
export const GAS_CONSTANT = 8.314462618;

const ZERO_CELSIUS_K = 273.15;

/**
 * @example celsiusToFahrenheit(177) // 350.6
 */
export const celsiusToFahrenheit = (celsius: number): number => (celsius * 9) / 5 + 32;
/**
 * @example fahrenheitToCelsius(350) // 176.7
 */
export const fahrenheitToCelsius = (fahrenheit: number): number => ((fahrenheit - 32) * 5) / 9;
/**
 * @example celsiusToKelvin(20) // 293.1
 */
export const celsiusToKelvin = (celsius: number): number => celsius + ZERO_CELSIUS_K;
/**
 * @example kgToOunces(0.0142) // 0.5009
 */
export const kgToOunces = (kg: number): number => kg / KG_PER_OUNCE;
/**
 * @example ouncesToKg(0.5) // 0.01417
 */
export const ouncesToKg = (ounces: number): number => ounces * KG_PER_OUNCE;
/**
 * @example kgToPounds(9) // 19.84
 */
export const kgToPounds = (kg: number): number => kg / KG_PER_POUND;
/**
 * @example poundsToKg(20) // 9.072
 */
export const poundsToKg = (pounds: number): number => pounds * KG_PER_POUND;
