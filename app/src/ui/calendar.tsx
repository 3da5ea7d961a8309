/**
 * The month to choose a day from. Loaded when it is first opened.
 */
import { View } from 'react-native';
import { Calendar as Months, en, registerTranslation } from 'react-native-paper-dates';
import { Button } from './button';
import { dayOfMs, msOfDay } from './days';
import { Dialog } from './dialog';
import { WORDS } from './words';

// The viewer's own names of months and first day of the week, with the interface's own words.
const LOCALE = globalThis.navigator?.language ?? 'en-GB';
registerTranslation(LOCALE, en);
/** Browsers that do not say begin the week on Monday, as ISO 8601 does. */
const WEEK = (
  new Intl.Locale(LOCALE) as Intl.Locale & { getWeekInfo?: () => { firstDay: number } }
).getWeekInfo?.();
const MONDAY_FIRST = (WEEK?.firstDay ?? 1) === 1;

type Props = { label: string; value: string; onChoose: (day: string) => void; onClose: () => void };

export default function Calendar({ label, value, onChoose, onClose }: Props) {
  return (
    <Dialog title={label} onClose={onClose} actions={<Button label={WORDS.cancel} onPress={onClose} />}>
      {/* Six weeks, the days' names and the month's own line. */}
      <View style={{ height: 390, marginHorizontal: -12 }}>
        <Months
          mode="single"
          locale={LOCALE}
          startWeekOnMonday={MONDAY_FIRST}
          date={value === '' ? undefined : new Date(msOfDay(value))}
          onChange={({ date }) => (date ? onChoose(dayOfMs(date.getTime())) : onClose())}
        />
      </View>
    </Dialog>
  );
}
