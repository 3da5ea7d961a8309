/** Fields for quantities: typed in the bar's unit, kept in ours; what is no number yet stays as it is typed. */
import { useState } from 'react';
import { screen } from '@testing-library/react-native';
import { METRIC, type Units } from '@even-kettle/core/units';
import { OUNCES, showPage, type } from '../testing/bar';
import { UnitField } from './unit-field';

let kept: number[] = [];
function Quantity(props: {
  quantity: 'mass' | 'volume' | 'temperature';
  units: Units;
  label: string;
  from: number;
}) {
  const { from, ...rest } = props;
  const [value, setValue] = useState(from);
  kept.push(value);
  return <UnitField {...rest} value={value} onChange={setValue} fault={!(value > 0)} />;
}
const show = (field: React.JSX.Element) => {
  kept = [];
  showPage(field);
};
const shown = (label: string) => String(screen.getByLabelText(label).props.value);

test('ounces, fluid ounces and Fahrenheit are typed and shown; grams, millilitres and Celsius are kept', () => {
  show(<Quantity quantity="mass" units={OUNCES} label="Dose" from={28.3495} />);
  expect(shown('Dose, oz')).toBe('1');
  type('Dose, oz', '0.6');
  expect(kept.at(-1)).toBeCloseTo(17.0097, 4);
  expect(shown('Dose, oz')).toBe('0.6');
  screen.unmount();
  show(<Quantity quantity="volume" units={OUNCES} label="Cup" from={236.588} />);
  expect(shown('Cup, fl oz')).toBe('8');
  screen.unmount();
  show(<Quantity quantity="temperature" units={OUNCES} label="Water" from={94} />);
  expect(shown('Water, °F')).toBe('201.2');
  type('Water, °F', '212');
  expect(kept.at(-1)).toBeCloseTo(100, 6);
});

test('what is no number yet stays as typed and is not taken for one', () => {
  show(<Quantity quantity="mass" units={METRIC} label="Dose" from={18} />);
  for (const text of ['', '1', '1,', 'l8', '17.']) {
    type('Dose, g', text);
    expect(shown('Dose, g')).toBe(text);
  }
  type('Dose, g', 'plenty');
  expect(kept.at(-1)).toBeNaN();
  for (const text of ['17,5', '17.5']) {
    type('Dose, g', text);
    expect([kept.at(-1), shown('Dose, g')]).toEqual([17.5, text]);
  }
});
