/** The shift's seeded numbers, for tests of folders that stand before it. */
export { seededRandom } from '../plan/solver/random';

/** Random tests begin at this seed where `FUZZ_SEED` names no other. */
export const seedOr = (usual: number): number => Number(process.env['FUZZ_SEED'] ?? usual);
/** How many runs a random test has: `FUZZ` times the usual. */
export const runsOf = (usual: number): number => Math.ceil(usual * Number(process.env['FUZZ'] ?? 1));
