/**
 * What a method is, as data: what is true of a way of brewing whichever school is followed. Code asks for these traits and
 * never for a method by its name, so that a new method is its folder here and its drawing.
 */
import type { MethodId, Recipe, StepKind, Wish } from '../recipe';
import type { Brewer } from './brewer';
import type { MethodLessons } from './lessons';
import type { CautionId } from './caution-words';

/** What heats the brew water: a kettle, from which it is poured; a globe, out of which it rises; or the pot that brews. */
export type HeatedIn = 'kettle' | 'globe' | 'pot';

/** What being late costs a cup, and what to do about it, in a line. */
export type LatePrice = { cost: 'nothing' | 'little' | 'the cup'; words: string };
/**
 * What helps a bed that drains too slowly or too fast while it still runs: by which share of its drawdown that changes the
 * time (our own estimates), and whether only while water is still poured or only once it is all in.
 */
export type Help = { words: string; share: number; while?: 'pouring' | 'draining' };
export type Helps = Record<'slow' | 'fast', readonly Help[]>;

/** While the recipe still forgives it, and after. */
export type LatePrices = { within: LatePrice; beyond: LatePrice };
/** Where a method differs from others when it is late: with its flame, its anchor, its plunger, in its brew, or with serving. */
export type LateMoment = 'flame' | 'anchor' | 'press' | 'brew' | 'serve';

export type Method = {
  id: MethodId;
  name: string;
  /** What the cup is like. */
  character: string;
  /** 1 light to 5 heavy, and 1 cloudy to 5 very clear. */
  body: number;
  clarity: number;
  /** What a guest asks for that this answers, whichever the school. */
  suits: Wish[];
  /** Water kept by a gram of coffee with the usual filter, g/g. The bar's own weighed cups correct it later. */
  retentionGPerG: number;
  /** Water that is neither in the bed nor in the cup (steam, a siphon's lower globe), grams. */
  lossG: number;
  /** Hot water to rinse the filter or warm the glass, grams. */
  rinseG: number;
  /** What the step that sets the filter has done to it. */
  rinsed: 'Rinsed' | 'Warm';
  /** p in t = t_ref x (dose / dose_ref)^p for the drawdown; null where nothing drains through a bed by itself. */
  drawdownExponent: number | null;
  /** The bed sets how long the brew takes, so a time that is off asks for another grind. */
  bedSetsTime: boolean;
  /** All the brew water is in the brewer at once. */
  steeps: boolean;
  /** Coffee and all the water stay together until they are parted: all the brew water is as strong as the cup. */
  isImmersion: boolean;
  heatedIn: HeatedIn;
  /** How hot the coffee is as it meets ice, degrees Celsius, and where the two meet: never in a globe or a hot press. */
  meetsIceC: number;
  iceIn: 'the server' | 'a second vessel';
  /** A cup with no size: 250 ml, but a pot's is its own, millilitres. */
  usualCupMl: number;
  anchorMark: string;
  endMark: string;
  /** Its paper filters, as they are bought; null where it has none of its own. */
  papers: string | null;
  /** It brews through a cloth, whose uses and boilings are counted. */
  hasCloth: boolean;
  /** Whoever brews may have to hold it all the while. */
  canBeHandHeld: boolean;
  /** Parted by pushing: the word for it when it is done; null where nothing is pushed. */
  pressedBy: 'Plunged' | 'Pressed' | null;
  /** Where what is taken off afterwards goes, and with which step; null where nothing is. */
  takenOff: { with: StepKind; words: string } | null;
  /** What is checked before it is closed; null for the usual: rinse water out, coffee in, tared. */
  checklist: readonly string[] | null;
  /** A stall: what to do now; what to change next time; and what the record advises. */
  stall: { now: string; next: string; advice: string };
  late: Partial<Record<LateMoment, LatePrices>>;
  helps: Helps;
  /** The caution before a step of a kind; what every method's plunger needs comes by itself. */
  cautions: Partial<Record<StepKind, CautionId>>;
};

/** A method with its brewers, smallest first, and the recipes that ship. */
export type MethodEntry = {
  method: Method;
  brewers: readonly Brewer[];
  schools: readonly Recipe[];
  /** What a learner is told of its steps. */
  lessons: MethodLessons;
};

