import { lazyPlace } from '../../ui/lazy-place';

export default lazyPlace('the day', async () => (await import('../../places/today/today-page')).TodayPage);
