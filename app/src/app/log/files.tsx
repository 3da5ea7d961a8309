import { later } from '../../ui/later';

export default later('the files', async () => (await import('../../places/log/log-pages')).FilesPage);
