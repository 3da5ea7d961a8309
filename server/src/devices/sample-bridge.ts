/**
 * An example of a bridge: it speaks the line protocol for a scale or a kettle that it can reach. This one reaches the
 * simulated devices, so that the protocol can be tried with no hardware.
 */
import { WebSocket } from 'ws';
import { DEVICE_PROTOCOL, toBridgeSchema, type FromBridge } from '@even-kettle/core/contract';
import type { Kettle, Scale, Stop } from './ports';

/** A bridge may have a clock of its own. */
const ownMs = () => Math.round(performance.now());

/** Connects and speaks until it is stopped. */
export function bridgeScale(url: string, stationId: string, scale: Scale): Stop {
  return speak(
    url,
    { type: 'hello', protocol: DEVICE_PROTOCOL, device: 'scale', id: stationId },
    (say) =>
      scale.listen({
        onReading: ({ massG }) => say({ type: 'reading', tMs: ownMs(), massG }),
        onConnected: (connected) => say({ type: connected ? 'found' : 'lost' }),
      }),
    (message, say) => {
      if (message.type !== 'tare') return;
      scale.tare();
      say({ type: 'tared' });
    },
  );
}

export function bridgeKettle(url: string, kettleId: string, kettle: Kettle): Stop {
  return speak(
    url,
    { type: 'hello', protocol: DEVICE_PROTOCOL, device: 'kettle', id: kettleId },
    (say) =>
      kettle.listen({
        onReading: ({ waterC, levelG, setC, heating }) =>
          say({ type: 'state', tMs: ownMs(), waterC, setC, heating, ...(levelG === null ? {} : { levelG }) }),
        onConnected: (connected) => say({ type: connected ? 'found' : 'lost' }),
      }),
    (message) => {
      if (message.type === 'set') kettle.set(message.setC);
    },
  );
}

type Say = (message: FromBridge) => void;

function speak(
  url: string,
  hello: FromBridge,
  welcomed: (say: Say) => void,
  asked: (message: ReturnType<typeof toBridgeSchema.parse>, say: Say) => void,
): Stop {
  const socket = new WebSocket(url);
  const say: Say = (message) => {
    if (socket.readyState === socket.OPEN) socket.send(JSON.stringify(message));
  };
  socket.on('open', () => say(hello));
  socket.on('error', () => socket.terminate());
  socket.on('message', (data) => {
    // Unknown messages are ignored, so that a later server may send more.
    const read = toBridgeSchema.safeParse(JSON.parse(String(data)));
    if (!read.success) return;
    if (read.data.type === 'welcome') welcomed(say);
    if (read.data.type === 'ping') say({ type: 'pong', n: read.data.n });
    asked(read.data, say);
  });
  return () => socket.terminate();
}
