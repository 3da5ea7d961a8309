/**
 * Where everything of the API is. It stands apart from what goes in and out (`routes.ts`), since a page that only asks
 * needs no schemas before it is shown.
 */
export const ADDRESSES = {
  postEvents: 'POST /api/events',
  takeOrder: 'POST /api/orders',
  getOrder: 'GET /api/orders/{id}',
  getFeed: 'GET /api/feed',
  runFeed: 'POST /api/feed',
  getState: 'GET /api/state',
  live: 'GET /api/live',
  getRecipes: 'GET /api/recipes',
  saveRecipe: 'POST /api/recipes',
  readRecipe: 'POST /api/recipes/read',
  getRecipeVersions: 'GET /api/recipes/{id}/versions',
  getRecipeSchema: 'GET /api/schemas/recipe.json',
  getBar: 'GET /api/bar',
  changeBar: 'PATCH /api/bar',
  getLog: 'GET /api/log',
  getBrew: 'GET /api/brews/{id}',
  takeAdvice: 'POST /api/brews/{id}/take-advice',
  getTrace: 'GET /api/brews/{id}/trace',
  getLearnt: 'GET /api/learnt',
  getDay: 'GET /api/day',
  getToday: 'GET /api/today',
  getHands: 'GET /api/hands',
  getHouse: 'GET /api/house',
  getLogCsv: 'GET /api/files/log.csv',
  getLogJsonl: 'GET /api/files/log.jsonl',
  getTraceCsv: 'GET /api/files/traces/{id}.csv',
  getCareCalendar: 'GET /api/files/care.ics',
  getArchive: 'GET /api/files/archive.json',
  getImports: 'GET /api/imports',
  postImport: 'POST /api/imports',
  takeImport: 'POST /api/imports/{id}/take',
  endImport: 'DELETE /api/imports/{id}',
  postRoasts: 'POST /api/files/roasts',
  postOrders: 'POST /api/files/orders',
  getPlan: 'GET /api/plan',
  getPlanProblem: 'GET /api/plan/problem',
  getDevices: 'GET /api/devices',
  orderScale: 'POST /api/devices/scales/{id}',
  orderKettle: 'POST /api/devices/kettles/{id}',
  getPractice: 'GET /api/practice',
  keepPractice: 'POST /api/practice',
  removePractice: 'DELETE /api/practice/{id}',
  getClock: 'GET /api/clock',
  getBoard: 'GET /api/board',
  liveBoard: 'GET /api/board/live',
  getCup: 'GET /api/cups/{id}',
  liveCup: 'GET /api/cups/{id}/live',
  getCupLink: 'GET /api/cup-links/{id}',
  getHealth: 'GET /api/health',
  getCopies: 'GET /api/copies',
  makeCopy: 'POST /api/copies',
  restoreCopy: 'POST /api/copies/{id}/restore',
  getMetrics: 'GET /api/metrics',
  getMe: 'GET /api/me',
  pair: 'POST /api/pair',
  getAccess: 'GET /api/access',
  invite: 'POST /api/access/invitations',
  makeKey: 'POST /api/access/keys',
  changeAccess: 'PATCH /api/access/{id}',
  revoke: 'DELETE /api/access/{id}',
} as const satisfies Record<string, `${HttpMethod} /api/${string}`>;

export type RouteId = keyof typeof ADDRESSES;
export type HttpMethod = 'GET' | 'POST' | 'PATCH' | 'DELETE';

/** @example addressOf('getBrew') is { method: 'GET', path: '/api/brews/{id}' } */
export function addressOf(id: RouteId): { method: HttpMethod; path: string } {
  const [method, path] = ADDRESSES[id].split(' ') as [HttpMethod, string];
  return { method, path };
}

/** An address with its names filled in and its parameters behind it; parameters that say nothing are left out. */
export function addressWith(
  id: RouteId,
  names: Record<string, string> = {},
  query: Record<string, string | number | undefined> = {},
): string {
  const path = addressOf(id).path.replace(/\{(\w+)\}/g, (_all, name: string) =>
    encodeURIComponent(names[name]!),
  );
  const given = Object.entries(query).filter(([, value]) => value !== undefined && value !== '');
  if (given.length === 0) return path;
  return `${path}?${given.map(([name, value]) => `${name}=${encodeURIComponent(String(value))}`).join('&')}`;
}
