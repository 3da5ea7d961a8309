import { later } from '../../ui/later';

export default later('the day', async () => (await import('../../places/log/log-pages')).DayPage);
