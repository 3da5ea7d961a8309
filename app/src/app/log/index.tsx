import { later } from '../../ui/later';

export default later('the log', async () => (await import('../../places/log/log-pages')).LogPlace);
