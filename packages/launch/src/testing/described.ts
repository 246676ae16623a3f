import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';

/** The description of the API (OpenAPI 3.1), as far as answers are told apart by it. */
export interface Description {
  paths: Record<string, Record<string, { responses: Record<string, { content?: Record<string, { schema?: object }> }> }>>;
  components: object;
}
export interface Called {
  method: string;
  /** With its query, as it was asked. */
  path: string;
  status: number;
  /** Parsed, where it is JSON; else undefined. */
  answer: unknown;
}

/** Tells what of answers is not as the API describes it. */
export class Described {
  private readonly ajv = new Ajv2020({ allErrors: true, strict: true, allowUnionTypes: true, strictRequired: false });
  private readonly made = new Map<string, ValidateFunction>();
  private readonly routes: { method: string; path: string; fits: RegExp }[];

  constructor(private readonly description: Description) {
    this.ajv.addKeyword('components');
    this.routes = Object.entries(description.paths).flatMap(([path, operations]) =>
      Object.keys(operations).map((method) => ({ method, path, fits: new RegExp(`^${path.replaceAll(/\{\w+\}/g, '[^/]+')}$`) })),
    );
    // one with a word where another has a parameter goes first, as it does in the server
    this.routes.sort((a, b) => (a.path.includes('{') ? 1 : 0) - (b.path.includes('{') ? 1 : 0));
  }

  /** The call that an address belongs to, as `get /strands/{id}`; undefined where none is described. */
  nameOf(method: string, path: string): string | undefined {
    const bare = path.replace(/\?.*/, '');
    const route = this.routes.find((one) => one.method === method && one.fits.test(bare));
    return route && `${method} ${route.path}`;
  }
  get names(): string[] {
    return this.routes.map((one) => `${one.method} ${one.path}`).sort();
  }

  /** @returns what is not as described, a line each; none where all is */
  faultsOf({ method, path, status, answer }: Called): string[] {
    const name = this.nameOf(method, path);
    if (!name) return [`${method} ${path} is not described`];
    const { responses } = this.description.paths[name.slice(method.length + 1)]![method]!;
    const response = responses[String(status)];
    if (!response && status < 400) return [`${name} answers ${status}, which is not described`];
    const { content } = response ?? responses.default!;
    const schema = content?.['application/json']?.schema ?? content?.['application/problem+json']?.schema;
    if (!schema) return answer === undefined ? [] : [`${name} answers something (${status}) where nothing is described`];
    const key = response ? name : 'problem';
    let valid = this.made.get(key);
    if (!valid) this.made.set(key, (valid = this.ajv.compile({ ...schema, components: this.description.components })));
    if (valid(answer)) return [];
    return (valid.errors ?? []).map((one) => `${name}: ${one.instancePath} ${one.message} ${JSON.stringify(one.params)}`);
  }
}
