/**
 * A trace as few bytes: milliseconds and tenths of a gram, each as its difference from the one before, in as many bytes
 * as it needs (seven bits a byte, the lowest first; signed numbers folded, so that small ones of either sign stay small).
 */
import type { WeightPoint } from './trace';

/** @returns about three bytes a point. Grams are rounded to a tenth, which is all that a scale tells. */
export function traceToBytes(points: readonly WeightPoint[]): Uint8Array {
  const bytes: number[] = [];
  let [atMs, tenths] = [0, 0];
  for (const point of points) {
    const next = Math.round(point.massG * 10);
    put(bytes, fold(Math.round(point.atMs) - atMs));
    put(bytes, fold(next - tenths));
    [atMs, tenths] = [Math.round(point.atMs), next];
  }
  return Uint8Array.from(bytes);
}

/** @throws RangeError where the bytes end within a number */
export function bytesToTrace(bytes: Uint8Array): WeightPoint[] {
  const points: WeightPoint[] = [];
  let at = 0;
  let [atMs, tenths] = [0, 0];
  const take = () => {
    let value = 0;
    for (let scale = 1; ; scale *= 128) {
      const byte = bytes[at];
      if (byte === undefined) throw new RangeError('A trace ends in the middle of a number.');
      at += 1;
      value += (byte & 127) * scale;
      if (byte < 128) return unfold(value);
    }
  };
  while (at < bytes.length) {
    atMs += take();
    tenths += take();
    points.push({ atMs, massG: tenths / 10 });
  }
  return points;
}

// Plain arithmetic rather than bit operations: milliseconds since 1970 need more than 32 bits.
function put(bytes: number[], value: number): void {
  let left = value;
  while (left >= 128) {
    bytes.push((left % 128) + 128);
    left = Math.floor(left / 128);
  }
  bytes.push(left);
}
const fold = (value: number): number => (value < 0 ? -2 * value - 1 : 2 * value);
const unfold = (value: number): number => (value % 2 === 1 ? -(value + 1) / 2 : value / 2);
