/**
 * What stands ready ahead of a rush, and what of a day's lists has been done. Brews use up what is ready.
 */
import type { MethodId } from '../recipe';
import type { BrewStarted, DayList, MadeReady, ReadyThing, TaskDone } from './events';
import { everyBrew } from './settled';
import type { BarState } from './state';

/** Beans in a covered tin are good for so long, milliseconds. */
const TIN_GOOD_MS = 4 * 3600 * 1000;
/** Anything else that was got ready counts for a working day, milliseconds. */
const DAY_MS = 12 * 3600 * 1000;
/** Two doses that differ by less are the same, grams. */
const SAME_DOSE_G = 0.2;

export type Ready = {
  thing: ReadyThing;
  coffee?: string;
  doseG?: number;
  method?: MethodId;
  /** How many stand there and are good. */
  count: number;
  /** Tins that have stood for too long. */
  stale: number;
  /** When the oldest of them was got ready, bar milliseconds; null where none stands there. */
  sinceMs: number | null;
};

/** One thing of a kind: when it was got ready, and when it was used or put back. */
type Piece = { madeMs: number; goneMs: number | null };
type Pile = Pick<Ready, 'thing' | 'coffee' | 'doseG' | 'method'> & { pieces: Piece[] };

const isPileOf = (pile: Pile, { thing, coffee, doseG, method }: MadeReady): boolean =>
  pile.thing === thing && pile.coffee === coffee && pile.doseG === doseG && pile.method === method;

const isTinFor = (pile: Pile, coffee: string, doseG: number): boolean =>
  pile.thing === 'tins' && pile.coffee === coffee && Math.abs((pile.doseG ?? 0) - doseG) < SAME_DOSE_G;

/** Takes the oldest that is there and good at that time. */
function takeOne(pile: Pile | undefined, atMs: number, goodMs: number): void {
  const oldest = pile?.pieces.find(
    ({ madeMs, goneMs }) => goneMs === null && madeMs <= atMs && atMs - madeMs <= goodMs,
  );
  if (oldest) oldest.goneMs = atMs;
}

function pilesOf(state: BarState, nowMs: number): Pile[] {
  if (!state.houseEvents?.some(({ type }) => type === 'made-ready')) return [];
  const piles: Pile[] = [];
  const starts = everyBrew(state, nowMs - DAY_MS).map((brew) => ({
    ...brew,
    start: brew.events[0] as BrewStarted,
  }));
  const happenings = [
    ...(state.houseEvents ?? []).flatMap((event) =>
      event.type === 'made-ready' || event.type === 'tins-emptied' ? [{ atMs: event.atMs, event }] : [],
    ),
    ...starts.map((brew) => ({ atMs: brew.startedMs, brew })),
  ].sort((a, b) => a.atMs - b.atMs);
  for (const each of happenings) {
    if (each.atMs > nowMs) continue;
    if ('brew' in each) {
      const { start, planned, ask } = each.brew;
      if (start.fromTin)
        takeOne(
          piles.find((pile) => isTinFor(pile, ask.coffee, planned.doseG)),
          each.atMs,
          TIN_GOOD_MS,
        );
      takeOne(
        piles.find(({ thing, method }) => thing === 'filters' && method === planned.method),
        each.atMs,
        DAY_MS,
      );
      if (start.kettleId !== undefined)
        takeOne(
          piles.find(({ thing }) => thing === 'kettles'),
          each.atMs,
          DAY_MS,
        );
      takeOne(
        piles.find(({ thing }) => thing === 'servers'),
        each.atMs,
        DAY_MS,
      );
      continue;
    }
    const { event } = each;
    if (event.type === 'tins-emptied') {
      for (const pile of piles)
        if (isTinFor(pile, event.coffee, event.doseG))
          for (const piece of pile.pieces) piece.goneMs ??= event.atMs;
      continue;
    }
    const { thing, coffee, doseG, method } = event;
    let pile = piles.find((known) => isPileOf(known, event));
    if (!pile) {
      pile = {
        thing,
        ...(coffee === undefined ? {} : { coffee }),
        ...(doseG === undefined ? {} : { doseG }),
        ...(method === undefined ? {} : { method }),
        pieces: [],
      };
      piles.push(pile);
    }
    for (let n = 0; n < event.count; n += 1) pile.pieces.push({ madeMs: event.atMs, goneMs: null });
  }
  return piles;
}

/** What stands ready now, in the order in which it was got ready first. */
export function readyNow(state: BarState, nowMs: number): Ready[] {
  return pilesOf(state, nowMs).flatMap(({ pieces, ...pile }) => {
    const there = pieces.filter(({ goneMs, madeMs }) => goneMs === null && nowMs - madeMs <= DAY_MS);
    const isStale = ({ madeMs }: Piece) => pile.thing === 'tins' && nowMs - madeMs > TIN_GOOD_MS;
    const stale = there.filter(isStale).length;
    const sinceMs = there.length === 0 ? null : Math.min(...there.map(({ madeMs }) => madeMs));
    return there.length === 0 ? [] : [{ ...pile, count: there.length - stale, stale, sinceMs }];
  });
}

/** Whether a good tin with this dose of the coffee stands there. */
export const hasTin = (state: BarState, coffee: string, doseG: number, nowMs: number): boolean =>
  readyNow(state, nowMs).some(
    (ready) =>
      ready.thing === 'tins' &&
      ready.coffee === coffee &&
      ready.count > 0 &&
      Math.abs((ready.doseG ?? 0) - doseG) < SAME_DOSE_G,
  );

/** Who did which line of a list, and when, since a time: the latest of each. */
export function tasksDone(state: BarState, list: DayList, sinceMs: number): Map<string, TaskDone> {
  const done = new Map<string, TaskDone>();
  for (const event of state.houseEvents ?? [])
    if (event.type === 'task-done' && event.list === list && event.atMs >= sinceMs)
      done.set(event.taskId, event);
  return done;
}
