/**
 * For turning what is stored (grams, millilitres, degrees Celsius) into what a person reads and types, in the
 * units that their bar is set to. Storage never changes with the setting.
 */

/** Grams in one avoirdupois ounce. */
export const G_PER_OZ = 28.3495;
/** Millilitres in one US fluid ounce. */
export const ML_PER_FL_OZ = 29.5735;

export type MassUnit = 'g' | 'oz';
export type TemperatureUnit = 'C' | 'F';
export type VolumeUnit = 'ml' | 'fl oz';

export type Units = { mass: MassUnit; temperature: TemperatureUnit; volume: VolumeUnit };

export const METRIC: Units = { mass: 'g', temperature: 'C', volume: 'ml' };

/** A figure and its unit separately, so that the figure can be shown large and the unit small. */
export type Shown = { figure: string; unit: string };

/** Degrees Celsius to degrees Fahrenheit (F = C x 9/5 + 32). */
export const celsiusToFahrenheit = (celsius: number): number => (celsius * 9) / 5 + 32;
/** Degrees Fahrenheit to degrees Celsius. */
export const fahrenheitToCelsius = (fahrenheit: number): number => ((fahrenheit - 32) * 5) / 9;

/**
 * A mass for people: `water` to 1 g or 0.1 oz (what a brew scale is poured to), `dose` to 0.1 g or 0.01 oz.
 * @param massG grams
 */
export function showMass(massG: number, units: Units, what: 'dose' | 'water'): Shown {
  if (units.mass === 'oz') {
    return { figure: (massG / G_PER_OZ).toFixed(what === 'dose' ? 2 : 1), unit: 'oz' };
  }
  return { figure: massG.toFixed(what === 'dose' ? 1 : 0), unit: 'g' };
}

/** A volume for people: 1 ml or 0.1 fl oz. @param volumeMl millilitres */
export function showVolume(volumeMl: number, units: Units): Shown {
  return units.volume === 'fl oz'
    ? { figure: (volumeMl / ML_PER_FL_OZ).toFixed(1), unit: 'fl oz' }
    : { figure: volumeMl.toFixed(0), unit: 'ml' };
}

/** A temperature for people, to a whole degree, or to a tenth where `tenths` is asked for. @param celsius degrees C */
export function showTemperature(celsius: number, units: Units, tenths = false): Shown {
  const value = units.temperature === 'F' ? celsiusToFahrenheit(celsius) : celsius;
  return { figure: value.toFixed(tenths ? 1 : 0), unit: `°${units.temperature}` };
}

/** Figure and unit in one piece of text: `165 g`, `94 °C`. */
export const inWords = (shown: Shown): string => `${shown.figure} ${shown.unit}`;

/** Seconds as m:ss, the bar's way of writing time; `-0:20` before the timer's anchor. Rounds down to whole seconds. */
export function showClock(seconds: number): string {
  const whole = Math.floor(Math.abs(seconds) + (seconds < 0 ? 0.999 : 0));
  const text = `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
  return seconds < 0 && whole > 0 ? `-${text}` : text;
}
