/**
 * Shows the kettles and controls those that can be: filled and set when its filling is tapped, emptied by the pours,
 * switched off after the last pour.
 */
import type { BarEvent, BarState, BrewState } from '@even-kettle/core/brew';
import type { KettleOrder, KettleState } from '@even-kettle/core/contract';
import { stillPours } from '@even-kettle/core/plan';
import { METHODS, fillOf, type CardStep } from '@even-kettle/core/recipe';
import type { Kettle, Time } from './ports';
import type { SimulatedKettle } from './simulated-kettle';

export type KettleService = {
  place: (kettleId: string, kettle: Kettle, simulated: SimulatedKettle | null) => void;
  remove: (kettleId: string) => void;
  happened: (event: BarEvent) => void;
  order: (kettleId: string, order: KettleOrder) => boolean;
  shown: () => KettleState[];
  close: () => void;
};

type Placed = {
  kettle: Kettle;
  simulated: SimulatedKettle | null;
  brewId: string | null;
  lastReported: KettleState;
  toldRealMs: number;
};

/** Screens are told of a change of this many degrees, or of the heating, and not more often than this. */
const TOLD_C = 0.2;
const LEAST_MS = 400;

// eslint-disable-next-line max-lines-per-function -- what it knows of the kettles is shared by its short functions
export function openKettleService(
  time: Time,
  state: () => BarState,
  tapC: () => number,
  show: (kettle: KettleState) => void,
): KettleService {
  const placed = new Map<string, Placed>();
  const heldBy = (brewId: string) => [...placed.values()].find((at) => at.brewId === brewId);

  const fillFor = (brew: BrewState, levelG: number, atC = tapC()) => {
    const isFree = ({ brewId }: Placed) => {
      const other = brewId === null ? undefined : state().brews[brewId];
      return !other || !stillPours(other);
    };
    // The kettle that the card named; if an older log named none, one that is free.
    const at = placed.get(brew.kettleId ?? '') ?? [...placed.values()].find(isFree);
    if (!at) return;
    at.brewId = brew.id;
    at.simulated?.fill(levelG, atC);
    at.kettle.set(brew.card.waterC);
  };
  /** After a restart in mid-brew the kettles of running brews are full and hot. */
  const takeUp = (kettleId: string) => {
    const brew = Object.values(state().brews).find(
      (each) =>
        filledFor(each) && stillPours(each) && !heldBy(each.id) && (each.kettleId ?? kettleId) === kettleId,
    );
    if (brew) fillFor(brew, fillOf(filledFor(brew)!, brew.card), brew.card.waterC);
  };

  return {
    place: (kettleId, kettle, simulated) => {
      const told: KettleState = {
        kettleId,
        connected: kettle.connected(),
        atMs: time.nowMs(),
        waterC: 0,
        levelG: null,
        setC: null,
        heating: false,
        simulated: simulated !== null,
      };
      const at: Placed = { kettle, simulated, brewId: null, lastReported: told, toldRealMs: 0 };
      placed.set(kettleId, at);
      kettle.listen({
        onReading: (reading) => {
          const moved =
            Math.abs(reading.waterC - at.lastReported.waterC) >= TOLD_C ||
            reading.heating !== at.lastReported.heating ||
            reading.setC !== at.lastReported.setC ||
            reading.levelG !== at.lastReported.levelG;
          if (!moved || performance.now() - at.toldRealMs < LEAST_MS) return;
          at.toldRealMs = performance.now();
          at.lastReported = { ...at.lastReported, ...reading, atMs: Math.round(reading.atMs) };
          show(at.lastReported);
        },
        onConnected: (connected) => {
          at.lastReported = { ...at.lastReported, connected };
          show(at.lastReported);
        },
      });
      takeUp(kettleId);
    },
    remove: (kettleId) => {
      placed.get(kettleId)?.kettle.close();
      placed.delete(kettleId);
    },
    happened: (event) => {
      if (event.type !== 'step-done') return;
      const brew = state().brews[event.brewId];
      const step = brew?.card.steps.find(({ id }) => id === event.stepId);
      if (!brew || !step || METHODS[brew.card.method].heatedIn !== 'kettle') return;
      if (step.kind === 'fill') return fillFor(brew, fillOf(step, brew.card));
      const at = heldBy(brew.id);
      if (!at) return;
      if (step.kind === 'set-filter' && !brew.card.isRinsedFromTap)
        at.simulated?.pour(METHODS[brew.card.method].rinseG);
      if (step.pourG !== undefined && step.waterC === undefined) at.simulated?.pour(step.pourG);
      if (!stillPours(brew)) {
        at.kettle.set(null);
        at.brewId = null;
      }
    },
    order: (kettleId, order) => {
      const at = placed.get(kettleId);
      if (!at) return false;
      if (order.do === 'set') at.kettle.set(order.setC);
      else if (at.simulated) at.simulated.fill(order.levelG, tapC());
      else return false;
      return true;
    },
    shown: () => [...placed.values()].map(({ lastReported: told }) => told),
    close: () => {
      for (const { kettle } of placed.values()) kettle.close();
    },
  };
}

/** The latest filling that was done for a brew. */
const filledFor = ({ card, marks }: BrewState): CardStep | undefined =>
  METHODS[card.method].heatedIn === 'kettle'
    ? card.steps.findLast(({ id, kind }) => kind === 'fill' && marks[id]?.doneMs !== undefined)
    : undefined;
