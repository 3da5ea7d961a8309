import { later } from '../../ui/later';

export default later(
  'what is in the house',
  async () => (await import('../../places/log/log-pages')).HousePage,
);
