import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isoMicros, LEVELS } from '../../units.ts';
import { guessFormats, openReader, sampleOf } from '../registry.ts';
import { emptyDraft, type Draft, type ReadingContext } from '../types.ts';
import { dateOrder } from '../calendar.ts';
import { frame } from '../framing.ts';
import { SAMPLES, type ReadingSample } from '../testing/samples.ts';

declare class TextEncoder {
  encode(text: string): Uint8Array;
}
const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const MODIFIED = Date.UTC(2026, 11, 31) * 1000;

function contextOf(text: string, { zone, firstDay }: Pick<ReadingSample, 'zone' | 'firstDay'>): ReadingContext {
  const order = dateOrder(text, MODIFIED);
  return {
    zone: zone ?? 'Europe/Berlin',
    modified: MODIFIED,
    ...(order ? { dateOrder: order } : {}),
    ...(firstDay === undefined ? {} : { firstDay }),
  };
}

function readAll(one: ReadingSample): { format: string; drafts: Draft[] } {
  const sample = sampleOf('logs/some.log', one.text, true);
  const { format } = guessFormats(sample)[0]!;
  const reader = openReader(format, sample, contextOf(one.text, one));
  const drafts: Draft[] = [];
  frame(bytesOf(one.text), { byte: 0, line: 1 }, 'utf-8', reader, true, ({ text }) => {
    const draft = emptyDraft();
    reader.read(text, draft);
    if (!draft.framing) drafts.push(draft);
  });
  return { format, drafts };
}

describe('formats', () => {
  test.each(SAMPLES)('$name', (sample) => {
    const { format, records } = sample;
    const read = readAll(sample);
    expect(read.format).toBe(format);
    expect(read.drafts.map((draft) => draft.understood)).toEqual(records.map(() => true));
    read.drafts.forEach((draft, index) => {
      const { at, level, message, logger, took, component, host, fields } = records[index]!;
      expect(isoMicros(draft.at)).toBe(at);
      expect(LEVELS[draft.level]).toBe(level);
      expect(draft.message).toBe(message);
      if (logger !== undefined) expect(draft.logger).toBe(logger);
      if (took !== undefined) expect(draft.took).toBe(took);
      if (component !== undefined) expect(draft.component).toBe(component);
      if (host !== undefined) expect(draft.host).toBe(host);
      expect(draft.fields).toMatchObject(fields ?? {});
    });
  });

  test('lines without a time are kept whole; a level that most of them begin with is told, and what has none goes on with the line above', () => {
    const lines = [
      ' 0(71) INFO: <core> [tcp.c:50]: init(): ready',
      'Listening on',
      '    udp: 127.0.0.1:5077',
      ' 0(71) WARNING: rr [api.h:52]: load(): order LX-204817 late',
      ' 1(72) ERROR: rr [api.h:53]: load(): order LX-204818 failed',
      ...Array.from({ length: 4 }, (_, i) => ` 1(72) INFO: rr [api.h:54]: load(): ${i} done`),
    ];
    const { format, drafts } = readAll({ text: lines.join('\n'), format: 'plain', name: '', records: [] });
    expect(format).toBe('plain');
    expect(drafts.map(({ level, understood, message }) => [LEVELS[level], understood, message])).toEqual([
      ['info', false, lines.slice(0, 3).join('\n')],
      ['warning', false, lines[3]],
      ['error', false, lines[4]],
      ...lines.slice(5).map((line) => ['info', false, line]),
    ]);
    expect(readAll({ text: 'one\ntwo\n  more\nthree', format: 'plain', name: '', records: [] }).drafts.map((one) => one.message)).toEqual(['one', 'two\n  more', 'three']); // prettier-ignore
  });

  test('a mutated line never breaks a reader, and is kept whole where it is not understood', () => {
    const lines = SAMPLES.flatMap(({ text, format }) => text.split('\n').map((line) => ({ line, format, text })));
    const mutation = fc.record({ at: fc.nat(), cut: fc.nat(6), put: fc.string({ unit: 'binary', maxLength: 5 }) });
    fc.assert(
      fc.property(fc.constantFrom(...lines), fc.array(mutation, { minLength: 1, maxLength: 3 }), ({ line, format, text }, changes) => {
        let changed = line;
        for (const { at, cut, put } of changes) {
          const place = changed.length === 0 ? 0 : at % changed.length;
          changed = changed.slice(0, place) + put + changed.slice(place + cut);
        }
        const reader = openReader(format, sampleOf('x', text, true), { zone: 'UTC', modified: Date.UTC(2026, 11, 31) * 1000 });
        const draft = emptyDraft();
        reader.start(changed);
        reader.begins(changed);
        reader.read(changed, draft);
        if (!draft.understood) expect(draft.message).toBe(changed);
        else expect(Number.isFinite(draft.at)).toBe(true);
      }),
      { numRuns: 1500 },
    );
  });

  test.each([
    ['an entity that would grow without end', 'xml-events', '<event t="2026-11-24T10:00:00Z">&lol9;</event>'],
    ['XML that is never closed', 'xml-events', '<event t="2026-11-24T10:00:00Z"><a><b>'],
    ['half of a JSON object', 'json-lines', '{"time":"2026-11-24T10:00:00Z","msg":"ha'],
    ['a row with other columns', 'table', '2026-11-24T10:00:00Z,info,one,too,many,cells'],
    ['a day that no month has', 'text', '2026-11-41 10:00:00 INFO a - b'],
  ])('%s is kept whole', (_name, format, text) => {
    const good = SAMPLES.find((one) => one.format === format)!;
    const reader = openReader(format, sampleOf('x', good.text, true), contextOf(good.text, good));
    const draft = emptyDraft();
    reader.read(text, draft);
    expect(draft).toMatchObject({ understood: false, framing: false, message: text });
  });

  test('nested lists and numbers without end are read in bounded time and fields', () => {
    const deep = `{"time":"2026-11-24T10:00:00Z","msg":"deep","a":${'['.repeat(5000)}${']'.repeat(5000)},"n":${'9'.repeat(400)}}`;
    const wide = `{"time":"2026-11-24T10:00:00Z","msg":"wide",${Array.from({ length: 5000 }, (_, i) => `"f${i}":${i}`).join(',')}}`;
    for (const text of [deep, wide]) {
      const draft = emptyDraft();
      openReader('json-lines', sampleOf('x', text, true), { zone: 'UTC', modified: MODIFIED }).read(text, draft);
      expect(draft.understood).toBe(true);
      expect(Object.keys(draft.fields).length).toBeLessThanOrEqual(200);
    }
  });
});
