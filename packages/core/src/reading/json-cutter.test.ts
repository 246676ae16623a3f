import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { JsonCutter, type JsonPlace } from './json-cutter.ts';

/** Objects in the outermost list, or in lists named “items”. */
const isRecord = (path: readonly JsonPlace[]): boolean => !!path.at(-1)?.list && (path.length === 1 || path.at(-2)!.key === 'items');
const KEPT = new Set(['resource']);

interface Piece {
  text: string;
  record: boolean;
  kept: string | undefined;
}
/** Cuts a text of which more and more arrives; the cutter is made anew from its state before each piece. */
function cutUp(text: string, steps: readonly number[]): Piece[] {
  const pieces: Piece[] = [];
  let state: ReturnType<JsonCutter['state']> | null = null;
  let from = 0;
  let arrived = 0;
  for (let i = 0; from < text.length;) {
    const last = arrived >= text.length;
    const cutter: JsonCutter = new JsonCutter(isRecord, KEPT, state);
    const cut = cutter.next(text.slice(0, arrived), from, last);
    if (cut === null) {
      if (last) throw new Error(`nothing is cut from ${from} on`);
      arrived += steps[i++ % steps.length]!;
      continue;
    }
    state = structuredClone(cutter.state());
    pieces.push({ text: text.slice(from, cut.to), record: cut.record, kept: state.kept.resource });
    if (cut.to <= from) throw new Error('no step forward');
    from = cut.to;
  }
  return pieces;
}
const recordsOf = (pieces: readonly Piece[]): unknown[] => pieces.filter((one) => one.record).map((one) => JSON.parse(one.text) as unknown);

const value = fc.jsonValue({ maxDepth: 2 });
const object = fc.dictionary(fc.string({ maxLength: 5 }), value, { maxKeys: 3 });
const steps = fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 5 });

describe('records in JSON documents', () => {
  test('are cut out whole, however the text arrives and whatever stands around them', () => {
    const document = fc.oneof(
      fc.array(object, { minLength: 1, maxLength: 4 }).map((records) => ({ written: records as unknown, records })),
      fc
        .array(object, { minLength: 1, maxLength: 4 })
        .map((records) => ({ written: { head: 'a "[{" b', items: records, count: records.length } as unknown, records })),
    );
    fc.assert(
      fc.property(fc.array(document, { minLength: 1, maxLength: 3 }), fc.constantFrom(undefined, 2), steps, (documents, indent, arriving) => {
        const text = documents.map(({ written }) => JSON.stringify(written, null, indent)).join('\n');
        const pieces = cutUp(text, arriving);
        expect(pieces.map((one) => one.text).join('')).toBe(text);
        expect(recordsOf(pieces)).toEqual(documents.flatMap(({ records }) => JSON.parse(JSON.stringify(records)) as unknown[]));
      }),
    );
  });

  test('tile any text, also one that is no JSON', () => {
    const unit = fc.constantFrom('{', '}', '[', ']', '"', ',', ':', '\n', '\\', 'a', '{"items":[', '{"a":1}');
    fc.assert(
      fc.property(fc.string({ unit, minLength: 1, maxLength: 60 }), steps, (text, arriving) => {
        expect(
          cutUp(text, arriving)
            .map((one) => one.text)
            .join(''),
        ).toBe(text);
      }),
      { numRuns: 500 },
    );
  });

  test('come with what stands around them, each with its own', () => {
    const text = JSON.stringify({
      all: [
        { resource: { name: 'desk' }, items: [{ a: 1 }, { a: 2 }] },
        { resource: { name: 'store' }, items: [{ a: 3 }] },
      ],
    });
    const records = cutUp(text, [7]).filter((one) => one.record);
    expect(records.map((one) => [one.text, one.kept])).toEqual([
      ['{"a":1}', '{"name":"desk"}'],
      ['{"a":2}', '{"name":"desk"}'],
      ['{"a":3}', '{"name":"store"}'],
    ]);
  });

  test('go on in the document behind one that was broken off', () => {
    const text = '{"items":[{"a":1},{"b":\n{"items":[{"c":3}]}\n';
    const records = cutUp(text, [5]).filter((one) => one.record);
    expect(records[0]!.text).toBe('{"a":1}');
    expect(records.at(-1)!.text).toContain('{"c":3}');
  });
});
