export { drainTauS, slurryG } from './level';
export type { PouredSpan } from './level';
