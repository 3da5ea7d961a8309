/**
 * A number as it is typed: what is no number yet is kept as typed, and told as NaN.
 */
import { useState } from 'react';
import type { StyleProp, ViewStyle } from 'react-native';
import { Field } from './field';
import { readTyped } from './typed';

export type NumberFieldProps = {
  label: string;
  value: number;
  /** NaN while what is typed is no number: the recipe's own check then says so. */
  onChange: (value: number) => void;
  fault: boolean;
  testID?: string;
  style?: StyleProp<ViewStyle>;
};

export function NumberField({ label, value, onChange, fault, testID, style }: NumberFieldProps) {
  const [text, setText] = useState(String(value));
  const read = readTyped(text, label);
  const shown = read.ok && read.value !== value && !Number.isNaN(value) ? String(value) : text;
  return (
    <Field
      label={label}
      inputMode="decimal"
      value={shown}
      fault={fault}
      onChangeText={(typed) => {
        setText(typed);
        const typedNumber = readTyped(typed, label);
        onChange(typedNumber.ok ? typedNumber.value : NaN);
      }}
      {...(testID ? { testID } : {})}
      style={[{ width: 105 }, style]}
    />
  );
}
