/**
 * This page is older than its server, and may not show all that an order asks. It says so on every place, and loads the newer
 * app as soon as nothing is due within ten seconds and nobody types; or at once, by a tap.
 */
import { useEffect, useSyncExternalStore } from 'react';
import { View } from 'react-native';
import { usePathname } from 'expo-router';
import { CONTRACT_VERSION } from '@even-kettle/core/contract/contract-version';
import { agendaNow } from '../client/agenda-now';
import { onTick, useHere } from '../client/bar-context';
import { appUpdate } from '../client/service-worker';
import { Button } from '../ui/button';
import { Icon } from '../ui/icons';
import { Text } from '../ui/text';
import { RADIUS } from '../ui/theme';
import { useTheme } from '../ui/use-theme';
import { WORDS } from './words';

/** Loaded only where nothing is due within this, milliseconds of bar time. */
const QUIET_MS = 10_000;
const LOOK_MS = 1000;
/** The newer app is asked for so often, milliseconds. */
const ASK_MS = 30_000;
/** A page without a service worker is loaded once for each server: where that brought no newer app, it does not try for ever. */
const TRIED = 'even-kettle.loaded-for-contract';

const isTyping = (): boolean =>
  document.activeElement?.matches('input, textarea, [contenteditable="true"]') ?? false;
/** Where something is being made that loading would lose. */
const isMaking = (path: string): boolean => /\/(new|edit|import)$/.test(path);

export function OlderApp() {
  const theme = useTheme();
  const { store } = useHere();
  const contract = useSyncExternalStore(
    store.subscribe,
    () => store.view().contract,
    () => store.view().contract,
  );
  useLoadAtAPause(contract);
  if (contract <= CONTRACT_VERSION) return null;
  return (
    <View
      role="alert"
      testID="older-app"
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 10,
        marginHorizontal: 12,
        marginTop: 4,
        paddingHorizontal: 12,
        paddingVertical: 8,
        borderRadius: RADIUS,
        borderWidth: 4,
        borderColor: theme.ink,
        backgroundColor: theme.surface,
      }}
    >
      <Icon name="allergy" color={theme.ink} size={28} />
      <Text bold style={{ flex: 1 }}>
        {WORDS.thisAppIsOlder}
      </Text>
      <Button label={WORDS.load} says={WORDS.loadTheNewVersion} onPress={appUpdate.take} />
    </View>
  );
}

function useLoadAtAPause(contract: number): void {
  const { store, clock } = useHere();
  const path = usePathname();
  const isOlder = contract > CONTRACT_VERSION;
  useEffect(() => {
    if (!isOlder) return undefined;
    appUpdate.look();
    const looking = setInterval(appUpdate.look, ASK_MS);
    return () => clearInterval(looking);
  }, [isOlder]);
  useEffect(() => {
    if (!isOlder || isMaking(path)) return undefined;
    return onTick(clock, LOOK_MS, 0, (nowMs) => {
      const isWorthIt = appUpdate.isReady() || (appUpdate.isFromNetwork() && !hasTried(contract));
      if (!isWorthIt || isTyping()) return;
      const isDue = agendaNow(store.view(), nowMs).some(
        ({ asks, dueMs }) => asks !== 'runs' && dueMs - nowMs <= QUIET_MS,
      );
      if (isDue) return;
      rememberTried(contract);
      appUpdate.take();
    });
  }, [isOlder, contract, path, store, clock]);
}

/** A browser that keeps nothing counts as one that has tried: it would load the same page at each pause. */
function hasTried(contract: number): boolean {
  try {
    return window.sessionStorage.getItem(TRIED) === String(contract);
  } catch {
    return true;
  }
}

function rememberTried(contract: number): void {
  try {
    window.sessionStorage.setItem(TRIED, String(contract));
  } catch {
    // Nothing is kept here, and hasTried says so.
  }
}
