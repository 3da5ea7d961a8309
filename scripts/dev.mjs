/** `npm run dev`: the server, built again and restarted on every change, and Metro with the app, joined under one address. */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { installPackages } from './install.mjs';
import { buildServer } from './build.mjs';
import { bin, root, say } from './lib.mjs';

await installPackages();
await buildServer();
const apiPort = process.env.PORT || '4173';
say(`API: http://127.0.0.1:${apiPort}/api   App: http://localhost:8081`);
const children = [
  spawn(process.execPath, ['server/build.mjs', '--watch'], { cwd: root, stdio: 'inherit' }),
  spawn(process.execPath, ['--watch', '--watch-path=server/dist', 'server/dist/main.js'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, PORT: apiPort, EVEN_KETTLE_DB: join(root, 'data/dev.sqlite') },
  }),
  spawn(bin('expo'), ['start', '--web', '--localhost'], {
    cwd: join(root, 'app'),
    stdio: 'inherit',
    env: { ...process.env, API_PORT: apiPort, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1' },
  }),
];
const stop = () => children.forEach((child) => child.kill());
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, stop);
for (const child of children) child.once('exit', stop);
