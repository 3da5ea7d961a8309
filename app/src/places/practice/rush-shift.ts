/**
 * A drill's shift as it is lived: guests and surprises come in their time, a simulated colleague works the other pair, and
 * what the trainee does is counted. It changes the private bar; what is drawn reads from there.
 */
import { isOpen, type BarEvent, type BarState } from '@even-kettle/core/brew';
import { agenda, forHands, tapEvents, type AgendaItem, type Plan } from '@even-kettle/core/plan';
import {
  cueComesMs,
  idleFromMs,
  surpriseNow,
  type Happening,
  type RushCounts,
  type Surprise,
} from '@even-kettle/core/practice';
import { METHODS } from '@even-kettle/core/recipe';
import { newId } from '../../client/bar-context';
import type { PrivateBar } from '../../client/private-bar';

/** The trainee's pair of hands, and the colleague's. */
export const OWN = 0;
const COLLEAGUE = 1;
/** Hands that do nothing for so long though something is due are idle, real milliseconds. */
const GRACE_MS = 3000;
/** What is said so much before it comes was said too early, milliseconds. */
const EARLY_MS = 2500;

export type RushMoment = { atMs: number; state: BarState; plan: Plan | null };

type Announced = Extract<Happening, { surprise: unknown }>['surprise'];

export type RushShift = {
  /** The bar, with the trainee's taps counted. */
  bar: PrivateBar;
  startMs: number;
  /** Lives on until now. True once every cup is out and every station clean. */
  turn: () => boolean;
  /** What can be seen now: steps that wait for what has come. */
  sights: () => AgendaItem[];
  /** The surprise that came last, and when. */
  surprised: () => { surprise: Announced; atMs: number } | null;
  counts: () => RushCounts;
  moments: () => readonly RushMoment[];
};

type SetUp = {
  bar: PrivateBar;
  happenings: readonly Happening[];
  surprises: readonly Surprise[];
  hands: number;
  seed: number;
};

