/** Numbers as people type them here: the device's own locale says which mark is the decimal one. */
import { readNumber, type DecimalMark } from '@even-kettle/core/units';

export const DECIMAL: DecimalMark = new Intl.NumberFormat().format(1.5).includes(',') ? ',' : '.';

export const readTyped = (text: string, name: string) => readNumber(text, name, DECIMAL);
