import { configure } from 'safe-stable-stringify';

const stable = configure({ strict: true });

/** JSON with its keys sorted: the same event gives the same text, however it was written. @throws Error where it is no JSON */
export const canonical = (value: unknown): string => stable(value)!;
