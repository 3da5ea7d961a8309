/** A number that may be left out: nothing typed is nothing said. */
import { useState } from 'react';
import type { StyleProp, ViewStyle } from 'react-native';
import { Field } from './field';
import { readTyped } from './typed';

export type OptionalNumberProps = {
  label: string;
  value: number | undefined;
  /** NaN while what is typed is no number; undefined where nothing is. */
  onChange: (value: number | undefined) => void;
  fault: boolean;
  testID?: string;
  style?: StyleProp<ViewStyle>;
};

const shownOf = (value: number | undefined) => (value === undefined ? '' : String(value));

export function OptionalNumber({ label, value, onChange, fault, testID, style }: OptionalNumberProps) {
  const [text, setText] = useState(shownOf(value));
  const valueOf = (typed: string): number | undefined => {
    if (typed.trim() === '') return undefined;
    const read = readTyped(typed, label);
    return read.ok ? read.value : NaN;
  };
  // What was changed elsewhere (undo) shows; what is being typed stays as it is typed.
  const shown = Object.is(valueOf(text), value) || Number.isNaN(value) ? text : shownOf(value);
  return (
    <Field
      label={label}
      inputMode="decimal"
      value={shown}
      fault={fault}
      onChangeText={(typed) => {
        setText(typed);
        onChange(valueOf(typed));
      }}
      {...(testID ? { testID } : {})}
      style={[{ width: 105 }, style]}
    />
  );
}
