/**
 * Why a number is what it is: its formula, what went into it and where each of those came from, as data.
 *
 * Formulas are written for people, with the symbols of their inputs; `×`, `÷`, `−` and `^` are the usual signs, and
 * `round(x, n)` is to n decimals.
 */
import { CUP_WARMING_G, boilingPointC } from '../water';
import { brewCard, type BrewCard, type Place } from './card';
import { grindSetting, type Grinder } from './grind';
import { referenceOf } from './lay-out';
import { METHODS } from './method';
import type { Recipe } from './recipe';
import { round } from './round';
import { yieldOf, USUAL_CUP_ML, type Ask, type Yield } from './solve';
import { ROAST_SHIFT_C, followsRoast } from './temperature';

/** Where a figure came from. `asked`: given by the person; `derived`: worked out from the others, ask for its own why. */
export type Source = 'asked' | 'recipe' | 'method' | 'brewer' | 'bar' | 'log' | 'default' | 'derived';

export type DerivedFrom = { symbol: string; name: string; value: number; unit: string; from: Source };

export type Derivation = {
  name: string;
  value: number;
  unit: string;
  formula: string;
  inputs: DerivedFrom[];
  /** What a formula alone does not say. */
  note?: string;
};

export const WHY_OF = [
  'doseG',
  'brewWaterG',
  'bypassG',
  'beverageG',
  'drinkG',
  'ratio',
  'finalRatio',
  'waterC',
  'mixedC',
  'kettleFillG',
  'brewTimeS',
  'handsTimeS',
  'grindSetting',
] as const;
/** A figure of the card, or a pour's target as `target:` and the step's id. */
export type WhyOf = (typeof WHY_OF)[number] | `target:${string}`;

type Case = {
  recipe: Recipe;
  ask: Ask;
  place: Place;
  card: BrewCard;
  each: Yield;
  grinder: Grinder | undefined;
  offsetSteps: number;
};
type Told = Omit<Derivation, 'value'> & { value?: number };

/**
 * The derivation of one figure of a card; null where the card has no such figure.
 * @throws RecipeError where the ask makes no card
 */
export function why(
  of: WhyOf,
  recipe: Recipe,
  ask: Ask,
  place: Place,
  grinding: { grinder?: Grinder | undefined; offsetSteps?: number } = {},
): Derivation | null {
  const card = brewCard(recipe, ask, place);
  const { grinder, offsetSteps = 0 } = grinding;
  const at: Case = {
    recipe,
    ask,
    place,
    card,
    each: yieldOf(recipe, ask, place.retentionGPerG),
    grinder,
    offsetSteps,
  };
  if (of.startsWith('target:')) return targetWhy(at, of.slice('target:'.length));
  const told = TELLERS[of as (typeof WHY_OF)[number]](at);
  if (!told) return null;
  const value = told.value ?? (card as unknown as Record<string, number>)[of]!;
  return { ...told, value };
}

const input = (symbol: string, name: string, value: number, unit: string, from: Source): DerivedFrom => ({
  symbol,
  name,
  value,
  unit,
  from,
});

const doseOf = ({ card, ask }: Case) =>
  input('dose', 'Dose', card.doseG, 'g', 'doseG' in ask ? 'asked' : 'derived');
const waterOf = ({ card, ask }: Case) =>
  input('water', 'Brew water', card.brewWaterG, 'g', 'brewWaterG' in ask ? 'asked' : 'derived');
const lossOf = ({ each }: Case) =>
  input('loss', 'Lost to steam and the lower bulb', each.lossG, 'g', 'method');
const recipeRatio = ({ recipe, ask }: Case) =>
  input('R', 'Ratio', ask.ratio ?? recipe.ratio, 'g/g', ask.ratio === undefined ? 'recipe' : 'asked');
const retentionOf = ({ recipe, place, each }: Case) =>
  input(
    'kept',
    `Water kept by each gram (${recipe.filter})`,
    each.retentionGPerG,
    'g/g',
    place.retentionGPerG !== undefined ? 'log' : recipe.retentionGPerG !== undefined ? 'recipe' : 'default',
  );
