import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace(
  'stock and care',
  async () => (await import('../../places/log/log-pages')).HousePage,
);
