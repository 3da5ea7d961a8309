/**
 * An order's badge: its letter in a ring whose stroke is solid, dashed, dotted or double.
 */
import { memo } from 'react';
import { View } from 'react-native';
import Svg, { Circle } from 'react-native-svg';
import { badgeOf } from '@even-kettle/core/brew';
import { useTheme } from './use-theme';
import { Text } from './text';
import { WORDS } from './words';

const DASHES: Record<string, string | undefined> = { dashed: '5 3.4', dotted: '1.6 3.1' };

export const Badge = memo(function Badge({ badge, size = 30 }: { badge: number; size?: number }) {
  const theme = useTheme();
  const { letter, stroke } = badgeOf(badge);
  const dash = DASHES[stroke];
  return (
    <View
      role="img"
      aria-label={WORDS.order(letter)}
      style={{ width: size, height: size, alignItems: 'center', justifyContent: 'center' }}
    >
      <Svg width={size} height={size} viewBox="0 0 30 30" style={{ position: 'absolute' }}>
        <Circle
          cx={15}
          cy={15}
          r={13.4}
          fill={theme.surface}
          stroke={theme.ink}
          strokeWidth={2}
          {...(dash ? { strokeDasharray: dash } : {})}
        />
        {stroke === 'double' ? (
          <Circle cx={15} cy={15} r={10.2} fill="none" stroke={theme.ink} strokeWidth={1.6} />
        ) : null}
      </Svg>
      <Text
        size="small"
        bold
        style={{ fontSize: size * (letter.length > 1 ? 0.36 : 0.45), lineHeight: size * 0.6 }}
      >
        {letter}
      </Text>
    </View>
  );
});
