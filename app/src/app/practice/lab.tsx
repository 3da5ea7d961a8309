import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace(
  'the rush lab',
  async () => (await import('../../places/practice/practice-pages')).LabPage,
);
