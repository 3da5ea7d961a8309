/**
 * Our own few icons, strokes of one pen on a 24 grid.
 */
import Svg, { Path } from 'react-native-svg';

const PATHS: Record<string, string> = {
  // A kettle's shoulder over a cup: brewing now.
  bar: 'M4 20h16M7 20v-6h10v6M9 14c0-4 1-7 3-7s3 3 3 7M15 9l4-3',
  // Two slips on a spike.
  orders: 'M6 4h9l3 3v13H6zM9 10h6M9 14h6',
  // A scoop and its measure.
  recipes: 'M4 6h16M6 6l2 7h8l2-7M12 13v6M8 19h8',
  // A run of readings.
  log: 'M4 20V4M4 20h16M7 15l4-4 3 3 5-7',
  // A bench with a drawer.
  bench: 'M3 9h18M5 9v11M19 9v11M5 14h14M11 16.5h2',
  plus: 'M12 5v14M5 12h14',
  minus: 'M5 12h14',
  close: 'M6 6l12 12M18 6L6 18',
  undo: 'M9 7L4 12l5 5M4 12h10a5 5 0 0 1 0 10h-2',
  check: 'M5 12.5l5 5L19 7',
  away: 'M4 4l16 16M5 12a10 10 0 0 1 4-3M12 6a12 12 0 0 1 8 4M9 15a5 5 0 0 1 4-1M12 19h.01',
  more: 'M4.6 12h.8M11.6 12h.8M18.6 12h.8M4.6 11.4h.8v1.2h-.8zM11.6 11.4h.8v1.2h-.8zM18.6 11.4h.8v1.2h-.8z',
  back: 'M15 5l-7 7 7 7',
  chevron: 'M9 5l7 7-7 7',
};

export function Icon({ name, color, size = 24 }: { name: string; color: string; size?: number | undefined }) {
  return (
    <Svg width={size} height={size} viewBox="0 0 24 24" aria-hidden>
      <Path
        d={PATHS[name] ?? ''}
        stroke={color}
        strokeWidth={1.8}
        fill="none"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </Svg>
  );
}
