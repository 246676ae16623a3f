import { readFile, stat } from 'node:fs/promises';
import { STANDARD_KINDS, type IdentifierKind } from '@fadenweg/core/identifiers';
import type { MeaningRule } from '@fadenweg/core/path';
import {
  emptyDraft,
  clearDraft,
  decode,
  frame,
  openReader,
  sampleOf,
  guessFormats,
  type Frame,
  type Place,
  type RecordReader,
} from '@fadenweg/core/reading';
import { KINDS, MEANINGS, DEMO_ZONE } from '@fadenweg/standin';
import { filesBelow } from '../packages/launch/src/client.ts';
import { BatchBuilder } from '../packages/server/src/gathering/intake/batch-builder.ts';
import { perSecond, type Result } from './measure.ts';
import { logsOf } from './world.ts';

/** As they stand in the made-up declarations, whose words are plain text. */
const ALL_KINDS = [...STANDARD_KINDS, ...(KINDS as IdentifierKind[])];
const STRIDE = 1 << 18;
const BATCH = 1 << 21;
const MOST = 12 << 20;

/** One thread over the demo's logs: framing and reading alone, and all that a reading worker does (identifiers, shapes, rows). */
export async function benchReading(): Promise<Result[]> {
  const { folder } = await logsOf('demo-logs', 'demo');
  const sum = new Map<string, { records: number; reading: number; all: number; cpu: number }>();
  for (const file of await filesBelow([`${folder}/logs`])) {
    const bytes = (await readFile(file.file)).subarray(0, MOST);
    if (bytes.length < 300_000) continue;
    const start = decode(bytes.subarray(0, 1 << 16), 'utf-8');
    const format = guessFormats(sampleOf(file.path, start, false))[0]!.format;
    const context = { zone: DEMO_ZONE, modified: Date.UTC(2026, 11, 31) * 1000 };
    const one = sum.get(format) ?? { records: 0, reading: 0, all: 0, cpu: 0 };
    sum.set(format, one);
    const draft = emptyDraft();
    for (const round of [0, 1]) {
      const reader = openReader(format, sampleOf(file.path, start, false), context);
      let begin = performance.now();
      let records = 0;
      each(bytes, reader, (text) => {
        clearDraft(draft);
        reader.read(text.text, draft);
        records++;
      });
      if (round === 1) {
        one.reading += performance.now() - begin;
        one.records += records;
      }
      const builder = new BatchBuilder(
        {
          sourceId: 1,
          file: null,
          fileFrom: 0,
          growing: false,
          size: bytes.length,
          path: file.path,
          format,
          encoding: 'utf-8',
          zone: DEMO_ZONE,
          hints: { modified: (await stat(file.file)).mtimeMs * 1000 },
          ownComponents: true,
          ownHosts: true,
          componentId: 1,
          component: 'x',
          hostId: 1,
          host: 'h',
          from: { byte: 0, line: 1 },
          state: null,
        },
        { kinds: ALL_KINDS, kindIds: ALL_KINDS.map((_, i) => i), rules: MEANINGS as MeaningRule[], clocks: [], parted: [] },
        start,
        false,
      );
      begin = performance.now();
      const before = process.cpuUsage();
      each(
        bytes,
        builder.reader,
        (text) => builder.add(text),
        (next) => {
          const names = builder.unknownNames();
          if (names) builder.know({ component: names.component.map((name) => [name, 1]), host: names.host.map((name) => [name, 1]) });
          builder.take(next, null, false);
        },
      );
      if (round === 0) continue;
      one.all += performance.now() - begin;
      const { user, system } = process.cpuUsage(before);
      one.cpu += user + system;
    }
  }
  const results: Result[] = [];
  const total = { records: 0, reading: 0, all: 0, cpu: 0 };
  for (const [format, one] of sum) {
    results.push(line(format, one));
    total.records += one.records;
    total.reading += one.reading;
    total.all += one.all;
    total.cpu += one.cpu;
  }
  results.push(line('all', total));
  return results;
}

function line(format: string, one: { records: number; reading: number; all: number; cpu: number }): Result {
  return {
    what: `reading ${format}, one thread: framing and reading`,
    figure: perSecond(one.records, one.reading),
    raw: `${perSecond(one.records, one.all)} with identifiers, shapes and rows, ${(one.cpu / one.records).toFixed(1)} µs of all threads`,
    ratio: (one.reading / one.all).toFixed(2),
    budget: '≥ 90,000/s for text',
  };
}

function each(bytes: Buffer, reader: RecordReader, add: (one: Frame) => void, done?: (next: Place) => void): void {
  let place: Place = { byte: 0, line: 1 };
  let taken = 0;
  while (place.byte < bytes.length) {
    const next = frame(bytes.subarray(place.byte, place.byte + STRIDE), place, 'utf-8', reader, place.byte + STRIDE >= bytes.length, add);
    if (next.byte === place.byte) break;
    place = next;
    if (place.byte - taken < BATCH && place.byte < bytes.length) continue;
    taken = place.byte;
    done?.(next);
  }
}
