/**
 * The schemas come as a script of their own (`schemas.ts`), when something is first read by them.
 */
type Schemas = typeof import('./schemas');

let loaded: Schemas | null = null;

export async function loadSchemas(): Promise<Schemas> {
  loaded ??= await import('./schemas');
  return loaded;
}

/** For what is itself only loaded after them. @throws Error where it was loaded without them */
export function schemas(): Schemas {
  if (loaded) return loaded;
  throw new Error('Load the schemas first (loadSchemas).');
}
