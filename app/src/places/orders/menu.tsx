/**
 * Today's menu: a cup is one tap. What is off says why; a guest at the bar gets the same again with a tap.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { asksOf, badgeOf, type OrderState } from '@even-kettle/core/brew';
import { FEW_DOSES, menuNow, type OnMenu } from '@even-kettle/core/plan';
import { METHODS, WISHES, type Wish } from '@even-kettle/core/recipe';
import { newId, useBar, useNow } from '../../client/bar-context';
import { Badge } from '../../ui/badge';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { RADIUS, TOUCH } from '../../ui/theme';
import { Touch } from '../../ui/touch';
import { useTheme } from '../../ui/use-theme';
import { draftOf, firstDraft, type Counter, type Draft } from '../../parts/orders/cup-draft';
import { sizeText } from '../../words/size-text';
import { WORDS } from '../../parts/orders/words';

/** Of guests who were here before, so many are offered the same again. */
const AGAIN_SHOWN = 3;

type Props = {
  counter: Counter;
  onCup: (draft: Draft) => void;
  onAgain: (order: { name: string; drafts: Draft[] }) => void;
  /** Cups that are in the order already. */
  taken: number;
};

export function Menu({ counter, onCup, onAgain, taken }: Props) {
  const { recipes, book, state } = useBar();
  const nowMs = useNow(30_000, 500);
  const [wish, setWish] = useState<Wish | null>(null);
  const now = new Date(nowMs);
  const minuteOfDay = now.getHours() * 60 + now.getMinutes();
  const lines = menuNow(counter.bar, recipes, book, state, minuteOfDay);
  const wishes = WISHES.filter((each) => lines.some(({ recipe }) => recipe.suits.includes(each)));
  const shown = wish ? lines.filter(({ recipe }) => recipe.suits.includes(wish)) : lines;
  return (
    <View style={{ gap: 8 }}>
      {wishes.length > 1 ? (
        <Row style={{ gap: 6, flexWrap: 'wrap' }}>
          {wishes.map((each) => (
            <Button
              key={each}
              label={each}
              says={WORDS.menuFor(each, each === wish)}
              kind={each === wish ? 'chosen' : 'bare'}
              onPress={() => setWish(each === wish ? null : each)}
            />
          ))}
        </Row>
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }} role="group" aria-label={WORDS.menu}>
        {shown.map((each) => (
          <Line
            key={each.line.id}
            of={each}
            onPress={() =>
              onCup({
                ...firstDraft(counter),
                key: newId(),
                coffeeId: each.line.coffeeId,
                recipeId: each.recipe.id,
                sizeText: sizeText(each.line.sizesMl[0]!, counter.units),
              })
            }
          />
        ))}
      </View>
      {taken === 0 ? <Again counter={counter} onAgain={onAgain} /> : null}
    </View>
  );
}

function Line({ of, onPress }: { of: OnMenu; onPress: () => void }) {
  const theme = useTheme();
  const [overruled, setOverruled] = useState(false);
  const { line, coffee, recipe, dosesLeft, off } = of;
  const isOff = off !== null && !overruled;
  const few = dosesLeft !== null && dosesLeft < FEW_DOSES ? WORDS.dosesLeft(dosesLeft) : null;
  const why =
    off === 'only before' ? WORDS.onlyBefore(line.before ?? '') : off === null ? few : WORDS.offBecause[off];
  const method = METHODS[recipe.method].name;
  return (
    <Touch
      role="button"
      aria-label={[WORDS.menuLine(coffee, method, recipe.name), why].filter(Boolean).join(', ')}
      testID={`menu-${line.id}`}
      onPress={() => {
        // What is off can be had once more, if somebody says so.
        if (isOff) return setOverruled(true);
        onPress();
      }}
      style={{
        minHeight: TOUCH + 16,
        flexGrow: 1,
        flexBasis: 160,
        maxWidth: 260,
        paddingHorizontal: 12,
        paddingVertical: 8,
        borderRadius: RADIUS,
        borderWidth: 1,
        borderStyle: isOff ? 'dashed' : 'solid',
        borderColor: isOff ? theme.rim : theme.ink2,
        backgroundColor: theme.surface,
      }}
    >
      <Text
        bold
        quiet={isOff}
        numberOfLines={1}
        {...(isOff ? { style: { textDecorationLine: 'line-through' } } : {})}
      >
        {coffee}
      </Text>
      <Text size="small" quiet numberOfLines={1}>
        {method}
      </Text>
      {why ? (
        <Text size="small" bold>
          {isOff ? WORDS.tapToTakeAnyway(why) : why}
        </Text>
      ) : null}
    </Touch>
  );
}

/** The same again for a guest who has been here. */
function Again({ counter, onAgain }: Pick<Props, 'counter' | 'onAgain'>) {
  const { state } = useBar();
  const guests = Object.values(state.orders)
    .filter(({ name, cups }) => name !== undefined && cups.length > 0)
    .sort((a, b) => b.takenMs - a.takenMs)
    .slice(0, AGAIN_SHOWN);
  const same = (order: OrderState): Draft[] =>
    asksOf(order).flatMap((ask) => {
      const draft = draftOf(ask, counter);
      return draft ? [{ ...draft, key: newId() }] : [];
    });
  if (guests.length === 0) return null;
  return (
    <View style={{ gap: 6 }}>
      <Subheading>{WORDS.theSameAgain}</Subheading>
      {guests.map((order) => {
        const drafts = same(order);
        const coffees = [...new Set(order.cups.map(({ coffee }) => coffee))].join(', ');
        return drafts.length === 0 ? null : (
          <Touch
            key={order.id}
            role="button"
            aria-label={WORDS.theSameAgainFor(order.name ?? badgeOf(order.badge).letter, coffees)}
            onPress={() => onAgain({ name: order.name ?? '', drafts })}
            style={{ minHeight: TOUCH, flexDirection: 'row', alignItems: 'center', gap: 10 }}
          >
            <Badge badge={order.badge} size={26} />
            <Text numberOfLines={1} style={{ flex: 1 }}>
              <Text bold>{order.name}</Text> · {coffees}
            </Text>
          </Touch>
        );
      })}
    </View>
  );
}
