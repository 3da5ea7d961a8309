const { join } = require('node:path');

const swc = (parser = {}, transform = {}) => [
  '@swc/jest',
  {
    jsc: { target: 'es2022', parser: { syntax: 'typescript', ...parser }, transform },
    module: { type: 'commonjs' },
  },
];
/** One context for all: in a context of its own every global is looked up through a proxy, and a planner takes a third longer. */
const oneContext = {
  testEnvironment: 'jest-environment-node-single-context',
  setupFiles: [join(__dirname, 'scripts/own-globals.cjs')],
};
/** Simulations of minutes are for `npm run test:long`. */
const testPathIgnorePatterns = process.env.LONG ? [] : ['\\.long\\.test\\.'];
const esmPackages = 'node_modules/(?!(uuid)/)';

module.exports = {
  // Two cores with something else to do are no reason to fail, nor are many runs of a random test.
  testTimeout: 90_000 * Math.max(1, Number(process.env.FUZZ ?? 1)),
  projects: [
    {
      displayName: 'house',
      rootDir: '.',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/scripts/*.test.cjs'],
      transform: {},
    },
    {
      displayName: 'core',
      rootDir: 'core',
      ...oneContext,
      testMatch: ['<rootDir>/src/**/*.test.ts'],
      testPathIgnorePatterns,
      transform: { '\\.ts$': swc() },
    },
    {
      displayName: 'server',
      rootDir: 'server',
      ...oneContext,
      testMatch: ['<rootDir>/src/**/*.test.ts'],
      transform: {
        '\\.[jt]s$': swc({ decorators: true }, { legacyDecorator: true, useDefineForClassFields: false }),
      },
      transformIgnorePatterns: [esmPackages],
    },
    {
      displayName: 'app',
      rootDir: 'app',
      preset: 'jest-expo',
      // Ours are read by swc, in a third of the time; what the preset brings stays with Babel.
      transform: {
        '/(app|core|server)/src/.*\\.tsx?$': swc({ tsx: true }, { react: { runtime: 'automatic' } }),
      },
      setupFiles: [join(__dirname, 'app/src/testing/setup.ts')],
      setupFilesAfterEnv: [join(__dirname, 'app/src/testing/after-env.ts')],
      testMatch: ['<rootDir>/src/**/*.test.{ts,tsx}'],
      // Their main files are modules that the preset does not transform; beside them lie plain scripts.
      moduleNameMapper: {
        '^(d3-[a-z-]+|internmap)$': '<rootDir>/../node_modules/$1/dist/$1.js',
        '^lucide-react-native/icons/(.*)$':
          '<rootDir>/../node_modules/lucide-react-native/dist/cjs/icons/$1.js',
        // Tests load no scripts of their own while they run.
        '/load-schemas$': join(__dirname, 'app/src/testing/schemas-at-once.ts'),
        '/load-parts$': join(__dirname, 'app/src/testing/parts-at-once.ts'),
      },
      transformIgnorePatterns: [
        'node_modules/(?!((jest-)?react-native|@react-native(-community)?|expo(nent)?|@expo(nent)?/.*|@expo-google-fonts/.*|react-navigation|@react-navigation/.*|react-native-svg|uuid|fflate|color[a-z-]*|@tanstack/.*)|@react-native/.*)',
      ],
    },
  ],
};
