/** Changing recipes: what is typed is checked at once, saved as a version, compared, brought back, brought in. */
import { act, fireEvent, screen, waitFor } from '@testing-library/react-native';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { RECIPES_FORMAT } from '@even-kettle/core/formats';
import { SCHOOLS, type Recipe } from '@even-kettle/core/recipe';
import type { SaveRecipe } from '@even-kettle/core/contract';
import { Refused } from '../../client/request';
import { OUNCES, TEST_BAR, choose, press, showPage, tabStorage, type, viewOf } from '../../testing/bar';
import { recipeCode } from './code';
import { EditRecipe } from './editor';
import { ImportRecipes } from './import';
import { RecipeVersions } from './versions';

const mockReplace = jest.fn();
let mockParams: Record<string, string> = {};
jest.mock('expo-router', () => ({
  router: { replace: (to: unknown) => mockReplace(to), push: () => undefined },
  useLocalSearchParams: () => mockParams,
}));
// Dragging is the browser's: the end-to-end tests do it there.
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
let mockFile: { name: string; size: number; text: () => Promise<string> } | null = null;
jest.mock('../../ui/files', () => ({
  chooseFile: () => Promise.resolve(mockFile),
  saveFile: () => undefined,
}));
jest.mock('../../ui/pictures', () => ({ readQrPicture: () => Promise.resolve(null) }));

/** Nothing is forgotten by a timer that would outlive the test. */
const FOR_GOOD = { queries: { gcTime: Infinity }, mutations: { gcTime: Infinity } };
const thirds = SCHOOLS.find(({ id }) => id === 'cone-thirds')!;
let kept = tabStorage();
beforeEach(() => {
  kept = tabStorage();
  mockReplace.mockClear();
  mockParams = {};
  Object.assign(globalThis.window, { location: { hash: '', origin: 'http://127.0.0.1:4173' } });
});

const saving = (answer: (asked: SaveRecipe) => Recipe | Refused) => {
  const asked: SaveRecipe[] = [];
  const saveRecipe = async (each: SaveRecipe) => {
    asked.push(each);
    const result = answer(each);
    if (result instanceof Refused) throw result;
    return result;
  };
  return { asked, saveRecipe };
};
const savedAs = (version: number) => saving(({ recipe }) => ({ ...recipe, version }));
const save = () => act(async () => fireEvent.press(screen.getByTestId('save-recipe')));
const canSave = () => !screen.getByTestId('save-recipe').props.accessibilityState?.disabled;

test('a changed recipe is saved on the version that was opened, and leads back to it', async () => {
  const { asked, saveRecipe } = savedAs(3);
  const { saved } = showPage(<EditRecipe recipe={thirds} />, { api: { saveRecipe } });
  type('Ratio, 1 to', '15');
  type('Name', 'Three pours, ours');
  press('sweet: no');
  expect(screen.getByText(/18\.0 g, 270 g of water, 234 g in the cup/)).toBeTruthy();
  await save();
  expect(asked).toMatchObject([
    { basedOn: 2, recipe: { ratio: 15, name: 'Three pours, ours', suits: ['clear', 'sweet'] } },
  ]);
  expect(saved).toMatchObject([{ version: 3 }]);
  expect(mockReplace).toHaveBeenCalledWith({ pathname: '/recipes/[id]', params: { id: 'cone-thirds' } });
  expect(kept.size).toBe(0);
});

test('what is wrong is told at its field while it is typed, and nothing can be saved until it is mended', () => {
  showPage(<EditRecipe recipe={thirds} />);
  type('Ratio, 1 to', 'plenty');
  expect(screen.getByText(/ratio: must be a number/)).toBeTruthy();
  expect(canSave()).toBe(false);
  type('Ratio, 1 to', '3');
  expect(screen.getByText(/ratio: must be at least 6/)).toBeTruthy();
  type('Ratio, 1 to', '16');
  type('Name', '<b>bold</b>');
  expect(screen.getByText(/name: must be one line of plain text, without < or >/)).toBeTruthy();
  type('Name', 'Plain');
  expect(canSave()).toBe(true);
  expect(kept.size).toBe(1);
});

test('steps are opened, changed, moved, added and taken out; a pour of 140 % is told at the step', () => {
  showPage(<EditRecipe recipe={thirds} />);
  press('Open Last of three pours');
  act(() => fireEvent.changeText(screen.getByTestId('step-amount'), '140'));
  expect(screen.getByText(/amount: The pours come to 140 % of the brew water here/)).toBeTruthy();
  choose('Pours', 'restParts');
  expect(canSave()).toBe(true);
  choose('Pours', 'g');
  expect(screen.getByText(/amount: The pours come to 9\d/)).toBeTruthy();
  choose('Pours', 'toShare');
  press('Move Last of three pours up');
  expect(screen.getAllByText(/before the step above it|adds nothing/).length).toBeGreaterThan(0);
  press('Move Last of three pours down');
  expect(canSave()).toBe(true);
  press('Add a step after');
  expect(screen.getByText('New step')).toBeTruthy();
  choose('Ends by', 'cue');
  type('What', 'bubbles gone');
  choose('Starts', 'atS');
  act(() => fireEvent.changeText(screen.getByTestId('step-start'), '118'));
  expect(screen.getByText('brew · stir · at 1:58')).toBeTruthy();
  press('Remove New step');
  expect(screen.queryByText('New step')).toBeNull();
  expect(screen.getByTestId('mended')).toHaveTextContent('“New step” is removed.');
  expect(canSave()).toBe(true);
  press('Undo the last change');
  expect(screen.getByText('New step')).toBeTruthy();
});

