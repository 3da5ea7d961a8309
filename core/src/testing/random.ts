/** The shift's seeded numbers, for tests of folders that stand before it. */
export { seededRandom } from '../plan/solver/random';
