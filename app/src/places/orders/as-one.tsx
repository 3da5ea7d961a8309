/**
 * Cups of one order that are alike, as one larger brew where that is sooner.
 */
import { MOST_CUPS_OF_A_BREW, areAlike, servedAlike, type CupAsk } from '@even-kettle/core/brew';
import { cardFor, type Quote } from '@even-kettle/core/plan';
import type { RecipeBook } from '@even-kettle/core/recipe';
import { showClock } from '@even-kettle/core/units';
import type { Bar } from '@even-kettle/core/contract';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { WORDS } from '../../parts/orders/words';

/** Cups that are alike can be poured out of one larger brew; this says which way is sooner. */
export function AsOne({
  cups,
  here,
  other,
  together,
  onChange,
}: {
  cups: number;
  here: Quote | undefined;
  other: Quote | undefined;
  together: boolean;
  onChange: (together: boolean) => void;
}) {
  if (!here?.ok || !other?.ok) return null;
  const soonerS = here.readyS - other.readyS;
  if (together)
    return (
      <Row style={{ flexWrap: 'wrap' }}>
        <Text style={{ flex: 1, minWidth: 180 }}>
          {WORDS.oneBrewForCups(
            cups,
            soonerS < -WORTH_SHARING_S ? WORDS.soonerThanApart(showClock(-soonerS)) : '',
          )}
        </Text>
        <Button label={WORDS.eachByItself} onPress={() => onChange(false)} />
      </Row>
    );
  if (soonerS < WORTH_SHARING_S) return null;
  return (
    <Row style={{ flexWrap: 'wrap' }}>
      <Text style={{ flex: 1, minWidth: 180 }}>{WORDS.cupsAlike(cups, showClock(soonerS))}</Text>
      <Button label={WORDS.brewTheAsOne(cups)} onPress={() => onChange(true)} testID="as-one" />
    </Row>
  );
}
/** One brew for several cups is offered where it saves so much, seconds. */
export const WORTH_SHARING_S = 15;

/**
 * The cups with those that are alike as one brew; null where none are, or no brewer here takes them together. One cup of
 * several is one line on the card, so they are handed over alike too: an allergy is never lost in another's cup.
 */
export function mergedCups(cups: CupAsk[], bar: Bar, book: RecipeBook): CupAsk[] | null {
  const merged: CupAsk[] = [];
  for (const cup of cups) {
    const at = merged.findIndex(
      (each) => areAlike(each, cup) && servedAlike(each, cup) && (each.cups ?? 1) < MOST_CUPS_OF_A_BREW,
    );
    const larger = at < 0 ? null : { ...merged[at]!, cups: (merged[at]!.cups ?? 1) + 1 };
    if (larger && cardFor(bar, larger, book).ok) merged[at] = larger;
    else merged.push(cup);
  }
  return merged.length < cups.length ? merged : null;
}
