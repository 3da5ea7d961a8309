import { loadSchemas } from '../client/load-schemas';
import { lazyPlace } from '../ui/lazy-place';

export default lazyPlace('the first day', async () => {
  await loadSchemas();
  return (await import('../places/first-day/first-day')).FirstDay;
});
