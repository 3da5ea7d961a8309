/** Three lines to take hold of: what can be dragged, or moved with the arrow keys. */
import type { KeyboardEvent } from 'react';
import type { useSortable } from '@dnd-kit/sortable';
import { View } from 'react-native';
import { useTheme } from './use-theme';
import { TOUCH } from './theme';

type Props = {
  /** What a screen reader says. */
  says: string;
  drag: Pick<ReturnType<typeof useSortable>, 'attributes' | 'listeners'>;
  /** One place up (-1) or down (1). */
  onMove: (by: 1 | -1) => void;
};

export function Grip({ says, drag, onMove }: Props) {
  const theme = useTheme();
  const moveByArrow = (event: KeyboardEvent) => {
    if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
    event.preventDefault();
    onMove(event.key === 'ArrowUp' ? -1 : 1);
  };
  return (
    <div
      {...drag.attributes}
      {...drag.listeners}
      aria-label={says}
      onKeyDown={moveByArrow}
      style={{
        width: TOUCH,
        height: TOUCH,
        display: 'grid',
        placeItems: 'center',
        cursor: 'grab',
        touchAction: 'none',
      }}
    >
      <View style={{ gap: 4 }} aria-hidden>
        {[0, 1, 2].map((line) => (
          <View key={line} style={{ width: 18, height: 2, backgroundColor: theme.ink2 }} />
        ))}
      </View>
    </div>
  );
}
