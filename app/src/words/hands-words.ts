/**
 * What the hands card says: verb, figure and button for each kind of step.
 */
import type { Coffee } from '@even-kettle/core/contract';
import { restOf } from '@even-kettle/core/learn';
import type { Ground } from './grind-words';
import { START_CUE_WORDS } from './path-words';
import { METHODS, isFromTin, fillOf, type BrewCard, type CardStep } from '@even-kettle/core/recipe';
import type { AgendaItem } from '@even-kettle/core/plan';
import {
  inWords,
  showMass,
  showTemperature,
  showVolume,
  type Shown,
  type Units,
} from '@even-kettle/core/units';

export type HandsWords = {
  verb: string;
  /** The one number to read across the bar. */
  figure: Shown;
  /** What belongs to it in a line: temperature, flow, a hint. */
  detail: string;
  /** What the thumb says. */
  button: string;
};

const seconds = (durationS: number): Shown => ({ figure: String(durationS), unit: 's' });
/** Stirs that are counted are told by their number. */
const stirsOrSeconds = ({ stirs, durationS }: CardStep): Shown =>
  stirs ? { figure: String(stirs), unit: stirs === 1 ? 'stir' : 'stirs' } : seconds(durationS);

/** What an agenda item asks for, in the bar's units. */
export function handsWords(
  { step, card, asks, awaited }: AgendaItem,
  units: Units,
  ground: Ground | null = null,
  kettle: string | null = null,
): HandsWords {
  if (asks === 'cue' && awaited) {
    return {
      verb: `Watch for “${awaited.cue}”`,
      figure: seconds(awaited.durationS),
      detail: awaited.name,
      button: capital(awaited.cue ?? 'seen'),
    };
  }
  const asked = wordsFor(step, card, units, ground, kettle);
  if (asks !== 'start') return asked;
  // What starts the timer is what the method counts from: first water, or coffee meeting water.
  return { ...asked, button: step.anchor ? capital(METHODS[card.method].anchorMark) : 'Pouring' };
}

/** One line for the list of what comes next. */
export function inShort({ step, card, asks, awaited }: AgendaItem, units: Units): string {
  if (asks === 'cue' && awaited)
    return `${awaited.name}, ${step.kind === 'serve' ? 'hand over' : lower(step.name)}`;
  if (step.byEye) return `${step.name}, for ${step.durationS} s`;
  if (step.targetG !== undefined)
    return `${step.name}, to ${inWords(showMass(step.targetG, units, 'water'))}`;
  if (step.kind === 'serve') return 'Hand over';
  if (step.kind === 'clean') return 'Clean';
  if (step.kind === 'load') return 'Load and tare';
  if (step.kind === 'weigh') return `${step.name}, ${inWords(showMass(card.doseG, units, 'dose'))}`;
  return step.name;
}

