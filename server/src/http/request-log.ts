/** What is written down of a request: neither guests' words, which a search has in its address, nor cookies, keys and bodies. */
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';

type Seen = { id: unknown; method: string; url: string; remoteAddress: string };

export const requestLog = (logger: Logger) =>
  pinoHttp({
    logger,
    serializers: {
      req: ({ id, method, url, remoteAddress }: Seen) => ({ id, method, path: pathOf(url), remoteAddress }),
      res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
    },
    customLogLevel: (_request, response) => (response.statusCode >= 500 ? 'error' : 'debug'),
  });

/** The key of a guest's order is in its path. */
const pathOf = (url: string): string => url.split('?')[0]!.replace(/^\/(api\/)?(cups?)\/[^/]+/, '/$1$2/…');
