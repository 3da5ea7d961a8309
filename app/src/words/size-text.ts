import { ML_PER_FL_OZ, type Units } from '@even-kettle/core/units';

/** A cup's size as it would be typed. */
export const sizeText = (ml: number, units: Units): string =>
  units.volume === 'fl oz' ? (ml / ML_PER_FL_OZ).toFixed(1) : String(ml);
