/**
 * Reads files larger than memory in pieces: rows of a table, items of an archive. Whatever a file contains, only a few
 * rows are in memory at a time; a row that would need more is reported as a fault.
 */
import { createReadStream } from 'node:fs';
import { Transform, pipeline } from 'node:stream';
import { JSONParser } from '@streamparser/json';
import Papa from 'papaparse';
import { FileFault, missingColumns, plainCells, type CsvRow } from './csv';

/** Called with the number of bytes that were read. */
export type OnBytes = (bytes: number) => void;

/** The longest row or item, bytes. A longer one has a quote or a bracket that is never closed. */
const LONGEST = 4_000_000;

/**
 * Rows of a table, by the names of its first line.
 * @throws FileFault with the line if it is not a table
 */
export async function* rowsOfFile(
  file: string,
  needs: readonly string[],
  onBytes: OnBytes,
): AsyncGenerator<CsvRow> {
  let bytes = 0;
  let sinceRow = 0;
  let line = 1;
  const decoder = new TextDecoder('utf-8', { fatal: true });
  const text = new Transform({
    transform: (chunk: Buffer, _encoding, done) => {
      bytes += chunk.length;
      sinceRow += chunk.length;
      onBytes(bytes);
      if (sinceRow > LONGEST)
        return done(
          new FileFault(`After line ${line}: no row ends. A quote is opened there and never closed.`),
        );
      try {
        done(null, decoder.decode(chunk, { stream: true }));
      } catch {
        done(new FileFault('It is not UTF-8 text. Save it as CSV in UTF-8.'));
      }
    },
  });
  const parser = Papa.parse(Papa.NODE_STREAM_INPUT, {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (name: string) => name.trim().toLowerCase(),
  });
  let fault: Error | null = null;
  pipeline(createReadStream(file), text, parser, (error) => {
    fault = error ?? null;
  });
  try {
    for await (const cells of parser as AsyncIterable<Record<string, unknown>>) {
      sinceRow = 0;
      line += 1;
      if (line === 2) {
        const missing = missingColumns(Object.keys(cells), needs);
        if (missing) throw new FileFault(missing);
      }
      if ('__parsed_extra' in cells)
        throw new FileFault(`Line ${line}: it has more cells than the first line names.`);
      yield { line, cells: plainCells(cells as Record<string, string>) };
    }
  } catch (error) {
    throw fault ?? error;
  }
  if (fault) throw fault as Error;
}

/** A part of an archive: the list or setting that it belongs to, its index, and its value. */
export type ArchiveItem = { part: string; at: string; value: unknown };

/** The deepest nesting that a bar writes; deeper files are refused. */
const DEEPEST = 24;

/**
 * The values on the second level of a JSON file, one after another: items of lists, and settings by their names. A
 * value on the first level that is neither list nor object comes with an empty path.
 * @throws FileFault if it is not JSON
 */
export async function* itemsOfFile(file: string, onBytes: OnBytes): AsyncGenerator<ArchiveItem> {
  const found: ArchiveItem[] = [];
  // Items are emitted and then dropped; the rest of their list is empty when it ends.
  const parser = new JSONParser({ paths: ['$.*', '$.*.*'], keepStack: false });
  let top: 'object' | 'other' | null = null;
  parser.onValue = ({ value, key, stack }) => {
    if (stack.length === 1) {
      if (value === null || typeof value !== 'object') found.push({ part: String(key), at: '', value });
    } else found.push({ part: String(stack[1]!.key), at: String(key), value });
  };
  const guard = depthGuard();
  let bytes = 0;
  let sinceItem = 0;
  for await (const chunk of createReadStream(file) as AsyncIterable<Buffer>) {
    bytes += chunk.length;
    sinceItem += chunk.length;
    onBytes(bytes);
    top ??= /^\uFEFF?\s*\{/.test(chunk.toString('utf8', 0, 64)) ? 'object' : 'other';
    if (top === 'other') throw new FileFault('It is no archive: a file of one begins with {.');
    if (guard(chunk) > DEEPEST) throw new FileFault(`It is nested deeper than ${DEEPEST} levels.`);
    if (sinceItem > LONGEST) throw new FileFault('One of its items does not end.');
    try {
      parser.write(chunk);
    } catch (error) {
      throw new FileFault(`It is no JSON: ${error instanceof Error ? error.message : String(error)}`);
    }
    if (found.length > 0) sinceItem = 0;
    yield* found.splice(0);
  }
  if (!parser.isEnded) throw new FileFault('It ends too soon.');
}

/** The depth of brackets at the end of each piece; brackets inside texts do not count. */
function depthGuard(): (chunk: Buffer) => number {
  let depth = 0;
  let deepest = 0;
  let inText = false;
  let escaped = false;
  return (chunk) => {
    for (const byte of chunk) {
      if (escaped) escaped = false;
      else if (inText) {
        if (byte === 0x5c) escaped = true;
        else if (byte === 0x22) inText = false;
      } else if (byte === 0x22) inText = true;
      else if (byte === 0x7b || byte === 0x5b) deepest = Math.max(deepest, (depth += 1));
      else if (byte === 0x7d || byte === 0x5d) depth -= 1;
    }
    return deepest;
  };
}
