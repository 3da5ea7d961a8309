/**
 * What is going to be forgotten of earlier guests, and when: said once, on a bar that comes from an earlier version.
 */
import { useBar } from '../client/bar-context';
import { Note } from '../ui/note';
import { WORDS } from './words';

const DAY = new Intl.DateTimeFormat(undefined, { dateStyle: 'long' });
const AT = new Intl.DateTimeFormat(undefined, { dateStyle: 'long', timeStyle: 'short' });

export function GuestsDue() {
  const due = useBar().bar?.guestsDue;
  if (!due) return null;
  return <Note>{WORDS.guestsDue(due.orders, DAY.format(due.sinceMs), AT.format(due.atMs))}</Note>;
}
