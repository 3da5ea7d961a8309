/**
 * Tables for spreadsheets (RFC 4180). A cell that a spreadsheet would read as a formula gets an apostrophe first,
 * so that an order's name can never run as a formula.
 */
import Papa from 'papaparse';

export type Cell = string | number | null;

/** Lines end in CRLF, as the standard says. */
export const csvOf = (rows: readonly (readonly Cell[])[]): string =>
  `${Papa.unparse(
    rows.map((row) => row.map(plain)),
    { newline: '\r\n', escapeFormulae: FORMULA },
  )}\r\n`;

/** A negative number is no formula, although it begins with a minus. */
const FORMULA = /^'*[=+\-@\t\r]/;
/** A program that splits lines at semicolons or tabs would begin a new cell after one. */
const FORMULA_INSIDE = /([;\t\r\n]\s*)(?='*[=+\-@])/g;
const plain = (cell: Cell): Cell => {
  if (typeof cell === 'number') return Number.isFinite(cell) ? cell : null;
  return cell?.replace(FORMULA_INSIDE, "$1'") ?? null;
};

export type CsvRow = { line: number; cells: Record<string, string> };

/**
 * Rows by the names of the first line. Names are lower-cased and trimmed.
 * @param most the most rows that are allowed; further rows are not read
 * @throws FileFault with the line if it is not a table, or has too many rows
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

/** A sentence that names the missing columns; null if none is missing. */
export function missingColumns(names: readonly string[], needs: readonly string[]): string | null {
  const missing = needs.filter((name) => !names.includes(name));
  return missing.length === 0
    ? null
    : `The first line must name the columns ${needs.join(', ')}; ${missing.join(', ')} ${missing.length === 1 ? 'is' : 'are'} missing.`;
}

/** Trims a cell and removes the apostrophe that keeps it from running as a formula. */
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

/** A file that cannot be imported; the message is for the person who sent it. */
export class FileFault extends Error {}
