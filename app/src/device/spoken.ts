/**
 * A cue as it is spoken: "Now. Cone 1: pour to 128 grams."
 */
import type { AgendaItem } from '@even-kettle/core/plan';
import type { Units } from '@even-kettle/core/units';
import { handsWords } from '../words/hands-words';
import type { Signal } from './signals';

const UNITS: Record<string, string> = { g: 'grams', s: 'seconds', oz: 'ounces' };
const WHEN: Record<Signal, string> = { ready: 'Get ready', now: 'Now', late: 'Late' };

export function spokenCue(item: AgendaItem, signal: Signal, units: Units): string {
  const { verb, figure } = handsWords(item, units);
  const deed =
    item.step.targetG === undefined ? verb : `${verb} ${figure.figure} ${UNITS[figure.unit] ?? figure.unit}`;
  return `${WHEN[signal]}. ${item.station.name}: ${deed}.`;
}
