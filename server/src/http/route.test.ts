/** A route of the table: what is asked is read, and what is answered is whole. */
import express from 'express';
import request from 'supertest';
import { askWho, openGate } from '../access/gate';
import { answerErrors } from './problem';
import { routesOn, type AddRoute } from './route';

function serverWith(add: (route: AddRoute) => void) {
  const app = express();
  const api = express.Router();
  api.use(askWho(openGate(null, false)));
  api.use(express.json());
  add(routesOn(api, true));
  app.use('/api', api);
  app.use(answerErrors);
  return request(app);
}

test('what stands in the address, behind it and in the body comes to the handler as the schemas read it', async () => {
  const asked: unknown[] = [];
  const server = serverWith((route) => {
    route('getDay', ({ query }) => {
      asked.push(query);
      return undefined;
    });
    route('orderKettle', ({ id, body }) => void asked.push(id, body));
  });
  await server.get('/api/day?fromMs=0&toMs=60000').expect(200);
  await server.post('/api/devices/kettles/pouring%20one').send({ do: 'set', setC: 94 }).expect(204);
  expect(asked).toEqual([{ fromMs: 0, toMs: 60000 }, 'pouring one', { do: 'set', setC: 94 }]);

  const wrongQuery = await server.get('/api/day?fromMs=tea&toMs=1').expect(422);
  expect(wrongQuery.body.errors[0].field).toBe('fromMs');
  const wrongBody = await server.post('/api/devices/kettles/k').send({ do: 'set', setC: 200 }).expect(422);
  expect(wrongBody.body.errors).toEqual([
    { field: 'setC', reason: 'must be at most 100 °C', code: 'too_big' },
  ]);
  await server.post('/api/devices/kettles/k').type('text/plain').send('94').expect(415);
  expect(asked).toHaveLength(3);
});

test('an answer that its schema refuses, or that says more than its schema knows, is found', async () => {
  const answers: object[] = [
    { barMs: 5, rate: 1 },
    { barMs: 'five', rate: 1 },
    { barMs: 5, rate: 1, more: true },
  ];
  const server = serverWith((route) =>
    route('getClock', () => answers.shift() as { barMs: number; rate: number }),
  );
  await server.get('/api/clock').expect(200, { barMs: 5, rate: 1 });
  await server.get('/api/clock').expect(500);
  await server.get('/api/clock').expect(500);
});
