/**
 * A day: typed as the viewer writes days, or chosen in a calendar.
 */
import { Suspense, lazy, useState } from 'react';
import { View, type StyleProp, type ViewStyle } from 'react-native';
import { HelperText } from 'react-native-paper';
import { Button } from './button';
import { readDay, showDay } from './days';
import { Field } from './field';
import { loadCalendar } from './load-parts';
import { WORDS } from './words';

/** The calendar comes as a script of its own, when it is first opened. */
const Calendar = lazy(loadCalendar);
const AN_EXAMPLE = '2026-11-20';

type Props = {
  label: string;
  /** ISO, like 2026-11-20; empty for none. */
  value: string;
  onChange: (day: string) => void;
  style?: StyleProp<ViewStyle>;
};

export function DayField({ label, value, onChange, style }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const fault = typed !== null && typed.trim() !== '' && readDay(typed) === null;
  return (
    <View style={style}>
      <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: 4 }}>
        <Field
          label={label}
          value={typed ?? showDay(value)}
          fault={fault}
          onChangeText={(text) => {
            setTyped(text);
            const day = text.trim() === '' ? '' : readDay(text);
            if (day !== null) onChange(day);
          }}
          onBlur={() => (fault ? undefined : setTyped(null))}
          style={{ flex: 1 }}
        />
        <Button
          icon="calendar"
          label=""
          says={WORDS.chooseInACalendar(label)}
          onPress={() => setOpen(true)}
          style={{ height: 56 }}
        />
      </View>
      {fault ? (
        <HelperText type="error" role="alert">
          {WORDS.typeADayLike(showDay(AN_EXAMPLE))}
        </HelperText>
      ) : null}
      {open ? (
        <Suspense fallback={null}>
          <Calendar
            label={label}
            value={value}
            onClose={() => setOpen(false)}
            onChoose={(day) => {
              setTyped(null);
              setOpen(false);
              onChange(day);
            }}
          />
        </Suspense>
      ) : null}
    </View>
  );
}
