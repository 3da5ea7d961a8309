/**
 * What a drill asks for at this second, in one line.
 */
import { pourAt, shouldFlow, shouldReadG, type Drill, type PourRun } from '@even-kettle/core/practice';
import { inWords, showClock, showMass, type Units } from '@even-kettle/core/units';
import { WORDS } from './words';

export const clockOf = (s: number): string => showClock(Math.floor(s));

export type Now = Pick<PourRun, 'timeS' | 'hasBegun' | 'cellG'>;

export function whatNow(drill: Drill, run: Now, units: Units): string {
  const n = pourAt(drill, run.timeS);
  const pour = drill.pours[n]!;
  const name = drill.id === 'recipe' ? pour.name : WORDS.pourNumber(n + 1, drill.pours.length);
  const target = inWords(showMass(pour.targetG, units, 'water'));
  const flow = trim(pourFlow(drill, run.timeS, n));
  if (!run.hasBegun) return WORDS.pourTo(name, target, flow);
  const next = drill.pours[n + 1];
  if (run.timeS < pour.startS - 0.5) return WORDS.pourIn(name, Math.ceil(pour.startS - run.timeS));
  if (run.cellG < pour.targetG - 1.5 && run.timeS < pour.endS + LATE_S)
    return WORDS.pourTo(name, target, flow);
  if (next) return WORDS.wait(WORDS.nextAt(clockOf(next.startS)));
  return WORDS.thatIsAll;
}
/** A pour that is so long over its time is no longer asked for, seconds. */
const LATE_S = 6;

const pourFlow = (drill: Drill, atS: number, n: number): number =>
  shouldFlow(drill, atS) || shouldFlow(drill, drill.pours[n]!.startS);
const trim = (flow: number): string => String(Math.round(flow * 10) / 10);

/** How far the reading is ahead of the line, or behind it. */
export function aheadInWords(drill: Drill, run: Now, units: Units): string {
  if (!run.hasBegun) return WORDS.startsWithTheWater;
  const byG = Math.round(run.cellG - shouldReadG(drill, run.timeS));
  return WORDS.ahead(Math.sign(byG), inWords(showMass(Math.abs(byG), units, 'water')));
}
