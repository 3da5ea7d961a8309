/**
 * The order feed: boats by a timetable, whose guests order from the menu. It stands in for orders from outside, by the very
 * way in which they come, and is started and stopped on the Bench.
 */
import type { DataSource } from 'typeorm';
import type { Bar, Feed, OutsideOrder } from '@even-kettle/core/contract';
import { readSetting, writeSetting } from '../store/settings-table';
import { inTransaction } from '../store/transaction';
import type { OutsideTaken } from './outside-orders';

const SETTING = 'feed';
/** A boat lands at these times, minutes of bar time apart. */
const EVERY_MIN = 20;
const EVERY_MS = EVERY_MIN * 60_000;
/** The guests of a boat order within so long, milliseconds of bar time. */
const BURST_MS = 240_000;
const GUESTS = [
  'two on deck',
  'pilot',
  'window',
  'bicycle',
  'yellow coat',
  'ticket desk',
  'rucksack',
  'mate',
];
const MOST_ORDERS = 5;
/** How often it is looked whether somebody orders, real milliseconds. */
const LOOK_MS = 1000;

type Parts = {
  source: DataSource;
  nowMs: () => number;
  rate: number;
  bar: () => Bar;
  take: (order: OutsideOrder) => Promise<OutsideTaken>;
  random: () => number;
  warn: (error: unknown) => void;
};

export type OrderFeed = {
  now: () => Feed;
  run: (running: boolean) => Promise<Feed>;
  close: () => Promise<void>;
};

export async function openFeed({ source, nowMs, rate, bar, take, random, warn }: Parts): Promise<OrderFeed> {
  let running = (await readSetting<{ running: boolean }>(source.manager, SETTING))?.running ?? false;
  /** What the guests of the boats that have landed will order yet. */
  let coming: { atMs: number; order: OutsideOrder }[] = [];
  let landedMs = boatBefore(nowMs());

  const land = (boatMs: number) => {
    const lines = (bar().menu ?? []).filter(({ off }) => !off);
    if (lines.length === 0) return;
    const orders = 2 + Math.floor(random() * (MOST_ORDERS - 1));
    for (let guest = 0; guest < orders; guest += 1) {
      const cups = Array.from({ length: random() < 0.3 ? 2 : 1 }, () => ({
        menuLineId: lines[Math.floor(random() * lines.length)]!.id,
      }));
      coming.push({
        atMs: boatMs + random() * BURST_MS,
        order: { key: `boat-${boatMs}-${guest}`, name: GUESTS[guest % GUESTS.length]!, cups },
      });
    }
  };
  const look = async () => {
    if (!running) return;
    const now = nowMs();
    const boatMs = boatBefore(now);
    if (boatMs > landedMs) land(boatMs);
    landedMs = boatMs;
    const due = coming.filter(({ atMs }) => atMs <= now);
    coming = coming.filter(({ atMs }) => atMs > now);
    // A coffee that has run out meanwhile is not had; the guest goes without.
    for (const { order } of due) await take(order);
  };
  let looking: Promise<void> | null = null;
  const timer = setInterval(
    () => {
      looking ??= look()
        .catch(warn)
        .finally(() => (looking = null));
    },
    Math.max(100, LOOK_MS / Math.max(1, rate)),
  );
  timer.unref();
  const now = (): Feed => ({
    running,
    everyMin: EVERY_MIN,
    nextBoatMs: running ? boatBefore(nowMs()) + EVERY_MS : null,
  });
  return {
    now,
    run: async (next) => {
      await inTransaction(source, (manager) => writeSetting(manager, SETTING, { running: next }));
      running = next;
      landedMs = boatBefore(nowMs());
      if (!next) coming = [];
      return now();
    },
    close: async () => {
      clearInterval(timer);
      await looking;
    },
  };
}

/** When the latest boat landed: at every full twenty minutes. */
const boatBefore = (atMs: number): number => Math.floor(atMs / EVERY_MS) * EVERY_MS;
