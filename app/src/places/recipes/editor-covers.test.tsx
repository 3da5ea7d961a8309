/** The editor can say all that a recipe can: every field of the schema has a control that sets it. */
import { useState } from 'react';
import { act, fireEvent, screen } from '@testing-library/react-native';
import { recipeJsonSchema } from '@even-kettle/core/formats';
import { SCHOOLS, type Recipe, type RecipeStep } from '@even-kettle/core/recipe';
import { choose, press, showPage, tabStorage, type } from '../../testing/bar';
import { EditRecipe } from './editor';
import { StepForm } from './step-form';

jest.mock('expo-router', () => ({
  router: { replace: () => undefined },
  useLocalSearchParams: () => ({}),
}));
jest.mock('@dnd-kit/core', () => ({
  DndContext: ({ children }: { children: unknown }) => children,
  PointerSensor: class {},
  closestCenter: () => [],
  useSensor: () => null,
  useSensors: () => [],
}));
jest.mock('@dnd-kit/sortable', () => ({
  SortableContext: ({ children }: { children: unknown }) => children,
  useSortable: () => ({
    attributes: {},
    listeners: {},
    setNodeRef: () => undefined,
    transform: null,
    transition: null,
    isDragging: false,
  }),
  verticalListSortingStrategy: null,
}));

type Schema = {
  properties?: Record<string, Schema>;
  items?: Schema;
  anyOf?: Schema[];
};

/** The fields of a schema, with what is in a list by its name alone. */
function leavesOf(schema: Schema, path = ''): string[] {
  const under = (name: string) => (path === '' ? name : `${path}.${name}`);
  if (schema.properties)
    return Object.entries(schema.properties).flatMap(([name, part]) => leavesOf(part, under(name)));
  if (schema.items) return leavesOf(schema.items, path);
  const ways = (schema.anyOf ?? []).flatMap((way) => (way.properties ? leavesOf(way, path) : []));
  return ways.length > 0 ? ways : [path];
}

/** What the bar and the recipe's own method give, which nobody types. */
const GIVEN = ['id', 'version', 'method', 'steps.id'];

const at = (testID: string, text: string) =>
  act(() => fireEvent.changeText(screen.getByTestId(testID), text));
const all = (label: string, n: number, text: string) =>
  act(() => fireEvent.changeText(screen.getAllByLabelText(label)[n]!, text));

/** How each field is set, in an order in which each is there when it is its turn. */
const SETS: Record<string, () => void> = {
  name: () => type('Name', 'Ours'),
  why: () => type('Why one would choose it', 'Because.'),
  suits: () => press('heavy: no'),
  refDoseG: () => type('Set for, g', '19'),
  ratio: () => type('Ratio, 1 to', '15'),
  grindBand: () => type('Grind, 0 to 100', '41'),
  waterC: () => type('Water, °C', '91'),
  bypassTimesDose: () => type('Bypass, × dose', '0.5'),
  iceTimesDose: () => type('Ice, × dose', '5.5'),
  servings: () => type('Cups it makes', '3'),
  'endWindowS.from': () => type('Ends from, s', '171'),
  'endWindowS.to': () => type('Ends by, s', '222'),
  filter: () => type('Filter', 'brown paper'),
  retentionGPerG: () => type('The bed keeps, g each g', '2.1'),
  bed: () => choose('Bed before the first water', 'deep well'),
  waterIs: () => choose('Temperature of water', 'to start with'),
  otherwise: () => type('What others do, and why', 'Others wait.'),
  cautions: () => type('Cautions, one a line', 'Hot.\nVery hot.'),
  'holds.tool': () => choose('Held tool 1', 'burner'),
  'holds.from': () => choose('Held tool 1, from', 'weigh'),
  'holds.to': () => choose('Held tool 1, to the end of', 'load'),
};

const edited: { step: RecipeStep | null } = { step: null };
/** One step's form by itself: the whole editor is drawn anew at every letter. */
function OneStep({ first }: { first: RecipeStep }) {
  const [shown, setShown] = useState(first);
  const change = (next: RecipeStep) => {
    edited.step = next;
    setShown(next);
  };
  return <StepForm step={shown} faults={[]} onChange={change} />;
}

const isWhole = (value: unknown) => typeof value === 'object' && value !== null;

