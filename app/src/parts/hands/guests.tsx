/**
 * Whom a brew is handed over to: each guest by badge and name, with the grams of each cup.
 */
import { memo } from 'react';
import { View } from 'react-native';
import { badgeOf, guestsOf } from '@even-kettle/core/brew';
import type { AgendaItem } from '@even-kettle/core/plan';
import { METHODS } from '@even-kettle/core/recipe';
import { inWords, showMass, type Units } from '@even-kettle/core/units';
import { useBar, useUnits } from '../../client/bar-context';
import { Badge } from '../../ui/badge';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { Wishes } from '../wishes';
import { WORDS } from './words';

export const Guests = memo(function Guests({ item }: { item: AgendaItem }) {
  const { state } = useBar();
  const units = useUnits();
  const { step, card } = item;
  // Foam goes to each cup first, so whose they are is told by then.
  const isShared = step.kind === 'decant' && METHODS[card.method].heatedIn === 'pot';
  if ((step.kind !== 'serve' && !isShared) || item.asks === 'cue' || !item.brew) return null;
  return (
    <View role="list" aria-label={WORDS.handedOverTo} style={{ gap: 4 }}>
      {guestsOf(state, item.brew).map(({ badge, name, cup, gramsPerCup }) => (
        <View key={cup.cupId}>
          <Row style={{ gap: 8 }}>
            <Badge badge={badge} size={26} />
            <Text bold style={{ flex: 1 }} numberOfLines={1}>
              {name ?? WORDS.order(badgeOf(badge).letter)}
            </Text>
            <Text testID={`share-${badgeOf(badge).letter}`}>{cupsInWords(gramsPerCup, units)}</Text>
          </Row>
          {/* The brew's own cup has its wishes at the head of the card. */}
          {cup.cupId === item.cup.cupId ? null : <Wishes cup={cup} />}
        </View>
      ))}
    </View>
  );
});

/** "143 g", or "2 cups: 143 g + 142 g". */
function cupsInWords(gramsPerCup: readonly number[], units: Units): string {
  const grams = gramsPerCup.map((g) => inWords(showMass(g, units, 'water'))).join(' + ');
  return gramsPerCup.length > 1 ? WORDS.cups(gramsPerCup.length, grams) : grams;
}
