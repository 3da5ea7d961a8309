/**
 * Checks whether a bridge keeps the line protocol: acts as the server for the first bridge that connects, and reports.
 */
import { WebSocketServer, type WebSocket } from 'ws';
import { z } from 'zod';
import { DEVICE_PROTOCOL, fromBridgeSchema, type FromBridge } from '@even-kettle/core/contract';

export type Finding = { rule: string; ok: boolean; detail: string };

export type ConformanceHost = {
  /** The address that a bridge has to connect to. */
  url: string;
  /** The findings about the first bridge that connects. */
  findings: Promise<Finding[]>;
  close: () => void;
};

const READINGS_LISTENED_MS = 2000;
const ANSWER_MS = 3000;
const CONNECT_MS = 60_000;

/** @param port 0 uses a free port */
export async function hostConformance(
  port: number,
  onFinding: (finding: Finding) => void = () => undefined,
): Promise<ConformanceHost> {
  const sockets = new WebSocketServer({ host: '127.0.0.1', port });
  await new Promise<void>((resolve, reject) => sockets.once('listening', resolve).once('error', reject));
  const address = sockets.address();
  const at = typeof address === 'object' && address ? address.port : port;
  const findings = new Promise<Finding[]>((resolve) => {
    const giveUp = setTimeout(
      () => resolve([{ rule: 'connects', ok: false, detail: 'no bridge came' }]),
      CONNECT_MS,
    );
    sockets.once('connection', (socket: WebSocket) => {
      clearTimeout(giveUp);
      void examine(socket, onFinding).then(resolve);
    });
  });
  return { url: `ws://127.0.0.1:${at}/api/bridge`, findings, close: () => sockets.close() };
}

async function examine(socket: WebSocket, onFinding: (finding: Finding) => void): Promise<Finding[]> {
  const findings: Finding[] = [];
  const found = (rule: string, ok: boolean, detail: string) => {
    findings.push({ rule, ok, detail });
    onFinding(findings.at(-1)!);
  };
  const heard: FromBridge[] = [];
  const wrong: string[] = [];
  socket.on('message', (data, binary) => {
    const read = fromBridgeSchema.safeParse(binary ? null : parsed(String(data)));
    if (read.success) heard.push(read.data);
    else wrong.push(z.prettifyError(read.error));
  });
  const say = (message: object) => socket.send(JSON.stringify(message));
  const next = async <Type extends FromBridge['type']>(
    type: Type,
    fits: (message: Extract<FromBridge, { type: Type }>) => boolean = () => true,
  ) => {
    const from = heard.length;
    const untilMs = performance.now() + ANSWER_MS;
    while (performance.now() < untilMs && socket.readyState === socket.OPEN) {
      const answer = heard
        .slice(type === 'hello' ? 0 : from)
        .find(
          (message): message is Extract<FromBridge, { type: Type }> =>
            message.type === type && fits(message as never),
        );
      if (answer) return answer;
      await wait(20);
    }
    return null;
  };

  const hello = await next('hello');
  found(
    'says hello first',
    hello !== null && heard[0]?.type === 'hello',
    hello ? `${hello.device} ${hello.id}` : 'no hello in 3 s',
  );
  if (!hello) return findings;
  say({ type: 'welcome', protocol: DEVICE_PROTOCOL });
  await wait(READINGS_LISTENED_MS);
  const timed = heard.filter((message) => message.type === 'reading' || message.type === 'state');
  const perS = timed.length / (READINGS_LISTENED_MS / 1000);
  const enough = hello.device === 'scale' ? perS >= 5 : timed.length >= 1;
  found(
    hello.device === 'scale' ? 'reads at least 5 times a second' : 'tells its state',
    enough,
    `${perS.toFixed(1)} a second`,
  );
  found(
    'its clock never runs backwards',
    timed.every(({ tMs }, index) => index === 0 || tMs >= timed[index - 1]!.tMs),
    `${timed.length} messages`,
  );
  say({ type: 'ping', n: 41 });
  found('answers a ping with its number', (await next('pong', ({ n }) => n === 41)) !== null, 'pong 41');
  say({ type: 'something-of-the-future', of: { any: 'shape' } });
  await wait(300);
  found('passes over what it does not know', socket.readyState === socket.OPEN, 'still connected');
  if (hello.device === 'scale') {
    say({ type: 'tare' });
    const nought = await next('reading', ({ massG }) => Math.abs(massG) <= 0.5);
    found('reads nought after a tare', nought !== null, nought ? `${nought.massG} g` : 'not within 3 s');
  } else {
    say({ type: 'set', setC: 91 });
    found('takes a set temperature', (await next('state', ({ setC }) => setC === 91)) !== null, '91 °C');
    say({ type: 'set', setC: null });
    found('can be switched off', (await next('state', ({ setC }) => setC === null)) !== null, 'off');
  }
  found('says nothing malformed', wrong.length === 0, wrong[0] ?? 'every message was understood');
  return findings;
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
