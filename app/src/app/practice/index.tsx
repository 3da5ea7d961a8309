import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace(
  'practice',
  async () => (await import('../../places/practice/practice-pages')).PracticePage,
);
