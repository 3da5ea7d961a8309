/**
 * How the browser's own fields (a list, a day) are dressed to stand beside ours.
 */
import type { CSSProperties } from 'react';
import { FACE, RADIUS, TOUCH, type Look } from './theme';

export const nativeField = (look: Look): CSSProperties => ({
  height: TOUCH + 4,
  boxSizing: 'border-box',
  width: '100%',
  minWidth: 0,
  padding: '0 8px',
  borderRadius: RADIUS,
  border: `1px solid ${look.rim}`,
  background: look.surface,
  color: look.ink,
  colorScheme: look.dark ? 'dark' : 'light',
  fontFamily: FACE.regular,
  fontSize: 15,
});