const bypassOf = ({ recipe }: Case) => input('bypass', 'Bypass', recipe.bypassTimesDose, 'g/g', 'recipe');
const setBy = ({ place }: Case): Source =>
  place.setBy === 'bar' ? 'bar' : place.setBy === 'asked' ? 'asked' : 'default';

const SHARE_NAME = {
  ice: 'Share of the water that is brewed, the rest being ice',
  milk: 'Share that is brewed, the rest being milk',
};
/** The ratio as brewed, with an addition's share where there is one. */
const brewedRatio = (at: Case): { formula: string; inputs: DerivedFrom[] } => {
  const { addition } = at.ask;
  if (addition !== 'ice' && addition !== 'milk') return { formula: 'R', inputs: [recipeRatio(at)] };
  return {
    formula: `R × ${addition}`,
    inputs: [
      recipeRatio(at),
      input(addition, SHARE_NAME[addition], addition === 'ice' ? 0.8 : 0.9, '', 'default'),
    ],
  };
};

const TELLERS: Record<(typeof WHY_OF)[number], (at: Case) => Told | null> = {
  doseG: (at) => {
    const told = { name: 'Dose', unit: 'g' };
    const ratio = brewedRatio(at);
    if ('doseG' in at.ask)
      return { ...told, formula: 'given', inputs: [input('dose', 'Dose', at.ask.doseG, 'g', 'asked')] };
    if ('brewWaterG' in at.ask)
      return {
        ...told,
        formula: `round(water ÷ ${ratio.formula === 'R' ? 'R' : `(${ratio.formula})`}, 1)`,
        inputs: [waterOf(at), ...ratio.inputs],
      };
    const { ask, each } = at;
    // Ice is bypass, so with it the beverage has the whole ratio; milk comes on top of the beverage.
    const whole = ask.addition === 'ice' || ('drinkG' in ask && ask.addition === 'milk');
    const brewed = whole ? { formula: 'R', inputs: [recipeRatio(at)] } : ratio;
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
                ask.eachMl ?? USUAL_CUP_ML,
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
  },
  brewWaterG: (at) => {
    const told = { name: 'Brew water', unit: 'g' };
    if ('brewWaterG' in at.ask)
      return {
        ...told,
        formula: 'given',
        inputs: [input('water', 'Brew water', at.ask.brewWaterG, 'g', 'asked')],
      };
    const ratio = brewedRatio(at);
    return { ...told, formula: `round(dose × ${ratio.formula}, 0)`, inputs: [doseOf(at), ...ratio.inputs] };
  },
  bypassG: (at) => {
    const { recipe, ask, card } = at;
    if (card.bypassG === 0) return null;
    const own = recipe.bypassTimesDose > 0;
    const iced = ask.addition === 'ice';
    return {
      name: 'Bypass',
      unit: 'g',
      formula: [own ? 'round(bypass × dose, 0)' : '', iced ? 'round(R × dose, 0) − water' : '']
        .filter(Boolean)
        .join(' + '),
      inputs: [doseOf(at), ...(own ? [bypassOf(at)] : []), ...(iced ? [recipeRatio(at), waterOf(at)] : [])],
      ...(iced ? { note: 'Ice melts into the cup without passing the bed, so it counts as bypass.' } : {}),
    };
  },
  beverageG: (at) => ({
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
  }),
  drinkG: (at) => ({
    name: 'Drink',
    unit: 'g',
    formula: 'beverage + milk',
    inputs: [
      input('beverage', 'Beverage', at.card.beverageG, 'g', 'derived'),
      input('milk', 'Milk', at.card.drinkG - at.card.beverageG, 'g', 'derived'),
    ],
  }),
  ratio: (at) => ({
    name: 'Ratio',
    unit: 'g/g',
    formula: 'round(water ÷ dose, 2)',
    inputs: [waterOf(at), doseOf(at)],
    note: `The recipe’s own is 1:${at.recipe.ratio}; rounding to what a scale shows moves it a little.`,
  }),
  finalRatio: (at) => ({
    name: 'Final ratio',
    unit: 'g/g',
    formula: 'round((water + added) ÷ dose, 2)',
    inputs: [waterOf(at), input('added', 'Bypass', at.card.bypassG, 'g', 'derived'), doseOf(at)],
  }),
  waterC: (at) => {
    const { recipe, place } = at;
    const moved = followsRoast(recipe);
    return {
      name: 'Water',
      unit: '°C',
      formula: moved ? 'min(base + roast, floor(boiling, 1))' : 'min(base, floor(boiling, 1))',
      inputs: [
        input('base', `Base, ${recipe.waterIs}`, recipe.waterC, '°C', 'recipe'),
        ...(moved
          ? [input('roast', `Shift for a ${place.roast} roast`, ROAST_SHIFT_C[place.roast], '°C', 'default')]
          : []),
        input(
          'boiling',
          `Boiling point at ${place.altitudeM} m`,
          round(boilingPointC(place.altitudeM), 3),
          '°C',
          setBy(at),
        ),
      ],
      note: moved
        ? 'Lighter roasts take hotter water, darker ones cooler; never above boiling.'
        : 'Water that starts so, or is still rising, is not moved by the roast.',
    };
  },
  mixedC: (at) => {
    if (at.card.mixedC === undefined) return null;
    const cool = at.card.steps.filter((step) => step.waterC !== undefined);
    const coolG = cool.reduce((sum, step) => sum + step.pourG!, 0);
    return {
      name: 'Mixed temperature',
      unit: '°C',
      formula: 'round((cool × coolC + hot × hotC) ÷ (cool + hot), 1)',
      inputs: [
        input('cool', 'Cool water', coolG, 'g', 'derived'),
        input('coolC', 'Its temperature', cool[0]!.waterC!, '°C', 'recipe'),
        input('hot', 'Hot water', at.card.brewWaterG - coolG, 'g', 'derived'),
        input('hotC', 'Its temperature', at.card.waterC, '°C', 'derived'),
      ],
    };
  },
  kettleFillG: (at) => {
    const { card, recipe } = at;
    const coolG = card.steps.reduce((sum, step) => sum + (step.waterC === undefined ? 0 : step.pourG!), 0);
    const hotBypassG = card.bypassG - (at.ask.addition === 'ice' ? card.additionG : 0);
    return {
      name: 'Hot water to have ready',
      unit: 'g',
      formula: 'ceil((hot + rinse + warm) × 1.1)',
      inputs: [
        input('hot', 'Hot brew and bypass water', card.brewWaterG - coolG + hotBypassG, 'g', 'derived'),
        input('rinse', 'Rinsing or warming', METHODS[recipe.method].rinseG, 'g', 'method'),
        input('warm', 'Warming the cup', CUP_WARMING_G, 'g', 'default'),
      ],
      note: 'A tenth is spare.',
    };
  },
  brewTimeS: (at) => {
    const { recipe, card } = at;
    const method = METHODS[recipe.method];
    const draining = card.steps.some((step) => step.kind === 'drawdown');
    const from = `from ${method.anchorMark} to ${method.endMark}`;
    const start = card.steps.find((step) => step.anchor)!;
    const end = card.steps.findLast((step) => step.phase === 'brew')!;
    const anchorS = start.anchor === 'end' ? start.endS : start.startS;
    if (!draining)
      return {
        name: 'Brew time',
        unit: 's',
        formula: 'end − start',
        inputs: [
          input('end', `End of “${end.name}”`, end.endS, 's', 'derived'),
          input(
            'start',
            `${start.anchor === 'end' ? 'End' : 'Start'} of “${start.name}”`,
            anchorS,
            's',
            'recipe',
          ),
        ],
        note: `Counted ${from}.`,
      };
    const { lastPourEndS } = referenceOf(recipe);
    const middleS = (recipe.endWindowS.from + recipe.endWindowS.to) / 2;
    const lastPour = card.steps.findLast((step) => step.kind === 'pour')!;
    return {
      name: 'Brew time',
      unit: 's',
      formula: 'poured + max(swirled, ceil((dry − ref) × (dose ÷ refDose) ^ p))',
      inputs: [
        input('poured', 'End of the last pour', lastPour.endS, 's', 'derived'),
        input(
          'swirled',
          'Moves after it',
          card.steps.find((step) => step.kind === 'drawdown')!.startS - lastPour.endS + 1,
          's',
          'recipe',
        ),
        input('dry', 'Middle of the recipe’s window', middleS, 's', 'recipe'),
        input('ref', 'End of its last pour at the reference dose', lastPourEndS, 's', 'derived'),
        doseOf(at),
        input('refDose', 'Reference dose', recipe.refDoseG, 'g', 'recipe'),
        input(
          'p',
          'How drawdown grows with the dose',
          at.place.drawdownExponent ?? method.drawdownExponent!,
          '',
          at.place.drawdownExponent === undefined ? 'default' : 'log',
        ),
      ],
      note: `Counted ${from}. The log’s own drawdowns replace p when there are enough of them.`,
    };
  },
  handsTimeS: (at) => ({
    name: 'Hands time',
    unit: 's',
    formula: PHASES_OF.join(' + '),
    inputs: PHASES_OF.map((phase) =>
      input(
        phase,
        `Attended steps: ${phase}`,
        at.card.steps.reduce(
          (sum, step) => sum + (step.attended && step.phase === phase ? step.durationS : 0),
          0,
        ),
        's',
        'default',
      ),
    ),
    note: 'Each person’s own times replace the defaults when the log has enough of them.',
  }),
  grindSetting: ({ grinder, card, offsetSteps }) => {
    if (!grinder) return null;
    const found = grindSetting(grinder, card.grindBand, offsetSteps);
    if (!found.ok) return null;
    const sorted = [...grinder.points].sort((a, b) => a.band - b.band);
    const above = Math.max(
      1,
      sorted.findIndex((point) => point.band >= card.grindBand),
    );
    const [low, high] = [sorted[above - 1]!, sorted[above]!];
    return {
      name: `Setting of ${grinder.name}`,
      unit: '',
      value: found.setting,
      formula: 'round(low + (band − lowBand) ÷ (highBand − lowBand) × (high − low) + offset, 1)',
      inputs: [
        input('band', 'Grind band', card.grindBand, 'of 100', 'recipe'),
        input('lowBand', 'Calibrated band below', low.band, 'of 100', 'bar'),
        input('low', 'Its setting', low.setting, '', 'bar'),
        input('highBand', 'Calibrated band above', high.band, 'of 100', 'bar'),
        input('high', 'Its setting', high.setting, '', 'bar'),
        input('offset', 'This coffee’s offset', offsetSteps, 'steps', offsetSteps === 0 ? 'default' : 'bar'),
      ],
    };
  },
};

