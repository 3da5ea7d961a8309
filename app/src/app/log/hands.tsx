import { later } from '../../ui/later';

export default later('the hands', async () => (await import('../../places/log/log-pages')).HandsPage);
