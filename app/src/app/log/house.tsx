import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace(
  'what is in the house',
  async () => (await import('../../places/log/log-pages')).HousePage,
);
