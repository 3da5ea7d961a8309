/**
 * The editor's small parts: a number as it is typed, and faults at their fields.
 */
import { useState } from 'react';
import type { StyleProp, ViewStyle } from 'react-native';
import type { Fault } from '@even-kettle/core/recipe';
import { readNumber } from '@even-kettle/core/units';
import { Field } from '../../ui/field';
import { Text } from '../../ui/text';

/** The faults of a field and of what is in it. */
export type FaultsAt = (field: string) => Fault[];

type Props = {
  label: string;
  value: number;
  /** NaN while what is typed is no number: the recipe's own check then says so. */
  onChange: (value: number) => void;
  fault: boolean;
  testID?: string;
  style?: StyleProp<ViewStyle>;
};

export function NumberField({ label, value, onChange, fault, testID, style }: Props) {
  const [text, setText] = useState(String(value));
  const read = readNumber(text, label);
  const shown = read.ok && read.value !== value && !Number.isNaN(value) ? String(value) : text;
  return (
    <Field
      label={label}
      inputMode="decimal"
      value={shown}
      fault={fault}
      onChangeText={(typed) => {
        setText(typed);
        const typedNumber = readNumber(typed, label);
        onChange(typedNumber.ok ? typedNumber.value : NaN);
      }}
      {...(testID ? { testID } : {})}
      style={[{ width: 108 }, style]}
    />
  );
}

export function FaultLines({ faults }: { faults: readonly Fault[] }) {
  return faults.map(({ field, reason }) => (
    <Text key={`${field} ${reason}`} bold size="small" role="alert">
      {lastPart(field)}: {reason}
    </Text>
  ));
}

const lastPart = (field: string): string => field.split('.').findLast((part) => !/^\d+$/.test(part)) ?? field;
