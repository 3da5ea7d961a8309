import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace(
  'the sample round',
  async () => (await import('../../places/log/log-pages')).RoundPage,
);
