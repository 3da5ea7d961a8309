/**
 * A quantity typed in the bar's unit and kept in ours: grams, millilitres, degrees Celsius.
 */
import {
  G_PER_OZ,
  ML_PER_FL_OZ,
  celsiusToFahrenheit,
  fahrenheitToCelsius,
  type Units,
} from '@even-kettle/core/units';
import { NumberField, type NumberFieldProps } from './number-field';

type Quantity = 'mass' | 'volume' | 'temperature';
type Scale = { unit: string; shown: (kept: number) => number; kept: (shown: number) => number };

const SAME = { shown: (value: number) => value, kept: (value: number) => value };
const times = (size: number) => ({
  shown: (kept: number) => Number((kept / size).toFixed(3)),
  kept: (shown: number) => shown * size,
});

function scaleOf(quantity: Quantity, units: Units): Scale {
  if (quantity === 'mass') return { unit: units.mass, ...(units.mass === 'oz' ? times(G_PER_OZ) : SAME) };
  if (quantity === 'volume')
    return { unit: units.volume, ...(units.volume === 'fl oz' ? times(ML_PER_FL_OZ) : SAME) };
  return {
    unit: `°${units.temperature}`,
    ...(units.temperature === 'F'
      ? { shown: (kept) => Number(celsiusToFahrenheit(kept).toFixed(1)), kept: fahrenheitToCelsius }
      : SAME),
  };
}

type Props = NumberFieldProps & { quantity: Quantity; units: Units };

export function UnitField({ quantity, units, label, value, onChange, ...rest }: Props) {
  const { unit, shown, kept } = scaleOf(quantity, units);
  return (
    <NumberField
      key={unit}
      {...rest}
      label={`${label}, ${unit}`}
      value={shown(value)}
      onChange={(typed) => onChange(kept(typed))}
    />
  );
}
