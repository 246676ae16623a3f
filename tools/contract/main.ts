/**
 * Writes what follows from the endpoints: the types of all calls, by which the page asks, and the schemas of all answers, which the
 * description of the API (OpenAPI) gives. `--check` writes nothing, and ends with 1 where what is written is not current.
 */
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { answersOf, routeFiles, STREAMS } from './answered.ts';
import { askedType, endpointsOf } from './asked.ts';
import { schemasOf } from './schemas.ts';

const ROOT = join(import.meta.dirname, '../..');
const API = join(ROOT, 'packages/api/src');
const CALLS = join(API, 'calls.generated.ts');
const ANSWERS = join(ROOT, 'packages/api/answers.json');
const NOTE = '// Made from the endpoints by `npm run contract`; not to be changed by hand.\n';

async function main(): Promise<void> {
  const files = await routeFiles(join(ROOT, 'packages/server/src'));
  const { answered, origins } = await answersOf(files);
  const endpoints = new Map((await endpointsOf(files)).map((one) => [`${one.method} ${one.path}`, one]));
  const missing = [...answered.map((one) => one.name), ...endpoints.keys()].filter(
    (name) => !endpoints.has(name) || !answered.some((one) => one.name === name),
  );
  if (missing.length > 0) throw new Error(`described at one place only: ${missing.join(', ')}`);
  const froms = new Map<string, string[]>();
  for (const [name, from] of origins) {
    const file = from === '@fadenweg/api' ? './index.ts' : from;
    froms.set(file, [...(froms.get(file) ?? []), name]);
  }
  const asked: string[] = [];
  const answers: string[] = [];
  for (const { name, type } of answered) {
    asked.push(`  /** ${endpoints.get(name)!.summary.replaceAll('*/', '*\\/')} */`, `  '${name}': ${await askedType(endpoints.get(name)!)};`);
    answers.push(`  '${name}': ${type === null || STREAMS.has(type) ? 'undefined' : type};`);
  }
  const calls = [
    NOTE,
    ...[...froms].sort().map(([from, names]) => `import type { ${names.sort().join(', ')} } from '${from}';`),
    '\n/** What each call of the API takes. */',
    'export interface Asked {',
    ...asked,
    '}',
    '/** What each call answers: a value, or nothing, or what is no value (a file, events). */',
    'export interface Answers {',
    ...answers,
    '}',
    '',
  ].join('\n');
  const check = process.argv.includes('--check');
  const stale = [await put(CALLS, calls, check), await put(ANSWERS, schemasOf(CALLS, join(ROOT, 'tsconfig.check.json'), answered), check)];
  if (check && stale.some(Boolean)) {
    console.error('What is made from the endpoints is not current: run `npm run contract`.');
    process.exitCode = 1;
  }
}

/** @returns whether what stands there is not this */
async function put(file: string, text: string, check: boolean): Promise<boolean> {
  const now = await readFile(file, 'utf8').catch(() => '');
  if (now !== text && !check) await writeFile(file, text);
  return now !== text;
}
await main();
