/** What this device may do on the bar, by the table of roles; everything where nobody is paired, or nothing is known yet. */
import type { RouteId } from '@even-kettle/core/contract/addresses';
import { mayUse } from '@even-kettle/core/contract/roles';
import { useBar } from './bar-context';

export function useMay(): (route: RouteId) => boolean {
  const { me } = useBar();
  const role = me?.device?.role ?? 'lead';
  return (route) => mayUse(role, route);
}
