/** A command beside the server: `node scripts/command.mjs NAME …`, as package.json names them. In a release it is built already. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { must, root } from './lib.mjs';

/** Where the sources are, what is missing is installed and built first. */
export async function madeReady({ all = false } = {}) {
  if (!existsSync(join(root, 'server/src'))) return;
  const [{ installPackages }, { build, buildServer }] = await Promise.all([
    import('./install.mjs'),
    import('./build.mjs'),
  ]);
  await installPackages();
  await (all ? build() : buildServer());
}

const [, script, name, ...rest] = process.argv;
if (script?.endsWith('command.mjs')) {
  await madeReady();
  await must(process.execPath, [join('server/dist', `${name}.js`), ...rest]);
}