/** The fields in which two drafts differ. */
function differing(before: unknown, after: unknown, path = ''): string[] {
  if (JSON.stringify(before) === JSON.stringify(after)) return [];
  if (!isWhole(before) && !isWhole(after)) return [path];
  const [one, other] = [(before ?? {}) as Record<string, unknown>, (after ?? {}) as Record<string, unknown>];
  const isList = Array.isArray(before) || Array.isArray(after);
  return [...new Set([...Object.keys(one), ...Object.keys(other)])].flatMap((key) =>
    differing(one[key], other[key], isList ? path : path === '' ? key : `${path}.${key}`),
  );
}

const thirds = SCHOOLS.find(({ id }) => id === 'cone-thirds')!;
const changed = new Set<string>();
/** Fields of the schema that no control has changed so far, of the steps or of all else. */
const unset = (isOfSteps: boolean) =>
  [...new Set(leavesOf(recipeJsonSchema() as Schema))].filter(
    (field) => !GIVEN.includes(field) && !changed.has(field) && field.startsWith('steps') === isOfSteps,
  );

test('every field of a recipe is set by a control of the editor', () => {
  const kept = tabStorage();
  showPage(<EditRecipe recipe={thirds} />);
  const draft = (): Recipe => {
    const [text] = kept.values();
    return text === undefined ? thirds : (JSON.parse(text) as Recipe);
  };
  for (const set of Object.values(SETS)) {
    const before = draft();
    set();
    for (const field of differing(before, draft())) changed.add(field);
  }
  expect(unset(false)).toEqual([]);
});

test('and every field of a step', () => {
  expect(unset(true).length).toBeGreaterThan(30);
  edited.step = thirds.steps.findLast(({ pour }) => pour)!;
  showPage(<OneStep first={edited.step} />);
  const doing = (set: () => void) => {
    const before = edited.step;
    set();
    for (const field of differing(before, edited.step)) changed.add(`steps.${field}`);
  };
  press('More: stirs, temperature, slow opening');
  doing(() => type('Name', 'The last one'));
  doing(() => choose('Kind', 'stir'));
  doing(() => choose('Lasts', 'untilS'));
  for (const [kind, label] of [
    ['sPerDoseG', 'Seconds'],
    ['hotS', 'From cold, s'],
    ['sAtRef', 'At the reference dose, s'],
    ['s', 'Seconds'],
  ] as const) {
    doing(() => choose('Lasts', kind));
    doing(() => all(label, label === 'Seconds' ? 1 : 0, '77'));
  }
  doing(() => choose('Lasts', 'globe'));
  doing(() => choose('Kind', 'pour'));
  doing(() => choose('Part', 'finish'));
  doing(() => press('goes by itself'));
  doing(() => choose('Starts', 'atS'));
  doing(() => at('step-start', '99'));
  doing(() => choose('Starts', 'stream thins'));
  doing(() => at('step-start', '98'));
  doing(() => choose('Starts', 'afterS'));
  doing(() => at('step-start', '3'));
  for (const kind of ['timesDose', 'restParts', 'g', 'toShare']) {
    doing(() => choose('Pours', kind));
    doing(() => at('step-amount', '61'));
  }
  doing(() => type('Flow, g/s', '4.5'));
  doing(() => press(/^(?:Say where the water goes|Add a part)$/));
  doing(() => choose('Path', 'ring'));
  doing(() => choose('Height', 'low'));
  doing(() => choose('Wall', 'washed'));
  doing(() => choose('Way round', 'clockwise'));
  doing(() => press('Add a part'));
  doing(() => all('up to % of the water', 0, '44'));
  doing(() => choose('Ends by', 'cue'));
  doing(() => type('What', 'quiet'));
  doing(() => choose('Timer', 'end'));
  doing(() => type('Hint', 'Slowly.'));
  doing(() => type('Stirs', '7'));
  doing(() => type('Find from, °C', '90'));
  doing(() => type('to, °C', '93'));
  doing(() => type('Start early, s', '2'));
  doing(() => type('Start late, s', '9'));
  doing(() => type('Cost a second', '2'));
  doing(() => type('Cue early, s', '5'));
  doing(() => type('Cue late, s', '6'));
  doing(() => type('Own water, °C', '60'));
  doing(() => type('Opens to, %', '40'));
  doing(() => type('Opens at, g/s', '2'));
  doing(() => type('Opens until', 'wet'));
  doing(() => type('Commonest mistake', 'Haste.'));

  expect(unset(true)).toEqual([]);
});
