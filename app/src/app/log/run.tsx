import { later } from '../../ui/later';

export default later('the run', async () => (await import('../../places/log/log-pages')).RunPage);
