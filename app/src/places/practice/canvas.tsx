/**
 * A canvas that is drawn by whoever holds it, as sharp as the screen.
 */
import { useImperativeHandle, useLayoutEffect, useRef, type Ref } from 'react';

export type Painter = (draw: (context: CanvasRenderingContext2D) => void) => void;

type Props = {
  width: number;
  height: number;
  /** What the drawing shows, in words. */
  label: string;
  /** Gets a way to draw. */
  ref: Ref<Painter>;
};

export function Canvas({ width, height, label, ref }: Props) {
  const element = useRef<HTMLCanvasElement>(null);
  useLayoutEffect(() => {
    const canvas = element.current;
    if (!canvas) return;
    canvas.width = Math.round(width * sharpness());
    canvas.height = Math.round(height * sharpness());
  }, [width, height]);
  useImperativeHandle(
    ref,
    (): Painter => (draw) => {
      const context = element.current?.getContext('2d');
      if (!context) return;
      context.setTransform(sharpness(), 0, 0, sharpness(), 0, 0);
      draw(context);
    },
    [],
  );
  return <canvas ref={element} role="img" aria-label={label} style={{ width, height, display: 'block' }} />;
}

const sharpness = (): number => globalThis.devicePixelRatio || 1;
