/**
 * A kettle as physics: heats while it is on its base and below what it is set to, cools towards the room otherwise. It is
 * what the simulated kettle shows.
 */
import { DEFAULT_COOLING_PER_MIN, cooledToC, coolingTimeS, heatedC, heatingTimeS } from './kettle';

export type KettleModel = {
  waterC: number;
  levelG: number;
  /** The set temperature, degrees Celsius; null when switched off. */
  setC: number | null;
};

export type KettleNature = { powerW: number; roomC: number; coolingPerMin?: number };

/** It heats again when it has fallen this far below the set temperature, degrees. */
const SWITCHES_C = 0.5;

export const isHeating = ({ waterC, levelG, setC }: KettleModel): boolean =>
  setC !== null && levelG > 0 && waterC < setC - SWITCHES_C / 2;

/** The kettle after some time. */
export function stepKettle(kettle: KettleModel, forS: number, nature: KettleNature): KettleModel {
  const { powerW, roomC, coolingPerMin = DEFAULT_COOLING_PER_MIN } = nature;
  const waterC = isHeating(kettle)
    ? Math.min(kettle.setC!, heatedC(kettle.waterC, kettle.levelG, powerW, forS))
    : cooledToC({ fromC: kettle.waterC, roomC, perMin: coolingPerMin, massG: kettle.levelG }, forS);
  return { ...kettle, waterC };
}

/** Less than any difference of temperature that matters, degrees. */
const A_TRACE_C = 1e-9;

/** The kettle after any time, however long: what heats and cools in turn is worked out by the turn, not by the second. */
export function kettleAfter(kettle: KettleModel, forS: number, nature: KettleNature): KettleModel {
  const { setC, levelG } = kettle;
  if (setC === null || levelG === 0) return stepKettle(kettle, forS, nature);
  const { powerW, roomC, coolingPerMin: perMin = DEFAULT_COOLING_PER_MIN } = nature;
  const switchesC = setC - SWITCHES_C / 2 - A_TRACE_C;
  const heatS = (fromC: number) => heatingTimeS(levelG, setC, { powerW, filledAtC: fromC });
  const coolS = (fromC: number) =>
    switchesC > roomC ? coolingTimeS({ fromC, roomC, perMin, massG: levelG }, switchesC) : Infinity;
  let now = kettle;
  let leftS = forS;
  if (isHeating(now)) {
    const onS = heatS(now.waterC);
    if (onS >= leftS) return stepKettle(now, leftS, nature);
    leftS -= onS;
    now = { ...now, waterC: setC };
  }
  const offS = coolS(now.waterC);
  if (offS >= leftS) return stepKettle(now, leftS, nature);
  // From here on it is heated and cools in the same turns.
  const turnOnS = heatS(switchesC);
  leftS = (leftS - offS) % (turnOnS + coolS(setC));
  return leftS < turnOnS
    ? stepKettle({ ...now, waterC: switchesC }, leftS, nature)
    : stepKettle({ ...now, waterC: setC }, leftS - turnOnS, nature);
}

/** The kettle filled to a level with water of a temperature, mixed with what was left in it. */
export function filled(kettle: KettleModel, toG: number, atC: number): KettleModel {
  const addedG = Math.max(0, toG - kettle.levelG);
  const levelG = kettle.levelG + addedG;
  return levelG === 0
    ? kettle
    : { ...kettle, levelG, waterC: (kettle.waterC * kettle.levelG + atC * addedG) / levelG };
}

/** The kettle after some water was poured out. */
export const emptiedBy = (kettle: KettleModel, pouredG: number): KettleModel => ({
  ...kettle,
  levelG: Math.max(0, kettle.levelG - pouredG),
});
