/**
 * A canvas that is drawn by whoever holds it, as sharp as the screen.
 */
import { useLayoutEffect, useRef, type RefObject } from 'react';

export type Painter = (draw: (context: CanvasRenderingContext2D) => void) => void;

export function Canvas({
  width,
  height,
  label,
  paint,
  testID,
}: {
  width: number;
  height: number;
  /** What the drawing shows, in words. */
  label: string;
  /** Is given a way to draw, while the canvas is there. */
  paint: RefObject<Painter | null>;
  testID?: string;
}) {
  const element = useRef<HTMLCanvasElement>(null);
  useLayoutEffect(() => {
    const canvas = element.current;
    const context = canvas?.getContext('2d');
    if (!canvas || !context) return undefined;
    const sharp = globalThis.devicePixelRatio || 1;
    canvas.width = Math.round(width * sharp);
    canvas.height = Math.round(height * sharp);
    paint.current = (draw) => {
      context.setTransform(sharp, 0, 0, sharp, 0, 0);
      draw(context);
    };
    return () => {
      paint.current = null;
    };
  }, [width, height, paint]);
  return (
    <canvas
      ref={element}
      role="img"
      aria-label={label}
      data-testid={testID}
      style={{ width, height, display: 'block' }}
    />
  );
}