const USUAL_CUP_ML = 250;
export const STIR: Help = { words: 'Stir the top gently, without scraping the filter', share: -0.1 };
const LIFT: Help = { words: 'Lift the filter’s edge once, so that air gets under it', share: -0.2 };
/** What slows a bed that runs too fast. */
export const SLOWER: readonly Help[] = [
  { words: 'Pour what is left low and gently, in the middle', share: 0.1, while: 'pouring' },
  { words: 'Split what is left into two pours', share: 0.15, while: 'pouring' },
  { words: 'Swirl once, gently: fine grounds settle over the holes', share: 0.08, while: 'draining' },
];
export const QUICKER: readonly Help[] = [LIFT, STIR];
export const FREE_THE_SPOUT: Help = {
  words: 'Free the spout with a stick, so that air gets out',
  share: -0.3,
};

const COARSER_IF_AGAIN = 'First free the air; if it stalls again, one step coarser.';
const USUAL = {
  lossG: 0,
  rinsed: 'Rinsed',
  usualCupMl: USUAL_CUP_ML,
  papers: null,
  hasCloth: false,
  canBeHandHeld: false,
  pressedBy: null,
  checklist: null,
  takenOff: null,
  late: {},
  helps: { slow: [], fast: [] },
  cautions: {},
} satisfies Partial<Method>;

/** What is usual of methods whose water is poured over a bed and drains through it. */
export const POURED = {
  ...USUAL,
  takenOff: { with: 'decant', words: 'It goes into its tray or onto a saucer: it drips on.' },
  bedSetsTime: true,
  steeps: false,
  isImmersion: false,
  heatedIn: 'kettle',
  meetsIceC: 72,
  iceIn: 'the server',
  anchorMark: 'first water',
  endMark: 'drops only',
  helps: { slow: QUICKER, fast: SLOWER },
  stall: {
    now: 'Lift the filter’s edge once so that air gets under it, and swirl gently.',
    next: COARSER_IF_AGAIN,
    advice: 'Pour lower and more gently, so that fewer fines reach the paper; then one step coarser.',
  },
} satisfies Partial<Method>;

/** What is usual of methods whose coffee stands in all its water. */
export const STEEPED = {
  ...USUAL,
  drawdownExponent: null,
  bedSetsTime: false,
  steeps: true,
  isImmersion: true,
  meetsIceC: 88,
  iceIn: 'a second vessel',
} satisfies Partial<Method>;

/** What is usual of methods that are parted by pushing. */
export const PUSHED = {
  ...STEEPED,
  heatedIn: 'kettle',
  stall: {
    now: 'Stop and lift the plunger a little. Wait, then press straight down, slowly.',
    next: 'One step coarser.',
    advice: 'Never force the plunger: lift it, wait, and press straight down. One step coarser next time.',
  },
} satisfies Partial<Method>;

/** What is usual of pots that brew over their own flame. */
export const OVER_A_FLAME = {
  ...STEEPED,
  rinseG: 0,
  heatedIn: 'pot',
  stall: {
    now: 'Flame off. Let it cool before anything is opened.',
    next: 'Look at the flame and the joint first.',
    advice: 'Look at the flame and the joint first.',
  },
  cautions: { flame: 'stove' },
} satisfies Partial<Method>;

export const nothing = (words: string): LatePrice => ({ cost: 'nothing', words });
export const little = (words: string): LatePrice => ({ cost: 'little', words });
export const costsTheCup = (words: string): LatePrice => ({ cost: 'the cup', words });
/** It costs the same whether the recipe still forgives it or not. */
export const sameCost = (price: LatePrice): LatePrices => ({ within: price, beyond: price });

/** What stands on its grounds draws on until it is decanted. */
export const ON_ITS_GROUNDS: LatePrices = {
  within: little('It draws on while it stands on its grounds.'),
  beyond: costsTheCup('It has stood on its grounds: taste before it goes out.'),
};
/** A pot goes on boiling until it is off its flame, and its metal stays hot. */
const HARSH = sameCost(costsTheCup('It boils on and turns harsh: off the flame first.'));
export const BOILS_ON: Partial<Record<LateMoment, LatePrices>> = {
  flame: HARSH,
  brew: HARSH,
  serve: sameCost(little('Pour it out; the hot metal goes on cooking it.')),
};
