/** What can be noted, and which caution is shown, over every step of every school. */
import { CAUTIONS, METHODS, METHOD_IDS, SCHOOLS, brewCard, cautionFor } from '../recipe';
import { NOTES, noteWords, notesFor } from './index';

const cards = SCHOOLS.map((recipe) => brewCard(recipe, { doseG: recipe.refDoseG }));

test('every note has words for every method: its name, what to do now, what to change next', () => {
  for (const note of NOTES)
    for (const method of METHOD_IDS)
      for (const words of Object.values(noteWords(note, method))) expect(words.length).toBeGreaterThan(4);
  expect(noteWords('stalled', 'hourglass').now).toContain('free the spout');
  expect(noteWords('stalled', 'cone').now).toContain('Lift the filter');
  expect(noteWords('too-hot', 'siphon').now).toContain('lower the flame');
});

test('what drains can be noted as stalled or too fast while it does; prep cannot', () => {
  for (const card of cards) {
    for (const step of card.steps) {
      const notes = notesFor(card.method, step);
      if (step.phase === 'prep' && step.kind !== 'watch')
        expect([card.recipeId, step.id, notes]).toEqual([card.recipeId, step.id, []]);
      if (step.kind === 'drawdown' || step.id === 'down')
        expect(notes.slice(0, 2)).toEqual(['stalled', 'ran-fast']);
      // A cloth does not give way, and a siphon has no server to rinse into.
      expect([card.method, notes.includes('collapsed')]).toEqual([
        card.method,
        step.phase === 'brew' && METHODS[card.method].papers !== null && notes.includes('rinse-left'),
      ]);
      if (step.kind === 'pour') expect(notes).toContain('water-out');
    }
  }
});

test('a caution stands before every flame that is lit and every plunger that is pushed, and fits a phone', () => {
  for (const card of cards) {
    const cautioned = card.steps.filter((step) => cautionFor(step, card.method)).map(({ id }) => id);
    const lit = card.steps.some(({ id, kind }) => id === 'flame' && kind === 'flame');
    const pushed = card.steps
      .filter(({ kind }) => ['plunge', 'dip', 'press'].includes(kind))
      .map(({ id }) => id);
    if (lit) expect(cautioned).toContain('flame');
    for (const id of pushed) expect(cautioned).toContain(id);
    if (card.method === 'siphon') expect(cautioned).toEqual(['flame', 'serve', 'clean']);
  }
  for (const words of Object.values(CAUTIONS)) expect(words.length).toBeLessThanOrEqual(110);
});
