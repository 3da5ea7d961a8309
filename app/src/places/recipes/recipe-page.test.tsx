/** A recipe's page as a thumb meets it: fields that lead, whys, ways out, what surrounds the cup. */
import { act, fireEvent, screen, within } from '@testing-library/react-native';
import { SCHOOLS, type Recipe } from '@even-kettle/core/recipe';
import { OUNCES, TEST_BAR, choose, press, showPage, viewOf } from '../../testing/bar';
import { resetConverterInput } from './asked';
import { RecipeList } from './recipe-list';
import { RecipePage } from './recipe-page';

const mockPush = jest.fn();
jest.mock('expo-router', () => ({
  router: {
    push: (to: unknown) => mockPush(to),
    replace: (to: unknown) => mockPush(to),
    navigate: (to: unknown) => mockPush(to),
  },
}));
const recipe = (id: string): Recipe => SCHOOLS.find((school) => school.id === id)!;
const show = (id: string, part: Parameters<typeof viewOf>[0] = {}) =>
  showPage(<RecipePage recipe={recipe(id)} back />, { view: viewOf(part) });
const field = (which: string) => screen.getByTestId(`convert-${which}`);
const fill = (which: string, text: string) => act(() => fireEvent.changeText(field(which), text));
const value = (which: string) => field(which).props.value as string;
/** A figure of the converter, by its name. */
const labelOf = (element: { props: Record<string, unknown> }) =>
  (element.props['accessibilityLabel'] ?? element.props['aria-label']) as string;
const figure = (name: string) => labelOf(screen.getByLabelText(new RegExp(`^${name} `)));
const alerts = () =>
  screen.queryAllByRole('alert').map((each) => within(each).queryAllByText(/./).length || 1);

beforeEach(() => {
  resetConverterInput();
  mockPush.mockClear();
});

test('a cup leads to begin with; each field leads as soon as it is typed into', () => {
  show('cone-thirds');
  expect([value('cup'), value('dose'), value('water')]).toEqual(['250', '17.6', '285']);
  fill('dose', '20');
  expect([value('cup'), value('water')]).toEqual(['284', '324']);
  fill('water', '400');
  expect([value('cup'), value('dose')]).toEqual(['351', '24.7']);
  press('A cup of 350 ml');
  expect([value('cup'), value('dose'), value('water')]).toEqual(['350', '24.6', '399']);
  // The same cup is still asked for in another recipe.
  screen.unmount();
  show('sock-fours');
  expect([value('cup'), value('dose'), value('water')]).toEqual(['350', '25.4', '394']);
});

test('figures stand in the bar’s units, whichever those are', () => {
  show('cone-thirds', { bar: { ...TEST_BAR, units: OUNCES } });
  // 8.5 fl oz is 251 ml: 17.7 g is 0.62 oz; a light roast at 95.5 °C is 203.9 °F.
  expect([value('cup'), value('dose'), value('water')]).toEqual(['8.5', '0.62', '10.1']);
  expect(figure('Water at')).toContain('203.9 °F');
  fill('dose', '0.7055');
  expect(value('water')).toBe('11.4');
});

test('coffee decides roast and grind; the grinder’s own setting and beans to weigh follow', () => {
  show('cone-thirds');
  // Band 52 is 17.2 on this grinder, and Saltmarsh is ground a step coarser-off: 16.2.
  expect(figure('Grinder')).toContain('16.2');
  expect(figure('Beans to weigh')).toContain('17.6 g');
  expect(figure('Water at')).toContain('95.5 °C');
  press('Slack Tide decaf, DECAF · medium');
  expect(figure('Grinder')).toContain('17.2');
  expect(figure('Water at')).toContain('94 °C');
});

test('a number that is asked why says its formula, its inputs and where they came from', () => {
  show('sock-dense');
  press('Dose, why?');
  expect(screen.getByText('= round(cup ÷ (R − kept + bypass), 1)')).toBeTruthy();
  expect(screen.getByText(/Water kept by each gram \(cloth, hung\)/)).toBeTruthy();
  expect(screen.getAllByText(/· recipe/).length).toBe(2);
  press(/^Water at .*why\?$/);
  expect(screen.getByText(/Boiling point at 0 m/)).toBeTruthy();
  expect(screen.queryByText('= round(cup ÷ (R − kept + bypass), 1)')).toBeNull();
  press('Close why');
  expect(screen.queryByText(/Boiling point at 0 m/)).toBeNull();
  press(/^Bypass .*why\?$/);
  expect(screen.getByText('= round(bypass × dose, 0)')).toBeTruthy();
});

test('what is off the boil is waited for or mixed; a siphon’s water is in its top', () => {
  show('cone-thirds');
  // ln(79 / 74.5) / (0.016 x 450 / 446) minutes from 100 to 95.5 in a room of 21, with the card's 446 g.
  expect(figure('Off the boil, wait')).toContain('3:37');
  expect(figure('Or boiling and cool')).toContain('269 + 16 g');
  screen.unmount();
  show('siphon-late');
  expect(screen.queryByLabelText(/^Off the boil/)).toBeNull();
  expect(figure('Water in the top')).toContain('93.5 °C');
});

