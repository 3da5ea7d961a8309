/**
 * What is going to be forgotten of earlier guests, and when: said once, on a bar that comes from an earlier version.
 */
import { useBar } from '../client/bar-context';
import { Note } from '../ui/note';
import { dayOfMs, showDay } from '../ui/days';
import { WORDS } from './words';

const AT = new Intl.DateTimeFormat(undefined, { dateStyle: 'long', timeStyle: 'short' });

export function GuestsDue() {
  const due = useBar().bar?.guestsDue;
  if (!due) return null;
  return <Note>{WORDS.guestsDue(due.orders, showDay(dayOfMs(due.sinceMs)), AT.format(due.atMs))}</Note>;
}