export function openRushShift({ bar: inner, happenings, surprises, hands, seed }: SetUp): RushShift {
  const startMs = inner.clock.nowMs();
  const coming = [...happenings];
  const counts: RushCounts = { idleMs: 0, wrongOrder: 0, tooEarly: 0 };
  const victims: { stalled: string | null; siphon: string | null } = { stalled: null, siphon: null };
  const moments: RushMoment[] = [];
  let surprised: ReturnType<RushShift['surprised']> = null;
  let lastMs = startMs;

  const items = (nowMs: number): AgendaItem[] => {
    const { state, bar, book, plan } = inner.store.view();
    return bar ? agenda(state, bar, book, plan, nowMs) : [];
  };
  const own = (all: AgendaItem[]) => (hands === 1 ? all : forHands(all, inner.store.view().plan, OWN));
  const comes = (item: AgendaItem, nowMs: number) => cueComesMs(item, nowMs, victims, seed);
  const colleague = openColleague(inner, comes);
  const tell = (events: readonly BarEvent[]) => events.length > 0 && inner.store.act([...events]);

  /** What the trainee taps is compared with what was asked for. */
  const act: PrivateBar['store']['act'] = (events, label) => {
    const nowMs = inner.clock.nowMs();
    const all = own(items(nowMs));
    const tapped = events.find((event) => event.type === 'step-done' || event.type === 'brew-served');
    const first = all[0];
    if (tapped && first && first.brewId !== tapped.brewId && first.dueMs <= nowMs) counts.wrongOrder += 1;
    const waiting = all.find(
      ({ awaited, brewId }) => awaited && awaited.id === stepOf(tapped) && brewId === brewOf(tapped),
    );
    const done = all.find(
      (item) => item.asks === 'finish' && item.step.id === stepOf(tapped) && item.brewId === brewOf(tapped),
    );
    const isRushed = done && done.dueMs <= nowMs && nowMs - done.fromMs < RUSHED * done.step.durationS * 1000;
    if (isRushed || (waiting && (comes(waiting, nowMs) ?? 0) > nowMs + EARLY_MS)) counts.tooEarly += 1;
    return inner.store.act(events, label);
  };

  const happenNow = (nowMs: number) => {
    while (coming[0] && startMs + coming[0].atS * 1000 <= nowMs) {
      const next = coming[0];
      if ('order' in next) tell([{ ...next.order, atMs: nowMs }]);
      else {
        const events = surpriseNow(next.surprise, inner.store.view().state, nowMs, newId);
        // It waits for somebody whom it can happen to, as long as anything else is to come or to be done.
        if (events.length === 0 && openCups(inner.store.view().state) > 0) break;
        if (tell(events)) surprised = { surprise: next.surprise, atMs: nowMs };
      }
      coming.shift();
    }
  };
  const chooseVictims = () => {
    for (const { id, card } of Object.values(inner.store.view().state.brews)) {
      const { drawdownExponent, heatedIn } = METHODS[card.method];
      if (surprises.includes('stalled') && drawdownExponent !== null) victims.stalled ??= id;
      if (surprises.includes('siphon') && heatedIn !== 'kettle') victims.siphon ??= id;
    }
  };
  return {
    bar: { ...inner, store: { ...inner.store, act } },
    startMs,
    turn: () => {
      const nowMs = inner.clock.nowMs();
      happenNow(nowMs);
      chooseVictims();
      const all = items(nowMs);
      if (hands > 1) colleague(all, nowMs);
      const first = own(all)[0];
      if (first && nowMs > idleFromMs(first, comes(first, nowMs), GRACE_MS * Math.max(1, inner.rate())))
        counts.idleMs += nowMs - lastMs;
      lastMs = nowMs;
      const { state, plan } = inner.store.view();
      if (moments.at(-1)?.state !== state) moments.push({ atMs: nowMs, state, plan });
      return (
        coming.length === 0 && all.length === 0 && !Object.values(state.orders).some((order) => isOpen(order))
      );
    },
    sights: () => {
      const nowMs = inner.clock.nowMs();
      return items(nowMs).filter((item) => (comes(item, nowMs) ?? Infinity) <= nowMs);
    },
    surprised: () => surprised,
    counts: () => counts,
    moments: () => moments,
  };
}

const brewOf = (event: BarEvent | undefined) => (event && 'brewId' in event ? event.brewId : undefined);
const stepOf = (event: BarEvent | undefined) => (event && 'stepId' in event ? event.stepId : undefined);
/** Nobody does a step in less than this share of its time. */
const RUSHED = 0.4;

/** Works the other pair: each step in its time, what is waited for when it has come. */
function openColleague(bar: PrivateBar, comes: (item: AgendaItem, nowMs: number) => number | null) {
  let busy: { key: string; untilMs: number } | null = null;
  return (all: AgendaItem[], nowMs: number) => {
    const { plan, bar: settings } = bar.store.view();
    const theirs = forHands(all, plan, COLLEAGUE);
    const item = theirs.find(({ key }) => key === busy?.key) ?? theirs[0];
    if (!settings || !item || (item.brew === null && !item.station.free)) return void (busy = null);
    const ready = item.asks === 'cue' ? (comes(item, nowMs) ?? Infinity) : Math.max(item.dueMs, item.fromMs);
    if (ready > nowMs || item.asks === 'runs') return;
    const doingMs = item.asks === 'finish' ? item.step.durationS * 1000 : TAP_MS;
    if (busy?.key !== item.key) busy = { key: item.key, untilMs: Math.max(ready, nowMs - 1000) + doingMs };
    if (nowMs < busy.untilMs) return;
    const { targetG } = item.step;
    bar.store.act(
      tapEvents(item, settings, nowMs, newId, targetG === undefined ? {} : { readingG: targetG }),
    );
    busy = null;
  };
}
/** From seeing that it is time to saying so, milliseconds. */
const TAP_MS = 800;

const openCups = ({ orders }: BarState): number =>
  Object.values(orders).reduce(
    (sum, { cups }) => sum + cups.filter(({ status }) => status === 'waiting' || status === 'brewing').length,
    0,
  );
