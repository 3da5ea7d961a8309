/**
 * `ek lab file.json`: runs the variants of a lab's file and writes what each came to, and how it differs from the first.
 */
import { labFileSchema, type LabFile } from '@even-kettle/core/contract';
import {
  differenceOf,
  faultOf,
  isSure,
  labFigures,
  liveLabShift,
  meanWaitS,
  type LabShift,
} from '@even-kettle/core/practice';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { showClock } from '@even-kettle/core/units';
import { Wrong, readText, type Io } from './reading';

/** Gives the exit code: 0 done, 2 where the file is wrong or a variant of it cannot be brewed. */
export async function runLab(args: readonly string[], io: Io): Promise<number> {
  try {
    const [path, option, ...rest] = args;
    if (!path || rest.length > 0 || (option !== undefined && option !== '--json'))
      throw new Wrong('Say which file: ek lab file.json [--json]');
    const file = readLab(readText(path, io, LAB_FILE_MAX, 'a lab’s file').text());
    const book = bookOf([...SCHOOLS, ...file.recipes]);
    for (const variant of file.variants) {
      const fault = faultOf(file.bar, variant, book);
      if (fault) throw new Wrong(`${variant.name}: ${fault}`);
    }
    const all: LabShift[][] = [];
    for (const variant of file.variants) {
      const shifts: LabShift[] = [];
      for (let seed = 1; seed <= file.shifts; seed += 1)
        shifts.push(await liveLabShift(file.bar, variant, book, seed));
      all.push(shifts);
      if (option !== '--json') io.out(`${lineOf(file, all)}\n`);
    }
    if (option === '--json')
      io.out(
        `${JSON.stringify(
          file.variants.map((variant, n) => ({ variant, figures: labFigures(all[n]!), shifts: all[n] })),
          null,
          2,
        )}\n`,
      );
    return 0;
  } catch (error) {
    if (!(error instanceof Wrong)) throw error;
    io.err(`${error.message}\n`);
    return 2;
  }
}

/** Bytes. */
const LAB_FILE_MAX = 5e6;

function readLab(text: string): LabFile {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    throw new Wrong('The file is no JSON. Export it from the rush lab.');
  }
  const checked = labFileSchema.safeParse(read);
  if (checked.success) return checked.data;
  const { path, message } = checked.error.issues[0]!;
  throw new Wrong(`${path.join('.') || 'The file'} ${message}.`);
}

/** The latest variant in a line. */
function lineOf({ variants, shifts }: LabFile, all: readonly LabShift[][]): string {
  const variant = variants[all.length - 1]!;
  const own = all.at(-1)!;
  const { cupsAnHour, medianS, p90S, lateShare, handsBusy, bottleneck } = labFigures(own);
  const difference = all.length > 1 ? differenceOf(own, all[0]!, meanWaitS) : null;
  const differs = difference
    ? `; mean wait ${difference.by >= 0 ? '+' : ''}${difference.by.toFixed(0)} s ± ${difference.give.toFixed(0)} s against ${variants[0]!.name}${isSure(difference) ? '' : ' (may be chance)'}`
    : '';
  return `${variant.name}: ${cupsAnHour.toFixed(1)} cups an hour; wait median ${clock(medianS)}, nine of ten ${clock(p90S)}; over ten minutes ${percent(lateShare)}; hands busy ${percent(handsBusy)}; busiest: ${bottleneck}; ${shifts} shifts${differs}`;
}
const clock = (s: number): string => showClock(Math.round(s));
const percent = (share: number): string => `${Math.round(share * 100)} %`;
