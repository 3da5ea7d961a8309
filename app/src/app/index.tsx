import { loadSchemas } from '../client/load-schemas';
import { WORDS } from '../parts/hands/words';
import { BarPlace } from '../places/bar/bar-place';
import { lazyPlace } from '../ui/lazy-place';

const FirstDay = lazyPlace(WORDS.theFirstDay, async () => {
  await loadSchemas();
  return (await import('../places/first-day/first-day')).FirstDay;
});

export default function Bar() {
  return <BarPlace firstDay={<FirstDay />} />;
}
