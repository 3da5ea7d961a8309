/**
 * Requests made from the API's own description: bodies and parameters as its schemas have them, and then harmed.
 */
type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
export type Schema = {
  $ref?: string;
  type?: string | string[];
  enum?: Json[];
  const?: Json;
  anyOf?: Schema[];
  oneOf?: Schema[];
  allOf?: Schema[];
  properties?: Record<string, Schema>;
  required?: string[];
  additionalProperties?: boolean | Schema;
  items?: Schema | boolean;
  prefixItems?: Schema[];
  minItems?: number;
  maxItems?: number;
  minimum?: number;
  maximum?: number;
  format?: string;
  pattern?: string;
  minLength?: number;
  maxLength?: number;
};
type Parameter = { name: string; in: string; required?: boolean; schema?: Schema };
type Operation = {
  operationId: string;
  parameters?: Parameter[];
  requestBody?: { content: Record<string, { schema?: Schema }> };
};
export type ApiDocument = {
  paths: Record<string, Record<string, Operation>>;
  components: { schemas: Record<string, Schema> };
};

export type RandomRequest = {
  operation: string;
  method: string;
  path: string;
  headers: Record<string, string>;
  body?: string;
};

/** What stands on the bar just now: ids and times that make sense. */
export type Pool = { ids: readonly string[]; nowMs: number };

/** What no field was made for. */
const NASTY: readonly Json[] = [
  null,
  true,
  -1,
  0,
  1e300,
  -1e300,
  9e15,
  0.1,
  '',
  ' ',
  '0',
  'toString',
  '__proto__',
  'constructor',
  '../../etc/passwd',
  "'; DROP TABLE event; --",
  '=1+1',
  '\u0000',
  '\ud800',
  'a\nb',
  '%s%n',
  '<script>alert(1)</script>',
  [],
  {},
  [[[[[[]]]]]],
  { __proto__: null, toString: 1 },
];

