/**
 * What surrounds every place: the bar's name and clock above, the five places below, or beside on a wide screen.
 */
import { useState, useSyncExternalStore, type ReactNode } from 'react';
import { View, useWindowDimensions } from 'react-native';
import { Link } from '../ui/link';
import { router, usePathname, type Href } from 'expo-router';
import { useBar, useHere, useMadeUpBar } from '../client/bar-context';
import { useMay } from '../client/may';
import { appUpdate } from '../client/service-worker';
import { useShortcuts } from '../device/shortcuts';
import { listenForInstall } from '../device/install-app';
import { useSignals } from '../device/use-signals';
import { Note } from '../ui/note';
import { Boundary } from '../ui/boundary';
import { Icon } from '../ui/icons';
import { KeysSheet } from './keys-sheet';
import { OlderApp } from './older-app';
import { useTheme } from '../ui/use-theme';
import { Button } from '../ui/button';
import { Text } from '../ui/text';
import { WIDE } from '../ui/theme';
import { Ticking } from '../client/ticking';
import { WORDS } from './words';

// Browsers offer it once, before anything is drawn.
listenForInstall();

const PLACES: { name: string; href: Extract<Href, string>; icon: string }[] = [
  { name: WORDS.bar, href: '/', icon: 'bar' },
  { name: WORDS.orders, href: '/orders', icon: 'orders' },
  { name: WORDS.recipes, href: '/recipes', icon: 'recipes' },
  { name: WORDS.log, href: '/log', icon: 'log' },
  { name: WORDS.bench, href: '/bench', icon: 'bench' },
];

type FrameProps = {
  children: ReactNode;
  /** What the hands must do, on every place but the Bar. */
  strip: ReactNode;
  /** Marks the Bar among the places while something is due there. */
  mark: ReactNode;
  /** Writes the title in the browser's tab. */
  title: ReactNode;
};

/** What fills the window alone: the board, pairing, and whatever a device sees that the bar does not let in. */
const ALONE = ['/board', '/pair'];

export function AppFrame({ children, strip, mark, title }: FrameProps) {
  const [keys, setKeys] = useState(false);
  useShortcuts({
    '?': () => setKeys(true),
    Escape: keys ? () => setKeys(false) : undefined,
    n: () => router.push('/orders/new'),
    b: () => router.navigate('/'),
    o: () => router.navigate('/orders'),
    r: () => router.navigate('/recipes'),
    l: () => router.navigate('/log'),
  });
  return (
    <>
      <Signals />
      {title}
      <Frame strip={strip} mark={mark}>
        {children}
      </Frame>
      {keys ? <KeysSheet onClose={() => setKeys(false)} /> : null}
    </>
  );
}

/** By itself, so that listening four times a second draws nothing. */
function Signals() {
  useSignals();
  return null;
}

function Frame({ children, strip, mark }: Omit<FrameProps, 'title'>) {
  const theme = useTheme();
  const wide = useWindowDimensions().width >= WIDE;
  // What goes on paper stands alone.
  const path = usePathname();
  const { shut } = useBar();
  if (path.endsWith('/print')) return children;
  // The places keep their place in the tree: the navigator does not bear that they are mounted anew by themselves.
  const isAlone = ALONE.includes(path) || shut !== null;
  return (
    <View style={{ flex: 1, flexDirection: wide ? 'row' : 'column', backgroundColor: theme.bg }}>
      {wide && !isAlone ? <PlaceNav wide mark={mark} /> : null}
      <View style={{ flex: 1, minHeight: 0 }}>
        {isAlone ? null : <Notices path={path} strip={strip} />}
        <View role="main" style={{ flex: 1, minHeight: 0 }}>
          {children}
        </View>
      </View>
      {wide || isAlone ? null : <PlaceNav mark={mark} />}
    </View>
  );
}

/** What is said above every place. */
const Notices = ({ path, strip }: { path: string; strip: ReactNode }) => (
  <>
    <TopLine />
    <OlderApp />
    <MadeUpNote />
    <DiskNote />
    <CopyNote />
    <Refusals />
    <UpdateNote />
    {path === '/' ? null : <Boundary what={WORDS.whatHandsMustDo}>{strip}</Boundary>}
  </>
);

function TopLine() {
  const theme = useTheme();
  const { bar, link, waiting, status } = useBar();
  const away = link === 'away' && status !== 'unreachable';
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 10,
        paddingHorizontal: 16,
        paddingTop: 8,
        paddingBottom: 2,
        minHeight: 34,
      }}
    >
      <Text size="small" bold numberOfLines={1}>
        {bar?.name ?? WORDS.evenKettle}
      </Text>
      <View role="status" style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 6 }}>
        {away ? (
          <>
            <Icon name="away" color={theme.ink} size={16} />
            <Text size="small" bold numberOfLines={1} style={{ flexShrink: 1 }}>
              {waiting === 0 ? WORDS.serverAwayTapsKept : WORDS.serverAwayKeptHere(waiting)}
            </Text>
          </>
        ) : null}
      </View>
      {bar ? <WallClock /> : null}
    </View>
  );
}

