/** The rules that keep the rooms apart fail when they are broken. */
const { spawnSync } = require('node:child_process');
const { join } = require('node:path');

const root = join(__dirname, '..');
const eslint = join(root, 'node_modules', 'eslint', 'bin', 'eslint.js');

test.each([
  [
    'app imports server',
    'app/src/bar/probe.ts',
    "import { openBar } from '@even-kettle/server';\nopenBar;\n",
    'app never imports server',
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
])('lint fails when %s', (_what, file, text, message) => {
  const lint = spawnSync(process.execPath, [eslint, '--stdin', '--stdin-filename', file], {
    cwd: root,
    input: text,
    encoding: 'utf8',
  });
  expect(lint.status).toBe(1);
  expect(lint.stdout).toContain(message);
});
