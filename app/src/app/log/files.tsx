import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace('the files', async () => (await import('../../places/log/log-pages')).FilesPage);
