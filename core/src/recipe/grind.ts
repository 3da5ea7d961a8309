/**
 * From a recipe's band (0 coarse to 100 extra fine, the same on every bar) to one grinder's own setting.
 */

/** On this grinder that setting gives this band. */
export type CalibrationPoint = { band: number; setting: number };
export type Grinder = {
  id: string;
  name: string;
  /** Two or more, each band once; settings all rising or all falling with the band. */
  points: CalibrationPoint[];
  /** What stays in it from one dose, grams, and what a change of coffee throws away. */
  keepsG?: number | undefined;
  purgeG?: number | undefined;
};

export type GrindSetting = { ok: true; setting: number } | { ok: false; reason: string };

/** What is wrong with calibration points, in words; null where nothing is. */
export function calibrationFault(points: readonly CalibrationPoint[]): string | null {
  if (points.length < 2) return 'Give at least two points: a coarse and a fine one.';
  if (points.some(({ band, setting }) => !(band >= 0 && band <= 100) || !Number.isFinite(setting)))
    return 'Each point has a band from 0 to 100 and a setting that is a number.';
  const sorted = byBand(points);
  const steps = sorted.slice(1).map((point, index) => ({
    band: point.band - sorted[index]!.band,
    setting: point.setting - sorted[index]!.setting,
  }));
  if (steps.some(({ band }) => band === 0)) return 'Two points have the same band; keep one of them.';
  const rising = steps.filter(({ setting }) => setting > 0).length;
  if (rising !== 0 && rising !== steps.length)
    return 'Settings must all rise, or all fall, as the band gets finer.';
  if (steps.some(({ setting }) => setting === 0))
    return 'Two bands have the same setting; the finer one needs another.';
  return null;
}

/**
 * The grinder's setting for a band, linear between its points, with the coffee's own offset in steps added.
 * Outside its points it says so rather than guess.
 * @param offsetSteps from the log, in the grinder's own steps
 */
export function grindSetting(grinder: Grinder, band: number, offsetSteps = 0): GrindSetting {
  const fault = calibrationFault(grinder.points);
  if (fault) return { ok: false, reason: `${grinder.name} is not calibrated. ${fault}` };
  const points = byBand(grinder.points);
  const [first, last] = [points[0]!, points.at(-1)!];
  if (band < first.band || band > last.band) {
    const way = band < first.band ? 'coarser' : 'finer';
    return {
      ok: false,
      reason: `Band ${band} is ${way} than ${grinder.name} is calibrated for (${first.band} to ${last.band}); add a point there.`,
    };
  }
  const above = Math.max(
    1,
    points.findIndex((point) => point.band >= band),
  );
  const [low, high] = [points[above - 1]!, points[above]!];
  const share = (band - low.band) / (high.band - low.band);
  return { ok: true, setting: tenth(low.setting + share * (high.setting - low.setting) + offsetSteps) };
}

const byBand = (points: readonly CalibrationPoint[]) => [...points].sort((a, b) => a.band - b.band);
const tenth = (value: number): number => Math.round(value * 10) / 10;

const BANDS: readonly [upTo: number, words: string][] = [
  [15, 'very coarse'],
  [30, 'coarse'],
  [45, 'medium-coarse'],
  [58, 'medium'],
  [70, 'medium-fine'],
  [85, 'fine'],
  [100, 'extra fine'],
];

/** A band as it is said. @param band 0 to 100 */
export const bandInWords = (band: number): string =>
  (BANDS.find(([upTo]) => band <= upTo) ?? BANDS.at(-1)!)[1];

const FEELS: readonly [upTo: number, feel: string][] = [
  [15, 'like bread crumbs'],
  [30, 'like broken rice'],
  [42, 'like couscous'],
  [56, 'like semolina'],
  [68, 'like fine salt'],
  [82, 'holds a thumbprint'],
  [100, 'like flour'],
];

/** How a band feels between the fingers, for whoever has no calibration yet. @param band 0 to 100 */
export const feelOfBand = (band: number): string => (FEELS.find(([upTo]) => band < upTo) ?? FEELS.at(-1)!)[1];
