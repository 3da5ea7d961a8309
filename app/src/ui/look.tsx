/**
 * Which look the page wears: as the device asks, or as chosen on the Bench. Remembered on the device.
 */
import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import { useColorScheme } from 'react-native';
import { PaperProvider } from 'react-native-paper';
import { Icon } from './icons';
import { DAY, EVENING, paperTheme, type Look } from './theme';

export type LookChoice = 'auto' | 'day' | 'evening';
type Chosen = { look: Look; choice: LookChoice; choose: (choice: LookChoice) => void };

const LookContext = createContext<Chosen>({ look: DAY, choice: 'auto', choose: () => undefined });
const STORED_AS = 'even-kettle.look';

export function LookProvider({ children }: { children: ReactNode }) {
  const system = useColorScheme();
  const [choice, setChoice] = useState<LookChoice>(readChoice);
  const look = (choice === 'auto' ? system === 'dark' : choice === 'evening') ? EVENING : DAY;
  const value = useMemo(
    () => ({
      look,
      choice,
      choose: (next: LookChoice) => {
        setChoice(next);
        globalThis.localStorage?.setItem(STORED_AS, next);
      },
    }),
    [look, choice],
  );
  const theme = useMemo(() => paperTheme(look), [look]);
  return (
    <LookContext.Provider value={value}>
      <PaperProvider
        theme={theme}
        settings={{
          icon: ({ name, color, size }) => <Icon name={String(name)} color={color ?? look.ink} size={size} />,
        }}
      >
        {children}
      </PaperProvider>
    </LookContext.Provider>
  );
}

/** Another look for a part of the page: paper is always light. */
export function LookOf({ look, children }: { look: Look; children: ReactNode }) {
  const chosen = useContext(LookContext);
  return <LookContext.Provider value={{ ...chosen, look }}>{children}</LookContext.Provider>;
}

export const useLook = (): Look => useContext(LookContext).look;
export const useLookChoice = () => useContext(LookContext);

function readChoice(): LookChoice {
  const stored = globalThis.localStorage?.getItem(STORED_AS);
  return stored === 'day' || stored === 'evening' ? stored : 'auto';
}
