/**
 * Roast lists and orders from spreadsheets. Every line is checked first; then all lines are imported, or none.
 * The first line names the columns.
 */
import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import type { BarEvent, OrderTaken } from '@even-kettle/core/brew';
import { barChangeSchema, cupAskSchema, oneLine, type Bar, type Coffee } from '@even-kettle/core/contract';
import { ROAST_LEVELS, type Recipe } from '@even-kettle/core/recipe';
import { readCsv } from './csv';

/** A line as it would be imported, or what is wrong with it. */
export type ImportRow =
  | { line: number; ok: true; shows: string }
  | { line: number; ok: false; reason: string };
export type RoastImport = { rows: ImportRow[]; coffees: Coffee[] };
export type OrderImport = { rows: ImportRow[]; events: BarEvent[] };

/** The most lines of a roast list, and of a list of orders. */
export const IMPORT_MAX = { roasts: 60, orders: 100 } as const;
const CUPS_MAX = 6;

/** Columns `coffee`, `roast`, and optionally `roasted_on`, `notes`, `decaf`. A coffee that the bench has is updated. */
export function readRoasts(text: string, bar: Bar): RoastImport {
  const rows: ImportRow[] = [];
  const coffees = [...bar.coffees];
  const ids = new Set(coffees.map(({ id }) => id));
  for (const { line, cells } of readCsv(text, ['coffee', 'roast'], IMPORT_MAX.roasts)) {
    const name = cells['coffee'] ?? '';
    const at = coffees.findIndex((coffee) => coffee.name.toLowerCase() === name.toLowerCase());
    const coffee = {
      ...(at >= 0 ? coffees[at]! : { id: idFrom(name, ids), decaf: false, notes: '' }),
      name,
      roast: cells['roast']!.toLowerCase(),
      ...(cells['roasted_on'] ? { roastedOn: cells['roasted_on'] } : {}),
      ...(cells['notes'] ? { notes: cells['notes'] } : {}),
      ...(cells['decaf'] ? { decaf: /^(yes|true|1|decaf)$/i.test(cells['decaf']) } : {}),
    };
    const checked = barChangeSchema.safeParse({ coffees: [coffee] });
    if (!checked.success) {
      rows.push({ line, ok: false, reason: wordsOf(checked.error, { roast: ROAST_LEVELS.join(', ') }) });
      continue;
    }
    const good = checked.data.coffees![0]!;
    ids.add(good.id);
    if (at >= 0) coffees[at] = good;
    else coffees.push(good);
    rows.push({
      line,
      ok: true,
      shows: `${good.name}, ${good.roast}${good.roastedOn ? `, roasted ${good.roastedOn}` : ''}${at >= 0 ? ' (on the bench already: brought up to date)' : ''}`,
    });
  }
  if (coffees.length > IMPORT_MAX.roasts)
    rows.push({ line: 1, ok: false, reason: `A bench takes at most ${IMPORT_MAX.roasts} coffees.` });
  return { rows, coffees };
}

/** Columns `coffee`, `recipe`, `ml`, and optionally `guest`, `order`: lines with the same `order` are cups of one order. */
export function readOrders(text: string, bar: Bar, recipes: readonly Recipe[], nowMs: number): OrderImport {
  const rows: ImportRow[] = [];
  const orders = new Map<string, OrderTaken>();
  for (const { line, cells } of readCsv(text, ['coffee', 'recipe', 'ml'], IMPORT_MAX.orders * CUPS_MAX)) {
    const coffee = bar.coffees.find(({ name }) => name.toLowerCase() === cells['coffee']!.toLowerCase());
    const asked = cells['recipe']!.toLowerCase();
    const recipe = recipes.find(({ id, name }) => id === asked || name.toLowerCase() === asked);
    if (!coffee || !recipe) {
      rows.push({
        line,
        ok: false,
        reason: coffee
          ? `There is no recipe “${cells['recipe']}” on the bar.`
          : `There is no coffee “${cells['coffee']}” on the bench; it has ${bar.coffees.map(({ name }) => name).join(', ')}.`,
      });
      continue;
    }
    const cup = cupAskSchema.safeParse({
      cupId: uuid(),
      recipeId: recipe.id,
      recipeVersion: recipe.version,
      coffee: coffee.name,
      roast: coffee.roast,
      cupMl: Number(cells['ml']),
    });
    if (!cup.success) {
      rows.push({ line, ok: false, reason: wordsOf(cup.error, {}) });
      continue;
    }
    const key = cells['order'] || `line ${line}`;
    const order = orders.get(key) ?? {
      id: uuid(),
      type: 'order-taken',
      atMs: nowMs,
      orderId: uuid(),
      ...(cells['guest'] ? { name: oneLine(cells['guest']).slice(0, 40) } : {}),
      cups: [],
    };
    order.cups = [...order.cups, cup.data];
    orders.set(key, order);
    rows.push(
      order.cups.length > CUPS_MAX
        ? { line, ok: false, reason: `Order ${key} has more than six cups.` }
        : { line, ok: true, shows: `${coffee.name}, ${recipe.name}, ${cup.data.cupMl} ml` },
    );
  }
  if (orders.size > IMPORT_MAX.orders)
    rows.push({ line: 1, ok: false, reason: `At most ${IMPORT_MAX.orders} orders at once.` });
  return { rows, events: [...orders.values()] };
}

function wordsOf(error: z.ZodError, hints: Record<string, string>): string {
  const [issue] = error.issues;
  const field = String(issue!.path.at(-1) ?? '');
  return `${field} ${hints[field] ? `must be one of ${hints[field]}` : issue!.message}.`;
}

/** An id made from the name that no other coffee has. */
function idFrom(name: string, taken: ReadonlySet<string>): string {
  const plain =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 40) || 'coffee';
  if (!taken.has(plain)) return plain;
  let n = 2;
  while (taken.has(`${plain}-${n}`)) n += 1;
  return `${plain}-${n}`;
}
