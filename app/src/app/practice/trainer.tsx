import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace(
  'the trainer’s view',
  async () => (await import('../../places/practice/practice-pages')).TrainerPage,
);
