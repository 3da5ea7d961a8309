/**
 * The brewers as line drawings of one hand: a 2-unit pen on a 64 x 72 sheet. Each says which part of it fills.
 */
import type { MethodId } from '@even-kettle/core/recipe';

export type Drawing = {
  /** The inside that fills, and from which height to which (y grows downwards). */
  inside: string;
  topY: number;
  bottomY: number;
  /** The middle of the inside. */
  midX: number;
  /** Rims, walls, feet and handles. */
  lines: string;
  /** What the vessel narrows to, so that a level line is as wide as the glass there. */
  halfWidthAt: (y: number) => number;
};

export const DRAWINGS: Record<MethodId, Drawing> = {
  cone: {
    inside: 'M12 14 L52 14 L36 42 L28 42 Z',
    topY: 14,
    bottomY: 42,
    midX: 32,
    lines:
      'M9 14 H55 M12 14 L28 42 H36 L52 14 M28 42 V46 H36 V42 M20 46 H44 M24 50 L20 66 H44 L40 50 M52 17 Q60 18 57 25 Q55 29 49 27',
    halfWidthAt: (y) => 20 - ((y - 14) / 28) * 16,
  },
  flat: {
    inside: 'M11 16 H53 L45 42 H19 Z',
    topY: 16,
    bottomY: 42,
    midX: 32,
    lines:
      'M8 16 H56 M11 16 L19 42 H45 L53 16 M20 16 L24 42 M32 16 V42 M44 16 L40 42 M25 42 V46 M32 42 V46 M39 42 V46 M17 46 H47 M22 51 L20 66 H44 L42 51',
    halfWidthAt: (y) => 21 - ((y - 16) / 26) * 8,
  },
  hourglass: {
    inside: 'M13 7 H51 L35 35 H29 Z',
    topY: 7,
    bottomY: 35,
    midX: 32,
    lines:
      'M13 7 H51 M13 7 L29 35 M51 7 L35 35 M29 35 L16 58 Q13 66 20 66 H44 Q51 66 48 58 L35 35 M24 30 H40 M24 40 H40 M24 30 V40 M40 30 V40',
    halfWidthAt: (y) => 19 - ((y - 7) / 28) * 16,
  },
  sock: {
    inside: 'M16 13 H44 Q44 34 30 46 Q16 34 16 13 Z',
    topY: 13,
    bottomY: 46,
    midX: 30,
    lines: 'M14 13 H62 M16 13 Q16 34 30 46 Q44 34 44 13 M30 46 V51 M21 53 L19 66 H41 L39 53 M58 10 V16',
    halfWidthAt: (y) => 14 * (1 - ((y - 13) / 33) ** 2),
  },
  siphon: {
    inside: 'M20 5 H44 V25 Q44 31 37 31 H27 Q20 31 20 25 Z',
    topY: 5,
    bottomY: 31,
    midX: 32,
    lines:
      'M18 5 H46 M20 5 V25 Q20 31 27 31 H37 Q44 31 44 25 V5 M30 31 V50 M34 31 V39 M32 38 m-12 12 a12 11 0 1 0 24 0 a12 11 0 1 0 -24 0 M44 46 H56 M56 14 V70 M48 70 H62 M29 70 Q29 66 32 63 Q35 66 35 70 Z',
    halfWidthAt: () => 12,
  },
  press: {
    inside: 'M16 18 H46 V64 H16 Z',
    topY: 18,
    bottomY: 64,
    midX: 31,
    lines:
      'M16 16 V64 Q16 66 18 66 H44 Q46 66 46 64 V16 M12 16 H50 M16 16 L12 12 M31 16 V5 M27 5 H35 M46 26 H54 Q57 26 57 29 V49 Q57 52 54 52 H46',
    halfWidthAt: () => 15,
  },
  'air-press': {
    inside: 'M22 18 H42 V44 H22 Z',
    topY: 18,
    bottomY: 44,
    midX: 32,
    lines:
      'M22 12 V44 H42 V12 M17 44 H47 M25 18 H39 M28 18 V5 M36 18 V5 M24 5 H40 M21 49 L24 66 H40 L43 49 Z',
    halfWidthAt: () => 10,
  },
  'pressure-pot': {
    inside: 'M21 36 H43 L47 63 H17 Z',
    topY: 36,
    bottomY: 63,
    midX: 32,
    lines:
      'M19 33 H45 M21 36 H43 L48 66 H16 Z M21 33 L16 12 H48 L43 33 M16 12 L11 9 M19 12 Q32 5 45 12 M32 8 V4 M48 15 L57 17 V34',
    halfWidthAt: (y) => 11 + ((y - 36) / 27) * 4,
  },
  'foam-pot': {
    inside: 'M18 28 H40 Q39 36 45 48 Q47 62 41 62 H17 Q11 62 13 48 Q19 36 18 28 Z',
    topY: 28,
    bottomY: 62,
    midX: 29,
    lines:
      'M15 28 H43 M18 28 Q19 36 13 48 Q11 62 17 62 H41 Q47 62 45 48 Q39 36 40 28 M42 32 L60 12 M15 28 L11 24',
    halfWidthAt: (y) => 11 + ((y - 28) / 34) * 5,
  },
};
