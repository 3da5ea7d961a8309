/** `npm run doctor`: looks at this machine and says what to do. It ends with 1 where something is wrong. */
import { readSettings } from '../settings';
import { checkMachine, thisMachine } from './checks';

const SIGNS = { well: 'OK   ', note: 'Note ', wrong: 'WRONG' } as const;

async function main(): Promise<void> {
  // As the server would be started for a network, where it was once.
  const findings = await checkMachine(readSettings(process.env), thisMachine());
  for (const { what, state, says } of findings) console.log(`${SIGNS[state]}  ${what}: ${says}`);
  process.exitCode = findings.some(({ state }) => state === 'wrong') ? 1 : 0;
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
