import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace(
  'the pour drill',
  async () => (await import('../../places/practice/practice-pages')).PourPage,
);
