import { METHOD_IDS } from '@even-kettle/core/recipe';
import { DRAWINGS } from './drawings';

test('every method has a drawing, and its level line is never wider than its sheet', () => {
  for (const method of METHOD_IDS) {
    const { topY, bottomY, midX, halfWidthAt, inside, lines } = DRAWINGS[method];
    expect(bottomY).toBeGreaterThan(topY);
    expect([inside, lines].every((path) => /^M[\d\s.A-Za-z-]+$/.test(path))).toBe(true);
    for (let y = topY; y <= bottomY; y += 1) {
      expect(halfWidthAt(y)).toBeGreaterThanOrEqual(0);
      expect(midX + halfWidthAt(y)).toBeLessThanOrEqual(64);
      expect(midX - halfWidthAt(y)).toBeGreaterThanOrEqual(0);
    }
  }
});
