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
    'a promise is left to itself',
    'core/src/plan/probe.ts',
    'async function work() {}\nwork();\n',
    'Promises must be awaited',
    { types: true },
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
  // One process for all. Most of its time would go into reading the types of the house, which one rule here asks for.
  const probes = BROKEN.map(([, file, text, , { types } = {}]) => ({ file, text, types }));
  const run = spawnSync(process.execPath, ['--input-type=module', '-e', LINT, JSON.stringify(probes)], {
    cwd: root,
    encoding: 'utf8',
  });
  expect(run.stderr).toBe('');
  const found = JSON.parse(run.stdout);
  for (const [index, [what, , , message]] of BROKEN.entries())
    expect([what, found[index].join('\n')]).toEqual([what, expect.stringContaining(message)]);
});

const LINT = `
import { ESLint } from 'eslint';
const typed = new ESLint();
const untyped = new ESLint({
  overrideConfig: {
    files: ['**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: false } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'off',
      '@typescript-eslint/switch-exhaustiveness-check': 'off',
    },
  },
});
const found = [];
for (const { file, text, types } of JSON.parse(process.argv[1])) {
  const [{ messages }] = await (types ? typed : untyped).lintText(text, { filePath: file });
  found.push(messages.filter(({ severity }) => severity === 2).map(({ message }) => message));
}
console.log(JSON.stringify(found));
`;

test('a dead export is found', () => {
  const probe = join(root, 'core/src/units/dead-probe.ts');
  const user = join(root, 'core/src/units/dead-probe.test.ts');
  writeFileSync(probe, 'export const used = 1;\nexport const nobodyUsesThis = 2;\n');
  writeFileSync(user, "import { used } from './dead-probe';\nused;\n");
  try {
    const found = spawnSync(process.execPath, [join(root, 'node_modules/knip/bin/knip.js')], {
      cwd: root,
      encoding: 'utf8',
    });
    expect(found.status).toBe(1);
    expect(found.stdout).toMatch(/nobodyUsesThis +core\/src\/units\/dead-probe\.ts/);
    expect(found.stdout).not.toMatch(/^used /m);
  } finally {
    for (const file of [probe, user]) rmSync(file, { force: true });
  }
});
