/**
 * Orders from outside: menu lines or recipes become cups, the bar quotes, and the order is taken once for each key.
 */
import { createHash } from 'node:crypto';
import { badgeOf, isFetched, type BarState, type CupAsk, type OrderTaken } from '@even-kettle/core/brew';
import type { Bar, OutsideOrder, OutsideOrderStands } from '@even-kettle/core/contract';
import { isGassy } from '@even-kettle/core/learn';
import { asInQueue, menuNow, shareNow, timesOf, type Plan } from '@even-kettle/core/plan';
import type { Recipe, RecipeBook } from '@even-kettle/core/recipe';
import type { Quoter } from '../planning/quoter';
import type { Appended } from '../store/log';

export type OutsideParts = {
  bar: () => Bar;
  state: () => BarState;
  recipes: () => readonly Recipe[];
  book: RecipeBook;
  plan: () => Plan | null;
  quoter: Pick<Quoter, 'quote'>;
  /** An order that has left the live state: the event that took it, and its badge if it was brewed. */
  earlier: (eventId: string, orderId: string) => Promise<{ taken: OrderTaken; badge: number | null } | null>;
  nowMs: () => number;
  post: (events: readonly OrderTaken[]) => Promise<Appended>;
};

export type OutsideTaken =
  | {
      ok: true;
      orderId: string;
      badge: ReturnType<typeof badgeOf> | null;
      promisedMs: number | null;
      expectedMs: number | null;
      isNew: boolean;
    }
  | { ok: false; why: 'not-valid' | 'not-offered'; field: string; reason: string };

/** The till that asks, by its key. Its orders are its own: another till's key for one names another order. */
export type Till = { id: string; name: string };

type Refused = Extract<OutsideTaken, { ok: false }>;

export const outsideOrders = (parts: OutsideParts) => ({
  take: (asked: OutsideOrder, till?: Till) => take(parts, asked, till),
  stands: async (key: string, till?: Till): Promise<OutsideOrderStands | null> => {
    const { orderId, eventId } = idsOf(key, till);
    const order = parts.state().orders[orderId];
    if (!order) {
      const earlier = await parts.earlier(eventId, orderId);
      if (!earlier) return null;
      const {
        ok: _ok,
        isNew: _isNew,
        ...answer
      } = answerOf({ ...earlier.taken, id: orderId, badge: earlier.badge }, false);
      return { ...answer, cups: null };
    }
    const { ok: _ok, isNew: _isNew, ...answer } = answerOf(order, false);
    return {
      ...answer,
      cups: order.cups.map((cup) => (isFetched(parts.state(), cup) ? 'fetched' : cup.status)),
    };
  },
});

async function take(parts: OutsideParts, asked: OutsideOrder, till?: Till): Promise<OutsideTaken> {
  const { bar, state, nowMs, post } = parts;
  const { orderId, eventId } = idsOf(asked.key, till);
  const known = orderIn(state(), orderId);
  if (known) return answerOf(known, false);
  const earlier = await parts.earlier(eventId, orderId);
  if (earlier) return answerOf({ ...earlier.taken, id: orderId, badge: earlier.badge }, false);
  const queue =
    asked.queueId === undefined ? bar().queues?.[0] : bar().queues?.find(({ id }) => id === asked.queueId);
  if (asked.queueId !== undefined && !queue)
    return notValid('queueId', `There is no queue ${asked.queueId}.`);
  if (queue?.promise === 'pick-up' && asked.wantedMs === undefined)
    return notValid('wantedMs', `${queue.name} needs the time at which the order is fetched.`);
  const cups: CupAsk[] = [];
  for (const [index, cup] of asked.cups.entries()) {
    const made = cupOf(parts, cup, `${orderId}-${index + 1}`, `cups.${index}`);
    if ('ok' in made) return made;
    cups.push(made);
  }
  const standsIn = asInQueue(queue, asked.wantedMs ?? null);
  const askedMs = nowMs();
  const quote = await parts.quoter.quote(
    { state: state(), bench: bar(), nowMs: askedMs, plan: parts.plan(), cups, queue: standsIn },
    parts.book,
  );
  if (quote && !quote.ok) return { ok: false, why: 'not-offered', field: 'cups', reason: quote.reason };
  const result = await post([
    {
      id: eventId,
      type: 'order-taken',
      atMs: nowMs(),
      orderId,
      ...(till ? { till: till.name } : {}),
      ...(asked.name === undefined ? {} : { name: asked.name }),
      ...(quote ? timesOf(quote.readyS, askedMs / 1000, standsIn, shareNow(state(), bar())) : {}),
      ...standsIn,
      cups,
    },
  ]);
  // The same key may have come twice at once: the first was taken.
  const taken = orderIn(state(), orderId);
  if (!result.ok && taken) return answerOf(taken, false);
  if (!result.ok) {
    const { field, reason } = result.refused.refusal;
    return notValid(field, reason);
  }
  return answerOf(taken!, true);
}

