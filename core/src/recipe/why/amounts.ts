/**
 * Why so much: dose, water and what comes of them.
 */
import {
  bypassOf,
  brewedRatio,
  doseOf,
  input,
  lossOf,
  ownIceOf,
  recipeRatio,
  retentionOf,
  icedWhole,
  waterOf,
  type Case,
  type Teller,
} from './derivation';

/** Over ice a siphon's loss has to be made good in part, whatever the dose. */
const fixedWater = ({ each }: Case) =>
  each.fixedWaterG > 0
    ? [input('fixed', 'Water for what the siphon loses before the ice', each.fixedWaterG, 'g', 'derived')]
    : [];

export const doseG: Teller = (at) => {
  const told = { name: 'Dose', unit: 'g' };
  const ratio = brewedRatio(at);
  if ('doseG' in at.ask)
    return { ...told, formula: 'given', inputs: [input('dose', 'Dose', at.ask.doseG, 'g', 'asked')] };
  if ('brewWaterG' in at.ask)
    return {
      ...told,
      formula: `round(${at.each.fixedWaterG > 0 ? '(water − fixed)' : 'water'} ÷ ${ratio.formula === 'R × milk' ? '(R × milk)' : ratio.formula}, 1)`,
      inputs: [waterOf(at), ...fixedWater(at), ...ratio.inputs],
    };
  const { ask, each } = at;
  // Ice is bypass, so with it the beverage has the whole ratio; milk comes on top of the beverage.
  const whole = ask.addition === 'ice' || ('drinkG' in ask && ask.addition === 'milk');
  const ownIce = at.recipe.iceTimesDose !== undefined;
  const brewed = ownIce
    ? { formula: 'R + I', inputs: [recipeRatio(at), ownIceOf(at)] }
    : whole
      ? { formula: 'R', inputs: [ask.addition === 'ice' ? icedWhole(at) : recipeRatio(at)] }
      : ratio;
  const asked =
    'cupMl' in ask
      ? [input('cup', 'Cup', ask.cupMl, 'ml', 'asked')]
      : 'drinkG' in ask
        ? [input('cup', 'Drink', ask.drinkG, 'g', 'asked')]
        : [
            input('n', 'Cups', ask.cups, '', 'asked'),
            input(
              'cup',
              'Each cup',
              ask.eachMl ?? each.usualCupMl,
              'ml',
              ask.eachMl === undefined ? 'default' : 'asked',
            ),
          ];
  const lost = each.lossG > 0;
  const cups = 'cups' in ask ? 'n × cup' : 'cup';
  const led = lost ? `(${cups} + loss)` : cups;
  return {
    ...told,
    formula: `round(${led} ÷ (${brewed.formula} − kept${each.bypass > 0 ? ' + bypass' : ''}), 1)`,
    inputs: [
      ...asked,
      ...(lost ? [lossOf(at)] : []),
      ...brewed.inputs,
      retentionOf(at),
      ...(each.bypass > 0 ? [bypassOf(at)] : []),
    ],
  };
};

export const brewWaterG: Teller = (at) => {
  const told = { name: 'Brew water', unit: 'g' };
  if ('brewWaterG' in at.ask)
    return {
      ...told,
      formula: 'given',
      inputs: [input('water', 'Brew water', at.ask.brewWaterG, 'g', 'asked')],
    };
  const ratio = brewedRatio(at);
  const fixed = fixedWater(at);
  return {
    ...told,
    formula: `round(dose × ${ratio.formula}${fixed.length > 0 ? ' + fixed' : ''}, 0)`,
    inputs: [doseOf(at), ...ratio.inputs, ...fixed],
  };
};

export const bypassG: Teller = (at) => {
  const { recipe, ask, card } = at;
  if (card.bypassG === 0) return null;
  const own = recipe.bypassTimesDose > 0;
  const iced = ask.addition === 'ice';
  // The recipe's own ice is told by what it has of it, an order's by what it takes of the ratio.
  const ownIce = recipe.iceTimesDose !== undefined;
  const whole = ownIce ? [recipeRatio(at), ownIceOf(at)] : [icedWhole(at)];
  return {
    name: 'Bypass',
    unit: 'g',
    formula: [
      own ? 'round(bypass × dose, 0)' : '',
      iced ? `round(${ownIce ? '(R + I)' : 'R'} × dose, 0) − water` : '',
    ]
      .filter(Boolean)
      .join(' + '),
    inputs: [doseOf(at), ...(own ? [bypassOf(at)] : []), ...(iced ? [...whole, waterOf(at)] : [])],
    ...(iced ? { note: 'Ice melts into the cup without passing the bed, so it counts as bypass.' } : {}),
  };
};

export const beverageG: Teller = (at) => ({
  name: 'Beverage',
  unit: 'g',
  formula: `round(water − kept × dose${at.each.lossG > 0 ? ' − loss' : ''}${at.card.bypassG > 0 ? ' + added' : ''}, 0)`,
  inputs: [
    waterOf(at),
    retentionOf(at),
    doseOf(at),
    ...(at.each.lossG > 0 ? [lossOf(at)] : []),
    ...(at.card.bypassG > 0 ? [input('added', 'Bypass', at.card.bypassG, 'g', 'derived')] : []),
  ],
  note: 'On the bar 1 g counts as 1 ml.',
});

export const drinkG: Teller = (at) => ({
  name: 'Drink',
  unit: 'g',
  formula: 'beverage + milk',
  inputs: [
    input('beverage', 'Beverage', at.card.beverageG, 'g', 'derived'),
    input('milk', 'Milk', at.card.drinkG - at.card.beverageG, 'g', 'derived'),
  ],
});

export const ratio: Teller = (at) => ({
  name: 'Ratio',
  unit: 'g/g',
  formula: 'round(water ÷ dose, 2)',
  inputs: [waterOf(at), doseOf(at)],
  note: `The recipe’s own is 1:${at.recipe.ratio}; rounding to what a scale shows moves it a little.`,
});

export const finalRatio: Teller = (at) => ({
  name: 'Final ratio',
  unit: 'g/g',
  formula: 'round((water + added) ÷ dose, 2)',
  inputs: [waterOf(at), input('added', 'Bypass', at.card.bypassG, 'g', 'derived'), doseOf(at)],
});
