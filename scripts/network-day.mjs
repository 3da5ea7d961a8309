/**
 * `npm run network-day`: a bar's first day on a network, by the commands that the documents name, in a network namespace of its
 * own that nothing leaves: a fresh clone is started with --network, a phone trusts it, is paired by a code and brews over HTTPS
 * with the service worker on, loses its network and comes back, and is taken off; a copy is restored into a new folder; a till's
 * order shows on the board. Wants root, iproute2 and libnss3-tools. `-- --here` takes this folder in place of a fresh clone.
 */
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CHROMIUM, installChromium, installPackages } from './install.mjs';
import { root, say } from './lib.mjs';

const NAMESPACE = 'even-kettle-day';
const ADDRESS = '10.77.0.1';
const PORT = 4173;
const URL_OF = `https://${ADDRESS}:${PORT}`;

if (process.env.NETWORK_DAY) await day(process.env.NETWORK_DAY);
else await enterNamespace();

/** Makes ready what wants the network, then runs this script again where the only address is one that nobody else has. */
async function enterNamespace() {
  await installPackages({ all: true });
  await installChromium();
  const folder = mkdtempSync(join(tmpdir(), 'even-kettle-clone-'));
  const bar = process.argv.includes('--here') ? root : cloneInto(join(folder, 'even-kettle'));
  const ip = (...args) => spawnSync('ip', args, { stdio: 'inherit' }).status;
  spawnSync('ip', ['netns', 'del', NAMESPACE], { stdio: 'ignore' });
  if (ip('netns', 'add', NAMESPACE) !== 0) {
    console.error('It needs root, and the package iproute2.');
    process.exit(1);
  }
  const inside = ['netns', 'exec', NAMESPACE];
  ip(...inside, 'ip', 'addr', 'add', `${ADDRESS}/32`, 'dev', 'lo');
  ip(...inside, 'ip', 'link', 'set', 'lo', 'up');
  const { status } = spawnSync('ip', [...inside, process.execPath, ...process.argv.slice(1)], {
    stdio: 'inherit',
    env: { ...process.env, NETWORK_DAY: bar },
  });
  ip('netns', 'del', NAMESPACE);
  rmSync(folder, { recursive: true, force: true });
  process.exit(status ?? 1);
}

