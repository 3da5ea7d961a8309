import { createServer, connect, type Socket } from 'node:net';

/** What stands between a client and the server, and can be cut in mid-word. */
export async function openProxy(to: string) {
  const port = Number(new URL(to).port);
  const open = new Set<Socket>();
  let up = true;
  const server = createServer((near) => {
    if (!up) return void near.destroy();
    const far = connect(port, '127.0.0.1');
    for (const [one, other] of [
      [near, far],
      [far, near],
    ] as const) {
      open.add(one);
      one.on('error', () => one.destroy());
      one.on('close', () => (open.delete(one), other.destroy()));
      one.pipe(other);
    }
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = server.address();
  return {
    url: `http://127.0.0.1:${typeof address === 'object' && address ? address.port : 0}`,
    cut: () => {
      up = false;
      for (const socket of open) socket.destroy();
    },
    join: () => (up = true),
    close: () => server.close(),
  };
}
