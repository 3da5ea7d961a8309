/** The board and a guest's order over HTTP. */
import express, { type Request, type Response, type Router } from 'express';
import { callerOn, mustBeAllowed } from '../access/gate';
import type { BarServer } from '../server';
import { TOO_MANY_STREAMS } from './limits';
import { HttpProblem } from './problem';
import type { AddRoute } from './route';

/** @param follow the address by which a guest follows the order with a key */
export function outlookRoutes(route: AddRoute, api: Router, bar: BarServer, follow: FollowAddress): void {
  route('getBoard', () => bar.outlook.board());
  route('getCupLink', ({ id, request }) => {
    const key = bar.outlook.keyOf(id);
    if (key === null) throw NO_SUCH_CUP;
    return { address: follow(request, key) };
  });
  api.get('/board/live', (request, response) => {
    const caller = callerOn(response);
    mustBeAllowed('liveBoard', caller);
    mustHaveRoom(bar, request);
    bar.outlookStreams.join(request, response, 'board', bar.outlook.board, caller.known?.id);
  });
  cupRoutes(api, bar);
}

export type FollowAddress = (request: Request, key: string) => string;

/** Where the server is asked at, for one that is not on a network. */
export const followHere: FollowAddress = (request, key) => `http://${request.headers.host ?? ''}/cup/${key}`;

/** What a guest's phone asks for; over plain HTTP as well, since it has no reason to trust the bar's authority. */
export function cupRoutes(api: Router, bar: BarServer): void {
  api.get('/cups/:id', (request, response) => void response.json(followed(bar, request.params.id)));
  api.get('/cups/:id/live', (request, response: Response) => {
    const { id } = request.params;
    followed(bar, id);
    mustHaveRoom(bar, request);
    bar.outlookStreams.join(request, response, 'cup', () => bar.outlook.followed(id));
  });
}

/** The same, for where the rest of the API is not. */
export function cupRouter(bar: BarServer): Router {
  const router = express.Router();
  const api = express.Router();
  api.use((_request, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });
  cupRoutes(api, bar);
  router.use('/api', api);
  return router;
}

function followed(bar: BarServer, key: string) {
  const order = bar.outlook.followed(key);
  if (!order) throw NO_SUCH_CUP;
  return order;
}

function mustHaveRoom(bar: BarServer, request: Request): void {
  if (!bar.outlookStreams.hasRoomFor(request.ip ?? '')) throw TOO_MANY_STREAMS;
}

const NO_SUCH_CUP = new HttpProblem(
  404,
  'no-such-order',
  'There is no such order',
  'Its address is not right, or the order has been over for an hour.',
);
