/**
 * Upgrades what an earlier version of the app stored on the device, one step a change. Each step ignores what it does not
 * know: whether the result is valid is checked afterwards (`shapes.ts`).
 */
import { inTodaysWords } from '@even-kettle/core/pour';

type Fields = Record<string, unknown>;
const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The same with a field under another name, where it has it under the old one. */
function renamed(from: string, to: string, fields: Fields): Fields {
  if (!(from in fields)) return fields;
  const { [from]: value, ...rest } = fields;
  return { ...rest, [to]: value };
}
const mapped = (fields: unknown, change: (each: Fields) => Fields): unknown =>
  isFields(fields)
    ? Object.fromEntries(
        Object.entries(fields).map(([id, each]) => [id, isFields(each) ? change(each) : each]),
      )
    : fields;

/** 0.2.0: a cup's `tried` became its `attempts`, the state's `things` its `houseEvents`. */
function attemptsAndHouseEvents(state: Fields): Fields {
  const attempts = (cup: unknown) => (isFields(cup) ? renamed('tried', 'attempts', cup) : cup);
  const orders = mapped(state['orders'], (order) =>
    Array.isArray(order['cups']) ? { ...order, cups: order['cups'].map(attempts) } : order,
  );
  return renamed('things', 'houseEvents', { ...state, orders });
}

const STEPS: readonly ((state: Fields) => Fields)[] = [attemptsAndHouseEvents];

/** A kept bar with its state brought up to today. */
export function upgradedKept(kept: unknown): unknown {
  if (!isFields(kept) || !isFields(kept['state'])) return kept;
  const state = STEPS.reduce((before, step) => step(before), kept['state']);
  return { ...kept, state, ...('recipes' in kept ? { recipes: inTodaysWords(kept['recipes']) } : {}) };
}
