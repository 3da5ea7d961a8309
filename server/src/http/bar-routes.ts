/** The bar itself over HTTP: events, orders from outside, state, plan and settings. */
import { meOf, mustBeAllowedEvents, type Gate } from '../access/gate';
import type { BarServer } from '../server';
import { tillOf } from './access-routes';
import type { FollowAddress } from './outlook-routes';
import { HttpProblem, eventProblem } from './problem';
import type { AddRoute } from './route';

export function barRoutes(route: AddRoute, bar: BarServer, gate: Gate, follow: FollowAddress): void {
  route('postEvents', async ({ body, caller }) => {
    mustBeAllowedEvents(caller, body.events);
    const result = await bar.post(body.events);
    if (!result.ok) throw eventProblem(result.refused);
    return {
      accepted: result.appended.map(({ event }) => event.id),
      duplicates: result.duplicates,
      seq: result.seq,
    };
  });
  route('takeOrder', async ({ body, caller, request, response }) => {
    const taken = await bar.takeOutside(body, tillOf(caller));
    if (taken.ok) {
      if (taken.isNew) response.status(201);
      const { ok: _ok, ...answer } = taken;
      const key = bar.outlook.keyOf(answer.orderId);
      return key === null ? answer : { ...answer, follow: follow(request, key) };
    }
    const { field, reason, why } = taken;
    throw new HttpProblem(why === 'not-offered' ? 409 : 422, why, 'The order was not taken', reason, [
      { field, reason, code: why },
    ]);
  });
  route('getOrder', async ({ id, caller }) => {
    const stands = await bar.outsideStands(id, tillOf(caller));
    if (!stands) throw NO_SUCH_ORDER;
    return stands;
  });
  route('getFeed', () => bar.feed.now());
  route('runFeed', ({ body }) => bar.feed.run(body.running));
  route('getState', ({ caller }) => ({ ...bar.snapshot(), me: meOf(gate, caller) }));
  route('getPlan', () => ({ ...bar.planning.current(), calm: bar.planning.calm() }));
  route('getPlanProblem', () => {
    const problem = bar.planning.problem();
    if (!problem) throw NOTHING_PLANNED;
    return problem;
  });
  route('getBar', ({ response }) => {
    response.set('ETag', etagOf(bar));
    return bar.bar();
  });
  route('changeBar', async ({ body, request, response }) => {
    const changed = await bar.change(body, versionIn(request.get('If-Match')));
    if (changed.ok) {
      response.set('ETag', etagOf(bar));
      return changed.bar;
    }
    if (changed.why === 'not-valid')
      throw new HttpProblem(422, 'not-valid', 'The setting was not changed', changed.reason, [
        { field: changed.field, reason: changed.reason, code: 'not-valid' },
      ]);
    if (changed.why === 'changed-since')
      throw new HttpProblem(412, changed.why, 'The settings have changed meanwhile', changed.reason);
    throw new HttpProblem(409, 'in-use', 'The setting was not changed', changed.reason, [
      { field: changed.field, reason: changed.reason, code: 'in-use' },
    ]);
  });
}

const etagOf = (bar: BarServer): string => `"${bar.barVersion()}"`;
const versionIn = (header: string | undefined): string | undefined =>
  header === undefined || header === '*' ? undefined : header.replace(/^W\//, '').replace(/^"|"$/g, '');

const NO_SUCH_ORDER = new HttpProblem(
  404,
  'no-such-order',
  'No such order',
  'No order from outside has this key. It may be so long over that the bar has set it aside.',
);

const NOTHING_PLANNED = new HttpProblem(
  404,
  'nothing-planned',
  'Nothing is planned',
  'No cup waits and no brew runs, so there is no problem to plan.',
);
