/**
 * The cautions, short enough to be read with a cloth in the hand. Local codes, the makers' instructions and trained staff
 * come first.
 */
export const CAUTIONS = {
  flame: 'Flame: glass without cracks, dry outside, chain in place, nothing near that burns. Stay with it.',
  stove: 'Flame: no wider than the base, never left alone. Metal and handles get hot.',
  plunge: 'Never force a plunger: it can spray scalding slurry. If it jams, lift, wait, press straight.',
  press: 'Off the scale, straight down on a firm cup that fits. If it jams, lift and wait; never force it.',
  'hot-glass': 'Hot glass and steam: dry cloth on the handle, and never carry it over a guest.',
  'cool-glass': 'Let the glass cool before it is rinsed. The burner stays hot after it is off.',
} as const;
export type CautionId = keyof typeof CAUTIONS;
