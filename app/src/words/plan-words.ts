/**
 * The plan in words: what a brew waits for, what would help, what was planned anew.
 */
import type { BarState, OrderState } from '@even-kettle/core/brew';
import { badgeOf } from '@even-kettle/core/brew';
import {
  brewerOf,
  isFlameKeeper,
  type Bench,
  type CardReason,
  type Help,
  type Link,
} from '@even-kettle/core/plan';
import { METHODS, type CardStep, type RecipeBook } from '@even-kettle/core/recipe';
import { showClock } from '@even-kettle/core/units';
import type { PlanChange } from '../client/store';
import { clockTime } from './hands-words';

/** A tool as people call it. */
export const toolName = (tool: string, bench: Pick<Bench, 'brewers'>): string =>
  brewerOf(bench, tool.split('/')[0]!)?.name ?? tool;

const a = (name: string): string => `${/^[aeiou]/i.test(name) ? 'an' : 'a'} ${name}`;

type Known = { state: BarState; bench: Bench; book: RecipeBook };

/** Where a brew stands, or which order's cup it will be. */
function brewName({ state }: Known, brewId: string): string {
  const brew = state.brews[brewId];
  if (brew) return brew.stationName;
  const cupId = brewId.slice(0, brewId.lastIndexOf('.'));
  const order = Object.values(state.orders).find(({ cups }) => cups.some((cup) => cup.cupId === cupId));
  return order ? `${badgeOf(order.badge).letter}’s cup` : 'a cup';
}

function stepName({ state, book }: Known, key: string): string {
  const [brewId, stepId] = [key.slice(0, key.lastIndexOf('/')), key.slice(key.lastIndexOf('/') + 1)];
  const brew = state.brews[brewId];
  const cupId = brewId.slice(0, brewId.lastIndexOf('.'));
  const cup = Object.values(state.orders)
    .flatMap(({ cups }) => cups)
    .find((each) => each.cupId === cupId);
  const steps: readonly Pick<CardStep, 'id' | 'name'>[] = brew?.card.steps ?? (cup && book(cup)?.steps) ?? [];
  const name = steps.find(({ id }) => id === stepId)?.name ?? stepId;
  return name.charAt(0).toLowerCase() + name.slice(1);
}

/** One link of the chain: "Cone 2 waits for the grinder until 9:41: Press 1, grind". */
export function linkInWords(link: Link, known: Known): string {
  const who = brewName(known, link.brewId);
  const until = clockTime(link.until * 1000);
  const frees = link.step
    ? `: ${brewName(known, link.step.slice(0, link.step.lastIndexOf('/')))}, ${stepName(known, link.step)}`
    : '';
  if (link.for === 'partner')
    return `${who} starts at ${until}, to come out with the rest of its order${frees}.`;
  if (isFlameKeeper(link.tool ?? ''))
    return `${who} waits until ${until}, since a flame is never left alone${frees}.`;
  const what = link.for === 'hands' ? 'hands' : a(toolName(link.tool ?? 'tool', known.bench));
  return `${who} waits for ${what} until ${until}${frees}.`;
}

export function helpInWords(help: Help, order: OrderState, bench: Pick<Bench, 'brewers'>): string {
  const sooner = `${showClock(help.gainS)} sooner`;
  if (help.what === 'hands') return `One more pair of hands: ${sooner}.`;
  if (help.what === 'tool') return `One more ${toolName(help.tool, bench)}: ${sooner}.`;
  const cup = order.cups.find(({ cupId }) => cupId === help.cupId);
  return `${cup?.coffee ?? 'The cup'} by ${METHODS[help.method].name.toLowerCase()}: ${sooner}.`;
}

/**
 * Why a card asks for this now: "Imre is still at Cone 2, rinse the filter: this is yours."
 * @param other the other pair: who they are, and the step that they are at
 */
export function reasonInWords(
  reason: CardReason,
  known: Known,
  other: { name: string; at: string | undefined },
): string {
  const named = (key: string) =>
    `${brewName(known, key.slice(0, key.lastIndexOf('/')))}, ${stepName(known, key)}`;
  switch (reason.why) {
    case 'spoils':
      return `This goes first, since it cannot wait. After it: ${named(reason.instead)}.`;
    case 'from':
      return other.at === undefined
        ? `This is yours now, since ${other.name} will not be free in time.`
        : `This is yours now: ${other.name} will still be at ${named(other.at)}.`;
    case 'to':
      return `You would not be free in time, so ${other.name} will do this: ${named(reason.step)}.`;
  }
}

const BECAUSE: Record<PlanChange['because'], string> = {
  event: 'after the last tap',
  order: 'for a new order',
  late: 'because a step is late',
  bench: 'because the bench has changed',
  better: 'because a better way was found',
};

/** Why the next steps are at other times than they were. */
export const becauseInWords = ({ because }: PlanChange): string => `Plan changed ${BECAUSE[because]}`;
