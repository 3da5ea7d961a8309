/**
 * Who may do what where devices are paired: the one table of which role may use which route and post which kind of event.
 * It stands apart from the schemas, since a page asks it before those are there. A bar that is served to its own machine
 * alone pairs nobody; whoever sits at it may do what the lead may.
 */
import type { EventKind } from '../brew';
import type { RouteId } from './addresses';

/** Roles of people's devices. */
export const DEVICE_ROLES = ['lead', 'barista', 'board'] as const;
/** Roles of programs: each of them has a key. */
export const KEY_ROLES = ['till', 'bridge', 'monitor'] as const;
export const ROLES = [...DEVICE_ROLES, ...KEY_ROLES] as const;
export type DeviceRole = (typeof DEVICE_ROLES)[number];
export type KeyRole = (typeof KEY_ROLES)[number];
export type Role = (typeof ROLES)[number];
/** Whether a role is a program's, which comes with a key, and not a device's, which comes with a cookie. */
export const isKeyRole = (role: Asker): role is KeyRole => KEY_ROLES.some((each) => each === role);
/** Whoever asks: somebody with a role, or anybody on the network. */
export type Asker = Role | 'nobody';

const LEAD: readonly Asker[] = ['lead'];
const CREW: readonly Asker[] = ['lead', 'barista'];
const PAIRED: readonly Asker[] = ROLES;
const ANYBODY: readonly Asker[] = [...ROLES, 'nobody'];

export const ROUTE_ROLES: Record<RouteId, readonly Asker[]> = {
  postEvents: CREW,
  takeOrder: [...CREW, 'till'],
  getOrder: [...CREW, 'till'],
  getFeed: CREW,
  runFeed: LEAD,
  getState: CREW,
  live: CREW,
  getRecipes: CREW,
  saveRecipe: LEAD,
  readRecipe: CREW,
  getRecipeVersions: CREW,
  getRecipeSchema: CREW,
  getBar: CREW,
  changeBar: LEAD,
  getLog: CREW,
  getBrew: CREW,
  takeAdvice: CREW,
  getTrace: CREW,
  getLearnt: CREW,
  getDay: CREW,
  getToday: CREW,
  getHands: CREW,
  getHouse: CREW,
  getLogCsv: CREW,
  getLogJsonl: CREW,
  getTraceCsv: CREW,
  getCareCalendar: CREW,
  // All names of all guests, in one file.
  getArchive: LEAD,
  getImports: CREW,
  postImport: LEAD,
  takeImport: LEAD,
  endImport: LEAD,
  postRoasts: LEAD,
  postOrders: CREW,
  getPlan: CREW,
  getPlanProblem: CREW,
  getDevices: CREW,
  orderScale: CREW,
  orderKettle: CREW,
  getPractice: CREW,
  keepPractice: CREW,
  removePractice: CREW,
  getClock: PAIRED,
  getBoard: [...CREW, 'board'],
  liveBoard: [...CREW, 'board'],
  // Whoever has the address of a guest's order may follow it: it cannot be guessed.
  getCup: ANYBODY,
  liveCup: ANYBODY,
  getCupLink: CREW,
  getHealth: ANYBODY,
  getCopies: LEAD,
  makeCopy: LEAD,
  restoreCopy: LEAD,
  getMetrics: ['lead', 'monitor'],
  getMe: ANYBODY,
  pair: ANYBODY,
  getAccess: LEAD,
  invite: LEAD,
  makeKey: LEAD,
  changeAccess: LEAD,
  revoke: LEAD,
};

type Moves = EventKind['moves'];
/** Events by what they move (`EVENT_KINDS`). Whoever is not named posts none. */
export const EVENT_ROLES: Record<Moves, readonly Asker[]> = {
  orders: CREW,
  hands: CREW,
  brews: CREW,
  house: CREW,
  log: CREW,
};

export const mayUse = (asker: Asker, route: RouteId): boolean => ROUTE_ROLES[route].includes(asker);
