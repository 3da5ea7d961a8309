/**
 * One run of the hands card over a bar of the page's own: by itself, or by the hand of whoever practises.
 */
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import type { BarEvent, CupAsk } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { brewerOf, cardFor, tapEvents, type AgendaItem } from '@even-kettle/core/plan';
import { BREWERS, METHODS, type Recipe, type RecipeBook } from '@even-kettle/core/recipe';
import { agendaNow } from '../client/agenda-now';
import { BarContext, newId, onTick, useAgenda, useBar, useHere, useNow } from '../client/bar-context';
import { openPrivateBar, type PrivateBar } from '../client/private-bar';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { Choice } from '../ui/choice';
import { Row } from '../ui/page';
import { Text } from '../ui/text';
import { HandsCard } from './hands/hands-card';
import { WORDS } from './words';

/** How long a card is left in sight after its step could be over, milliseconds of the run's time. */
const READ_MS = 1500;
const LOOK_MS = 100;

type RunProps = {
  onAgain: () => void;
  onBack: () => void;
  /** Nothing is tapped but by the person. */
  byHand?: boolean;
};

/** What changes on the real bar meanwhile changes no run. */
export function OneRun({ recipe, real, ...rest }: RunProps & { recipe: Recipe; real: Bar }) {
  const here = useHere();
  const { book } = useBar();
  const [bar] = useState(() => openRun(here, recipe, real, book));
  if (!bar) return <Text role="alert">{WORDS.noBrewerTakesIt}</Text>;
  return (
    <BarContext.Provider value={bar}>
      <Run bar={bar} {...rest} />
    </BarContext.Provider>
  );
}

const RATES = ['0', '1', '4'] as const;

function Run({ bar, onAgain, onBack, byHand = false }: RunProps & { bar: PrivateBar }) {
  const [rate, setRate] = useState<(typeof RATES)[number]>('1');
  const nowMs = useNow();
  const [item] = useAgenda(nowMs);
  useEffect(
    () =>
      onTick(bar.clock, LOOK_MS, 0, (atMs) => {
        if (bar.rate() === 0 || byHand) return;
        const [next] = agendaNow(bar.store.view(), atMs);
        if (next && atMs >= overMs(next)) tapFor(bar, next, atMs);
      }),
    [bar, rate, byHand],
  );
  return (
    <View style={{ gap: 12 }}>
      <Row style={{ flexWrap: 'wrap', gap: 6 }}>
        <Choice
          name={WORDS.pace}
          value={rate}
          onChange={(chosen) => {
            bar.setRate(Number(chosen));
            setRate(chosen);
          }}
          options={RATES.map((value) => ({ value, label: value === '0' ? WORDS.pause : `${value} ×` }))}
        />
        {item ? (
          <Button
            label={WORDS.nextStep}
            says={WORDS.nextStepOfRun}
            onPress={() => {
              bar.skipTo(overMs(item));
              tapFor(bar, item, bar.clock.nowMs());
            }}
            style={{ paddingHorizontal: 10 }}
          />
        ) : null}
      </Row>
      {item ? (
        <HandsCard item={item} />
      ) : (
        <Card style={{ gap: 12, alignItems: 'flex-start' }}>
          <Text size="verb">{WORDS.thatWasAll}</Text>
          <Row style={{ flexWrap: 'wrap' }}>
            <Button kind="main" label={WORDS.showItAgain} onPress={onAgain} />
            <Button label={byHand ? WORDS.done : WORDS.backToTheRecipe} onPress={onBack} />
          </Row>
        </Card>
      )}
    </View>
  );
}

/** When a person who does all in its time would tap; what ends by the clock ends then by itself. */
function overMs({ asks, step, dueMs, fromMs }: AgendaItem): number {
  if (asks === 'finish' || asks === 'runs') return Math.max(dueMs, fromMs) + step.durationS * 1000;
  return dueMs + READ_MS;
}

function tapFor(bar: PrivateBar, item: AgendaItem, atMs: number): void {
  const settings = bar.store.view().bar;
  if (settings) bar.store.act(tapEvents(item, settings, atMs, newId));
}

/** A bar with one order for one cup of the recipe, on one station that brews it. */
function openRun(here: Parameters<typeof openPrivateBar>[0], recipe: Recipe, bar: Bar, book: RecipeBook) {
  const setUp = setUpFor(recipe, bar, book);
  if (!setUp) return null;
  const startMs = here.clock.nowMs();
  const taken: BarEvent = {
    id: newId(),
    type: 'order-taken',
    atMs: startMs,
    orderId: 'show',
    cups: [setUp.cup],
  };
  return openPrivateBar(here, { bar: setUp.bar, events: [taken], startMs });
}

const SIZES_ML = [250, 300, 200, 350, 500, 150, 120, 90, 75];

function setUpFor(recipe: Recipe, bar: Bar, book: RecipeBook): { bar: Bar; cup: CupAsk } | null {
  const own = bar.stations.filter(({ brewerId }) => brewerOf(bar, brewerId)?.method === recipe.method);
  const made = BREWERS.filter(({ method }) => method === recipe.method).map(({ id, name }) => ({
    id: 'show',
    name,
    brewerId: id,
  }));
  const kettles =
    bar.kettles.length > 0 ? bar.kettles : [{ id: 'show', name: WORDS.kettle, powerW: 1200, sizeMl: 1000 }];
  for (const station of [...own, ...made])
    for (const cupMl of [METHODS[recipe.method].usualCupMl, ...SIZES_ML]) {
      const alone = { ...bar, hands: 1, burners: Math.max(1, bar.burners), kettles, stations: [station] };
      const cup: CupAsk = {
        cupId: 'show',
        recipeId: recipe.id,
        recipeVersion: recipe.version,
        coffee: bar.coffees[0]?.name ?? '',
        roast: bar.coffees[0]?.roast ?? 'medium',
        cupMl,
      };
      if (cardFor(alone, cup, book).ok) return { bar: alone, cup };
    }
  return null;
}
