import { expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';

/** Files of the server, and which of them each needs when it runs: what is only a type is not there any more. */
const ROOT = import.meta.dirname;
const files = (readdirSync(ROOT, { recursive: true }) as string[]).filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'));
const IMPORT = /^(?:import|export)\s+(?!type\b)(?:\{([^}]*)\}|[\w*\s]+)?\s*(?:from\s*)?'(\.[^']+)'/gm;
function neededBy(file: string): string[] {
  const text = readFileSync(join(ROOT, file), 'utf8');
  return [...text.matchAll(IMPORT)].flatMap(([, names, path]) => {
    const onlyTypes = names !== undefined && names.split(',').every((name) => name.trim() === '' || name.trim().startsWith('type '));
    return onlyTypes ? [] : [relative(ROOT, resolve(ROOT, dirname(file), path!))];
  });
}

test('no file of the server needs itself by way of others', () => {
  const needs = new Map(files.map((file) => [file, neededBy(file)]));
  expect([...needs.values()].flat().filter((file) => !needs.has(file))).toEqual([]);
  expect([...needs.values()].flat().length).toBeGreaterThan(200);
  const circles: string[] = [];
  const state = new Map<string, 'open' | 'closed'>();
  const visit = (file: string, way: readonly string[]): void => {
    if (state.get(file) === 'closed') return;
    if (state.get(file) === 'open') {
      circles.push([...way.slice(way.indexOf(file)), file].join(' → '));
      return;
    }
    state.set(file, 'open');
    for (const next of needs.get(file)!) visit(next, [...way, file]);
    state.set(file, 'closed');
  };
  for (const file of files) visit(file, []);
  expect(circles).toEqual([]);
});
