import expo from 'eslint-config-expo/flat.js';
import prettier from 'eslint-config-prettier';

/** A core folder may import only from the folders before it. */
const CORE_ORDER = [
  'units',
  'water',
  'pour',
  'recipe',
  'brew',
  'plan',
  'learn',
  'rush',
  'formats',
  'contract',
];

const never = (group, message) => ({ group, message });
const NOT_FOR_CORE = [
  never(
    ['react', 'react/*', 'react-*', 'react-native*', 'expo', 'expo-*', '@expo/*', '@tanstack/*'],
    'core knows no screen.',
  ),
  never(
    ['node:*', 'fs', 'path', 'os', 'http', 'crypto', 'worker_threads', 'child_process'],
    'core knows no Node.',
  ),
  never(['@even-kettle/*', '**/server/**', '**/app/**'], 'core imports neither server nor app.'),
];

export default [
  {
    ignores: [
      '**/node_modules/',
      '**/dist/',
      '**/.expo/',
      'coverage/',
      '**/test-results/',
      'reports/',
      'app/expo-env.d.ts',
    ],
  },
  ...expo,
  prettier,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      eqeqeq: 'error',
      'import/no-named-as-default-member': 'off',
      'import/no-named-as-default': 'off',
    },
  },
  {
    files: ['core/src/**/*.ts'],
    rules: {
      'no-restricted-imports': ['error', { patterns: NOT_FOR_CORE }],
      'no-restricted-globals': [
        'error',
        ...[
          'window',
          'document',
          'process',
          'fetch',
          'setTimeout',
          'setInterval',
          'performance',
          'console',
        ].map((name) => ({
          name,
          message: 'core has no I/O and no clock; take what you need as an argument.',
        })),
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Take a seeded source as an argument.' },
        { object: 'Date', property: 'now', message: 'Now is an argument.' },
      ],
    },
  },
  ...CORE_ORDER.map((folder, place) => ({
    files: [`core/src/${folder}/**/*.ts`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            ...NOT_FOR_CORE,
            ...CORE_ORDER.slice(place + 1).map((later) =>
              never(
                [`../${later}`, `../${later}/*`],
                `${folder} may import only from: ${CORE_ORDER.slice(0, place).join(', ') || 'nothing'}.`,
              ),
            ),
          ],
        },
      ],
    },
  })),
  {
    files: ['core/src/**/*.test.ts', 'core/src/testing/**'],
    rules: { 'no-restricted-globals': 'off', 'no-restricted-imports': ['error', { patterns: NOT_FOR_CORE }] },
  },
  {
    files: ['app/**/*.{ts,tsx}'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            never(
              ['@even-kettle/server', '@even-kettle/server/*', '**/server/**'],
              'app never imports server; it talks to it over HTTP.',
            ),
            never(['node:*'], 'app runs in a browser.'),
          ],
        },
      ],
    },
  },
  // Fonts reach Metro only through require().
  { files: ['app/src/app/_layout.tsx'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  {
    files: ['server/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            never(
              ['@even-kettle/app', '**/app/src/**', 'react', 'react-native*', 'expo*'],
              'server knows no screen.',
            ),
          ],
        },
      ],
    },
  },
  {
    files: ['e2e/**/*.ts'],
    rules: {
      // Playwright's `use` is no hook.
      'react-hooks/rules-of-hooks': 'off',
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            never(
              ['@even-kettle/*', '**/core/**', '**/server/**', '**/app/**'],
              'e2e touches only the running thing.',
            ),
          ],
        },
      ],
    },
  },
  {
    files: ['**/*.cjs'],
    languageOptions: {
      sourceType: 'commonjs',
      globals: {
        __dirname: 'readonly',
        require: 'readonly',
        module: 'writable',
        test: 'readonly',
        expect: 'readonly',
        afterAll: 'readonly',
      },
    },
  },
];
