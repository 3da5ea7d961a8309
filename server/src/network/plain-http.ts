/** What the network gets without encryption: how to trust the bar, a guest's own cup, and the way to everything else. */
import express, { type Express, type Router } from 'express';
import helmet from 'helmet';
import type { AccessPolicy } from '../access/hosts';
import { CONTENT_SECURITY_POLICY } from '../http/content-security';
import { minuteLimit } from '../http/limits';
import { HttpProblem, answerErrors } from '../http/problem';

/** @param routes what is served here as well as over HTTPS */
export function plainHttp(access: AccessPolicy, routes: readonly Router[]): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(helmet({ contentSecurityPolicy: CONTENT_SECURITY_POLICY, strictTransportSecurity: false }));
  app.use((request, _response, next) => {
    const judged = access.judge(request.headers, true);
    if (judged.ok) return next();
    next(new HttpProblem(judged.status, 'not-from-here', 'This may not be asked from there', judged.reason));
  });
  app.use(minuteLimit(REQUESTS_A_MINUTE));
  for (const each of routes) app.use(each);
  app.use((request, response, next) => {
    if (request.method !== 'GET' || /^\/api(\/|$)/i.test(request.path)) return next(SECURE_ONLY);
    response.redirect(302, '/trust');
  });
  app.use(answerErrors);
  return app;
}

/** Of one address: guests behind one router share it. */
const REQUESTS_A_MINUTE = 1200;

const SECURE_ONLY = new HttpProblem(
  426,
  'secure-only',
  'Only over HTTPS',
  'On a network the bar is reached over HTTPS alone. Put https:// before its address; /trust says how a device comes to trust it.',
);
