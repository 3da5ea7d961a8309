import { later } from '../../ui/later';

export default later('the sample round', async () => (await import('../../places/log/log-pages')).RoundPage);
