/**
 * The month to choose a day from. Loaded when it is first opened.
 */
import { DatePickerModal, en, registerTranslation } from 'react-native-paper-dates';
import { dayOfMs, msOfDay } from './days';

// The viewer's own names of months and first day of the week, with the interface's own words.
const LOCALE = globalThis.navigator?.language ?? 'en-GB';
registerTranslation(LOCALE, { ...en, save: 'Choose', selectSingle: 'Choose a day' });

type Props = { label: string; value: string; onChoose: (day: string) => void; onClose: () => void };

export default function Calendar({ label, value, onChoose, onClose }: Props) {
  return (
    <DatePickerModal
      mode="single"
      locale={LOCALE}
      label={label}
      visible
      date={value === '' ? undefined : new Date(msOfDay(value))}
      onDismiss={onClose}
      onConfirm={({ date }) => (date ? onChoose(dayOfMs(date.getTime())) : onClose())}
    />
  );
}
