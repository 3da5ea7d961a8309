import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace('the brew', async () => (await import('../../places/log/log-pages')).BrewPage);
