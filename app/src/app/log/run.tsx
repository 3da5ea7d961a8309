import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace('the run', async () => (await import('../../places/log/log-pages')).RunPage);
