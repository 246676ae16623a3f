import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isoMicros, LEVELS } from '../../units.ts';
import { guessFormats, openReader, sampleOf } from '../registry.ts';
import { emptyDraft, type Draft } from '../types.ts';
import { SAMPLES } from '../testing/samples.ts';

function readAll(text: string, zone: string): { format: string; drafts: Draft[] } {
  const sample = sampleOf('logs/some.log', text, true);
  const { format } = guessFormats(sample)[0]!;
  const reader = openReader(format, sample, { zone, year: 2026 });
  const records: string[] = [];
  for (const line of sample.lines) {
    if (records.length > 0 && (line === '' || !reader.begins(line))) records[records.length - 1] += `\n${line}`;
    else if (line !== '') {
      reader.start(line);
      records.push(line);
    }
  }
  return {
    format,
    drafts: records.map((record) => {
      const draft = emptyDraft();
      reader.read(record.trimEnd(), draft);
      return draft;
    }),
  };
}

describe('formats', () => {
  test.each(SAMPLES)('$name', ({ text, zone, format, records }) => {
    const read = readAll(text, zone ?? 'Europe/Berlin');
    expect(read.format).toBe(format);
    expect(read.drafts.map((draft) => draft.understood)).toEqual(records.map(() => true));
    read.drafts.forEach((draft, index) => {
      const { at, level, message, logger, took, fields } = records[index]!;
      expect(isoMicros(draft.at)).toBe(at);
      expect(LEVELS[draft.level]).toBe(level);
      expect(draft.message).toBe(message);
      if (logger !== undefined) expect(draft.logger).toBe(logger);
      if (took !== undefined) expect(draft.took).toBe(took);
      expect(draft.fields).toMatchObject(fields ?? {});
    });
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
        const reader = openReader(format, sampleOf('x', text, true), { zone: 'UTC', year: 2026 });
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
});