export function requestMaker(document: ApiDocument, random: () => number) {
  const chance = (share: number) => random() < share;
  const whole = (below: number) => Math.floor(random() * below);
  const pick = <Item>(items: readonly Item[]): Item => items[whole(items.length)]!;
  const operations = Object.entries(document.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method: method.toUpperCase(), operation })),
  );
  const words = (most: number) =>
    Array.from({ length: 1 + whole(Math.max(1, Math.min(most, 12))) }, () =>
      pick([...'aebn -é名=+@;"']),
    ).join('');
  const uuid = () => {
    const hex = (n: number) => Array.from({ length: n }, () => pick([...'0123456789abcdef'])).join('');
    return `${hex(8)}-${hex(4)}-7${hex(3)}-8${hex(3)}-${hex(12)}`;
  };

  function valueOf(schema: Schema, pool: Pool, name = '', depth = 0): Json {
    if (schema.$ref)
      return valueOf(document.components.schemas[schema.$ref.split('/').at(-1)!]!, pool, name, depth);
    if (schema.const !== undefined) return schema.const;
    if (schema.enum) return pick(schema.enum);
    const choice = schema.anyOf ?? schema.oneOf;
    if (choice) return valueOf(pick(choice), pool, name, depth + 1);
    const type = Array.isArray(schema.type) ? pick(schema.type) : schema.type;
    if (type === 'object' || schema.properties) return objectOf(schema, pool, depth);
    if (type === 'array') {
      const { minItems = 0, maxItems = 3 } = schema;
      if (schema.prefixItems) return schema.prefixItems.map((each) => valueOf(each, pool, name, depth + 1));
      const items = typeof schema.items === 'object' ? schema.items : {};
      const many = depth > 6 ? minItems : minItems + whole(Math.min(4, Math.max(1, maxItems - minItems + 1)));
      return Array.from({ length: many }, () => valueOf(items, pool, name, depth + 1));
    }
    if (type === 'boolean') return chance(0.5);
    if (type === 'null') return null;
    if (type === 'number' || type === 'integer') return numberOf(schema, pool, name, type);
    if (type === 'string') return textOf(schema, pool, name);
    return pick(NASTY);
  }

  function objectOf(schema: Schema, pool: Pool, depth: number): Json {
    const required = new Set(schema.required ?? []);
    const entries = Object.entries(schema.properties ?? {})
      .filter(([key]) => required.has(key) || (depth < 6 && chance(0.4)))
      .map(([key, each]) => [key, valueOf(each, pool, key, depth + 1)] as const);
    return Object.fromEntries(entries);
  }

  function numberOf(
    { minimum = -10, maximum = 1000 }: Schema,
    pool: Pool,
    name: string,
    type: string,
  ): number {
    if (name.endsWith('Ms') && chance(0.9)) return Math.round(pool.nowMs + (random() - 0.9) * 60_000);
    const most = Math.min(maximum, 1e6);
    const value = chance(0.1) ? pick([minimum, maximum]) : minimum + random() * (most - minimum);
    return type === 'integer' ? Math.round(value) : Math.round(value * 10) / 10;
  }

  function textOf(schema: Schema, pool: Pool, name: string): string {
    if (schema.format === 'uuid') return uuid();
    if (schema.format === 'date') return `20${10 + whole(30)}-0${1 + whole(9)}-1${whole(10)}`;
    if (/Id$|^id$|^by$/.test(name) || schema.pattern)
      return chance(0.8) ? pick(pool.ids) : words(12).trim() || 'x';
    return words(schema.maxLength ?? 40);
  }

  /** One of a value's parts becomes something that it should not be. */
  function harmed(value: Json, depth = 0): Json {
    if (value === null || typeof value !== 'object' || (depth > 0 && chance(0.15))) return pick(NASTY);
    if (Array.isArray(value)) {
      if (value.length === 0 || chance(0.1)) return [...value, pick(NASTY)];
      const at = whole(value.length);
      return value.map((each, n) => (n === at ? harmed(each, depth + 1) : each));
    }
    const keys = Object.keys(value);
    if (keys.length === 0 || chance(0.1))
      return { ...value, [pick(['price', '__proto__', 'id', ''])]: pick(NASTY) };
    const key = pick(keys);
    if (chance(0.15)) return Object.fromEntries(Object.entries(value).filter(([each]) => each !== key));
    return { ...value, [key]: harmed(value[key]!, depth + 1) };
  }

  const queryText = (value: Json): string =>
    typeof value === 'object' ? JSON.stringify(value) : String(value);

  return (pool: Pool): RandomRequest => {
    const { path, method, operation } = pick(operations);
    const harm = chance(0.6);
    const parameters = operation.parameters ?? [];
    const given = (parameter: Parameter): string => {
      const value = valueOf(parameter.schema ?? { type: 'string' }, pool, parameter.name);
      return queryText(harm && chance(0.4) ? pick(NASTY) : value);
    };
    const filled = path.replace(/\{(\w+)\}/g, (_all, name: string) =>
      encodeURIComponent(
        chance(0.7) ? pick(pool.ids) : given({ name, in: 'path' }).replace(/[\ud800-\udfff]/g, ''),
      ),
    );
    const query = new URLSearchParams(
      parameters
        .filter((parameter) => parameter.in === 'query' && (parameter.required || chance(0.5)))
        .map((parameter): [string, string] => [parameter.name, given(parameter)]),
    ).toString();
    const request: RandomRequest = {
      operation: operation.operationId,
      method,
      path: query === '' ? filled : `${filled}?${query}`,
      headers: {},
    };
    const [type, content] = Object.entries(operation.requestBody?.content ?? {})[0] ?? [];
    if (type === undefined) return request;
    request.headers['Content-Type'] = harm && chance(0.05) ? 'text/plain' : type;
    if (type === 'application/json') {
      const value = valueOf(content?.schema ?? {}, pool);
      request.body = JSON.stringify(harm ? harmed(value) : value);
      if (harm && chance(0.05)) request.body = request.body.slice(0, whole(request.body.length));
    } else request.body = table(harm);
    return request;
  };

  function table(harm: boolean): string {
    const head = pick([
      'coffee,roast',
      'coffee,recipe,ml',
      'guest,coffee,recipe,ml',
      'ended,coffee,recipe,dose_g',
      harm ? words(20) : 'coffee,roast,notes',
    ]);
    const cell = () => pick(['Fog', 'light', 'cone-thirds', '250', '"a\nb"', harm ? '"' : '18', words(8)]);
    const rows = Array.from({ length: whole(5) }, () => head.split(',').map(cell).join(','));
    return [head, ...rows].join('\n');
  }
}
