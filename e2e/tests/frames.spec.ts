/** How long the page works at a frame of the pour drill; measured by the clock, and so by itself. */
import { expect, test } from '../support/bar';

test.use({ demo: 'bench', rate: 1 });

test('on a phone’s size with the processor four times slower every own frame of a drill takes less than 33 ms', async ({
  page,
  bar,
}) => {
  await page.addInitScript(() => {
    const took: number[] = [];
    Object.assign(globalThis, { frameMs: took });
    const ask = globalThis.requestAnimationFrame.bind(globalThis);
    globalThis.requestAnimationFrame = (call) =>
      ask((at) => {
        const from = performance.now();
        call(at);
        took.push(performance.now() - from);
      });
  });
  await page.goto(`${bar.url}/practice/pour`);
  await page.getByTestId('start-pouring').click();
  const bed = (await page.getByTestId('bed').boundingBox())!;
  const [x, y] = [bed.x + bed.width / 2, bed.y + bed.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.wheel(0, 900);
  const slow = await page.context().newCDPSession(page);
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  await page.evaluate(() => void ((Reflect.get(globalThis, 'frameMs') as number[]).length = 0));
  for (let n = 0; n < 60; n += 1) {
    await page.mouse.move(x + 70 * Math.sin(n / 4), y - 70 * Math.cos(n / 4));
    await page.waitForTimeout(100);
  }
  const frames = await page.evaluate(() => Reflect.get(globalThis, 'frameMs') as number[]);
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 1 });
  await page.mouse.up();
  const sorted = frames.toSorted((a, b) => a - b);
  console.log(
    `${frames.length} frames: median ${sorted[Math.floor(sorted.length / 2)]!.toFixed(1)} ms, 99th ${sorted[Math.floor(sorted.length * 0.99)]!.toFixed(1)} ms, longest ${sorted.at(-1)!.toFixed(1)} ms`,
  );
  // A machine with something else to do stretches a frame now and then: what is asked for is held by all but one in a hundred.
  expect(sorted[Math.floor(sorted.length * 0.99)]).toBeLessThan(33);
});