// eslint-disable-next-line max-lines-per-function -- one case for each kind of step
function wordsFor(
  step: CardStep,
  card: BrewCard,
  units: Units,
  ground: Ground | null,
  kettle: string | null,
): HandsWords {
  const hint = step.hint ?? '';
  switch (step.kind) {
    case 'fill':
      if (METHODS[card.method].heatedIn !== 'kettle')
        return {
          verb: step.name,
          figure: showMass(card.brewWaterG, units, 'water'),
          detail: hint,
          button: 'Weighed in',
        };
      return {
        verb: `Fill ${kettle ?? 'the kettle'} to`,
        figure: showMass(fillOf(step, card), units, 'water'),
        detail: [
          fillOf(step, card) === card.fills.at(-1)?.g
            ? ''
            : `To rinse and warm with. All of it, ${inWords(showMass(card.kettleFillG, units, 'water'))}, is more than it takes, so it is filled again for the brew.`,
          `Set it to ${inWords(showTemperature(card.waterC, units))}.`,
          coolWords(card, units),
          card.steps.some(({ byEye }) => byEye)
            ? `${inWords(showMass(card.brewWaterG, units, 'water'))} of it is weighed in for the brew.`
            : 'Never above its mark; cord dry.',
        ]
          .filter(Boolean)
          .join(' '),
        button: 'Filled',
      };
    case 'weigh':
      if (isFromTin(step))
        return {
          verb: step.name,
          figure: showMass(card.doseG, units, 'dose'),
          detail: `Empty it into the grinder. ${ground?.setting ?? ''}`.trim(),
          button: 'In the grinder',
        };
      return {
        verb: 'Weigh beans',
        figure: showMass(ground?.weighG ?? card.doseG, units, 'dose'),
        detail: weighWords(ground, units),
        button: 'Weighed',
      };
    case 'set-filter':
      return {
        verb: step.name,
        figure: showMass(METHODS[card.method].rinseG, units, 'water'),
        detail: [
          hint,
          METHODS[card.method].heatedIn !== 'kettle'
            ? ''
            : card.isRinsedFromTap
              ? `Hot water from the tap: what is in ${kettle ?? 'the kettle'} is for the brew.`
              : `Hot water from ${kettle ?? 'the kettle'}.`,
        ]
          .filter(Boolean)
          .join(' '),
        button: METHODS[card.method].rinsed,
      };
    case 'load':
      return {
        verb: step.name,
        figure: showMass(card.doseG, units, 'dose'),
        detail: [iceWords(card, units), hint, coolWords(card, units)].filter(Boolean).join(' '),
        button: METHODS[card.method].heatedIn === 'kettle' ? 'Tared' : 'Closed',
      };
    case 'pour':
      if (step.byEye)
        return {
          verb: 'Pour for',
          figure: seconds(step.durationS),
          detail: [
            `${inWords(showMass(step.pourG ?? 0, units, 'water'))} by the eye. ${openingOf(step, units)} ${step.flowGPerS} g a second`,
            pouredFrom(step, card, units, kettle),
            hint,
          ]
            .filter(Boolean)
            .join('. '),
          button: 'Poured',
        };
      return {
        verb: 'Pour to',
        figure: showMass(step.targetG ?? 0, units, 'water'),
        detail: [
          step.startCue ? `When ${START_CUE_WORDS[step.startCue]}` : '',
          pouredFrom(step, card, units, kettle),
          `${openingOf(step, units)} ${step.flowGPerS} g a second`.trim(),
          hint,
        ]
          .filter(Boolean)
          .join('. '),
        button: step.end === 'cue' ? capital(step.cue ?? 'seen') : 'Poured',
      };
    case 'bypass':
      return {
        verb: step.name,
        figure: showMass(card.bypassG, units, 'water'),
        detail: hint,
        button: 'Added',
      };
    case 'watch':
      return {
        verb: `Watch for “${step.cue}”`,
        figure: seconds(step.durationS),
        detail: hint,
        button: capital(step.cue ?? 'seen'),
      };
    case 'flame':
      return {
        verb: step.name,
        figure: step.checkC ? checked(step.checkC, units) : stirsOrSeconds(step),
        detail: hint,
        button: capital(step.cue ?? 'done'),
      };
    case 'plunge':
      return { verb: step.name, figure: seconds(step.durationS), detail: hint, button: 'Plunged' };
    case 'dip':
      return { verb: step.name, figure: seconds(step.durationS), detail: hint, button: 'Dipped' };
    case 'serve':
      return {
        verb: step.name,
        figure: showVolume(card.beverageG, units),
        // The hint says “hot”.
        detail: [takenOff(step, card), servedWith(card, units), card.addition === 'ice' ? '' : hint]
          .filter(Boolean)
          .join(' '),
        button: 'Handed over',
      };
    case 'clean':
      return { verb: step.name, figure: seconds(step.durationS), detail: hint, button: 'Clean' };
    default:
      return {
        verb: step.name,
        figure: stirsOrSeconds(step),
        detail: [takenOff(step, card), hint].filter(Boolean).join(' '),
        button: step.end === 'cue' ? capital(step.cue ?? 'done') : 'Done',
      };
  }
}

/** Where the filter or the hot top goes. */
const takenOff = ({ kind }: CardStep, { method }: BrewCard): string => {
  const { takenOff: off } = METHODS[method];
  return off?.with === kind ? off.words : '';
};

/** Which grinder at which setting; and why more than the dose is weighed. */
function weighWords(ground: Ground | null, units: Units): string {
  if (!ground) return '';
  if (!ground.more) return `${ground.setting}.`;
  const grams = (massG: number) => inWords(showMass(massG, units, 'dose'));
  const { purgeG, keepsG, after } = ground.more;
  return `${ground.setting}. The grinder held ${after}: throw the first ${grams(purgeG)} away; it keeps ${grams(keepsG)}.`;
}

