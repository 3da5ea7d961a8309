/**
 * What a person is told when another device was there first: the log's order decides, and this says what it decided.
 */
import { timelineAt, type BarEvent, type BarState } from '@even-kettle/core/brew';
import { showClock } from '@even-kettle/core/units';

/**
 * @param fault why the server refused the tap
 * @param state the bar as it now stands, without it
 */
export function firstTapWords(
  event: BarEvent,
  fault: { code: string; reason: string },
  state: BarState,
): string {
  const brew = 'brewId' in event ? state.brews[event.brewId] : undefined;
  const at = brew ? `${brew.stationName}: ` : '';
  if (event.type === 'event-undone')
    return `${at}not taken back, because the other device has gone on from it. ${fault.reason}`;
  if (fault.code !== 'already-done') return `${at}${fault.reason}`;
  const time =
    brew && 'stepId' in event
      ? timelineAt(brew, brew.lastMs).find(({ step }) => step.id === event.stepId)
      : undefined;
  if (time?.status !== 'done') return `${at}${fault.reason} The other device was first, and that counts.`;
  const earlierS = Math.round((event.atMs - time.endMs) / 1000);
  const when =
    earlierS === 0
      ? 'at the same moment'
      : `${showClock(Math.abs(earlierS))} ${earlierS > 0 ? 'before' : 'after'} yours`;
  return `${at}“${time.step.name}” was tapped on another device ${when}; that tap was stored first, so it counts.`;
}
