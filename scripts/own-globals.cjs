/** Core's and the server's tests share one context: what Zod keeps there of one test file is not the next one's. */
delete globalThis.__zod_globalConfig;
delete globalThis.__zod_globalRegistry;
