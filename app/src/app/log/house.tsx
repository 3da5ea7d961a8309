import { later } from '../../ui/later';

export default later(
  'coffees and cloths',
  async () => (await import('../../places/log/log-pages')).HousePage,
);
