/**
 * The five places stay as they were left: what was typed, opened and scrolled to is there when a person comes back. A place
 * that is left is hidden and its effects end, so that it costs nothing while it waits. Pages inside a place begin anew.
 */
import { Activity, memo, useState, type ReactNode } from 'react';
import { Navigator } from 'expo-router';
import { Boundary } from '../ui/boundary';
import { useBar } from '../client/bar-context';
import { BoardPlace, PairPlace } from './alone';
import { WORDS } from './words';

const KEPT = ['index', 'orders/index', 'recipes/index', 'log/index', 'bench'];

export function KeptPlaces() {
  const { state, descriptors, NavigationContent } = Navigator.useContext();
  const route = state.routes[state.index]!;
  const content = descriptors[route.key]!.render();
  const isKept = KEPT.includes(route.name);
  const [visited, setVisited] = useState<string[]>([]);
  if (isKept && !visited.includes(route.name)) setVisited([...visited, route.name]);
  return (
    <NavigationContent>
      <LetIn isPairing={route.name === 'pair'}>
        {visited.map((name) => (
          <Activity key={name} mode={name === route.name ? 'visible' : 'hidden'}>
            <AsLeft shown={name === route.name}>
              <Boundary what={WORDS.thisPlace}>{name === route.name ? content : null}</Boundary>
            </AsLeft>
          </Activity>
        ))}
        {isKept ? null : (
          <Boundary key={route.key} what={WORDS.thisPlace}>
            {content}
          </Boundary>
        )}
      </LetIn>
    </NavigationContent>
  );
}

/** A device that is not let in sees one thing, whatever address it is at. */
function LetIn({ isPairing, children }: { isPairing: boolean; children: ReactNode }) {
  const { shut } = useBar();
  if (shut === null || isPairing) return children;
  return shut === 'other-role' ? <BoardPlace /> : <PairPlace />;
}

/** What is not shown keeps what it rendered last. */
const AsLeft = memo(
  ({ children }: { shown: boolean; children: ReactNode }) => children,
  (_, next) => !next.shown,
);
AsLeft.displayName = WORDS.asleft;
