export {
  G_PER_OZ,
  METRIC,
  ML_PER_FL_OZ,
  celsiusToFahrenheit,
  fahrenheitToCelsius,
  inWords,
  showClock,
  showMass,
  showTemperature,
  showVolume,
} from './quantity';
export type { MassUnit, Shown, TemperatureUnit, Units, VolumeUnit } from './quantity';
export { readMass, readNumber, readTemperature, readVolume } from './parse';
export type { DecimalMark } from './parse';
export type { Read } from './parse';
