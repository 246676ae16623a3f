import { expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { FULL_DAY, generate } from './generate.ts';
import type { Truth } from './writing/sink.ts';

async function made(seed: number): Promise<{ folder: string; digest: string }> {
  const folder = await mkdtemp(join(tmpdir(), 'fadenweg-standin-'));
  await generate({
    out: folder,
    seed,
    faultRate: 0.1,
    storyDay: FULL_DAY,
    stretches: [{ from: FULL_DAY + 9 * 3_600_000_000, hours: 3, records: 12_000 }],
  });
  const hash = createHash('sha256');
  for (const entry of (await readdir(folder, { recursive: true, withFileTypes: true }))
    .filter((one) => one.isFile())
    .sort((a, b) => a.name.localeCompare(b.name)))
    hash.update(await readFile(join(entry.parentPath, entry.name)));
  return { folder, digest: hash.digest('hex') };
}

test('the same seed gives the same world, another seed another one; the truth names lines that are there', async () => {
  const worlds = [await made(5), await made(5), await made(6)];
  try {
    expect(worlds[0]!.digest).toBe(worlds[1]!.digest);
    expect(worlds[0]!.digest).not.toBe(worlds[2]!.digest);
    const { folder } = worlds[0]!;
    const truth = (await readFile(join(folder, 'truth/truth.jsonl'), 'utf8'))
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Truth);
    const files = new Map<string, string[]>();
    const line = async ({ source, line }: { source: string; line: number }): Promise<string> => {
      if (!files.has(source)) files.set(source, (await readFile(join(folder, 'logs', source), 'utf8')).split('\n'));
      return files.get(source)![line - 1]!;
    };
    for (const one of truth) {
      expect(new Set(one.records.map((place) => `${place.source}:${place.line}`)).size).toBe(one.records.length);
      for (const place of one.records) expect(await line(place)).toMatch(/^\{|^time=|^ts=|^\d|^<event /);
      expect(one.cause === null).toBe(one.outcome === 'done');
      if (one.story === 3) expect(await line(one.cause!.record!)).toContain('event=enqueued queue=surfacing.jobs');
      if (one.story === 10) expect(await line(one.cause!.record!)).toMatch(/file OF-20261124-0940 line \d+: registered/);
      if (one.story === 1 && one.flow === 'lens-order') expect(await line(one.cause!.record!)).toContain('canceling statement due to lock timeout');
    }
    expect(new Set(truth.map((one) => one.outcome))).toEqual(new Set(['done', 'failed', 'refused', 'stalled', 'doubled', 'slow']));
  } finally {
    for (const { folder } of worlds) await rm(folder, { recursive: true, force: true });
  }
});

test('no two strands have the same business identifier, over all days', async () => {
  const folder = await mkdtemp(join(tmpdir(), 'fadenweg-standin-'));
  try {
    const thin = Array.from({ length: 20 }, (_, i) => ({ from: FULL_DAY - (20 - i) * 86_400_000_000, hours: 24, records: 300 }));
    await generate({ out: folder, seed: 3, faultRate: 0.1, storyDay: FULL_DAY, stretches: [...thin, { from: FULL_DAY, hours: 24, records: 3000 }] });
    const ids = (await readFile(join(folder, 'truth/truth.jsonl'), 'utf8')).trim().split('\n').map((line) => (JSON.parse(line) as Truth).businessId); // prettier-ignore
    expect(ids.length).toBeGreaterThan(1400);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids).toEqual(expect.arrayContaining(['PL-0423', 'SS-7731']));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}, 60_000);