/** Ice goes into the server before the first water. */
const iceWords = ({ addition, additionG, method }: BrewCard, units: Units): string =>
  addition === 'ice' && METHODS[method].iceIn === 'the server'
    ? `${inWords(showMass(additionG, units, 'water'))} of ice into the server.`
    : '';
function servedWith({ addition, additionG, method }: BrewCard, units: Units): string {
  const ice = inWords(showMass(additionG, units, 'water'));
  if (addition === 'ice')
    return METHODS[method].iceIn === 'the server'
      ? 'Stir until the ice has melted. Say “cold”.'
      : `Pour it over ${ice} of ice in a second vessel, never ice into hot glass. Stir. Say “cold”.`;
  if (addition === 'milk') return `With ${inWords(showMass(additionG, units, 'water'))} of milk.`;
  return addition === 'sugar' ? 'Sugar beside.' : '';
}

/** What a cup is, in a line: coffee, size and what is added. */
export const cupInWords = (
  { coffee, cupMl, cups, addition }: { coffee: string; cupMl: number; cups?: number; addition?: string },
  units: Units,
): string =>
  [
    coffee,
    `${cups ? `${cups} × ` : ''}${inWords(showVolume(cupMl, units))}`,
    addition ? `with ${addition}` : null,
  ]
    .filter(Boolean)
    .join(' · ');

/** The first part of a pour that is poured otherwise: "to 97 g at 2.5 g a second, until pale". */
const openingOf = ({ opening }: CardStep, units: Units): string =>
  opening
    ? `First to ${inWords(showMass(opening.targetG, units, 'water'))} at ${opening.flowGPerS} g a second${opening.cue ? `, until “${opening.cue}”` : ''}; then`
    : '';
/** Which kettle at which temperature; or a pour's own water, which comes from a jug. */
const pouredFrom = ({ waterC }: CardStep, card: BrewCard, units: Units, kettle: string | null): string =>
  waterC === undefined
    ? `${kettle ?? 'Kettle'} at ${inWords(showTemperature(card.waterC, units))}`
    : `Water of ${inWords(showTemperature(waterC, units))}, from its jug`;
/** What a cool bloom needs beside the kettle. */
function coolWords({ steps }: BrewCard, units: Units): string {
  const cool = steps.find(({ waterC }) => waterC !== undefined);
  if (!cool) return '';
  return `Beside it, ${inWords(showMass(cool.pourG!, units, 'water'))} of water at ${inWords(showTemperature(cool.waterC!, units))} in a jug, for “${cool.name}”.`;
}
/** What a brewer takes, from its least dose to its largest. */
export const dosesInWords = (
  { minDoseG, maxDoseG }: { minDoseG: number; maxDoseG: number },
  units: Units,
): string => `${showMass(minDoseG, units, 'dose').figure}–${inWords(showMass(maxDoseG, units, 'dose'))}`;

/** A range of temperatures, as one figure. */
const checked = ({ from, to }: { from: number; to: number }, units: Units): Shown => ({
  figure: `${showTemperature(from, units).figure}–${showTemperature(to, units).figure}`,
  unit: showTemperature(to, units).unit,
});

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

/** A time of day, as the viewer's own locale has it. */
export const clockTime = (atMs: number): string =>
  new Date(atMs).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' });

/** A moment for a list: the time alone today, with the day before it otherwise, with its year if it was another. */
export function dayAndTime(atMs: number, nowMs: number): string {
  const at = new Date(atMs);
  const now = new Date(nowMs);
  if (at.toDateString() === now.toDateString()) return clockTime(atMs);
  const day = at.toLocaleDateString(undefined, {
    day: 'numeric',
    month: 'short',
    ...(at.getFullYear() === now.getFullYear() ? {} : { year: 'numeric' }),
  });
  return `${day}, ${clockTime(atMs)}`;
}

/** Decaf in capitals, so that it is taken for nothing else; and what its age asks for. */
export function coffeeHint({ roast, decaf, roastedOn }: Coffee, nowMs: number): string {
  const stands = roastedOn ? restOf(roastedOn, roast, nowMs).stands : 'good';
  return [decaf ? 'DECAF' : null, roast, stands === 'good' ? null : stands].filter(Boolean).join(' · ');
}
