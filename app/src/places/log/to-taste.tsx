/**
 * Cups that have cooled and that nobody has said a word about: asked for quietly, never in the way of a brew.
 */
import { View } from 'react-native';
import { router } from 'expo-router';
import type { BarState } from '@even-kettle/core/brew';
import { METHODS } from '@even-kettle/core/recipe';
import { useBar, useNow } from '../../client/bar-context';
import { clockTime } from '../../words/hands-words';
import { Badge } from '../../ui/badge';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { WORDS } from './words';

/** A cup that was handed over so long ago is gone, milliseconds. */
const GONE_MS = 45 * 60_000;
const SHOWN = 3;

/** Brews whose cup is cool enough to judge, latest first. */
export const cooledBrews = (state: BarState, tasteAfterMin: number, nowMs: number) =>
  Object.values(state.brews)
    .filter(({ servedMs, taste, abandoned }) => {
      const sinceMs = servedMs === undefined ? -1 : nowMs - servedMs;
      return !taste && !abandoned && sinceMs >= tasteAfterMin * 60_000 && sinceMs < GONE_MS;
    })
    .sort((a, b) => b.servedMs! - a.servedMs!);

export function ToTaste() {
  const { state, bar } = useBar();
  const nowMs = useNow(1000);
  const cooled = cooledBrews(state, bar?.tasteAfterMin ?? 7, nowMs);
  if (cooled.length === 0) return null;
  return (
    <Card style={{ gap: 4 }}>
      <Text bold>{WORDS.coolEnoughToTaste}</Text>
      {cooled.slice(0, SHOWN).map((brew) => (
        <Row key={brew.id} style={{ minHeight: 48 }}>
          <Badge badge={state.orders[brew.orderId]?.badge ?? 0} />
          <View style={{ flex: 1 }}>
            <Text numberOfLines={1}>
              {brew.ask.coffee} · {METHODS[brew.card.method].name}
            </Text>
            <Text size="small" quiet>
              {WORDS.outAt(clockTime(brew.servedMs!))}
            </Text>
          </View>
          <Button
            label={WORDS.taste}
            says={WORDS.tasteOutAt(brew.ask.coffee, clockTime(brew.servedMs!))}
            onPress={() => router.push({ pathname: '/log/[id]', params: { id: brew.id } })}
          />
        </Row>
      ))}
    </Card>
  );
}
