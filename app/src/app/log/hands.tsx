import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace('the hands', async () => (await import('../../places/log/log-pages')).HandsPage);
