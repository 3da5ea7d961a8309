import fc from 'fast-check';
import { FileFault, csvOf, readCsv } from './csv';

const seed = Number(process.env['FUZZ_SEED'] ?? 20261125);
console.info(`csv seed ${seed}`);

test('any table of text is read back as it was written, quotes, commas and lines in its cells with it', () => {
  // Ends of cells are trimmed when read.
  const cell = fc
    .oneof(fc.string({ maxLength: 20 }), fc.string({ unit: fc.constantFrom(..."=+-@;'\t a") }))
    .filter((text) => text === text.trim());
  fc.assert(
    fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 20 }), (rows) => {
      // Lines of nothing are passed over.
      const said = rows.map(([a, b], n) => [a, b, `row ${n}`]);
      const read = readCsv(csvOf([['one', 'two', 'name'], ...said]), ['one', 'two']);
      expect(read.map(({ cells }) => [cells['one'], cells['two'], cells['name']])).toEqual(said);
    }),
    { numRuns: 300, seed },
  );
});

test.each(['=SUM(A1)', '+1', '-1+2', '@cmd', '\t=1'])('%j runs as no formula', (text) => {
  expect(csvOf([[text, 'x']])).toMatch(/^"?'/);
});

test.each(['Ann;=1+1', 'Ann\t@cmd', 'Ann\n-2+3', "Ann; '=1"])(
  '%j runs as no formula where the line is split at semicolons or tabs',
  (text) => {
    const cells = csvOf([[text, 'x']]).split(/[;\t\n\r,]/);
    for (const cell of cells) expect(cell).not.toMatch(/^\s*"?[=+\-@]/);
  },
);

test('a table of too many lines is refused before they are read', () => {
  const text = `coffee,roast\n${'Fog,dark\n'.repeat(61)}`;
  expect(() => readCsv(text, ['coffee', 'roast'], 60)).toThrow(/at most 60 lines/);
});

test('a number below nought is a number; a byte-order mark and capitals in the first line are no matter', () => {
  expect(csvOf([[-2, null, 1.5]])).toBe('-2,,1.5\r\n');
  expect(readCsv('\uFEFFCoffee, ROAST \nFog,dark\n', ['coffee', 'roast'])).toEqual([
    { line: 2, cells: { coffee: 'Fog', roast: 'dark' } },
  ]);
});

test.each([
  ['coffee\nFog\n', /must name the columns coffee, roast; roast is missing/],
  ['coffee,roast\nFog\n', /^Line 2:/],
  ['coffee,roast\n"Fog,dark\n', /^Line \d+:/],
])('%j is told to be no such table, and where', (text, words) => {
  expect(() => readCsv(text, ['coffee', 'roast'])).toThrow(FileFault);
  expect(() => readCsv(text, ['coffee', 'roast'])).toThrow(words);
});