const PHASES_OF = ['prep', 'brew', 'finish', 'clean'] as const;

function targetWhy(at: Case, stepId: string): Derivation | null {
  const { card, recipe } = at;
  const step = card.steps.find((each) => each.id === stepId);
  if (!step || step.targetG === undefined) return null;
  const before = input('before', 'Reading before', step.targetG - step.pourG!, 'g', 'derived');
  const told = { name: `Reading after “${step.name}”`, value: step.targetG, unit: 'g' };
  const amount = recipe.steps.find((each) => each.id === stepId)?.pour?.amount;
  const ROUNDED = 'What rounding leaves goes to the last of the largest pours, so that all add up.';
  const plain: Derivation = {
    ...told,
    formula: 'before + pour',
    inputs: [before, input('pour', 'This pour', step.pourG!, 'g', 'derived')],
  };
  if (!amount)
    return {
      ...plain,
      note: `One part of a pour that would rise over the rim of the ${at.place.brewer?.name ?? 'brewer'}.`,
    };
  const derived: Derivation =
    'timesDose' in amount
      ? {
          ...told,
          formula: 'before + round(times × dose, 0)',
          inputs: [before, input('times', 'Times the dose', amount.timesDose, 'g/g', 'recipe'), doseOf(at)],
        }
      : 'toShare' in amount
        ? {
            ...told,
            formula: 'round(share × water, 0)',
            inputs: [input('share', 'Share of the brew water', amount.toShare, '', 'recipe'), waterOf(at)],
          }
        : 'restParts' in amount
          ? {
              ...told,
              formula: 'before + round((water − before) ÷ parts, 0)',
              inputs: [
                before,
                waterOf(at),
                input('parts', 'Equal parts that are left', amount.restParts, '', 'recipe'),
              ],
            }
          : {
              ...told,
              formula: 'before + fixed',
              inputs: [before, input('fixed', 'Fixed amount', amount.g, 'g', 'recipe')],
            };
  return { ...derived, note: ROUNDED };
}
