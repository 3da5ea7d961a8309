/** `npm run conform [-- port]`: waits for a bridge and says whether it keeps the line protocol. */
import { hostConformance } from './conformance';

const port = Number(process.argv[2] ?? 4180);
const host = await hostConformance(port, ({ rule, ok, detail }) =>
  console.log(`  ${ok ? '✓' : '✗'} ${rule}: ${detail}`),
);
console.log(`Waiting for a bridge at ${host.url}`);
const findings = await host.findings;
const failed = findings.filter(({ ok }) => !ok).length;
console.log(`${findings.length - failed} kept, ${failed} broken`);
process.exit(failed === 0 ? 0 : 1);
