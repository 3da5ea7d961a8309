/** What a test asks of the process that has its bars (`bars.ts`); a bar is named by its port. */
export type AskedOfBars =
  | { open: Record<string, string> }
  | { close: number }
  /** Bar time goes on by so much at once, milliseconds of a clock at rate 1. */
  | { skip: number; byMs: number }
  /** Its orders are worked off as the cards say; up to where one shows this step, or what is seen in it. */
  | { work: number; until?: string | undefined };
