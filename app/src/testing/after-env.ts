import { configure } from '@testing-library/react-native';

// A machine with something else to do is no reason to fail.
configure({ asyncUtilTimeout: 30_000 });

/** A frame that is still to be drawn when a test file ends is not drawn: nobody is there to see it, and its error would be nobody's. */
const toDraw = new Set<ReturnType<typeof setTimeout>>();

Object.defineProperty(globalThis, 'requestAnimationFrame', {
  configurable: true,
  writable: true,
  value: (draw: (nowMs: number) => void) => {
    const frame = setTimeout(() => {
      toDraw.delete(frame);
      draw(jest.now());
    }, 0);
    toDraw.add(frame);
    return frame;
  },
});
afterAll(() => {
  for (const frame of toDraw) clearTimeout(frame);
});
