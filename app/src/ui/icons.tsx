/**
 * The icons: of one standard set, each taken by itself, under the names that this house uses. Vessels are our own drawings.
 */
import type { LucideIcon } from 'lucide-react-native';
import Allergy from 'lucide-react-native/icons/triangle-alert';
import Away from 'lucide-react-native/icons/wifi-off';
import Back from 'lucide-react-native/icons/chevron-left';
import Bar from 'lucide-react-native/icons/coffee';
import Bench from 'lucide-react-native/icons/sliders-horizontal';
import Calendar from 'lucide-react-native/icons/calendar-days';
import Check from 'lucide-react-native/icons/check';
import Chevron from 'lucide-react-native/icons/chevron-right';
import ChevronDown from 'lucide-react-native/icons/chevron-down';
import Close from 'lucide-react-native/icons/x';
import Log from 'lucide-react-native/icons/chart-line';
import Minus from 'lucide-react-native/icons/minus';
import More from 'lucide-react-native/icons/ellipsis';
import Orders from 'lucide-react-native/icons/clipboard-list';
import Plus from 'lucide-react-native/icons/plus';
import Recipes from 'lucide-react-native/icons/book-open';
import Pencil from 'lucide-react-native/icons/pencil';
import Search from 'lucide-react-native/icons/search';
import Up from 'lucide-react-native/icons/chevron-up';
import Undo from 'lucide-react-native/icons/undo-2';

const ICONS: Record<string, LucideIcon> = {
  allergy: Allergy,
  away: Away,
  back: Back,
  bar: Bar,
  bench: Bench,
  calendar: Calendar,
  check: Check,
  chevron: Chevron,
  'chevron-down': ChevronDown,
  close: Close,
  log: Log,
  minus: Minus,
  more: More,
  orders: Orders,
  plus: Plus,
  recipes: Recipes,
  pencil: Pencil,
  search: Search,
  undo: Undo,
  // The names that Paper and its calendar have for some of these.
  'chevron-left': Back,
  'chevron-right': Chevron,
  'chevron-up': Up,
  'menu-down': ChevronDown,
  'menu-up': Up,
};

export function Icon({ name, color, size = 24 }: { name: string; color: string; size?: number | undefined }) {
  const Drawn = ICONS[name];
  return Drawn ? <Drawn color={color} size={size} strokeWidth={1.8} aria-hidden /> : null;
}
