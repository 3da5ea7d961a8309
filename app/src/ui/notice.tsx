/**
 * What a place says when it has nothing to show yet, with the next step to take; and the room that is kept for what is on
 * its way, so that nothing jumps when it comes.
 */
import type { ReactNode } from 'react';
import { ActivityIndicator, View } from 'react-native';
import { Card } from './card';
import { Row } from './page';
import { Text } from './text';
import { RADIUS } from './theme';
import { useTheme } from './use-theme';
import { WORDS } from './words';

type NoticeProps = { title: string; children?: ReactNode; action?: ReactNode; ruled?: boolean };

export function Notice({ title, children, action, ruled }: NoticeProps) {
  return (
    <Card ruled={ruled ?? false} style={{ padding: 20, gap: 10 }}>
      <Text size="title">{title}</Text>
      {children ? <Text quiet>{children}</Text> : null}
      {action ? <View style={{ alignSelf: 'flex-start' }}>{action}</View> : null}
    </Card>
  );
}

export function Loading({ what, height = 160 }: { what: string; height?: number }) {
  const theme = useTheme();
  return (
    <View
      role="status"
      aria-label={`Loading ${what}`}
      style={{
        height,
        borderRadius: RADIUS,
        borderWidth: theme.rimWidth,
        borderColor: theme.rim,
        backgroundColor: theme.surface,
        padding: 16,
      }}
    >
      <Row>
        {/* The browser's own animation: Paper's is drawn by script, frame by frame, and keeps React from what comes. */}
        <View aria-hidden>
          <ActivityIndicator size={18} color={theme.ink2} />
        </View>
        <Text quiet>{WORDS.loading(what)}</Text>
      </Row>
    </View>
  );
}