test('too much offers ways out, and taking one mends it', () => {
  show('press-long');
  fill('cup', '400');
  expect(screen.getByText('30.1 g is too much for the Press 350 ml, which takes up to 19 g.')).toBeTruthy();
  press('2 equal brews of 201 ml in the Press 350 ml.');
  expect(value('dose')).toBe('15.1');
  expect(screen.queryByRole('alert')).toBeNull();
});

test('another altitude, roast, ratio, number of cups and milk are asked for on the spot', () => {
  show('cone-thirds');
  press(/^Change altitude/);
  fill('altitude', '2150');
  expect(figure('Water at')).toContain('92.8 °C');
  choose('Roast', 'dark');
  expect(figure('Water at')).toContain('88 °C');
  fill('ratio', '15');
  expect(value('dose')).toBe('19.2');
  fill('cups', '2');
  expect(figure('Shared out')).toContain('250 + 251');
  press('milk');
  expect(figure('Drink, with milk')).toMatch(/5\d\d g/);
  fill('cups', '0');
  expect(screen.getByText('Cups: a whole number from 1 to 12.')).toBeTruthy();
  expect(alerts()).toHaveLength(1);
});

test('what was found good for the coffee is in the figures, and the page says so', () => {
  const [saltmarsh, slack] = TEST_BAR.coffees;
  const recipeChanges = { 'cone-thirds': { ratioBy: -0.5 } };
  show('cone-thirds', { bar: { ...TEST_BAR, coffees: [{ ...saltmarsh!, recipeChanges }, slack!] } });
  expect(screen.getByTestId('for-coffee')).toHaveTextContent('For Saltmarsh: ratio −0.5.');
  // 250 / (15.7 - 2) = 18.2 g instead of 17.6.
  expect(value('dose')).toBe('18.2');
  screen.unmount();
  show('cone-thirds');
  expect(screen.queryByTestId('for-coffee')).toBeNull();
});

test('an altitude that is tried in one recipe stays with it; the next one is at the bar’s own', () => {
  show('cone-thirds');
  press(/^Change altitude/);
  fill('altitude', '2150');
  expect(figure('Water at')).toContain('92.8 °C');
  screen.unmount();
  show('cone-evenpulses');
  expect(figure('Water at')).toContain('93.5 °C');
});

test('the steps show what ends them, what is forgotten most, and why a pour stops where it does', () => {
  show('cone-onepour');
  // 35 % of 289 g, at 2.5 g a second.
  expect(screen.getByText(/first to 101 g \(0:41\) at 2\.5 g\/s/)).toBeTruthy();
  expect(screen.getByText('Forgetting to throw the rinse water away is the commonest mistake.')).toBeTruthy();
  expect(screen.getByText(/until “drops only”/)).toBeTruthy();
  press(/^\d+ g, why\?$/);
  expect(screen.getByText('= round(share × water, 0)')).toBeTruthy();
});

test('the method table leads to the same cup elsewhere, and says what is not here', () => {
  show('cone-thirds');
  expect(screen.getByText('The same cup in every method')).toBeTruthy();
  expect(screen.getByText(/body 3 of 5, clarity 3 of 5 · not on this bench/)).toBeTruthy();
  const [small] = screen.getAllByRole('link').filter((row) => within(row).queryByText(/too little for/));
  // What no brewer makes is given no time.
  expect(within(small!).queryByText(/hands \d/)).toBeNull();
  expect(within(screen.getByLabelText(/^Siphon: /)).getByText(/hands \d/)).toBeTruthy();
  press('Siphon: Coffee when the water has settled');
  expect(mockPush).toHaveBeenCalledWith('/recipes/siphon-late');
});

test('no brewer of the kind on the bench is said, and the numbers still stand', () => {
  show('flat-few');
  expect(
    screen.getByText(/No brewer of this kind is on this bench; worked out for the Flat-bottom\./),
  ).toBeTruthy();
  expect(value('dose')).toBe('18.8');
});

test('the list is narrowed by brewer and by wish, with reasons; what is brewed here comes first', () => {
  showPage(<RecipeList recipes={SCHOOLS} chosenId={null} />);
  const names = () => screen.getAllByRole('link').map(labelOf);
  const order = names().map((name) => name.split(':')[0]);
  expect(order.indexOf('Press')).toBeLessThan(order.indexOf('Hourglass'));
  expect(names()).toHaveLength(SCHOOLS.length);
  press(/^Siphon, full yet clean/);
  expect(names()).toHaveLength(3);
  press('quick');
  expect(screen.getByText(/No recipe here is made for that/)).toBeTruthy();
  press(/^Siphon, full yet clean/);
  expect(names()[0]).toMatch(/^Cloth sock: Dense/);
  expect(screen.getAllByText(/ready in \d:\d\d/).length).toBeGreaterThan(1);
});
