/**
 * Real scales and kettles, through a bridge that speaks the line protocol (docs/devices.md): JSON lines over WebSocket.
 */
import type { IncomingMessage, Server } from 'node:http';
import { WebSocketServer, type WebSocket } from 'ws';
import { z } from 'zod';
import {
  DEVICE_PROTOCOL,
  fromBridgeSchema,
  type FromBridge,
  type ToBridge,
} from '@even-kettle/core/contract';
import type { Gate } from '../access/gate';
import type { AccessPolicy } from '../access/hosts';
import type { Kettle, Scale, Time } from './ports';

export const BRIDGE_PATH = '/api/bridge';
const MESSAGE_MAX = 4096;
const PING_MS = 5000;
/** A bridge that has sent nothing for this long is disconnected, milliseconds. */
const SILENCE_MS = 12_000;
const MALFORMED_MAX = 20;

type Line = { say: (message: ToBridge) => void; hear: ((message: FromBridge) => void) | null };

/** The stations and kettles that bridges may speak for. */
export type BridgeHub = {
  scale: (stationId: string) => Scale;
  kettle: (kettleId: string) => Kettle;
  /** Handles a server's upgrade requests. */
  attach: (http: Server, access: AccessPolicy, gate: Gate) => void;
  /** Ends the connections of a key that was revoked. */
  expel: (callerId: string) => void;
  close: () => void;
};

