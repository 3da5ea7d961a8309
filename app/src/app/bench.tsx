import { lazyPlace } from '../ui/lazy-place';

export default lazyPlace('the bench', async () => (await import('../places/bench/bench-place')).BenchPlace);
