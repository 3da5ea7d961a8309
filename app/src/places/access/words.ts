/** The words of pairing: every sentence that is read or heard there, so that another language is another file like this. */
import { plural } from '../../ui/language';

export const WORDS = {
  pairThisDevice: 'Pair this device',
  wasTakenOff: 'This device was removed from the bar',
  whoeverCanPair:
    'Ask for a six-digit code. The lead’s device shows one on the Bench, under Devices and keys.',
  linkIsRead: 'The link was read. Give the device a name, then pair it.',
  code: 'Code',
  sixDigits: 'Code, six digits',
  deviceName: 'A name for it (may be left out)',
  pair: 'Pair',
  pairing: 'Pairing…',
  serverUnreachable:
    'The server cannot be reached. Check that this device is on the bar’s network, then try again.',
  tapsWait: (count: number) =>
    `${count} ${plural(count, 'tap', 'taps')} kept here ${plural(count, 'is', 'are')} sent as soon as it is paired.`,
  isPaired: (name: string, role: string) => `It is paired: ${name}, ${role}.`,
  toTheBar: 'To the bar',
};
