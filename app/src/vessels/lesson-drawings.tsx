/**
 * Our own line drawings for learners: folding, seating, hooking, the layers at the spout, a level bed, and what a bed looks
 * like when it is done. Drawn for a right hand; the other hand's are mirrored where the hand matters.
 */
import { View } from 'react-native';
import Svg, { G, Path } from 'react-native-svg';
import type { Hand } from '@even-kettle/core/pour';
import { METHODS, roleOf, type BrewCard, type CardStep, type MethodId } from '@even-kettle/core/recipe';
import { useTheme } from '../ui/use-theme';

/** A drawing: ink lines, paler lines, filled grounds, and an arrow that shows what moves. In a box of 100 by 80. */
type Drawing = {
  says: string;
  lines: string;
  pale?: string;
  grounds?: string;
  moves?: string;
  handed?: boolean;
};

const FOLD: Drawing = {
  says: 'A cone paper; its seam is folded over on the side away from the pouring hand',
  lines: 'M26 12Q50 4 78 12L53 72H47ZM26 12L47 72',
  pale: 'M26 12L14 20L43 74L47 72M82 34Q92 30 94 44M82 34L70 22L74 18Z',
  moves: 'M12 38Q20 28 32 36M32 36L24 37M32 36L28 29',
  handed: true,
};
const SEAT_FLAT: Drawing = {
  says: 'A fluted paper in a flat-bottom dripper: level, its flutes standing off the wall',
  lines: 'M12 14L26 66H74L88 14M22 66V72H78V66',
  pale: 'M20 16L24 60M28 16L31 60M36 16L37 60M44 16V60M56 16V60M64 16L63 60M72 16L69 60M80 16L76 60M30 61H70',
  moves: 'M50 2V12M50 12L46 7M50 12L54 7',
};
const THREE_LAYERS: Drawing = {
  says: 'From above: the three layers of the paper lie over the spout, the single layer opposite',
  lines: 'M50 12A30 30 0 1 0 50 72A30 30 0 1 0 50 12M76 30L94 36V48L76 54',
  pale: 'M50 42L74 28M50 42L77 34M50 42L79 40M50 42L24 30',
  moves: 'M86 16L80 27M80 27L81 20M80 27L86 24',
};
const HANG_CLOTH: Drawing = {
  says: 'A cloth hung by its ring, wet all through',
  lines: 'M18 12H82M28 12A22 6 0 0 0 72 12M28 14L44 64Q50 74 56 64L72 14M82 12V76',
  pale: 'M34 20L47 60M42 20L49 62M58 20L51 62M66 20L53 60',
  moves: 'M50 0V8M50 8L46 4M50 8L54 4',
};
const HOOK: Drawing = {
  says: 'The filter’s chain hangs through the tube, and its hook catches the lower rim',
  lines: 'M24 6V30Q24 42 44 42V68H56V42Q76 42 76 30V6M34 38H66',
  pale: 'M50 38V66M50 66Q50 74 57 70M48 46H52M48 52H52M48 58H52',
  moves: 'M66 60V74M66 74L62 69M66 74L70 69',
};
const WARM_GLASS: Drawing = {
  says: 'Hot water stands in the glass with the plunger in it',
  lines: 'M28 14V72H72V14M72 26Q88 28 86 44Q84 54 72 54M50 2V34M34 36H66',
  pale: 'M28 26H72M34 40H66M40 8Q44 4 40 0M60 8Q64 4 60 0',
};
const LEVEL: Drawing = {
  says: 'A light tap at the side lays the bed level',
  lines: 'M16 10L46 72H54L84 10',
  grounds: 'M28 34H72L54 70H46Z',
  moves: 'M4 40H16M16 40L11 36M16 40L11 44M96 40H84M84 40L89 36M84 40L89 44',
};
const WELL: Drawing = {
  says: 'A small well in the middle of the bed takes the first water to its depth',
  lines: 'M16 10L46 72H54L84 10',
  grounds: 'M26 30Q40 30 50 50Q60 30 74 30L54 70H46Z',
  moves: 'M50 14V40M50 40L46 35M50 40L54 35',
};

