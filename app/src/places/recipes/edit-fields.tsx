/**
 * Faults of a draft, at their fields.
 */
import type { Fault } from '@even-kettle/core/recipe';
import { Text } from '../../ui/text';

/** The faults of a field and of what is in it. */
export type FaultsAt = (field: string) => Fault[];

export function FaultLines({ faults }: { faults: readonly Fault[] }) {
  return faults.map(({ field, reason }) => (
    <Text key={`${field} ${reason}`} bold size="small" role="alert">
      {lastPart(field)}: {reason}
    </Text>
  ));
}

const lastPart = (field: string): string => field.split('.').findLast((part) => !/^\d+$/.test(part)) ?? field;
