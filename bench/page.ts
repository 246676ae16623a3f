import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { ROOT } from '../packages/launch/src/places.ts';
import type { Result } from './measure.ts';

/** Compressed script that the first view loads: what the page names, and what that imports at once. */
export async function benchPage(): Promise<Result[]> {
  const dist = join(ROOT, 'packages/web/dist');
  const html = await readFile(join(dist, 'index.html'), 'utf8');
  const wanted = [...html.matchAll(/(?:src|href)="(\/assets\/[^"]+\.js)"/g)].map((hit) => hit[1]!);
  const seen = new Map<string, number>();
  for (let name = wanted.pop(); name !== undefined; name = wanted.pop()) {
    if (seen.has(name)) continue;
    const code = await readFile(join(dist, name), 'utf8');
    seen.set(name, gzipSync(code).length);
    for (const hit of code.matchAll(/(?:from|import)\s*["']\.\/([^"']+\.js)["']/g)) wanted.push(`/assets/${hit[1]!}`);
  }
  const total = [...seen.values()].reduce((sum, size) => sum + size, 0);
  return [{ what: 'script of the first view, compressed', figure: `${(total / 1000).toFixed(0)} kB`, raw: '', ratio: '', budget: '≤ 300 kB' }];
}