/** What a bed looks like when it is done, and what that means. */
type Bed = { name: string; means: string; drawing: Drawing };
const BEDS: readonly Bed[] = [
  {
    name: 'flat',
    means: 'Even: leave all as it is.',
    drawing: { says: 'A flat bed', lines: 'M16 14L44 70H56L84 14', grounds: 'M30 42H70L56 69H44Z' },
  },
  {
    name: 'dome',
    means: 'Right for a stirred brew.',
    drawing: { says: 'A domed bed', lines: 'M16 14L44 70H56L84 14', grounds: 'M32 46Q50 26 68 46L56 69H44Z' },
  },
  {
    name: 'crater',
    means: 'Poured in one place: circle, and swirl.',
    drawing: {
      says: 'A bed with a crater',
      lines: 'M16 14L44 70H56L84 14',
      grounds: 'M26 34Q38 36 50 58Q62 36 74 34L56 69H44Z',
    },
  },
  {
    name: 'wall',
    means: 'Grounds stranded: swirl at the end.',
    drawing: {
      says: 'Grounds high on the wall',
      lines: 'M16 14L44 70H56L84 14',
      grounds: 'M19 18L28 20L40 54H60L72 20L81 18L56 69H44Z',
    },
  },
];

/** What a siphon's top looks like when it has drawn down: nobody poured there. */
const DRAWN_DOWN: readonly Bed[] = BEDS.filter(({ name }) => name === 'dome' || name === 'flat').map((bed) =>
  bed.name === 'dome'
    ? { ...bed, means: 'Right: it drew down as one.' }
    : { ...bed, means: 'Even: leave all as it is.' },
);

/** What beds look like where one is seen after a step; nothing for other steps. */
export function bedsAfter(step: CardStep, method: MethodId): readonly Bed[] {
  if (roleOf(method, step) === 'draw-down') return DRAWN_DOWN;
  return step.kind === 'decant' && METHODS[method].drawdownExponent !== null ? BEDS : [];
}

const FILTERS: Partial<Record<MethodId, Drawing>> = {
  cone: FOLD,
  flat: SEAT_FLAT,
  hourglass: THREE_LAYERS,
  sock: HANG_CLOTH,
  siphon: HOOK,
  press: WARM_GLASS,
};

/** The drawing for a step of a method; null where words are enough. */
export function lessonDrawing({ kind }: CardStep, { method, bed, filter }: BrewCard): Drawing | null {
  // Only paper has layers.
  if (kind === 'set-filter')
    return method === 'hourglass' && !filter.includes('paper') ? null : (FILTERS[method] ?? null);
  if (kind !== 'load' || bed === 'none' || METHODS[method].drawdownExponent === null) return null;
  return bed === 'level' ? LEVEL : WELL;
}

export function LessonDrawing({ drawing, hand, size = 96 }: { drawing: Drawing; hand: Hand; size?: number }) {
  const theme = useTheme();
  const mirrored = drawing.handed === true && hand === 'left';
  const line = { fill: 'none', strokeLinecap: 'round', strokeLinejoin: 'round' } as const;
  return (
    <View role="img" aria-label={drawing.says}>
      <Svg width={size} height={(size * 80) / 100} viewBox="0 0 100 80">
        <G transform={mirrored ? 'translate(100 0) scale(-1 1)' : ''}>
          {drawing.grounds ? <Path d={drawing.grounds} fill={theme.cool} opacity={0.55} /> : null}
          {drawing.pale ? <Path d={drawing.pale} stroke={theme.ink2} strokeWidth={1.4} {...line} /> : null}
          <Path d={drawing.lines} stroke={theme.ink} strokeWidth={2.4} {...line} />
          {drawing.moves ? <Path d={drawing.moves} stroke={theme.cool} strokeWidth={3} {...line} /> : null}
        </G>
      </Svg>
    </View>
  );
}
