import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace(
  'the sheet',
  async () => (await import('../../places/practice/practice-pages')).PracticeSheet,
);