/** Bar time as a time of day, and how fast it runs where that is not life's own pace. */
function WallClock() {
  const { clock } = useHere();
  const reads = (nowMs: number) =>
    `${clock.rate() === 1 ? '' : `× ${clock.rate()}  `}${TIME_OF_DAY.format(nowMs)}`;
  return <Ticking size="small" quiet testID="wall-clock" everyMs={500} reads={reads} />;
}
/** Made once: to make one takes longer than to draw a clock. */
const TIME_OF_DAY = new Intl.DateTimeFormat(undefined, {
  hour: '2-digit',
  minute: '2-digit',
  second: '2-digit',
});

/** What is looked at is made up: said on every place, and left in one tap. */
function MadeUpNote() {
  const { isOn, leave } = useMadeUpBar();
  if (!isOn) return null;
  return (
    <Note
      action={
        <Button
          label={WORDS.leaveIt}
          says={WORDS.leaveMadeUpBar}
          onPress={() => {
            leave();
            router.navigate('/');
          }}
          testID="leave-made-up"
        />
      }
    >
      {WORDS.barIsMadeUp}
    </Note>
  );
}

/** The server's disk fills up: said before a tap cannot be stored, and while none can be. */
function DiskNote() {
  const { storage } = useBar();
  if (storage.level === 'enough') return null;
  return <Note>{storage.level === 'full' ? WORDS.diskFull : WORDS.diskAlmostFull(storage.freeMb ?? 0)}</Note>;
}

/** The bar has no recent copy: said to those who can see to it. */
function CopyNote() {
  const { storage } = useBar();
  const may = useMay();
  return storage.copyDue && may('getCopies') ? <Note>{WORDS.copyIsOld}</Note> : null;
}

/** A new version of the app, to be taken when nothing is being brewed. */
function UpdateNote() {
  const isReady = useSyncExternalStore(appUpdate.subscribe, appUpdate.isReady, appUpdate.isReady);
  const { state } = useBar();
  const isBrewing = Object.values(state.brews).some(({ status }) => status === 'running');
  if (!isReady || isBrewing) return null;
  return (
    <Note action={<Button label={WORDS.load} says={WORDS.loadTheNewVersion} onPress={appUpdate.take} />}>
      {WORDS.newVersion}
    </Note>
  );
}

function Refusals() {
  const { store } = useHere();
  const { refusals } = useBar();
  return refusals.map(({ id, text }) => (
    <Note
      key={id}
      action={
        <Button
          kind="bare"
          icon="close"
          label=""
          says={WORDS.closeThisNote}
          onPress={() => store.dismiss(id)}
        />
      }
    >
      {text}
    </Note>
  ));
}

/** Practice opens from the Bench, and belongs to it. */
const isWithin = (path: string, href: string): boolean =>
  href === '/' ? path === '/' : path.startsWith(href) || (href === '/bench' && path.startsWith('/practice'));

function PlaceNav({ wide, mark }: { wide?: boolean; mark: ReactNode }) {
  const theme = useTheme();
  const path = usePathname();
  return (
    <View
      role="navigation"
      aria-label={WORDS.places}
      style={
        wide
          ? {
              width: 92,
              paddingTop: 10,
              borderRightWidth: 1,
              borderColor: theme.rim,
              backgroundColor: theme.surface,
            }
          : {
              flexDirection: 'row',
              height: 60,
              borderTopWidth: 1,
              borderColor: theme.rim,
              backgroundColor: theme.surface,
            }
      }
    >
      {PLACES.map(({ name, href, icon }) => {
        const here = isWithin(path, href);
        const color = here ? theme.ink : theme.ink2;
        return (
          <Link
            key={name}
            href={href}
            aria-label={name}
            aria-current={here ? 'page' : undefined}
            style={({ pressed }) => [
              {
                alignItems: 'center',
                justifyContent: 'center',
                gap: 1,
                backgroundColor: pressed ? theme.coolPale : 'transparent',
              },
              wide
                ? {
                    height: 72,
                    borderLeftWidth: 4,
                    borderColor: here ? theme.ink : 'transparent',
                    paddingRight: 4,
                  }
                : { flex: 1, borderTopWidth: 3, borderColor: here ? theme.ink : 'transparent' },
            ]}
          >
            <Icon name={icon} color={color} size={22} />
            {href === '/' && !here ? (
              <Boundary silent what={WORDS.markOfBar}>
                {mark}
              </Boundary>
            ) : null}
            <Text size="small" bold={here} color={color}>
              {name}
            </Text>
          </Link>
        );
      })}
    </View>
  );
}
