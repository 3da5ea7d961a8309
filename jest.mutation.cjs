/** The core's tests of what is mutated, with fewer random cases each: a mutant meets thousands of them. */
process.env.FUZZ_RUNS ??= '30';
const core = require('./jest.config.cjs').projects.find(({ displayName }) => displayName === 'core');
module.exports = {
  ...core,
  testSequencer: require.resolve('./scripts/quick-first.cjs'),
  testMatch: ['<rootDir>/src/{recipe,units,water,formats,pour}/**/*.test.ts'],
};
