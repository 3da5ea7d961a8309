/**
 * `npm run release`: one archive with the built server, the built app and the packages that they need to run, for machines of
 * this machine's kind. It starts with Node.js alone, and builds nothing.
 */
import { cpSync, existsSync, mkdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { basename, dirname, join, relative, sep } from 'node:path';
import { build } from './build.mjs';
import { installPackages } from './install.mjs';
import { must, root, say } from './lib.mjs';

/** Of the server's scripts those that a bar needs. */
const SERVER = [
  'main',
  'plan.worker',
  'quote.worker',
  'import.worker',
  'copy.worker',
  'demo',
  'ek',
  'conform',
  'backup',
  'restore',
  'lead-link',
  'doctor',
];
const SCRIPTS = ['start', 'command', 'serve', 'lib'];
const PAPERS = [
  'LICENSE',
  'CHANGELOG.md',
  'SECURITY.md',
  'docs/install.md',
  'docs/security.md',
  'docs/devices.md',
  'deploy',
];
/** What builds, or is part of what was built. */
const NOT_NEEDED = new Set(['esbuild', '@even-kettle/core']);

await installPackages();
await build();
const { version } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'));
const kind = `${process.platform}-${process.arch}-node${process.versions.node.split('.')[0]}`;
const out = join(root, 'release');
const stage = join(out, 'even-kettle');
rmSync(out, { recursive: true, force: true });
mkdirSync(stage, { recursive: true });

const put = (path, options = {}) =>
  cpSync(join(root, path), join(stage, path), { recursive: true, ...options });
for (const name of SERVER) put(`server/dist/${name}.js`);
put('app/dist', { filter: (path) => !path.endsWith('.map') });
for (const name of SCRIPTS) put(`scripts/${name}.mjs`);
for (const path of PAPERS) put(path);
putPackages();
writeFileSync(join(stage, 'package.json'), `${JSON.stringify(packageFile(), null, 2)}\n`);

const archive = join(out, `even-kettle-${version}-${kind}.tar.gz`);
await must('tar', ['-czf', archive, '-C', out, basename(stage)]);
say(
  `${relative(root, archive)}: ${(statSync(archive).size / 1e6).toFixed(1)} MB. docs/install.md says what to do with it.`,
);

function packageFile() {
  const { scripts, engines } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'));
  const kept = ['start', 'backup', 'restore', 'lead-link', 'doctor', 'ek'];
  return {
    name: 'even-kettle',
    version,
    private: true,
    type: 'module',
    engines,
    scripts: {
      ...Object.fromEntries(kept.map((name) => [name, scripts[name]])),
      ek: 'node server/dist/ek.js',
      demo: 'EVEN_KETTLE_DB=data/demo.sqlite node server/dist/demo.js',
    },
  };
}

/** The packages that the server asks for, and those that these ask for: each from where it lies. */
function putPackages() {
  const { dependencies } = JSON.parse(readFileSync(join(root, 'server/package.json'), 'utf8'));
  const put = new Set();
  const waiting = Object.keys(dependencies)
    .filter((name) => !NOT_NEEDED.has(name))
    .map((name) => ({ name, from: join(root, 'server') }));
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const folder = folderOf(next.name, next.from);
    if (!folder || put.has(folder)) continue;
    put.add(folder);
    cpSync(folder, join(stage, relative(root, folder)), {
      recursive: true,
      dereference: true,
      filter: (path) => isNeeded(folder, path),
    });
    const asked = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8'));
    for (const name of Object.keys({ ...asked.dependencies, ...asked.optionalDependencies }))
      waiting.push({ name, from: folder });
  }
  say(`${put.size} packages.`);
}

/** As Node.js finds it: beside whoever asks, or above. Null where it is optional and not here. */
function folderOf(name, from) {
  for (let at = from; at.startsWith(root); at = dirname(at)) {
    const folder = join(at, 'node_modules', name);
    if (existsSync(join(folder, 'package.json'))) return folder;
  }
  return null;
}

/** Neither what the driver was compiled from, nor packages within packages, which come by themselves. */
function isNeeded(folder, path) {
  const [first, ...rest] = relative(folder, path).split(sep);
  if (first === 'node_modules' && rest.length > 0) return false;
  if (basename(folder) !== 'better-sqlite3') return !/\.(map|ts|mts|cts)$/.test(path);
  if (first === 'deps' || first === 'src') return false;
  return !/[\\/]build[\\/]Release[\\/](?!better_sqlite3\.node$)/.test(path);
}
