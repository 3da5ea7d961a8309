import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace('the log', async () => (await import('../../places/log/log-pages')).LogPlace);
