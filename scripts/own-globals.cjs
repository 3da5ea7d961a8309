/** Core's and the server's tests share one context: what Zod keeps there of one test file is not the next one's. */
delete globalThis.__zod_globalConfig;
delete globalThis.__zod_globalRegistry;
/** Nor is how long a test of that file was allowed to take. */
delete globalThis[Symbol.for('TEST_TIMEOUT_SYMBOL')];
