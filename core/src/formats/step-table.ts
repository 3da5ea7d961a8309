/**
 * A brew card's steps as CSV (RFC 4180), for a spreadsheet.
 */
import type { BrewCard, CardStep } from '../recipe';

const COLUMNS = [
  'step',
  'name',
  'phase',
  'attended',
  'start_s',
  'end_s',
  'pour_g',
  'scale_reads_g',
  'flow_g_per_s',
  'ends_by',
  'cue',
  'path',
] as const;

/** Lines end in CR LF; a field that holds a comma, a quote or a line break is quoted. */
export function stepTableCsv(card: BrewCard): string {
  const rows = card.steps.map((step) => [
    step.id,
    step.name,
    step.phase,
    step.attended ? 'yes' : 'no',
    step.startS,
    step.endS,
    step.pourG ?? '',
    step.targetG ?? '',
    step.flowGPerS ?? '',
    step.end,
    step.cue ?? step.startCue ?? '',
    pathsInBrief(step),
  ]);
  return [COLUMNS, ...rows].map((row) => row.map(csvField).join(',') + '\r\n').join('');
}

/** Where a pour's water goes: "halo to 86 g, then spiral". */
export const pathsInBrief = ({ paths = [] }: Pick<CardStep, 'paths'>): string =>
  paths
    .map(({ path, height, wall, toG }) =>
      [path, height, wall ? `wall ${wall}` : '', toG === undefined ? '' : `to ${toG} g`]
        .filter(Boolean)
        .join(' '),
    )
    .join(', then ');

/** A spreadsheet takes text that begins so for a formula; an apostrophe before it keeps it text. */
const FORMULA = /^[=+\-@\t\r]/;

function csvField(value: string | number): string {
  if (typeof value === 'number') return String(value);
  const text = FORMULA.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
