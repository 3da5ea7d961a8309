/**
 * Enamel, ink and one flame: the colours of day, of evening and of strong sun, and how Paper is to wear them.
 */
import { MD3DarkTheme, MD3LightTheme, configureFonts, type MD3Theme } from 'react-native-paper';

export type Theme = {
  dark: boolean;
  bg: string;
  surface: string;
  rim: string;
  ink: string;
  ink2: string;
  cool: string;
  coolPale: string;
  flame: string;
  onFlame: string;
  soon: string;
  /** How thick the rims of cards are, pixels. */
  rimWidth: number;
  /** Read across a counter, from a large screen: type is larger. */
  isAcross?: boolean;
};

export const DAY: Theme = {
  dark: false,
  bg: '#EEF2F1',
  surface: '#FBFCFB',
  rim: '#B9C5C6',
  ink: '#12212B',
  ink2: '#4A5C66',
  cool: '#2F6478',
  coolPale: '#D5E4E8',
  flame: '#C2410C',
  onFlame: '#FFFFFF',
  soon: '#F9DCCB',
  rimWidth: 1,
};

export const EVENING: Theme = {
  dark: true,
  bg: '#0D171C',
  surface: '#142229',
  rim: '#2E424B',
  ink: '#EDF3F3',
  ink2: '#A2B4BB',
  cool: '#86BACD',
  coolPale: '#1E3A45',
  flame: '#FF8A4C',
  onFlame: '#1A0E06',
  soon: '#4A2A1A',
  rimWidth: 1,
};

/** Black on white with thick rims, for a screen that the sun shines on. */
export const SUN: Theme = {
  dark: false,
  bg: '#FFFFFF',
  surface: '#FFFFFF',
  rim: '#000000',
  ink: '#000000',
  ink2: '#1C262B',
  cool: '#003B52',
  coolPale: '#D3E3E9',
  flame: '#A62F00',
  onFlame: '#FFFFFF',
  soon: '#FFD8C2',
  rimWidth: 2,
};

/** What is printed on: white, whatever the screen's theme. */
export const PAPER: Theme = { ...DAY, bg: '#FFFFFF', surface: '#FFFFFF' };

export const RADIUS = 6;
/** Least height of what a wet thumb touches, and of the one main button. */
export const TOUCH = 48;
export const MAIN_TOUCH = 76;
/** Of a field to type in, and of one that opens a list. */
export const FIELD_HEIGHT = 56;
/** From this width on the navigation stands at the side, and Bar has Orders beside it. */
export const WIDE = 900;
/** From this size on a screen is read across a counter. */
export const ACROSS = { width: 1600, height: 900 };

export const FACE = { regular: 'B612', bold: 'B612-Bold' } as const;

const fonts = configureFonts({ config: { fontFamily: FACE.regular } });

/** Paper's theme in our colours. `primary` is ink and cool, never the flame: Paper must not use that by itself. */
export function paperTheme(theme: Theme): MD3Theme {
  const base = theme.dark ? MD3DarkTheme : MD3LightTheme;
  return {
    ...base,
    roundness: RADIUS / 4,
    fonts,
    animation: { scale: 0.8 },
    colors: {
      ...base.colors,
      primary: theme.cool,
      onPrimary: theme.surface,
      primaryContainer: theme.coolPale,
      onPrimaryContainer: theme.ink,
      secondary: theme.cool,
      onSecondary: theme.surface,
      secondaryContainer: theme.coolPale,
      onSecondaryContainer: theme.ink,
      background: theme.bg,
      onBackground: theme.ink,
      surface: theme.surface,
      onSurface: theme.ink,
      surfaceVariant: theme.surface,
      onSurfaceVariant: theme.ink2,
      outline: theme.rim,
      outlineVariant: theme.rim,
      error: theme.ink,
      onError: theme.surface,
      errorContainer: theme.coolPale,
      onErrorContainer: theme.ink,
      tertiary: theme.cool,
      onTertiary: theme.surface,
      surfaceDisabled: theme.coolPale,
      onSurfaceDisabled: theme.ink2,
      backdrop: theme.dark ? 'rgba(0, 0, 0, 0.6)' : 'rgba(18, 33, 43, 0.45)',
      shadow: 'transparent',
      scrim: theme.ink,
      inverseSurface: theme.ink,
      inverseOnSurface: theme.surface,
      inversePrimary: theme.coolPale,
      elevation: {
        level0: 'transparent',
        level1: theme.surface,
        level2: theme.surface,
        level3: theme.surface,
        level4: theme.surface,
        level5: theme.surface,
      },
    },
  };
}