const notValid = (field: string, reason: string): Refused => ({ ok: false, why: 'not-valid', field, reason });

/** A key is one order for good: its ids follow from it. */
function idsOf(key: string, till?: Till): { orderId: string; eventId: string } {
  const hex = createHash('sha256')
    .update(till ? `outside ${till.id} ${key}` : `outside ${key}`)
    .digest('hex');
  // A UUID of version 8, which leaves its bits to us.
  const eventId = [
    hex.slice(0, 8),
    hex.slice(8, 12),
    `8${hex.slice(13, 16)}`,
    `8${hex.slice(17, 20)}`,
    hex.slice(20, 32),
  ].join('-');
  return { orderId: `outside-${hex.slice(32, 56)}`, eventId };
}

function cupOf(
  { bar, state, recipes, book, nowMs }: OutsideParts,
  { menuLineId, coffeeId, recipeId, cupMl, ...service }: OutsideOrder['cups'][number],
  cupId: string,
  at: string,
): CupAsk | Refused {
  const now = new Date(nowMs());
  const minuteOfDay = now.getHours() * 60 + now.getMinutes();
  const line =
    menuLineId === undefined
      ? undefined
      : menuNow(bar(), recipes(), book, state(), minuteOfDay).find((each) => each.line.id === menuLineId);
  if (menuLineId !== undefined && !line)
    return notValid(`${at}.menuLineId`, `There is no line ${menuLineId} on the menu.`);
  if (line?.off)
    return {
      ok: false,
      why: 'not-offered',
      field: `${at}.menuLineId`,
      reason:
        line.off === 'only before'
          ? `${line.coffee} is offered only before ${line.line.before}.`
          : `${line.coffee}: ${line.off}.`,
    };
  const coffee = bar().coffees.find(({ id }) => id === (line?.line.coffeeId ?? coffeeId));
  if (!coffee) return notValid(`${at}.coffeeId`, `There is no coffee ${coffeeId} on the bench.`);
  const recipe = recipes().find(({ id }) => id === (line?.line.recipeId ?? recipeId));
  if (!recipe) return notValid(`${at}.recipeId`, `There is no recipe ${recipeId}.`);
  const size = cupMl ?? line?.line.sizesMl[0];
  if (size === undefined) return notValid(`${at}.cupMl`, 'Say the size of the cup in ml.');
  return {
    cupId,
    recipeId: recipe.id,
    recipeVersion: recipe.version,
    coffee: coffee.name,
    roast: coffee.roast,
    cupMl: size,
    ...(service.milk === undefined ? {} : { addition: 'milk' as const, milk: service.milk }),
    ...(service.toGo ? { toGo: true as const } : {}),
    ...(service.allergy === undefined ? {} : { allergy: service.allergy }),
    ...(service.note === undefined ? {} : { note: service.note }),
    ...(coffee.decaf ? { decaf: true as const } : {}),
    ...(isGassy(coffee.roastedOn, nowMs()) ? { gassy: true as const } : {}),
  };
}

type Answered = { id: string; badge: number | null; promisedMs?: number; expectedMs?: number };

/** An order of the live state, or one that was set aside there. */
const orderIn = ({ orders, settled }: BarState, id: string): Answered | undefined =>
  orders[id] ?? settled?.flatMap((each) => each.orders).find((order) => order.id === id);

function answerOf(
  { id, badge, promisedMs, expectedMs }: Answered,
  isNew: boolean,
): Extract<OutsideTaken, { ok: true }> {
  return {
    ok: true,
    orderId: id,
    badge: badge === null ? null : badgeOf(badge),
    promisedMs: promisedMs ?? null,
    expectedMs: expectedMs ?? null,
    isNew,
  };
}
