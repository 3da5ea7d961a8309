/**
 * What the hands card says: verb, figure and button for each kind of step.
 */
import { METHODS, type BrewCard, type CardStep } from '@even-kettle/core/recipe';
import type { AgendaItem } from '@even-kettle/core/plan';
import {
  inWords,
  showMass,
  showTemperature,
  showVolume,
  type Shown,
  type Units,
} from '@even-kettle/core/units';

export type Asked = {
  verb: string;
  /** The one number to read across the bar. */
  figure: Shown;
  /** What belongs to it in a line: temperature, flow, a hint. */
  detail: string;
  /** What the thumb says. */
  button: string;
};

const seconds = (durationS: number): Shown => ({ figure: String(durationS), unit: 's' });

/** What an agenda item asks for, in the bar's units. */
export function askedOf({ step, card, asks, awaited }: AgendaItem, units: Units): Asked {
  if (asks === 'cue' && awaited) {
    return {
      verb: `Watch for “${awaited.cue}”`,
      figure: seconds(awaited.durationS),
      detail: awaited.name,
      button: capital(awaited.cue ?? 'seen'),
    };
  }
  const asked = wordsFor(step, card, units);
  return asks === 'start' ? { ...asked, button: 'First water' } : asked;
}

/** One line for the list of what comes next. */
export function inShort({ step, card, asks, awaited }: AgendaItem, units: Units): string {
  if (asks === 'cue' && awaited)
    return `${awaited.name}, ${step.kind === 'serve' ? 'hand over' : lower(step.name)}`;
  if (step.targetG !== undefined)
    return `${step.name}, to ${inWords(showMass(step.targetG, units, 'water'))}`;
  if (step.kind === 'serve') return 'Hand over';
  if (step.kind === 'clean') return 'Clean';
  if (step.kind === 'load') return 'Load and tare';
  if (step.kind === 'weigh') return `${step.name}, ${inWords(showMass(card.doseG, units, 'dose'))}`;
  return step.name;
}

function wordsFor(step: CardStep, card: BrewCard, units: Units): Asked {
  const hint = step.hint ?? '';
  switch (step.kind) {
    case 'fill':
      return {
        verb: 'Fill the kettle to',
        figure: showMass(card.kettleFillG, units, 'water'),
        detail: `Set it to ${inWords(showTemperature(card.waterC, units))}. Never above its mark; cord dry.`,
        button: 'Filled',
      };
    case 'weigh':
      return {
        verb: 'Weigh beans',
        figure: showMass(card.doseG, units, 'dose'),
        detail: `Grind band ${card.grindBand} of 100, into the grinder.`,
        button: 'Weighed',
      };
    case 'set-filter':
      return {
        verb: step.name,
        figure: showMass(METHODS[card.method].rinseG, units, 'water'),
        detail: hint || 'With hot water from the kettle.',
        button: card.method === 'press' ? 'Warm' : 'Rinsed',
      };
    case 'load':
      return { verb: step.name, figure: showMass(card.doseG, units, 'dose'), detail: hint, button: 'Tared' };
    case 'pour':
      return {
        verb: 'Pour to',
        figure: showMass(step.targetG ?? 0, units, 'water'),
        detail: [`${step.flowGPerS} g a second`, hint].filter(Boolean).join('. '),
        button: 'Poured',
      };
    case 'plunge':
      return { verb: step.name, figure: seconds(step.durationS), detail: hint, button: 'Plunged' };
    case 'dip':
      return { verb: step.name, figure: seconds(step.durationS), detail: hint, button: 'Dipped' };
    case 'serve':
      return {
        verb: step.name,
        figure: showVolume(card.beverageG, units),
        detail: hint,
        button: 'Handed over',
      };
    case 'clean':
      return { verb: step.name, figure: seconds(step.durationS), detail: hint, button: 'Clean' };
    default:
      return { verb: step.name, figure: seconds(step.durationS), detail: hint, button: 'Done' };
  }
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
