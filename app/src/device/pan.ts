/**
 * From which side a station is heard: the first of the bench from the left, the last from the right.
 */
/** How far to a side, -1 to 1: an ear's breadth short of it, so that one loudspeaker still carries all. */
const WIDEST = 0.8;

/** @param stations in their order on the bench */
export function panOf(stationId: string, stations: readonly { id: string }[]): number {
  const at = stations.findIndex(({ id }) => id === stationId);
  if (at < 0 || stations.length < 2) return 0;
  return WIDEST * ((2 * at) / (stations.length - 1) - 1);
}