// eslint-disable-next-line max-lines-per-function -- the places that bridges speak for are shared by its short functions
export function openBridges(time: Time, realNow: () => number = () => performance.now()): BridgeHub {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: MESSAGE_MAX });
  const places = new Map<string, BridgedDevice>();
  const bound = new Map<string, WebSocket>();
  const keyOf = new WeakMap<WebSocket, string>();

  const place = (key: string): BridgedDevice => {
    const known = places.get(key) ?? newPlace();
    places.set(key, known);
    return known;
  };

  sockets.on('connection', (socket: WebSocket) => {
    let at: { key: string; place: BridgedDevice; line: Line } | null = null;
    let heardMs = realNow();
    let malformed = 0;
    let pings = 0;
    const say = (message: ToBridge) =>
      socket.readyState === socket.OPEN && socket.send(JSON.stringify(message));
    const wrong = (reason: string) => {
      say({ type: 'error', reason });
      malformed += 1;
      if (malformed >= MALFORMED_MAX) socket.close(1008, 'too many messages that are not understood');
    };
    const ping = setInterval(() => {
      if (realNow() - heardMs > SILENCE_MS) return socket.terminate();
      say({ type: 'ping', n: (pings += 1) });
    }, PING_MS);
    ping.unref();
    socket.on('message', (data, binary) => {
      heardMs = realNow();
      const read = binary ? null : parsed(String(data));
      if (!read?.success)
        return wrong(read ? z.prettifyError(read.error) : 'A message is one JSON object, as text.');
      const message = read.data;
      if (message.type === 'hello') {
        if (at) return wrong('Hello has been said already; open another connection for another device.');
        const key = `${message.device} ${message.id}`;
        if (!places.get(key)?.wanted)
          return wrong(
            `No ${message.device} is to be heard through a bridge at “${message.id}”; choose it on the Bench first.`,
          );
        // The newer bridge replaces the older one.
        bound.get(key)?.close(1000, 'another bridge speaks for this device now');
        bound.set(key, socket);
        const line: Line = { say, hear: null };
        at = { key, place: place(key), line };
        at.place.join(line);
        return say({ type: 'welcome', protocol: DEVICE_PROTOCOL });
      }
      if (!at) return wrong('Say hello first: which device, and where it stands.');
      if (message.type !== 'pong') at.line.hear?.(message);
    });
    socket.on('error', () => socket.terminate());
    socket.on('close', () => {
      clearInterval(ping);
      if (!at || bound.get(at.key) !== socket) return;
      bound.delete(at.key);
      at.place.leave(at.line);
    });
  });

  return {
    scale: (stationId) => bridgedScale(place(`scale ${stationId}`), time, realNow),
    kettle: (kettleId) => bridgedKettle(place(`kettle ${kettleId}`), time, realNow),
    attach: (http, access, gate) =>
      http.on('upgrade', (request: IncomingMessage, socket, head) => {
        // Must come first: an error event without a listener ends the process.
        socket.on('error', () => socket.destroy());
        const refuse = (status: string) => socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\n\r\n`);
        const judged = access.judge(request.headers, false, 'encrypted' in request.socket);
        if (!judged.ok) return refuse(judged.status === 421 ? '421 Misdirected Request' : '403 Forbidden');
        if (pathOf(request.url) !== BRIDGE_PATH) return refuse('404 Not Found');
        const { known, refusal } = bridgeOf(gate, request);
        if (refusal) return refuse(refusal);
        sockets.handleUpgrade(request, socket, head, (opened) => {
          if (known) keyOf.set(opened, known.id);
          sockets.emit('connection', opened, request);
        });
      }),
    expel: (callerId) => {
      for (const client of sockets.clients) if (keyOf.get(client) === callerId) client.terminate();
    },
    close: () => {
      for (const client of sockets.clients) client.terminate();
      sockets.close();
    },
  };
}

/** The key that a bridge came with, or why it is not let in. At the server's own machine, where nobody is paired, it needs none. */
function bridgeOf(gate: Gate, { headers }: IncomingMessage) {
  const { asker, known } = gate.callerOf(headers, false);
  const isAllowed = !gate.pairs || asker === 'bridge';
  return { known, refusal: isAllowed ? null : asker === 'nobody' ? '401 Unauthorized' : '403 Forbidden' };
}

/** The path of a request's address; null if it is not valid. */
function pathOf(url: string | undefined): string | null {
  try {
    return new URL(`http://bar${url ?? '/'}`).pathname;
  } catch {
    return null;
  }
}

function parsed(text: string) {
  try {
    return fromBridgeSchema.safeParse(JSON.parse(text));
  } catch {
    return null;
  }
}

type BridgedDevice = ReturnType<typeof newPlace>;

/** Joins a bridge's connection and the bar's device, whichever exists first. */
function newPlace() {
  let line: Line | null = null;
  let onLine: ((line: Line | null) => void) | null = null;
  return {
    wanted: false,
    join(joined: Line) {
      line = joined;
      onLine?.(joined);
    },
    leave(left: Line) {
      if (line !== left) return;
      line = null;
      onLine?.(null);
    },
    say: (message: ToBridge) => line?.say(message),
    use(listener: ((line: Line | null) => void) | null) {
      onLine = listener;
      this.wanted = listener !== null;
      if (line) listener?.(line);
    },
  };
}

/** Converts the bridge's clock to bar time: the fastest message shows the difference best. */
function barTimeOf(time: Time, realNow: () => number) {
  let leastMs = Infinity;
  return (ownMs: number): number => {
    const apartMs = realNow() - ownMs;
    // A clock that was set back, or a bridge that was restarted.
    if (Math.abs(apartMs - leastMs) > 60_000) leastMs = apartMs;
    leastMs = Math.min(leastMs, apartMs);
    return time.nowMs() - (apartMs - leastMs) * time.rate;
  };
}

type Listeners<Reading> = {
  onReading: (reading: Reading) => void;
  onConnected: (connected: boolean) => void;
};

/** The common part of scale and kettle: connected while a bridge is connected and has not reported the device lost. */
function bridged<Reading>(
  place: BridgedDevice,
  time: Time,
  realNow: () => number,
  readingOf: (message: FromBridge, barMs: (ownMs: number) => number) => Reading | null,
) {
  let up = false;
  let listeners: Listeners<Reading> | null = null;
  const turn = (connected: boolean) => {
    if (up === connected) return;
    up = connected;
    listeners?.onConnected(connected);
  };
  place.use((line) => {
    turn(line !== null);
    if (!line) return;
    const barMs = barTimeOf(time, realNow);
    line.hear = (message) => {
      if (message.type === 'lost') return turn(false);
      if (message.type === 'found') return turn(true);
      const reading = readingOf(message, barMs);
      if (!reading) return;
      turn(true);
      listeners?.onReading(reading);
    };
  });
  return {
    connected: () => up,
    listen: (given: Listeners<Reading>) => void (listeners = given),
    close: () => place.use(null),
  };
}

const bridgedScale = (place: BridgedDevice, time: Time, realNow: () => number): Scale => ({
  ...bridged(place, time, realNow, (message, barMs) =>
    message.type === 'reading' ? { atMs: barMs(message.tMs), massG: message.massG } : null,
  ),
  tare: () => place.say({ type: 'tare' }),
});

const bridgedKettle = (place: BridgedDevice, time: Time, realNow: () => number): Kettle => ({
  ...bridged(place, time, realNow, (message, barMs) => {
    if (message.type !== 'state') return null;
    const { tMs, waterC, levelG, setC, heating } = message;
    return { atMs: barMs(tMs), waterC, levelG: levelG ?? null, setC, heating };
  }),
  set: (setC) => place.say({ type: 'set', setC }),
});
