/**
 * The steps that schools share: prep, finish and clean of each method, and the commonest steps of a brew. Times are the
 * craft's defaults; each person's own replace them later.
 */
import type { Hold, Pour, PourPart, RecipeStep, StartWindow, StepKind } from '../recipe';
import { WARM_CUP } from '../variants';

export const BURNS =
  'Boiling water, steam and hot glass burn: keep handles dry, never carry a full server over a guest. Local codes, the makers’ instructions and trained staff come first.';
export const KETTLE = 'Electric kettle: never above its mark, cord dry.';
export const NEVER_FORCE =
  'Never force a plunger; a jam can spray scalding slurry: lift, wait, press straight on a firm cup that fits.';
export const FLAME: string[] = [
  'Glass is looked over for cracks before use. Never heat an empty or a cracked globe.',
  'Chain or boiling bead in place, or the water can superheat and burst out. Dry the outside.',
  'The flame stays attended, with nothing near it that burns; the burner is cold before it is refilled; know where the extinguisher or blanket is.',
  'Let glass cool before rinsing. A halogen or electric heater stays hot after it is off.',
];
export const STOVE: string[] = [
  'The flame stays attended, no wider than the base, with nothing near it that burns.',
  'Metal and handles get hot: hold with a dry cloth.',
];

export const PRESSURE: string[] = [
  'Never opened hot: cool the base (outside only), wait until no steam comes, then unscrew with a dry towel.',
  'Water never over the valve, coffee never packed.',
];

const tapped = (cue: string) => ({ by: 'cue', cue }) as const;
const straight = { afterS: 0 } as const;

/** A step that needs hands and ends with a tap. */
export const handStep = (
  id: string,
  kind: StepKind,
  name: string,
  lengthS: number,
  cue: string,
  more: Partial<RecipeStep> = {},
): RecipeStep => ({
  id,
  kind,
  name,
  phase: 'brew',
  attended: true,
  start: straight,
  lasts: { s: lengthS },
  end: tapped(cue),
  ...more,
});

/** A step that needs no hands. */
export const passive = (
  id: string,
  kind: StepKind,
  name: string,
  lasts: RecipeStep['lasts'],
  more: Partial<RecipeStep> = {},
): RecipeStep => ({
  id,
  kind,
  name,
  phase: 'brew',
  attended: false,
  start: straight,
  lasts,
  end: { by: 'clock' },
  ...more,
});

/** A short step of the hands that follows straight on what was before and ends by the clock. */
export const straightOn = (id: string, kind: 'swirl' | 'stir', name: string, lengthS = 4): RecipeStep => ({
  id,
  kind,
  name,
  phase: 'brew',
  attended: true,
  start: straight,
  lasts: { s: lengthS },
  end: { by: 'clock' },
});

/** A pour that ends by weight. */
export const pourStep = (
  id: string,
  name: string,
  start: RecipeStep['start'],
  pour: Pour,
  more: Partial<RecipeStep> = {},
): RecipeStep => ({
  id,
  kind: 'pour',
  name,
  phase: 'brew',
  attended: true,
  start,
  lasts: 'pour',
  end: { by: 'weight' },
  pour,
  ...more,
});

export const SPIRAL: PourPart = { path: 'spiral', wall: 'kept' };
export const WASHING_SPIRAL: PourPart = { path: 'spiral', wall: 'washed' };

/** The same pour with where its water goes. */
export const along = (step: RecipeStep, ...paths: PourPart[]): RecipeStep => ({
  ...step,
  pour: { ...step.pour!, paths },
});
/** Pours of which the last goes another way than the others. */
export const alongUntilLast = (steps: readonly RecipeStep[], usual: PourPart, last: PourPart): RecipeStep[] =>
  steps.map((step, index) => along(step, index === steps.length - 1 ? last : usual));

export const bloom = (timesDose: number, flowGPerS: number, more: Partial<RecipeStep> = {}): RecipeStep =>
  pourStep('bloom', 'Bloom', straight, { amount: { timesDose }, flowGPerS }, { anchor: 'start', ...more });

/** A pour at a reading of the timer, up to a share of the brew water. */
export const pourTo = (
  id: string,
  name: string,
  atS: number,
  toShare: number,
  flowGPerS: number,
  more: Partial<RecipeStep> = {},
): RecipeStep => pourStep(id, name, { atS }, { amount: { toShare }, flowGPerS }, more);

