/** The hands card as the second person at the bar: all that a step needs, what can still be saved, and being called away. */
import { expect, test } from '../support/bar';
import { allCleaned, doWhatItSays, stateOnce, orderComes, takeOrder, workItOff } from '../support/barista';

const CONE = [{ method: 'Cone' as const, recipe: 'Bloom and three pours', size: '250' }];

test('a cone from order to cup by the card alone: kettle, temperature, grinder, setting, dose, path and each target', async ({
  page,
  bar,
}) => {
  await bar.set({
    grinders: [
      {
        id: 'left',
        name: 'Left grinder',
        points: [
          { band: 20, setting: 30 },
          { band: 70, setting: 10 },
        ],
      },
    ],
  });
  await page.goto(bar.url);
  await takeOrder(page, 'window', CONE);
  await expect(page).toHaveURL(`${bar.url}/`);
  // All that ever stands on the card, as it stands there.
  await page.evaluate(() => {
    const seen = new Set<string>();
    Object.assign(window, { seen });
    const look = () => {
      const card = document.querySelector<HTMLElement>('[data-testid="hands-card"]');
      if (card) seen.add(card.innerText.replaceAll(/\s+/g, ' '));
    };
    look();
    // At each change, before anybody can tap: a busy page keeps a timer waiting.
    new MutationObserver(look).observe(document.body, {
      subtree: true,
      childList: true,
      characterData: true,
    });
  });
  await workItOff(page, 30);
  const seen = await page.evaluate(() => [...(window as unknown as { seen: Set<string> }).seen]);
  const said = (pattern: RegExp) =>
    expect(seen.filter((text) => pattern.test(text)).length, `${pattern}`).toBeGreaterThan(0);
  said(/Fill Kettle 1 to 446 g Set it to 94 °C/);
  said(/Fold, set and rinse the filter 60 g .*Hot water from Kettle 1/);
  // Band 52 of 100, between 30 at 20 and 10 at 70.
  said(/Weigh beans 17\.6 g Left grinder: 17\.2/);
  said(/Throw the rinse, load, tare 17\.6 g .*got 17\.6 g/);
  said(/Pour to Bloom 42 g .*A ring, half-way out .*Kettle 1 at 94 °C\. 6 g a second/);
  said(/First of three pours 128 g .*Middle, then round its pale edge off the wall; from 86 g: spiral/);
  said(/Second of three pours 214 g .*from 171 g: spiral/);
  said(/Last of three pours 285 g .*from 248 g: spiral/);
  said(/Take the filter off .*It goes into its tray/);
  said(/hand over 250 ml .*Say “hot”/);
  await stateOnce(bar, allCleaned);
});

test('the path moves while it is poured and stands still, with arrows, for whoever wants nothing to move', async ({
  page,
  bar,
}) => {
  await page.goto(bar.url);
  await orderComes(page, bar, 'window', CONE);
  await bar.work('bloom');
  await expect(page.getByTestId('path').first()).toBeVisible();
  await doWhatItSays(page);
  // The bloom's ring: the mark goes round it, and nothing is drawn again for that.
  await page.waitForFunction(
    () => {
      const at = window as unknown as { places?: Set<string> };
      const mark = document.querySelector<HTMLElement>('[data-testid="spout"]');
      at.places ??= new Set();
      if (mark) at.places.add(mark.style.transform);
      return at.places.size > 5;
    },
    undefined,
    { polling: 'raf', timeout: 10_000 },
  );
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await expect(page.getByTestId('spout')).toHaveCount(0);
  await expect(page.getByTestId('path').first()).toBeVisible();
});

test('called away for two minutes in a siphon: what it forgives is told, and on coming back what to save first', async ({
  page,
  bar,
}) => {
  await bar.set({ stations: [{ id: 'siphon-1', name: 'Siphon', brewerId: 'siphon-m' }] });
  await page.goto(bar.url);
  await orderComes(page, bar, 'pilot', [{ method: 'Siphon', size: '350' }]);
  await bar.work('flame-off');
  await expect(page.getByTestId('verb').first()).toHaveText('Stir 4, flame off');
  await page.getByTestId('called-away').click();
  const dialog = page.getByRole('dialog', { name: 'Called away' });
  await expect(dialog).toContainText(
    'A flame burns. Put it out before you go, or ask somebody to stay by it.',
  );
  await expect(dialog).toContainText(/Siphon: Stir 4, flame off.*Forgives \d:\d\d from now/s);
  await dialog.getByRole('button', { name: '2 min' }).click();
  await expect(page.getByTestId('away-card')).toBeVisible();
  await bar.skip(115);
  // Once its time is over the card says what it costs.
  const runs = page.getByRole('list', { name: 'What runs, and how long it may wait' });
  await expect(runs).toContainText('cooks it further', { timeout: 25_000 });
  await expect(runs).not.toContainText('Forgives', { timeout: 25_000 });
  await page.getByRole('button', { name: 'I am back' }).click();
  await expect(page.getByTestId('welcome-back')).toHaveText(/You were away for \d:\d\d\./);
  await expect(page.getByText(/^First: Siphon: Stir 4, flame off, \d:\d\d late\./)).toBeVisible();
  await expect(page.getByTestId('verb').first()).toHaveText('Stir 4, flame off');
});

test('rinse water that was left in is told in figures; a filter that collapses is begun again in one tap', async ({
  page,
  bar,
}) => {
  await page.goto(bar.url);
  await orderComes(page, bar, 'window', CONE);
  await bar.work('drawdown');
  await page.getByRole('button', { name: 'Other…' }).click();
  await page.getByRole('button', { name: 'Rinse water left in' }).click();
  await expect(page.getByTestId('remedy')).toContainText(
    'all 60 g of it the cup is about 19 % weaker, 1:19.6',
  );
  await expect(page.getByTestId('brew-again')).toHaveText(/Brew again, \d:\d\d/);
  await page.getByTestId('undo').click();
  await page.getByRole('button', { name: 'Other…' }).click();
  await page.getByRole('button', { name: 'Filter collapsed' }).click();
  await expect(page.getByTestId('remedy')).toContainText(
    'This cup is brewed again: 17.6 g of beans to weigh now.',
  );
  const { orders, brews } = await stateOnce(bar, (state) =>
    Object.values(state.brews).some(({ status }) => status === 'abandoned'),
  );
  expect(Object.values(orders)[0]!.cups[0]!.status).toBe('waiting');
  expect(Object.values(brews)).toHaveLength(1);
});
