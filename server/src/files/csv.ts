/**
 * Tables for spreadsheets (RFC 4180). A cell that a spreadsheet would take for a formula is given an apostrophe first,
 * so that nobody's order name runs as one.
 */
import Papa from 'papaparse';

export type Cell = string | number | null;

/** Lines end in CRLF, as the standard has it. */
export const csvOf = (rows: readonly (readonly Cell[])[]): string =>
  `${Papa.unparse(
    rows.map((row) => row.map(plain)),
    { newline: '\r\n', escapeFormulae: FORMULA },
  )}\r\n`;

/** A number is none, though it may begin with a minus. */
const FORMULA = /^'*[=+\-@\t\r]/;
/** Where a program splits the line at semicolons or tabs, what comes after one begins a cell as well. */
const FORMULA_INSIDE = /([;\t\r\n]\s*)(?='*[=+\-@])/g;
const plain = (cell: Cell): Cell => {
  if (typeof cell === 'number') return Number.isFinite(cell) ? cell : null;
  return cell?.replace(FORMULA_INSIDE, "$1'") ?? null;
};

export type CsvRow = { line: number; cells: Record<string, string> };

/**
 * Rows by the names of the first line, small letters and without spaces around them.
 * @param most so many rows at most; more are not even read
 * @throws FileFault where it is no table, with the line, or one of too many rows
 */
export function readCsv(text: string, needs: readonly string[], most = Infinity): CsvRow[] {
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    ...(most === Infinity ? {} : { preview: most + 1 }),
    transformHeader: (name) => name.trim().toLowerCase(),
  });
  if (parsed.data.length > most) throw new FileFault(`A table of this kind has at most ${most} lines.`);
  const [fault] = parsed.errors.filter(({ code }) => code !== 'UndetectableDelimiter');
  if (fault) throw new FileFault(`Line ${(fault.row ?? 0) + 2}: ${fault.message}.`);
  const missing = missingColumns(parsed.meta.fields ?? [], needs);
  if (missing) throw new FileFault(missing);
  return parsed.data.map((cells, index) => ({ line: index + 2, cells: plainCells(cells) }));
}

/** What to say where the first line does not name what is needed; null where it does. */
export function missingColumns(names: readonly string[], needs: readonly string[]): string | null {
  const missing = needs.filter((name) => !names.includes(name));
  return missing.length === 0
    ? null
    : `The first line must name the columns ${needs.join(', ')}; ${missing.join(', ')} ${missing.length === 1 ? 'is' : 'are'} missing.`;
}

/** Without the spaces around them, and without the mark that keeps a cell from running as a formula. */
export const plainCells = (cells: Record<string, string | undefined>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(cells).map(([name, cell]) => [
      name,
      (cell ?? '')
        .trim()
        .replace(/^'(?='*[=+\-@\t\r])/, '')
        .replace(/([;\t\r\n]\s*)'(?='*[=+\-@])/g, '$1'),
    ]),
  );

/** A file that cannot be taken; the message says why, to a person. */
export class FileFault extends Error {}
