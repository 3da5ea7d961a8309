import { configure } from 'safe-stable-stringify';

const stable = configure({ strict: true });

/** JSON with sorted keys, so that equal events give equal text. @throws Error if the value is not JSON */
export const canonical = (value: unknown): string => stable(value)!;
