/**
 * The one button of the hands card.
 */
import { memo, useEffect, useRef } from 'react';
import { Touch } from '../../ui/touch';
import { useTheme } from '../../ui/use-theme';
import { Text } from '../../ui/text';
import { MAIN_TOUCH, RADIUS } from '../../ui/theme';

/** Quicker than this after the card went over to another brew, a thumb was meant for the one before, milliseconds. */
const TOO_QUICK_MS = 250;
/** When a card with a button was last taken away; one that comes in its place within this is one that it went over to. */
let goneMs = -Infinity;
const IN_ITS_PLACE_MS = 100;

type MainButtonProps = { label: string; hot: boolean; onPress: () => void };

export const MainButton = memo(function MainButton({ label, hot, onPress }: MainButtonProps) {
  const theme = useTheme();
  const shownMs = useRef(0);
  const meantForAnother = useRef(false);
  useEffect(() => {
    const nowMs = performance.now();
    shownMs.current = nowMs - goneMs < IN_ITS_PLACE_MS ? nowMs : -Infinity;
    return () => {
      goneMs = performance.now();
    };
  }, []);
  return (
    <Touch
      role="button"
      aria-label={label}
      testID="main-button"
      onPressIn={() => {
        meantForAnother.current = performance.now() - shownMs.current < TOO_QUICK_MS;
      }}
      onPress={() => {
        if (!meantForAnother.current) onPress();
        meantForAnother.current = false;
      }}
      style={({ pressed }) => ({
        flex: 1,
        minHeight: theme.isAcross ? 1.6 * MAIN_TOUCH : MAIN_TOUCH,
        marginTop: 6,
        borderRadius: RADIUS,
        alignItems: 'center',
        justifyContent: 'center',
        borderWidth: 2,
        borderColor: hot ? theme.flame : theme.ink,
        backgroundColor: hot ? theme.flame : pressed ? theme.coolPale : 'transparent',
        opacity: pressed && hot ? 0.85 : 1,
      })}
    >
      <Text size="verb" color={hot ? theme.onFlame : theme.ink}>
        {label}
      </Text>
    </Touch>
  );
});
