/** The server's figures for whoever watches over it. None of them has a guest in it. */
import type { RequestHandler } from 'express';
import { Gauge, Histogram, Registry, collectDefaultMetrics } from 'prom-client';
import { openOrders } from '@even-kettle/core/brew';
import type { BarServer } from '../server';

export type Metrics = {
  /** Counts requests by their route and status. */
  count: RequestHandler;
  text: () => Promise<string>;
  contentType: string;
};

export function openMetrics(bar: BarServer): Metrics {
  const registry = new Registry();
  let isWatching = false;
  const requests = new Histogram({
    name: 'even_kettle_http_seconds',
    help: 'How long requests took, by route, method and status.',
    labelNames: ['method', 'route', 'status'] as const,
    buckets: [0.005, 0.02, 0.1, 0.5, 2, 10],
    registers: [registry],
  });
  const gauge = (name: string, help: string, value: () => number | null) =>
    new Gauge({
      name: `even_kettle_${name}`,
      help,
      registers: [registry],
      collect() {
        const now = value();
        if (now === null) this.remove();
        else this.set(now);
      },
    });
  gauge('log_events', 'Events in the log.', () => bar.log.seq());
  gauge('open_orders', 'Orders that are not out yet.', () => openOrders(bar.log.state()).length);
  gauge(
    'running_brews',
    'Brews that run.',
    () => Object.values(bar.log.state().brews).filter(({ status }) => status === 'running').length,
  );
  gauge('pages', 'Pages that follow the bar.', bar.broadcaster.listeners);
  gauge('plans', 'Plans that were published.', () => bar.planning.calm().plans);
  gauge('planner_up', 'Whether plans are made.', () => (bar.planning.healthy() ? 1 : 0));
  gauge('copy_age_seconds', 'How old the latest good copy is.', () => {
    const latestMs = bar.copies.latestMs();
    return latestMs === null ? null : (Date.now() - latestMs) / 1000;
  });
  return {
    count: (request, response, next) => {
      const end = requests.startTimer();
      response.once('finish', () => {
        // The pattern of the route, not its address, which may hold a key or a word that was searched for.
        const { path = 'other' } = (request.route ?? {}) as { path?: string };
        end({ method: request.method, route: path, status: String(response.statusCode) });
      });
      next();
    },
    text: () => {
      // The process's own are watched from the first time that somebody asks.
      if (!isWatching) collectDefaultMetrics({ register: registry });
      isWatching = true;
      return registry.metrics();
    },
    contentType: registry.contentType,
  };
}
