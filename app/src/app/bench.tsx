import { later } from '../ui/later';

export default later('the bench', async () => (await import('../places/bench/bench-place')).BenchPlace);
