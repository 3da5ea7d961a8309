/**
 * How large an answer may become, for each route: a page, or what a bar holds at most. Nothing that can be stored makes one
 * larger; `answers.test.ts` of the server fills a bar and asks them all.
 */
import type { RouteId } from './addresses';

const KB = 1000;
const MB = 1e6;

/** Bytes of the body before it is compressed; `streamed` where it goes out in pieces, as quickly as it is read. */
export const ANSWER_MAX: Record<RouteId, number | 'streamed'> = {
  // 200 open orders, the 100 that were closed last, their brews, and every saved recipe.
  getState: 40 * MB,
  live: 'streamed',
  // Saved recipes are at most 8 MB in all.
  getRecipes: 9 * MB,
  getRecipeVersions: 9 * MB,
  saveRecipe: 300 * KB,
  getRecipeSchema: 100 * KB,
  // Each part of 8,000 characters may be marked.
  readRecipe: 100 * KB,
  // What the Bench takes is at most 256 KB in one request; learnt values come on top.
  getBar: 700 * KB,
  changeBar: 700 * KB,
  takeAdvice: 700 * KB,
  // 200 records.
  getLog: 3 * MB,
  getBrew: 50 * KB,
  getTrace: 2 * MB,
  getLearnt: 1 * MB,
  getDay: 1 * MB,
  getToday: 500 * KB,
  getHands: 200 * KB,
  getHouse: 200 * KB,
  getLogCsv: 'streamed',
  getLogJsonl: 'streamed',
  getTraceCsv: 2 * MB,
  getCareCalendar: 200 * KB,
  getArchive: 'streamed',
  // 200 logs from elsewhere.
  getImports: 100 * KB,
  postImport: 50 * KB,
  takeImport: 50 * KB,
  endImport: 0,
  postRoasts: 300 * KB,
  postOrders: 300 * KB,
  postEvents: 50 * KB,
  takeOrder: 10 * KB,
  getFeed: 1 * KB,
  runFeed: 1 * KB,
  // The next forty cups.
  getPlan: 500 * KB,
  getPlanProblem: 1 * MB,
  getDevices: 50 * KB,
  orderScale: 0,
  orderKettle: 0,
  // A page of 200 KB, and the item that goes over it.
  getPractice: 500 * KB,
  keepPractice: 0,
  removePractice: 0,
  getClock: 1 * KB,
  getHealth: 10 * KB,
  getOrder: 10 * KB,
  // 200 open orders, and what stands ready.
  getBoard: 100 * KB,
  liveBoard: 'streamed',
  getCup: 10 * KB,
  liveCup: 'streamed',
  getCupLink: 1 * KB,
  getCopies: 100 * KB,
  makeCopy: 1 * KB,
  restoreCopy: 0,
  getMetrics: 100 * KB,
  getMe: 1 * KB,
  pair: 1 * KB,
  // 200 devices and keys.
  getAccess: 100 * KB,
  invite: 1 * KB,
  makeKey: 1 * KB,
  changeAccess: 0,
  revoke: 0,
};