const COUNT = ['First', 'Second', 'Third', 'Fourth', 'Fifth', 'Sixth', 'Seventh', 'Eighth', 'Ninth', 'Last'];
const NUMBER = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'];

/** Equal pours of all that is left, one at each of the timer's readings. */
export const equalPours = (
  word: string,
  atS: readonly number[],
  flowGPerS: number,
  more: Partial<RecipeStep> = {},
): RecipeStep[] =>
  atS.map((at, index) =>
    pourStep(
      `${word}-${index + 1}`,
      `${index === atS.length - 1 ? 'Last' : COUNT[index]} of ${NUMBER[atS.length]} ${word}s`,
      { atS: at },
      { amount: { restParts: atS.length - index }, flowGPerS },
      more,
    ),
  );

/** With what is left in the kettle, as the bed drains or the coffee steeps: nothing waits for it. */
export const warmCup: RecipeStep = {
  ...straightOn(WARM_CUP, 'stir', 'Warm the cup', 6),
  kind: 'warm',
  hint: 'With what is left in the kettle. Throw it out before the coffee goes in.',
};

export const drawdown: RecipeStep = passive('drawdown', 'drawdown', 'Drawdown', 'drawdown', {
  end: tapped('drops only'),
});

export const BESIDE_THE_BED = 'Beside the bed, not through it.';
/** Water that no bed sees, once the coffee is in the server. */
export const addWater = (hint: string): RecipeStep =>
  handStep('bypass', 'bypass', 'Add water to the server', 6, 'added', { phase: 'finish', hint });

/** Water on. The filter is rinsed first, and warms through while the beans are weighed and ground: so they do not stand ground. */
const kettleOn = handStep('fill', 'fill', 'Fill the kettle', 12, 'filled and heating', { phase: 'prep' });
const beans: RecipeStep[] = [
  handStep('weigh', 'weigh', 'Weigh the beans', 12, 'weighed, in the grinder', { phase: 'prep' }),
  passive('grind', 'grind', 'Grinding', { sPerDoseG: 1.2 }, { phase: 'prep' }),
];
const heat = passive('heat', 'heat', 'Water heating', 'heating', { phase: 'prep' });
const FORGOTTEN = 'Forgetting to throw the rinse water away is the commonest mistake.';

const setFilter = (name: string, lengthS: number, more: Partial<RecipeStep>): RecipeStep =>
  handStep('set-filter', 'set-filter', name, lengthS, 'rinsed', { phase: 'prep', ...more });
const load = (name: string, more: Partial<RecipeStep> = {}): RecipeStep =>
  handStep('load', 'load', name, 15, 'rinse water out, tared', {
    phase: 'prep',
    mistake: FORGOTTEN,
    ...more,
  });
const pouredPrep = (filter: RecipeStep): RecipeStep[] => [
  kettleOn,
  heat,
  filter,
  ...beans,
  load('Throw the rinse, load, tare', { hint: 'Break dry clumps and level the bed.' }),
];

export const conePrep = pouredPrep(
  setFilter('Fold, set and rinse the filter', 18, {
    hint: 'Fold along the seam, on the side away from the pouring hand.',
  }),
);
export const flatPrep = pouredPrep(
  setFilter('Set and rinse the filter', 18, {
    hint: 'Level in its seat.',
    mistake: 'Crushing the flutes when rinsing.',
  }),
);
export const hourglassPrep = pouredPrep(
  setFilter('Set and rinse the thick filter', 18, {
    hint: 'The layered side over the spout.',
    mistake: 'Paper that closes the spout: the air cannot leave and the brew stalls.',
  }),
);
export const hourglassClothPrep = pouredPrep(
  setFilter('Set and rinse the reusable filter', 25, { hint: 'Rinse generously; the spout stays free.' }),
);
export const sockPrep = pouredPrep(
  setFilter('Wring, hang and rinse the cloth', 25, {
    hint: 'Rinse generously; the cloth comes cold and wet from its water.',
    mistake: 'A cloth that has dried out: it goes stale and must be boiled.',
  }),
);
export const pressPrep: RecipeStep[] = [
  kettleOn,
  heat,
  handStep('set-filter', 'set-filter', 'Warm the press', 10, 'warm', { phase: 'prep' }),
  ...beans,
  load('Throw the water, load, tare'),
];
export const airPressPrep: RecipeStep[] = [
  kettleOn,
  heat,
  handStep('set-filter', 'set-filter', 'Set the paper disc, warm the press', 10, 'warm', {
    phase: 'prep',
    hint: 'Wet the disc so that it lies flat.',
  }),
  ...beans,
  load('Throw the water, load, tare', { hint: 'On a firm cup that fits.' }),
];

