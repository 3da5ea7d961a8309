/**
 * A change that was taken up: what was expected of it, and what came.
 */
import type { Learnt } from '@even-kettle/core/contract';
import { showClock } from '@even-kettle/core/units';
import { useHere } from '../../client/bar-context';
import { dayAndTime } from '../../words/hands-words';
import { Text } from '../../ui/text';
import { WORDS } from './words';

export function TriedLine({ tried }: { tried: Learnt['tried'][number] }) {
  const { words, expectS, plusMinusS, result, atMs } = tried;
  const { clock } = useHere();
  const short = words.split(':')[0]!;
  return (
    <Text testID="tried">
      {dayAndTime(atMs, clock.nowMs())}: {short}.{' '}
      {expectS === null ? '' : WORDS.expected80(showClock(expectS), showClock(plusMinusS ?? 0))}
      {result === null ? WORDS.notBrewedSince : WORDS.itTook(showClock(result.brewS), held(tried))}
    </Text>
  );
}

function held({ expectS, plusMinusS, result }: Learnt['tried'][number]): string {
  if (expectS === null || result === null) return '';
  return Math.abs(result.brewS - expectS) <= (plusMinusS ?? 0) ? WORDS.asExpected : WORDS.notAsExpected;
}
