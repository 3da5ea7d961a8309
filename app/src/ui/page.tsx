/**
 * How a place is laid out: the page that scrolls, its halves, and rows.
 */
import { useLayoutEffect, useRef, type ReactNode } from 'react';
import {
  ScrollView,
  View,
  useWindowDimensions,
  type NativeScrollEvent,
  type NativeSyntheticEvent,
  type StyleProp,
  type ViewStyle,
} from 'react-native';
import { WIDE } from './theme';
import { useTheme } from './use-theme';

/** A place's page: scrolls up and down, never sideways. */
export function Page({ children, wide }: { children: ReactNode; wide?: boolean }) {
  const theme = useTheme();
  return (
    <ScrollView
      {...useScrollAsLeft()}
      // Pages with nothing to press must still scroll by keyboard.
      tabIndex={0}
      style={{ flex: 1, backgroundColor: theme.bg }}
      contentContainerStyle={{
        padding: 12,
        gap: 12,
        width: '100%',
        maxWidth: wide ? 1280 : 760,
        alignSelf: 'center',
      }}
    >
      {children}
    </ScrollView>
  );
}

/** A page that was hidden for a while is where it was: browsers forget how far something was scrolled that is not laid out. */
function useScrollAsLeft() {
  const view = useRef<ScrollView>(null);
  const leftAt = useRef(0);
  useLayoutEffect(() => view.current?.scrollTo({ y: leftAt.current, animated: false }), []);
  return {
    ref: view,
    scrollEventThrottle: 100,
    onScroll: ({ nativeEvent: { contentOffset, layoutMeasurement } }: ScrolledEvent) => {
      if (layoutMeasurement.height > 0) leftAt.current = contentOffset.y;
    },
  };
}
type ScrolledEvent = NativeSyntheticEvent<Pick<NativeScrollEvent, 'contentOffset' | 'layoutMeasurement'>>;

/** Two halves of a page: beside each other where there is room, else one below the other. */
export function Halves({ first, second }: { first: ReactNode; second: ReactNode }) {
  const beside = useWindowDimensions().width >= WIDE;
  const half = { gap: 12, ...(beside ? { flex: 1 } : {}) };
  return (
    <View
      style={{
        flexDirection: beside ? 'row' : 'column',
        gap: 12,
        alignItems: beside ? 'flex-start' : 'stretch',
      }}
    >
      <View style={half}>{first}</View>
      <View style={half}>{second}</View>
    </View>
  );
}

export const Row = ({ children, style }: { children: ReactNode; style?: StyleProp<ViewStyle> }) => (
  <View style={[{ flexDirection: 'row', alignItems: 'center', gap: 10 }, style]}>{children}</View>
);
