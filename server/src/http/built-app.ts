/**
 * The built app: its page, and its files as the build has compressed them.
 */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express } from 'express';
import expressStaticGzip from 'express-static-gzip';

/** @param appDir the folder of the export. @throws Error if the app is not built */
export function serveBuiltApp(app: Express, appDir: string): void {
  const page = join(appDir, 'index.html');
  if (!existsSync(page)) throw new Error(`The app is not built: there is no ${page}. Run npm run build.`);
  // File names in these folders carry a hash of the content, so they may be cached for ever.
  for (const part of ['_expo', 'assets'])
    app.use(
      `/${part}`,
      // The build has compressed the scripts as far as they go, which takes longer than a request may.
      expressStaticGzip(join(appDir, part), {
        enableBrotli: true,
        orderPreference: ['br'],
        serveStatic: { immutable: true, maxAge: '1y', fallthrough: false },
      }),
    );
  app.use(express.static(appDir, { index: false, maxAge: 0 }));
  app.get('/{*path}', (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile(page);
  });
}