/** A siphon's: cloth hooked, water weighed into the lower globe. No kettle pours into it. */
export const siphonPrep: RecipeStep[] = [
  setFilter('Hook, centre and rinse the cloth', 25, {
    hint: 'The chain touches the lower globe.',
    mistake: 'A filter off its centre: grounds come down with the coffee.',
  }),
  handStep('fill', 'fill', 'Weigh the water into the lower globe', 12, 'weighed in, outside dry', {
    phase: 'prep',
    hint: 'Look for cracks; dry the outside.',
  }),
];
/** Beans for coffee that goes in when the water has risen: while it rises, so that they do not stand ground. */
export const beansMeanwhile: RecipeStep[] = beans.map((step) =>
  step.kind === 'weigh' ? { ...step, window: { earlyS: 0, lateS: 20, penalty: 0.3 } } : step,
);
export { beans };

const handOver = (name: string, lengthS: number, window?: StartWindow): RecipeStep =>
  handStep('serve', 'serve', name, lengthS, 'handed over', {
    phase: 'finish',
    hint: 'Say “hot”.',
    ...(window ? { window } : {}),
  });
const clean = (lengthS: number, name = 'Knock out, rinse, reset', hint?: string): RecipeStep =>
  handStep('clean', 'clean', name, lengthS, 'station ready', { phase: 'clean', ...(hint ? { hint } : {}) });

/** Coffee that is still on its grounds wants to leave them at once. */
const AT_ONCE: StartWindow = { earlyS: 0, lateS: 20, penalty: 0.5 };
const CLOTH_CARE = 'Rinse the cloth at once, no soap; keep it cold and wet.';

/** Together with the hand-over it may wait a minute: what drips on past its end mark thins the cup. */
export const offFirst = (name: string, cue: string): RecipeStep[] => [
  handStep('off', 'decant', name, 3, cue, {
    phase: 'finish',
    window: { earlyS: 0, lateS: 40, penalty: 0.5 },
  }),
  handOver('Swirl, cup, hand over', 15, { earlyS: 0, lateS: 20, penalty: 0.5 }),
];

export const paperFinish = [...offFirst('Take the filter off', 'filter off'), clean(20)];
export const clothFinish = [
  ...offFirst('Take the cloth off', 'cloth off'),
  clean(35, 'Rinse the cloth, reset', CLOTH_CARE),
];
export const pressFinish = [handOver('Decant at once, cup, hand over', 18, AT_ONCE), clean(40)];
export const decantedFinish = [
  handStep('decant', 'decant', 'Decant at once', 10, 'decanted', { phase: 'finish', window: AT_ONCE }),
  handOver('Cup, hand over', 12),
  clean(40),
];
export const siphonFinish = [
  handOver('Top off, swirl, cup, hand over', 18, { earlyS: 0, lateS: 40, penalty: 0.5 }),
  passive('cool', 'cool', 'Glass cooling', { s: 60 }, { phase: 'clean' }),
  clean(45, 'Rinse globe and cloth, reset', `Only once the glass has cooled. ${CLOTH_CARE}`),
];
export const potFinish = [handOver('Stir, cup, hand over', 18), clean(20, 'Empty, rinse, reset')];

/** Tools of a brew whose water comes from a kettle, until the last pour. */
export const kettleHolds = (lastPour: string): Hold[] => [
  { tool: 'grinder', from: 'grind', to: 'grind' },
  { tool: 'kettle', from: 'fill', to: lastPour },
  { tool: 'brewer', from: 'fill', to: 'clean' },
];
/** Tools of a brew that stands over a flame. */
export const flameHolds = (brewerFrom: string, lit: string, out: string): Hold[] => [
  { tool: 'grinder', from: 'grind', to: 'grind' },
  { tool: 'burner', from: lit, to: out },
  { tool: 'brewer', from: brewerFrom, to: 'clean' },
];
