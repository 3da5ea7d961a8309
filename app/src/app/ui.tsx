import { lazyPlace } from '../ui/lazy-place';

export default lazyPlace('the parts', async () => (await import('../places/ui/ui-page')).UiPage);
