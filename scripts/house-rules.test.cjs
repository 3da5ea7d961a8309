/** The rules that keep the rooms apart fail when they are broken. */
const { spawnSync } = require('node:child_process');
const { rmSync, writeFileSync } = require('node:fs');
const { join } = require('node:path');

const root = join(__dirname, '..');

const BROKEN = [
  [
    'app imports server',
    'app/src/client/probe.ts',
    "import { openBar } from '@even-kettle/server';\nopenBar;\n",
    'app never imports server',
  ],
  [
    'a room of the app imports a later one',
    'app/src/ui/probe.ts',
    "import { useBar } from '../client/bar-context';\nuseBar;\n",
    'ui may import only from: nothing',
  ],
  [
    'a place imports another',
    'app/src/places/log/probe.ts',
    "import { OrderPage } from '../orders/order-page';\nOrderPage;\n",
    'A place imports no other',
  ],
  [
    'a function is longer than a page',
    'core/src/plan/probe.ts',
    `export function long() {\n${'  console;\n'.repeat(90)}}\n`,
    'has too many lines',
  ],
  [
    'a screen makes a control of its own',
    'app/src/places/probe.ts',
    "import { Pressable } from 'react-native';\nPressable;\n",
    'Take the part from app/src/ui',
  ],
  [
    'a screen has a colour of its own',
    'app/src/places/probe.ts',
    "export const color = '#C2410C';\n",
    'Colours are the theme’s',
  ],
  [
    'a screen has a sentence of its own',
    'app/src/places/probe.tsx',
    'export const Probe = () => <b title="Roast list">{1}</b>;\n',
    'Sentences on screen are in the place’s words.ts',
  ],
  [
    'core imports React',
    'core/src/brew/probe.ts',
    "import { useState } from 'react';\nuseState;\n",
    'core knows no screen',
  ],
  [
    'the solver knows a bar',
    'core/src/plan/solver/probe.ts',
    "import { agenda } from '../bar/agenda';\nagenda;\n",
    'The solver knows no bar',
  ],
  [
    'core imports Node',
    'core/src/plan/probe.ts',
    "import { readFileSync } from 'node:fs';\nreadFileSync;\n",
    'core knows no Node',
  ],
  [
    'a core folder imports a later one',
    'core/src/recipe/probe.ts',
    "import { apply } from '../brew';\napply;\n",
    'recipe may import only from',
  ],
  [
    'core has randomness of its own',
    'core/src/plan/probe.ts',
    'export const x = Math.random();\n',
    'Take a seeded source',
  ],
];

test('lint fails where a rule that keeps the rooms apart is broken, each in its own words', () => {
  const probes = BROKEN.map(([, file, text]) => ({ file, text }));
  const run = spawnSync(process.execPath, ['--input-type=module', '-e', LINT, JSON.stringify(probes)], {
    cwd: root,
    encoding: 'utf8',
  });
  expect(run.stderr).toBe('');
  const found = JSON.parse(run.stdout);
  for (const [index, [what, , , message]] of BROKEN.entries())
    expect([what, found[index].join('\n')]).toEqual([what, expect.stringContaining(message)]);
});

// One process for all.
const LINT = `
import { ESLint } from 'eslint';
const lint = new ESLint();
const found = [];
for (const { file, text } of JSON.parse(process.argv[1])) {
  const [{ messages }] = await lint.lintText(text, { filePath: file });
  found.push(messages.filter(({ severity }) => severity === 2).map(({ message }) => message));
}
console.log(JSON.stringify(found));
`;

/** What a check says of files that are there only meanwhile. */
function foundIn(files, command, args) {
  for (const [file, text] of Object.entries(files)) writeFileSync(join(root, file), text);
  try {
    return spawnSync(process.execPath, [join(root, command), ...args], { cwd: root, encoding: 'utf8' });
  } finally {
    for (const file of Object.keys(files)) rmSync(join(root, file), { force: true });
  }
}

test('a promise that is left to itself, a case that is forgotten and two files that need each other are found', () => {
  const files = {
    'core/src/units/probe-one.ts': `import { two } from './probe-two';\nexport const one = (): number => two('a');\n`,
    'core/src/units/probe-two.ts': `import { one } from './probe-one';
async function work() {}
work();
export function two(kind: 'a' | 'b'): number {
  switch (kind) {
    case 'a':
      return one();
  }
  return 2;
}
`,
  };
  const found = foundIn(files, 'node_modules/oxlint/bin/oxlint', [
    '--type-aware',
    '--format',
    'unix',
    ...Object.keys(files),
  ]);
  expect(found.status).toBe(1);
  expect(found.stdout).toMatch(/probe-two\.ts:3.*Promises must be awaited/);
  expect(found.stdout).toMatch(/probe-two\.ts:5.*not exhaustive/);
  expect(found.stdout).toMatch(/probe-one\.ts:1.*Dependency cycle/);
});

test('a dead export is found', () => {
  const found = foundIn(
    {
      'core/src/units/dead-probe.ts': 'export const used = 1;\nexport const nobodyUsesThis = 2;\n',
      'core/src/units/dead-probe.test.ts': "import { used } from './dead-probe';\nused;\n",
    },
    'node_modules/knip/bin/knip.js',
    [],
  );
  expect(found.status).toBe(1);
  expect(found.stdout).toMatch(/nobodyUsesThis +core\/src\/units\/dead-probe\.ts/);
  expect(found.stdout).not.toMatch(/^used /m);
});
