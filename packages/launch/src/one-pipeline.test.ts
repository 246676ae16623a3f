import { mkdir, mkdtemp, readFile, rm, stat, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import type { ExportedStrand } from '@fadenweg/api';
import { KEEP, STANDARD_KINDS, type IdentifierKind } from '@fadenweg/core/identifiers';
import { understand, type SourceFile } from '@fadenweg/core/understanding';
import { DEMO_ZONE, generateChance } from '@fadenweg/standin';
import { filesBelow } from './client.ts';
import { declare } from './demo-data.ts';
import { startSystem } from './testing/system.ts';

/** A strand by what it holds and how it ended: what both have to say alike. */
type Told = Record<string, { outcome: string; records: string[]; first: string }>;

async function written(folder: string, files: readonly SourceFile[]): Promise<SourceFile[]> {
  for (const { path, bytes, modified } of files) {
    const file = join(folder, path);
    await mkdir(dirname(file), { recursive: true });
    await writeFile(file, bytes);
    await utimes(file, modified / 1e6, modified / 1e6);
  }
  return Promise.all(
    files.map(async ({ path }) => ({
      path,
      bytes: await readFile(join(folder, path)),
      modified: Math.floor((await stat(join(folder, path))).mtimeMs) * 1000,
    })),
  );
}

describe('worlds by chance, through the server and without it', () => {
  test.each([31, 32, 33, 34, 35])(
    'come to the same strands: seed %i',
    async (seed) => {
      const world = generateChance(seed, 60);
      const kinds = world.kinds.map(({ normal, ...kind }): IdentifierKind => ({
        ...kind,
        fields: [],
        scope: 'global',
        leaseMs: null,
        normal: { ...KEEP, ...normal },
      }));
      const flows = kinds
        .filter((one) => one.role === 'business')
        .map(({ name, label }) => ({ name, label, kind: name, prefix: '', patienceMs: null, expects: [] }));
      const folder = await mkdtemp(join(tmpdir(), 'fadenweg-chance-'));
      const system = await startSystem();
      try {
        const all = await written(folder, world.files);
        const sent = await filesBelow([folder]);
        // in the order in which they are sent: what was written at one instant stands in the order of its sources
        const files = sent.map(({ path }) => all.find((one) => one.path === path)!);
        await declare(system.url, { kinds, flows, meanings: [] });
        expect((await system.bring(sent)).state).toBe('done');
        const text = await (await fetch(`${system.url}/api/strands/export?records=true`)).text();
        const stored: Told = {};
        for (const line of text.trim().split('\n')) {
          const one = JSON.parse(line) as ExportedStrand;
          const places = (one.recordsAt ?? []).map(({ source, line: at, leg }) => `${source}:${at}/${leg}`).sort();
          stored[`${one.kind} ${one.name}`] = { outcome: one.outcome, records: places, first: one.findings[0]?.component ?? '' };
        }
        const supplied = STANDARD_KINDS.filter((kind) => !kinds.some((one) => one.name === kind.name));
        const zone = new Intl.DateTimeFormat().resolvedOptions().timeZone;
        const { strands, sources } = await understand(files, { kinds: [...supplied, ...kinds], flows, rules: [], zone: DEMO_ZONE }, zone);
        const held: Told = {};
        for (const { kind, value, outcome, path, held: records, findings } of strands) {
          const legs = new Map(path.legs.flatMap((leg) => leg.records.map((index) => [index, leg.id] as const)));
          const places = records.map((one, i) => `${sources[one.source]!.path}:${one.line}/${legs.get(i)!}`).sort();
          held[`${kind} ${value}`] = { outcome, records: places, first: findings[0]?.component ?? '' };
        }
        expect(Object.keys(stored).length).toBeGreaterThan(30);
        expect(stored).toEqual(held);
      } finally {
        await system.stop();
        await rm(folder, { recursive: true, force: true });
      }
    },
    60_000,
  );
});
