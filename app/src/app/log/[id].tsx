import { later } from '../../ui/later';

export default later('the brew', async () => (await import('../../places/log/log-pages')).BrewPage);
