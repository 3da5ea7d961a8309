import expo from 'eslint-config-expo/flat.js';

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
  'practice',
  'formats',
  'contract',
  'demo',
];

/** Rooms of the app: each may import only from those before it. */
const APP_ORDER = ['ui', 'client', 'words', 'device', 'vessels', 'parts', 'places'];
/** No place imports another: what several show is in `parts`. */
const PLACES = ['bar', 'bench', 'first-day', 'log', 'orders', 'practice', 'recipes', 'today'];

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
const NOT_FOR_APP = [
  never(
    ['@even-kettle/server', '@even-kettle/server/*', '**/server/**'],
    'app never imports server; it talks to it over HTTP.',
  ),
  never(['node:*'], 'app runs in a browser.'),
];

/** The imports that are refused, each with its reason. */
const importsNever = (...patterns) => ({ 'no-restricted-imports': ['error', { patterns }] });
/** A room takes nothing from those that come after it; `ways` are how an import would reach one. */
const laterRooms = (order, place, ways) =>
  order.slice(place + 1).map((later) =>
    never(
      ways.map((way) => way.replace('ROOM', later)),
      `${order[place]} may import only from: ${order.slice(0, place).join(', ') || 'nothing'}.`,
    ),
  );

export default [
  {
    ignores: [
      '**/node_modules/',
      '**/dist/',
      '**/.expo/',
      'coverage/',
      '**/test-results/',
      'reports/',
      'release/',
      'app/expo-env.d.ts',
    ],
  },
  // The rules about React, of which some work out what a compiler would, are for what has React in it.
  ...expo.map((config) => (config.plugins?.react ? { ...config, files: ['app/**/*.{ts,tsx}'] } : config)),
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
      // The compiler finds what is not there, and quicker.
      'import/namespace': 'off',
    },
  },
  {
    files: ['{core,app}/src/**/*.{ts,tsx}', 'server/src/**/*.ts'],
    ignores: ['**/*.test.{ts,tsx}', '**/testing/**'],
    rules: { 'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }] },
  },
  {
    // A screen's markup is a list more than a course of thought.
    files: ['app/src/**/*.tsx'],
    ignores: ['**/*.test.tsx', '**/testing/**'],
    rules: { 'max-lines-per-function': ['error', { max: 125, skipBlankLines: true, skipComments: true }] },
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
    rules: importsNever(
      ...NOT_FOR_CORE,
      ...laterRooms(CORE_ORDER, place, ['../ROOM', '../ROOM/*', '../../ROOM', '../../ROOM/*']),
    ),
  })),
  {
    files: ['core/src/plan/solver/**/*.ts'],
    rules: importsNever(
      ...NOT_FOR_CORE,
      never(['../*'], 'The solver knows no bar: a problem in, a plan out.'),
    ),
  },
  {
    files: ['core/src/**/*.test.ts', 'core/src/testing/**'],
    rules: { 'no-restricted-globals': 'off', ...importsNever(...NOT_FOR_CORE) },
  },
  {
    files: ['app/**/*.{ts,tsx}'],
    rules: importsNever(...NOT_FOR_APP),
  },
  ...APP_ORDER.map((room, place) => ({
    files: [`app/src/${room}/**/*.{ts,tsx}`],
    ignores: ['**/*.test.{ts,tsx}'],
    rules: importsNever(
      ...NOT_FOR_APP,
      ...laterRooms(APP_ORDER, place, ['../ROOM', '../ROOM/*', '../../ROOM/*']),
    ),
  })),
  ...PLACES.map((place) => ({
    files: [`app/src/places/${place}/**/*.{ts,tsx}`],
    ignores: ['**/*.test.{ts,tsx}'],
    rules: importsNever(
      ...NOT_FOR_APP,
      never(
        PLACES.filter((other) => other !== place).map((other) => `../${other}/*`),
        'A place imports no other: what both show is moved to app/src/parts.',
      ),
    ),
  })),
  {
    // What is touched, typed in or laid over a page is made of the parts of `ui`, in the theme's colours.
    files: ['app/src/**/*.{ts,tsx}'],
    ignores: ['app/src/ui/**', 'app/src/places/ui/**', '**/*.test.{ts,tsx}', '**/testing/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        ...[
          [
            "ImportDeclaration[source.value='react-native'] > ImportSpecifier[imported.name=/^(Pressable|Touchable.*|Modal|Button|Switch|TextInput)$/]",
            'Take the part from app/src/ui; it is made of Paper and wears our theme.',
          ],
          ['Literal[value=/^#[0-9a-fA-F]{3,8}$/]', 'Colours are the theme’s (app/src/ui/theme.ts).'],
          [
            'JSXText[value=/[A-Za-z]{2}/]',
            'Sentences on screen are in the place’s words.ts, so that another language is another file.',
          ],
          [
            'JSXAttribute[name.name=/^(label|says|title|intro|addLabel|what)$/] > Literal[value=/^[A-Z]/]',
            'Sentences on screen are in the place’s words.ts, so that another language is another file.',
          ],
        ].map(([selector, message]) => ({ selector, message })),
      ],
    },
  },
  {
    // Tests run in Node, and may read what lies beside them.
    files: ['app/src/**/*.test.{ts,tsx}'],
    rules: { 'no-restricted-imports': ['error', { patterns: NOT_FOR_APP.slice(0, 1) }] },
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
        beforeAll: 'readonly',
      },
    },
  },
];
