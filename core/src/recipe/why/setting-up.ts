/**
 * Why so hot, so full, so fine: what is set up before a brew.
 */
import { CUP_WARMING_G, boilingPointC } from '../../water';
import { isUnwarmed, startsCool } from '../card';
import { grindSetting as settingOf } from '../grind';
import { METHODS } from '../methods';
import { round } from '../round';
import { ROAST_SHIFT_C, followsRoast } from '../temperature';
import { input, setBy, type Teller } from './derivation';

export const waterC: Teller = (at) => {
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
};

export const mixedC: Teller = (at) => {
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
};

export const kettleFillG: Teller = (at) => {
  const { card, recipe } = at;
  const coolG = startsCool(recipe)
    ? card.brewWaterG
    : card.steps.reduce((sum, step) => sum + (step.waterC === undefined ? 0 : step.pourG!), 0);
  const hotBypassG = card.bypassG - (at.ask.addition === 'ice' ? card.additionG : 0);
  return {
    name: 'Hot water to have ready',
    unit: 'g',
    formula: 'ceil((hot + rinse + warm) × 1.1)',
    inputs: [
      input('hot', 'Hot brew and bypass water', card.brewWaterG - coolG + hotBypassG, 'g', 'derived'),
      input('rinse', 'Rinsing or warming', METHODS[recipe.method].rinseG, 'g', 'method'),
      input('warm', 'Warming the cup', isUnwarmed(at.ask, at.place) ? 0 : CUP_WARMING_G, 'g', 'default'),
    ],
    note: 'A tenth is spare.',
  };
};

export const grindSetting: Teller = ({ grinder, card, offsetSteps }) => {
  if (!grinder) return null;
  const found = settingOf(grinder, card.grindBand, offsetSteps);
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
};
