/**
 * Which theme the page has: as the device asks, or as chosen on the Bench. Remembered on the device.
 */
import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react';
import { useColorScheme, useWindowDimensions } from 'react-native';
import { PaperProvider, ThemeProvider as PaperThemeProvider } from 'react-native-paper';
import { Icon } from './icons';
import { ACROSS, DAY, EVENING, SUN, paperTheme, type Theme } from './theme';

export const THEME_CHOICES = ['auto', 'day', 'evening', 'sun'] as const;
export type ThemeChoice = (typeof THEME_CHOICES)[number];
type Chosen = { theme: Theme; choice: ThemeChoice; choose: (choice: ThemeChoice) => void };

const ThemeContext = createContext<Chosen>({ theme: DAY, choice: 'auto', choose: () => undefined });
const STORED_AS = 'even-kettle.look';
const THEMES: Record<Exclude<ThemeChoice, 'auto'>, Theme> = { day: DAY, evening: EVENING, sun: SUN };

export function ThemeProvider({ children }: { children: ReactNode }) {
  const system = useColorScheme();
  const [choice, setChoice] = useState<ThemeChoice>(readChoice);
  // Another page of this device may choose it.
  useEffect(() => {
    const follow = ({ key }: StorageEvent) => key === STORED_AS && setChoice(readChoice());
    globalThis.addEventListener?.('storage', follow);
    return () => globalThis.removeEventListener?.('storage', follow);
  }, []);
  const { width, height } = useWindowDimensions();
  const isAcross = width >= ACROSS.width && height >= ACROSS.height;
  const colours = THEMES[choice === 'auto' ? (system === 'dark' ? 'evening' : 'day') : choice];
  const theme = useMemo(() => (isAcross ? { ...colours, isAcross } : colours), [colours, isAcross]);
  const value = useMemo(
    () => ({
      theme,
      choice,
      choose: (next: ThemeChoice) => {
        setChoice(next);
        globalThis.localStorage?.setItem(STORED_AS, next);
      },
    }),
    [theme, choice],
  );
  const paper = useMemo(() => paperTheme(theme), [theme]);
  return (
    <ThemeContext.Provider value={value}>
      <PaperProvider
        theme={paper}
        settings={{
          icon: ({ name, color, size }) => (
            <Icon name={String(name)} color={color ?? theme.ink} size={size} />
          ),
        }}
      >
        {children}
      </PaperProvider>
    </ThemeContext.Provider>
  );
}

/** Another theme for a part of the page: paper is always light. */
export function WithTheme({ theme, children }: { theme: Theme; children: ReactNode }) {
  const chosen = useContext(ThemeContext);
  const paper = useMemo(() => paperTheme(theme), [theme]);
  return (
    <ThemeContext.Provider value={{ ...chosen, theme }}>
      <PaperThemeProvider theme={paper}>{children}</PaperThemeProvider>
    </ThemeContext.Provider>
  );
}

export const useTheme = (): Theme => useContext(ThemeContext).theme;
export const useThemeChoice = () => useContext(ThemeContext);

function readChoice(): ThemeChoice {
  const stored = globalThis.localStorage?.getItem(STORED_AS);
  return THEME_CHOICES.find((choice) => choice === stored) ?? 'auto';
}
