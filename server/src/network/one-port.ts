/**
 * HTTPS and plain HTTP on one port: whoever types the address without its beginning is shown what to do, in place of a
 * browser's error. The first byte says which it is.
 */
import { createServer, type Server as NetServer, type Socket } from 'node:net';
import type { Server as HttpServer } from 'node:http';
import type { Server as HttpsServer } from 'node:https';

/** The first byte of every TLS connection. */
const TLS_HANDSHAKE = 22;
/** Whoever connects says something within this. */
const SILENT_MS = 10_000;

/** Ends every connection, also those that have said nothing yet: browsers open some ahead. */
export type OnePort = NetServer & { closeAllConnections: () => void };

export function onePort(plain: HttpServer, secure: HttpsServer): OnePort {
  const sockets = new Set<Socket>();
  const server = createServer((socket: Socket) => {
    sockets.add(socket);
    socket.once('close', () => sockets.delete(socket));
    const giveUp = () => socket.destroy();
    socket.setTimeout(SILENT_MS, giveUp);
    socket.on('error', giveUp);
    socket.once('readable', () => {
      const first = socket.read(1) as Buffer | null;
      if (!first) return socket.destroy();
      socket.unshift(first);
      socket.setTimeout(0);
      socket.off('timeout', giveUp);
      (first[0] === TLS_HANDSHAKE ? secure : plain).emit('connection', socket);
    });
  });
  return Object.assign(server, {
    closeAllConnections: () => {
      for (const socket of sockets) socket.destroy();
    },
  });
}
