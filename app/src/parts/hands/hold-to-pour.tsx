/**
 * Pours on the simulated scale while it is held. Says so again and again, so that a release that gets lost pours no more
 * than a moment longer.
 */
import { useEffect, useRef } from 'react';
import { Touch } from '../../ui/touch';
import { useHere } from '../../client/bar-context';
import { useTheme } from '../../ui/use-theme';
import { Text } from '../../ui/text';
import { MAIN_TOUCH, RADIUS } from '../../ui/theme';
import { WORDS } from './words';

const AGAIN_MS = 250;

export function HoldToPour({ stationId, flowGPerS }: { stationId: string; flowGPerS: number }) {
  const theme = useTheme();
  const { api } = useHere();
  const timer = useRef<ReturnType<typeof setInterval> | null>(null);
  const say = (flow: number) =>
    void api.orderScale(stationId, { do: 'pour', flowGPerS: flow }).catch(() => undefined);
  const stop = () => {
    if (!timer.current) return;
    clearInterval(timer.current);
    timer.current = null;
    say(0);
  };
  const start = () => {
    stop();
    say(flowGPerS);
    timer.current = setInterval(() => say(flowGPerS), AGAIN_MS);
  };
  const release = useRef(stop);
  useEffect(() => {
    release.current = stop;
  });
  useEffect(() => () => release.current(), []);
  return (
    <Touch
      role="button"
      aria-label={WORDS.holdToPour}
      testID="hold-to-pour"
      onPressIn={start}
      onPressOut={stop}
      style={({ pressed }) => ({
        flex: 1,
        minHeight: theme.isAcross ? 1.6 * MAIN_TOUCH : MAIN_TOUCH,
        marginTop: 6,
        borderRadius: RADIUS,
        borderWidth: 2,
        borderColor: theme.cool,
        backgroundColor: pressed ? theme.coolPale : 'transparent',
        alignItems: 'center',
        justifyContent: 'center',
      })}
    >
      <Text size="title" color={theme.cool}>
        {WORDS.holdToPour}
      </Text>
    </Touch>
  );
}
