import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace(
  'the rush drill',
  async () => (await import('../../places/practice/practice-pages')).RushPage,
);
