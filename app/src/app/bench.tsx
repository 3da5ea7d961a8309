import { loadSchemas } from '../client/load-schemas';
import { lazyPlace } from '../ui/lazy-place';

// Its forms are judged by the schemas, so these come with it.
export default lazyPlace('the bench', async () => {
  await loadSchemas();
  return (await import('../places/bench/bench-place')).BenchPlace;
});