/** @param bar the folder that it is started in */
async function day(bar) {
  const folder = mkdtempSync(join(tmpdir(), 'even-kettle-day-'));
  const env = {
    ...process.env,
    PORT: String(PORT),
    EVEN_KETTLE_DB: join(folder, 'data/bar.sqlite'),
    HOME: folder,
  };
  const run = (...args) => spawnSync('npm', args, { cwd: bar, env, encoding: 'utf8' });
  mkdirSync(join(folder, 'data'));
  step(
    'A bench to brew at',
    spawnSync(process.execPath, [join(root, 'server/dist/demo.js')], {
      env: { ...env, DEMO_EVENTS: 'none', DEMO_BAR: 'plain' },
    }).status === 0,
  );
  const server = spawn('npm', ['start', '--', '--network'], { cwd: bar, env, detached: true });
  let browser = null;
  try {
    const link = await saidBy(server, /^https:\/\/10\.77\.0\.1:4173\/pair#\S+$/m);
    step('npm start -- --network said where it is, and the lead’s link', true);
    trustAuthority(folder, readFileSync(join(folder, 'data/network/authority.pem'), 'utf8'));
    const { chromium } = createRequire(import.meta.url)('@playwright/test');
    const open = (name, size) =>
      chromium.launchPersistentContext(join(folder, name), {
        executablePath: CHROMIUM,
        viewport: size,
        locale: 'en-GB',
        env,
        args: ['--no-sandbox', '--disable-dev-shm-usage'],
      });
    const trust = await fetch(`http://${ADDRESS}:${PORT}/trust`);
    step('The trust page is there in the clear', (await trust.text()).includes('Trust this bar'));

    const office = await open('office', { width: 1280, height: 800 });
    browser = office;
    const lead = office.pages()[0];
    await lead.goto(link);
    await lead.getByTestId('pair').click();
    await lead.getByText('Nothing to do').waitFor();
    step('The link made the office’s browser the lead’s, with no warning: it trusts the authority', true);

    const pocket = await open('phone', { width: 390, height: 844 });
    const phone = pocket.pages()[0];
    await pair(phone, await codeFor(lead, 'Barista', 'Phone'));
    await phone.getByText('Nothing to do').waitFor();
    const secure = await phone.evaluate(async () => ({
      context: isSecureContext,
      worker: (await navigator.serviceWorker.ready).active !== null,
      wakeLock: 'wakeLock' in navigator,
      clipboard: 'clipboard' in navigator,
      camera: 'mediaDevices' in navigator,
    }));
    step(`On the phone: ${JSON.stringify(secure)}`, Object.values(secure).every(Boolean));

    const hall = await open('board', { width: 1920, height: 1080 });
    const board = hall.pages()[0];
    await pair(board, await codeFor(lead, 'Board', 'Hall'));
    await board.getByText('No order is open.').waitFor();
    const till = await keyFor(lead);
    const taken = await lead.request.post(`${URL_OF}/api/orders`, {
      headers: { Authorization: `Bearer ${till}`, Cookie: '' },
      ignoreHTTPSErrors: true,
      data: { key: 'bill-1', cups: [{ coffeeId: 'house', recipeId: 'cone-thirds', cupMl: 250 }] },
    });
    const order = await taken.json();
    step(`The till’s order was taken (${taken.status()})`, taken.status() === 201);
    await board.getByTestId('board-order').first().waitFor();
    step(
      `The board shows it: ${(await board.getByTestId('board-order').first().innerText()).replace(/\s+/g, ' ')}`,
      true,
    );
    const guest = await (await fetch(order.follow.replace('/cup/', '/api/cups/'))).json();
    step(`The guest’s page follows it: ${JSON.stringify(guest.cups)}`, guest.cups[0].status === 'waiting');

    await phone.getByTestId('main-button').click();
    await lead.goto(URL_OF);
    await lead.getByText('Fold, set and rinse').first().waitFor();
    step('A tap on the phone is on the office’s screen', true);
    cable('down');
    await phone.getByTestId('main-button').click();
    await phone.getByText(/server away, \d kept here/).waitFor();
    await phone.reload();
    await phone.getByTestId('main-button').waitFor();
    step('The cable was pulled: the tap is kept, and the app opens from what it keeps', true);
    cable('up');
    await phone.getByText(/server away/).waitFor({ state: 'detached' });
    const kept = await stateOf(lead);
    step(`The cable is back: ${kept} steps are done on the server`, kept >= 2);

    const backup = run('run', '-s', 'backup');
    step(`npm run backup: ${backup.stdout.trim()}`, backup.status === 0);
    await lead.goto(`${URL_OF}/bench?section=access`);
    await lead.getByRole('button', { name: 'Change Phone' }).click();
    const fromMs = performance.now();
    await lead.getByRole('button', { name: 'Remove Phone from the bar' }).click();
    await phone.getByTestId('main-button').waitFor({ state: 'detached' });
    const outMs = performance.now() - fromMs;
    await phone.getByText('This device was removed from the bar').waitFor();
    step(`The phone is out ${Math.round(outMs)} ms after the tap`, outMs < 1000);

    const copy = /even-kettle-\S+\.sqlite/.exec(run('run', '-s', 'restore').stdout)?.[0];
    const elsewhere = { ...env, EVEN_KETTLE_DB: join(folder, 'elsewhere/bar.sqlite') };
    const restored = spawnSync('npm', ['run', '-s', 'restore', '--', join(folder, 'data/backups', copy)], {
      cwd: bar,
      env: elsewhere,
      encoding: 'utf8',
    });
    step(`npm run restore into a new folder: ${restored.stdout.split('\n')[0]}`, restored.status === 0);
    const doctor = run('run', '-s', 'doctor');
    step('npm run doctor finds nothing wrong', doctor.status === 0);
    for (const context of [pocket, hall]) await context.close();
  } finally {
    await browser?.close();
    process.kill(-server.pid, 'SIGTERM');
    rmSync(folder, { recursive: true, force: true, maxRetries: 5, retryDelay: 300 });
  }
  say('The day is over, and all of it held.');
  process.exit(0);
}

function cloneInto(folder) {
  say('A fresh clone, with its packages and its build.');
  const must = (command, args, cwd) => {
    if (spawnSync(command, args, { stdio: 'inherit', ...(cwd ? { cwd } : {}) }).status !== 0) process.exit(1);
  };
  must('git', ['clone', '-q', root, folder]);
  must('npm', ['run', '-s', 'build'], folder);
  return folder;
}

function step(what, held) {
  console.log(`${held ? '✓' : '✗'} ${what}`);
  if (!held) throw new Error(what);
}

/** Waits until the server has said something; the first start of a clone installs and builds. */
function saidBy(server, wanted) {
  return new Promise((resolve, reject) => {
    let said = '';
    const hear = (data) => {
      said += data.toString();
      const found = wanted.exec(said);
      if (found) resolve(found[0]);
    };
    server.stdout.on('data', hear);
    server.stderr.on('data', hear);
    server.once('exit', () => reject(new Error(`It ended: ${said}`)));
  });
}

/** As the trust page says for Linux: into the browser’s own store of authorities. */
function trustAuthority(home, pem) {
  const store = join(home, '.pki/nssdb');
  mkdirSync(store, { recursive: true });
  const certutil = (args, input) => spawnSync('certutil', args, { input });
  certutil(['-N', '-d', `sql:${store}`, '--empty-password']);
  const { status } = certutil(['-A', '-d', `sql:${store}`, '-n', 'even-kettle', '-t', 'C,,'], pem);
  step('The browser took the authority', status === 0);
}

async function codeFor(lead, role, name) {
  await lead.goto(`${URL_OF}/bench?section=access`);
  await lead.getByRole('radio', { name: role, exact: true }).click();
  await lead.getByLabel('What the device is called').fill(name);
  await lead.getByTestId('show-code').click();
  return (await lead.getByTestId('invitation-code').innerText()).replace(' ', '');
}

async function pair(page, code) {
  await page.goto(URL_OF);
  await page.getByTestId('pair-code').fill(code);
  await page.getByTestId('pair').click();
}

async function keyFor(lead) {
  await lead.goto(`${URL_OF}/bench?section=access`);
  await lead.getByLabel('What the program is called').fill('Till');
  await lead.getByRole('button', { name: 'Make a key' }).click();
  return lead.getByTestId('made-key').innerText();
}

function stateOf(lead) {
  return lead.evaluate(async () => {
    const { state } = await (await fetch('/api/state')).json();
    return Object.values(state.brews)
      .flatMap(({ events }) => events)
      .filter(({ type }) => type === 'step-done').length;
  });
}

function cable(state) {
  const ip = (...args) => spawnSync('ip', args);
  ip('link', 'set', 'lo', state);
  if (state === 'up') ip('addr', 'add', `${ADDRESS}/32`, 'dev', 'lo');
}
