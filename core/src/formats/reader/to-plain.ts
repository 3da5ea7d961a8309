/**
 * What was read, as a recipe can be made of it: one figure where a range was said, and what is still missing by its field.
 */
import type { MethodId, PlainPour, PlainRecipe } from '../../recipe';
import { middle, type Said } from './draft';
import type { ReadPour, ReadText } from './settle';

/** What is meant by water straight off the boil, by room temperature, and by cold water, °C. */
const OFF_BOIL_C = 98;
const ROOM_C = 20;
const COLD_C = 12;

export type FromText = { ok: true; plain: PlainRecipe } | { ok: false; missing: string[] };

/** @param name where the text has none */
export function plainFrom(read: ReadText, name: string): FromText {
  const { method, doseG, waterG } = read;
  const waterC = degreesOf(read.waterC) ?? (read.offBoil ? OFF_BOIL_C : undefined);
  if (method === undefined || doseG === undefined || waterG === undefined || waterC === undefined) {
    const needed = { method, doseG, waterG, waterC };
    return { ok: false, missing: Object.keys(needed).filter((key) => needed[key as 'method'] === undefined) };
  }
  return {
    ok: true,
    plain: {
      method,
      name: read.name ?? name,
      doseG,
      waterG: Math.round(waterG),
      waterC,
      pours: read.pours.map(pourOf),
      ...timesOf(method, read),
      ...(read.rinseG === undefined ? {} : { rinseG: read.rinseG }),
      ...(read.grindBand === undefined ? {} : { grindBand: read.grindBand }),
      ...(read.filter === undefined ? {} : { filter: read.filter }),
      ...(read.bed === undefined ? {} : { bed: read.bed }),
      ...(read.roast === undefined ? {} : { roast: read.roast }),
      ...(read.bypassG === undefined ? {} : { bypassG: read.bypassG }),
      ...(read.brewerMl === undefined ? {} : { brewerMl: read.brewerMl }),
      ...(read.iceG === undefined ? {} : { iceG: read.iceG }),
      ...(read.servings === undefined ? {} : { servings: read.servings }),
      ...(read.doneS === undefined ? {} : { endS: { from: read.doneS[0], to: read.doneS[1] } }),
    },
  };
}

function degreesOf(waterC: ReadText['waterC'] | ReadPour['waterC']): number | undefined {
  if (waterC === undefined) return undefined;
  return waterC === 'room' ? ROOM_C : waterC === 'cold' ? COLD_C : Math.round(10 * middle(waterC)) / 10;
}

/** A steep ends with the plunge, or with the flame. */
export function timesOf(
  method: MethodId,
  {
    steepS,
    flameOffS,
    plungeS,
    pressForS,
    stirs,
  }: Pick<ReadText, 'steepS' | 'flameOffS' | 'plungeS' | 'pressForS' | 'stirs'>,
): Pick<PlainRecipe, 'flameOffS' | 'plungeS' | 'pressForS' | 'stirs'> {
  const offS = flameOffS ?? (method === 'siphon' ? steepS : undefined);
  const downS = plungeS ?? (method === 'press' || method === 'air-press' ? steepS : undefined);
  return {
    ...(offS === undefined ? {} : { flameOffS: offS }),
    ...(downS === undefined ? {} : { plungeS: downS }),
    ...(pressForS === undefined ? {} : { pressForS: Math.round(middle(pressForS)) }),
    ...(stirs.length === 0 ? {} : { stirs: stirs.map(oneFigureEach) }),
  };
}

export function pourOf({ atS, waitS, amount, toG, then, path, cue, waterC }: ReadPour): PlainPour {
  const ownC = degreesOf(waterC);
  return {
    start:
      atS !== undefined ? { atS: middle(atS) } : waitS !== undefined ? { waitS: middle(waitS) } : 'not said',
    amount: amount === 'rest' || toG === undefined ? amount : { toG },
    ...(then ? { then } : {}),
    ...(path ? { path } : {}),
    ...(cue ? { cue } : {}),
    ...(ownC === undefined ? {} : { waterC: ownC }),
  };
}

const oneFigureEach = (stir: {
  atS?: Said;
  times?: Said;
  forS?: Said;
}): NonNullable<PlainRecipe['stirs']>[number] =>
  Object.fromEntries(Object.entries(stir).map(([key, value]) => [key, Math.round(middle(value))]));

/** What the command line prints and the API answers: what was read, without its places in the text. */
export const readTextJson = ({ found: _, pours, ...read }: ReadText) => ({
  ...read,
  pours: pours.map(({ amount: __, ...pour }) => pour),
});
