/** Orders test files for the mutation run: what is quick first, random cases last, so that most mutants fall early. */
const Base = require('@jest/test-sequencer').default;

module.exports = class QuickFirst extends Base {
  sort(tests) {
    const slow = ({ path }) => Number(path.includes('.fuzz.')) + Number(path.includes('formats'));
    return [...tests].sort((a, b) => slow(a) - slow(b) || a.path.localeCompare(b.path));
  }
};
