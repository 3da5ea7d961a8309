/**
 * How the browser's own fields (a list, a day) are dressed to stand beside ours.
 */
import type { CSSProperties } from 'react';
import { FACE, RADIUS, TOUCH, type Theme } from './theme';

export const nativeField = (theme: Theme): CSSProperties => ({
  height: TOUCH + 4,
  boxSizing: 'border-box',
  width: '100%',
  minWidth: 0,
  padding: '0 8px',
  borderRadius: RADIUS,
  border: `1px solid ${theme.rim}`,
  background: theme.surface,
  color: theme.ink,
  colorScheme: theme.dark ? 'dark' : 'light',
  fontFamily: FACE.regular,
  fontSize: 15,
});
