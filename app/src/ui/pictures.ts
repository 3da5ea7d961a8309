/**
 * Reads the text of a QR code out of a picture, in the browser.
 */
import jsQR from 'jsqr';

const SIDE_MAX = 1600;

/** The text in a picture's QR code, or null where none is found. */
export async function readQrPicture(file: Blob): Promise<string | null> {
  const bitmap = await createImageBitmap(file);
  const scale = Math.min(1, SIDE_MAX / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
  const canvas = document.createElement('canvas');
  Object.assign(canvas, { width, height });
  const pen = canvas.getContext('2d', { willReadFrequently: true });
  if (!pen) return null;
  pen.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return jsQR(pen.getImageData(0, 0, width, height).data, width, height)?.data ?? null;
}
