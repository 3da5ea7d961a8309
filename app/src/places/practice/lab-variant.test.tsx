/** A variant's card: what is changed on it is what is simulated. */
import { useState } from 'react';
import { act, fireEvent, screen } from '@testing-library/react-native';
import {
  HABITS,
  LAB_FORMAT,
  changesOf,
  faultOf,
  variantOf,
  type LabVariant,
} from '@even-kettle/core/practice';
import { labFileSchema } from '@even-kettle/core/contract';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { press, showPage, type } from '../../testing/bar';
import { LAB_BAR as bar, LAB_MENU as menu } from '../../testing/lab';
import { boatsEvery } from './lab-guests';
import { VariantCard } from './lab-variant';
import { WORDS } from './words';

const book = bookOf(SCHOOLS);
const AS_IT_IS = variantOf(bar, menu, { cupsAnHour: 12, curve: boatsEvery(20) }, 'As it is');

/** A variant as it comes out of a lab's file. */
const read = (variant: object): LabVariant =>
  labFileSchema.parse({ format: LAB_FORMAT, bar, recipes: [], shifts: 2, variants: [variant] }).variants[0]!;

function show(from: LabVariant = AS_IT_IS) {
  const seen: LabVariant[] = [from];
  const asked: string[] = [];
  function Card() {
    const [variant, setVariant] = useState(from);
    return (
      <VariantCard
        bar={bar}
        variant={variant}
        letter="B"
        fault={faultOf(bar, variant, book)}
        onChange={(changed) => {
          seen.push(changed);
          setVariant(changed);
        }}
        onRemove={() => asked.push('remove')}
        onKeep={() => asked.push('keep')}
      />
    );
  }
  showPage(<Card />);
  return { asked, last: () => seen.at(-1)! };
}

test('hands, pace, tools and ways of working are each set by themselves, and the whole is a variant that can be saved', () => {
  const { last, asked } = show();
  act(() => fireEvent.press(screen.getByRole('radio', { name: '2' })));
  type(WORDS.paceBy, '110');
  press(`One more: ${WORDS.tools.kettles}`);
  for (const habit of HABITS) press(WORDS.habits[habit]);
  expect(last()).toEqual({
    ...AS_IT_IS,
    hands: 2,
    paceBy: 1.1,
    kettles: AS_IT_IS.kettles + 1,
    ahead: true,
    shared: true,
    shortMenu: true,
  });
  expect(read(last())).toEqual(last());
  press(WORDS.habits.shared);
  expect(last().shared).toBe(false);
  press(WORDS.keepVariantOf('B'));
  press(WORDS.removeVariant('B'));
  expect(asked).toEqual(['keep', 'remove']);
});

test('a variant that cannot brew its menu says why on its card, and says so no more once it can', () => {
  const { last } = show({ ...AS_IT_IS, kettles: 1 });
  press(`One less: ${WORDS.tools.kettles}`);
  expect(last().kettles).toBe(0);
  expect(screen.getByRole('alert')).toHaveTextContent(/kettle/);
  press(`One more: ${WORDS.tools.kettles}`);
  expect(screen.queryByRole('alert')).toBeNull();
});

test('a variant that was saved with a habit that the lab no longer has reads as one without', () => {
  const old = { ...AS_IT_IS, batches: true };
  expect(read(old)).toEqual(old);
  expect(faultOf(bar, read(old), book)).toBe(faultOf(bar, AS_IT_IS, book));
});

test('every change that the lab proposes has its words', () => {
  for (const { what } of changesOf(AS_IT_IS)) expect(WORDS.changes[what]).toMatch(/^[a-z].*[^.]$/);
});
