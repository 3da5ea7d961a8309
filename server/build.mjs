/** Bundles the server, its planner's worker and the demo's data maker for plain Node; packages stay outside. */
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { build, context } from 'esbuild';

const here = (path) => fileURLToPath(new URL(path, import.meta.url));
const { dependencies } = JSON.parse(readFileSync(here('package.json'), 'utf8'));

const options = {
  entryPoints: {
    main: here('src/main.ts'),
    'plan.worker': here('src/planning/plan.worker.ts'),
    'quote.worker': here('src/planning/quote.worker.ts'),
    'import.worker': here('src/imports/import.worker.ts'),
    demo: here('src/demo/main.ts'),
    bench: here('bench/plan.ts'),
    ek: here('src/ek/main.ts'),
    'bench-cards': here('bench/cards.ts'),
    'bench-log': here('bench/log.ts'),
    'bench-lab': here('bench/lab.ts'),
    'bench-events': here('bench/events.ts'),
    'bench-load': here('bench/load.ts'),
    'bench-routes': here('bench/routes.ts'),
    conform: here('src/devices/conform-main.ts'),
    soak: here('soak/main.ts'),
    bars: here('soak/bars.ts'),
    fuzz: here('soak/fuzz.ts'),
    damaged: here('soak/damaged.ts'),
    backup: here('src/copies/backup-main.ts'),
    restore: here('src/copies/restore-main.ts'),
    'copy.worker': here('src/copies/copy.worker.ts'),
    doctor: here('src/doctor/main.ts'),
    'lead-link': here('src/access/lead-link.ts'),
    'rush-hour': here('soak/rush-hour.ts'),
    'rush-cards': here('soak/rush-cards.ts'),
  },
  outdir: here('dist'),
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  sourcemap: true,
  logLevel: 'warning',
  external: Object.keys(dependencies).filter((name) => !name.startsWith('@even-kettle/')),
};

// A test has one worker built by itself: the file, and where to.
const [, , only, outdir] = process.argv;
if (outdir) await build({ ...options, entryPoints: [only], outdir });
else if (only === '--watch') await (await context(options)).watch();
else await build(options);
