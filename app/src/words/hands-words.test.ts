/** What the hands card says: for every step of every school, in both kinds of units. */
import { SCHOOLS, brewCard, type BrewCard, type CardStep } from '@even-kettle/core/recipe';
import type { AgendaItem } from '@even-kettle/core/plan';
import { METRIC } from '@even-kettle/core/units';
import { OUNCES } from '../testing/bar';
import { handsWords, cupInWords, inShort } from './hands-words';

const item = (card: BrewCard, step: CardStep, part: Partial<AgendaItem> = {}): AgendaItem =>
  ({ card, step, asks: 'finish', awaited: null, ...part }) as unknown as AgendaItem;
const cardOf = (id: string, cupMl = 250) =>
  brewCard(
    SCHOOLS.find((recipe) => recipe.id === id)!,
    { cupMl },
  );
const say = (id: string, stepId: string, cupMl?: number, units = METRIC) => {
  const card = cardOf(id, cupMl);
  return handsWords(
    item(
      card,
      card.steps.find((step) => step.id === stepId)!,
    ),
    units,
  );
};

test('every attended step has a verb, one figure and a button, and none of them is empty or odd', () => {
  for (const recipe of SCHOOLS) {
    for (const units of [METRIC, OUNCES]) {
      const card = brewCard(recipe, { doseG: recipe.refDoseG });
      for (const step of card.steps.filter(({ attended }) => attended)) {
        const { verb, figure, detail, button } = handsWords(item(card, step), units);
        const all = [recipe.id, step.id, verb, figure.figure, figure.unit, detail, button]
          .filter(Boolean)
          .join(' ');
        expect(all).not.toMatch(/undefined|NaN|null|\.\.|  /);
        expect(verb.length).toBeGreaterThan(2);
        expect(button.length).toBeGreaterThan(2);
        expect(button.length).toBeLessThan(28);
        expect(figure.figure).toMatch(/^\d+(\.\d+)?(–\d+)?$/);
        expect(inShort(item(card, step), units)).not.toMatch(/undefined|NaN/);
      }
    }
  }
});

test('each method is told in its own words', () => {
  expect(say('cone-thirds', 'fill')).toMatchObject({
    verb: 'Fill the kettle to',
    figure: { figure: '446' },
    button: 'Filled',
  });
  expect(say('siphon-late', 'fill')).toMatchObject({
    verb: 'Weigh the water into the lower globe',
    figure: { figure: '308' },
    button: 'Weighed in',
  });
  expect(say('siphon-late', 'lower')).toMatchObject({
    figure: { figure: '91–94', unit: '°C' },
    button: 'Steady',
  });
  expect(say('siphon-late', 'seal')).toMatchObject({ verb: 'Seal the top gently', button: 'Sealed' });
  expect(say('siphon-late', 'flame-off')).toMatchObject({ verb: 'Stir 4, flame off', button: 'Flame off' });
  expect(say('sock-dense', 'bypass')).toMatchObject({
    verb: 'Add water to the server',
    figure: { figure: '27' },
    button: 'Added',
  });
  expect(say('sock-dense', 'pour').button).toBe('Stream runs pale');
  expect(say('sock-dense', 'pour').detail).toContain('First to 155 g at 2.8 g a second; then 3.6 g a second');
  expect(say('cone-onepour', 'pour').detail).toContain('until “surface has turned pale”');
  expect(say('cone-coolbloom', 'bloom').detail).toContain('Water of 18 °C');
  expect(say('pot-foam', 'watch', 75)).toMatchObject({
    verb: 'Watch for “foam closes the ring”',
    button: 'Foam closes the ring',
  });
  expect(say('pot-pressure', 'load', 112).button).toBe('Closed');
  expect(say('air-stirred', 'press', 200)).toMatchObject({ verb: 'Press to the hiss', button: 'Hiss' });
  expect(say('cone-thirds', 'load').detail).toBe('Break dry clumps and level the bed.');
  expect(say('cone-thirds', 'pour-2').detail).toBe('Kettle at 94 °C. 5 g a second');
  expect(say('cone-coolbloom', 'bloom').detail).toMatch(/^Water of 18 °C, from its jug/);
  expect(say('cone-coolbloom', 'fill').detail).toMatch(/Beside it, 52 g of water at 18 °C in a jug/);
  expect(say('cone-thirds', 'off').detail).toMatch(/tray/);
  expect(say('siphon-late', 'serve', 350).detail).toMatch(/The hot top goes into its stand/);
  expect(say('cone-thirds', 'pour-2', 250, OUNCES).figure).toEqual({ figure: '4.5', unit: 'oz' });
});

test('what is added to a cup is said where the hands need it: ice at loading, milk and sugar at the serving', () => {
  const served = (addition: 'ice' | 'milk' | 'sugar', stepId: string) => {
    const card = brewCard(SCHOOLS[0]!, { cupMl: 250, addition });
    return handsWords(
      item(
        card,
        card.steps.find((step) => step.id === stepId)!,
      ),
      METRIC,
    ).detail;
  };
  expect(served('ice', 'load')).toMatch(/^109 g of ice into the server\. /);
  expect(served('ice', 'serve')).toBe('Stir until the ice has melted. Say “cold”.');
  expect(served('milk', 'serve')).toBe('With 32 g of milk. Say “hot”.');
  expect(served('sugar', 'serve')).toBe('Sugar beside. Say “hot”.');
  expect(cupInWords({ coffee: 'Saltmarsh', cupMl: 250, addition: 'ice' }, METRIC)).toBe(
    'Saltmarsh · 250 ml · with ice',
  );
  expect(cupInWords({ coffee: 'Saltmarsh', cupMl: 250 }, METRIC)).toBe('Saltmarsh · 250 ml');
});

test('the tap that starts the timer is called by what the method counts from', () => {
  const begin = (id: string, stepId: string) => {
    const card = cardOf(id);
    return handsWords(
      item(
        card,
        card.steps.find((step) => step.id === stepId)!,
        { asks: 'start' },
      ),
      METRIC,
    ).button;
  };
  expect([
    begin('cone-thirds', 'bloom'),
    begin('air-stirred', 'pour'),
    begin('siphon-late', 'coffee-in'),
  ]).toEqual(['First water', 'First water', 'Coffee meets water']);
});

test('a cue that is waited for is named, on the card and in the list', () => {
  const card = cardOf('siphon-late');
  const [heat, seal] = ['heat', 'seal'].map((id) => card.steps.find((step) => step.id === id)!);
  const waiting = item(card, seal!, { asks: 'cue', awaited: heat! });
  expect(handsWords(waiting, METRIC)).toMatchObject({
    verb: 'Watch for “near boiling”',
    button: 'Near boiling',
  });
  expect(inShort(waiting, METRIC)).toBe('Water heating, seal the top gently');
});