test('what someone else saved meanwhile is told, and the draft stays', async () => {
  const problem = {
    type: '',
    title: '',
    status: 409,
    detail: '“cone-thirds” has come to version 2 since version 1 was opened',
  };
  const { saveRecipe } = saving(() => new Refused(409, problem));
  showPage(<EditRecipe recipe={thirds} />, { api: { saveRecipe } });
  type('Ratio, 1 to', '15');
  await save();
  expect(screen.getByText(/has come to version 2/)).toBeTruthy();
  expect(screen.getByLabelText('Ratio, 1 to').props.value).toBe('15');
  expect(mockReplace).not.toHaveBeenCalled();
});

test('a copy is a recipe of its own, under a name and an id that are free', async () => {
  mockParams = { copy: 'yes' };
  const { asked, saveRecipe } = savedAs(1);
  const ours = { ...thirds, id: 'cone-bloom-and-three-pours-ours' };
  showPage(<EditRecipe recipe={thirds} />, {
    api: { saveRecipe },
    view: viewOf({ recipes: [...SCHOOLS, ours] }),
  });
  expect(screen.getByText(/cone-bloom-and-three-pours-ours-2/)).toBeTruthy();
  await save();
  expect(asked).toMatchObject([{ basedOn: null, recipe: { id: 'cone-bloom-and-three-pours-ours-2' } }]);
});

test('with ounces and Fahrenheit on the bench, the editor takes those and keeps grams and Celsius', async () => {
  const { asked, saveRecipe } = savedAs(2);
  showPage(<EditRecipe recipe={thirds} />, {
    api: { saveRecipe },
    view: viewOf({ bar: { ...TEST_BAR, units: OUNCES } }),
  });
  expect(screen.getByLabelText('Water, °F').props.value).toBe('201.2');
  type('Water, °F', '203');
  type('Set for, oz', '0.7');
  await save();
  expect(asked[0]!.recipe.waterC).toBeCloseTo(95, 6);
  expect(asked[0]!.recipe.refDoseG).toBeCloseTo(19.845, 3);
});

test('two versions are compared, and the older is brought back as the newest', async () => {
  const second = { ...thirds, version: 3, ratio: 15 };
  const { asked, saveRecipe } = savedAs(4);
  const versions = async () => ({ recipes: [thirds, second] });
  const page = (
    <QueryClientProvider client={new QueryClient({ defaultOptions: FOR_GOOD })}>
      <RecipeVersions recipe={second} />
    </QueryClientProvider>
  );
  showPage(page, { api: { saveRecipe, versions } });
  await waitFor(() => expect(screen.getByText('16.2 → 15')).toBeTruthy());
  expect(screen.getByText('1 change')).toBeTruthy();
  await act(async () => fireEvent.press(screen.getByTestId('restore')));
  expect(asked).toMatchObject([{ basedOn: 3, recipe: { ratio: 16.2 } }]);
  expect(screen.getByText('Version 2 is back, as version 4.')).toBeTruthy();
});

const bring = async (name: string, value: unknown, size?: number) => {
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  mockFile = { name, size: size ?? text.length, text: async () => text };
  await act(async () => fireEvent.press(screen.getByTestId('import-file')));
};

test('a file shows what is new, the same, or would be the next version; what is left out is not taken', async () => {
  const { asked, saveRecipe } = saving(({ recipe, basedOn }) => ({ ...recipe, version: (basedOn ?? 0) + 1 }));
  showPage(<ImportRecipes />, { api: { saveRecipe } });
  await bring('ours.json', {
    format: RECIPES_FORMAT,
    recipes: [{ ...thirds, ratio: 15 }, SCHOOLS[1], { ...thirds, id: 'cone-ours', name: 'Ours' }],
  });
  expect(screen.getByText(/would be version 3; version 2 stays/)).toBeTruthy();
  expect(screen.getByText(/the same as here; nothing to take/)).toBeTruthy();
  expect(screen.getByText(/new here/)).toBeTruthy();
  press('Ours: taken');
  await act(async () => fireEvent.press(screen.getByTestId('import-take')));
  expect(asked).toMatchObject([{ basedOn: 2, recipe: { id: 'cone-thirds', ratio: 15 } }]);
  expect(screen.getByText('Bloom and three pours: kept as version 3.')).toBeTruthy();
});

test.each<[string, unknown, number | undefined, RegExp]>([
  ['is no JSON', '{', undefined, /is not JSON/],
  ['is of another version', { format: 'even-kettle/recipes@9' }, undefined, /is version 9 of the format/],
  ['is far too large', '', 40_000_000, /is 40 MB/],
  [
    'holds markup',
    { format: RECIPES_FORMAT, recipes: [{ ...thirds, why: '<script>' }] },
    undefined,
    /plain text/,
  ],
])('a file that %s is told, and nothing is taken', async (_what, value, size, words) => {
  const { asked, saveRecipe } = savedAs(1);
  showPage(<ImportRecipes />, { api: { saveRecipe } });
  await bring('odd.json', value, size);
  expect(screen.getByText(words)).toBeTruthy();
  expect(screen.queryByTestId('import-take')).toBeNull();
  expect(asked).toEqual([]);
});

test('a code in the address or as text shows its recipe; a picture without one says how to take it', async () => {
  Object.assign(globalThis.window, {
    location: { hash: `#${recipeCode({ ...thirds, ratio: 15 }, '').split('#')[1]}`, origin: '' },
  });
  showPage(<ImportRecipes />);
  expect(screen.getByText('16.2 → 15')).toBeTruthy();
  type('Or the code as text', 'ek1=nonsense');
  press('Read it');
  expect(screen.getByText(/damaged or cut off/)).toBeTruthy();
  mockFile = { name: 'photo.png', size: 10, text: async () => '' };
  await act(async () => fireEvent.press(screen.getByTestId('import-picture')));
  expect(screen.getByText(/No code was found in it/)).toBeTruthy();
});
