/**
 * The first part of `npm run rush`: hours lived by people who do what their hands card shows and know nothing else. How often a card
 * asked for something else before its step was done, how many pours came too late, how many orders by the time that was told.
 * The same seeds with exact people and with noisy ones, on all of the machine's processors. SEEDS changes how many.
 */
import { availableParallelism } from 'node:os';
import { Worker, isMainThread, parentPort } from 'node:worker_threads';
import { lanternPier } from '@even-kettle/core/demo';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import {
  EXACT_PEOPLE,
  NOISY_PEOPLE,
  guestsOfHour,
  liveHour,
  type Asked,
  type HourFigures,
} from '@even-kettle/core/rush';

const SEEDS = Number(process.env['SEEDS'] ?? 20);
const T0 = Date.UTC(2026, 0, 5, 8);
const book = bookOf(SCHOOLS);
const MENU: readonly Asked[] = [
  ['cone-thirds', 250],
  ['cone-thirds', 300],
  ['cone-steady', 250],
  ['press-long', 250],
  ['sock-fours', 250],
  ['siphon-late', 350],
];
/** Pairs of hands, and cups an hour. */
const KINDS = [
  [1, 14],
  [1, 20],
  [2, 24],
] as const;
const PEOPLE = { exact: EXACT_PEOPLE, noisy: NOISY_PEOPLE };

type HourAsked = { hands: number; cups: number; name: keyof typeof PEOPLE; seed: number };

const live = ({ hands, cups, name, seed }: HourAsked): Promise<HourFigures> =>
  liveHour({
    bench: { ...lanternPier(T0), hands },
    book,
    orders: guestsOfHour(cups, MENU, T0, seed),
    seed,
    manners: PEOPLE[name],
  });

/** Hours that are lived by threads, each in its turn. */
function threads(): { live: (hour: HourAsked) => Promise<HourFigures>; end: () => void } {
  const free = Array.from({ length: availableParallelism() }, () => new Worker(new URL(import.meta.url)));
  const all = [...free];
  const waiting: (() => void)[] = [];
  return {
    live: async (hour) => {
      while (free.length === 0) await new Promise<void>((resolve) => waiting.push(resolve));
      const thread = free.pop()!;
      return new Promise((resolve, reject) => {
        thread.once('error', reject);
        thread.once('message', (lived: HourFigures) => {
          thread.off('error', reject);
          free.push(thread);
          waiting.shift()?.();
          resolve(lived);
        });
        thread.postMessage(hour);
      });
    },
    end: () => all.forEach((thread) => void thread.terminate()),
  };
}

const percent = (part: number, of: number): string => `${((100 * part) / Math.max(1, of)).toFixed(1)} %`;
const sum = (lived: readonly HourFigures[], of: (hour: HourFigures) => number): number =>
  lived.reduce((all, hour) => all + of(hour), 0);

async function report(): Promise<void> {
  const hours = threads();
  console.log(
    `  ${SEEDS} hours of each; hands ${100 * NOISY_PEOPLE.spread!} % and beds ${100 * NOISY_PEOPLE.bedSpread!} % noisy, up to ${NOISY_PEOPLE.lateS} s late`,
  );
  console.log(
    '  pairs  cups/h  people   taps  card changed  without a reason  pours too late (worst)  by the promise  within 20 s',
  );
  for (const [hands, cups] of KINDS)
    for (const name of ['exact', 'noisy'] as const) {
      const lived = await Promise.all(
        Array.from({ length: SEEDS }, (_, n) => hours.live({ hands, cups, name, seed: n + 1 })),
      );
      const pours = sum(lived, (hour) => hour.pours);
      const late = lived.flatMap(({ latePours }) => latePours);
      const orders = lived.flatMap((hour) => hour.orders);
      const within = (seconds: number) => orders.filter(({ lateS }) => lateS <= seconds).length;
      const worstS = Math.max(0, ...late.map(({ byS }) => byS));
      const changes = lived.flatMap((hour) => hour.changes);
      console.log(
        [
          `  ${hands}`.padEnd(9),
          String(cups).padEnd(8),
          name.padEnd(9),
          String(sum(lived, ({ taps }) => taps)).padEnd(6),
          String(changes.length).padEnd(14),
          String(changes.filter(({ isStated }) => !isStated).length).padEnd(18),
          `${percent(late.length, pours)} of ${pours} (${worstS.toFixed(1)} s)`.padEnd(24),
          percent(within(0), orders.length).padEnd(16),
          percent(within(20), orders.length),
        ].join(''),
      );
    }
  hours.end();
}

if (isMainThread) await report();
else
  parentPort!.on(
    'message',
    (hour: HourAsked) => void live(hour).then((lived) => parentPort!.postMessage(lived)),
  );
