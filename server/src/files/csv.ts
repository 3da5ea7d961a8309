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
const FORMULA = /^[=+\-@\t\r]/;
const plain = (cell: Cell): Cell => (typeof cell === 'number' && !Number.isFinite(cell) ? null : cell);

export type CsvRow = { line: number; cells: Record<string, string> };

/**
 * Rows by the names of the first line, small letters and without spaces around them.
 * @throws CsvFault where it is no table, with the line
 */
export function readCsv(text: string, needs: readonly string[]): CsvRow[] {
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (name) => name.trim().toLowerCase(),
  });
  const [fault] = parsed.errors.filter(({ code }) => code !== 'UndetectableDelimiter');
  if (fault) throw new CsvFault(`Line ${(fault.row ?? 0) + 2}: ${fault.message}.`);
  const names = parsed.meta.fields ?? [];
  const missing = needs.filter((name) => !names.includes(name));
  if (missing.length > 0)
    throw new CsvFault(
      `The first line must name the columns ${needs.join(', ')}; ${missing.join(', ')} ${missing.length === 1 ? 'is' : 'are'} missing.`,
    );
  return parsed.data.map((cells, index) => ({
    line: index + 2,
    cells: Object.fromEntries(Object.entries(cells).map(([name, cell]) => [name, (cell ?? '').trim()])),
  }));
}

/** A file that is no table that can be read. */
export class CsvFault extends Error {}
