/** A server that ends by itself is started again; one that a person has to mend is not. */
const { mkdtempSync, rmSync, writeFileSync, readFileSync } = require('node:fs');
const { spawn } = require('node:child_process');
const { tmpdir } = require('node:os');
const { join } = require('node:path');
const { pathToFileURL } = require('node:url');

const folder = mkdtempSync(join(tmpdir(), 'even-kettle-serve-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** Serves a script that ends with one code after the other, and tells how often it was started and how all of it ended. */
function served(codes) {
  const starts = join(folder, `starts-${codes.join('-')}`);
  const main = `${starts}.mjs`;
  writeFileSync(starts, '');
  writeFileSync(
    main,
    `import { appendFileSync, readFileSync } from 'node:fs';
     appendFileSync(${JSON.stringify(starts)}, 'x');
     process.exit(${JSON.stringify(codes)}[readFileSync(${JSON.stringify(starts)}, 'utf8').length - 1]);`,
  );
  const serve = pathToFileURL(join(__dirname, 'serve.mjs')).href;
  const run = spawn(process.execPath, [
    '--input-type=module',
    '-e',
    `import { serve } from ${JSON.stringify(serve)}; serve({}, ${JSON.stringify(main)});`,
  ]);
  return new Promise((resolve) =>
    run.once('exit', (code) => resolve({ code, starts: readFileSync(starts, 'utf8').length })),
  );
}

test('it is started again after it ended by itself, and ends with it where it was stopped', async () => {
  expect(await served([1, 1, 0])).toEqual({ code: 0, starts: 3 });
});

test('it is not started again where a person has to mend something first', async () => {
  expect(await served([78])).toEqual({ code: 78, starts: 1 });
});
