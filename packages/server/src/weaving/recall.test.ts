import { describe, expect, test } from '@jest/globals';
import { sourceOfId } from '../evidence/record-id.ts';
import type { Glimpses } from '../evidence/batch.ts';
import { CopyRows } from '../database/copy-rows.ts';
import { Recall } from './recall.ts';

interface Glimpse {
  home: number;
  at: number;
  id: number;
}

function told(glimpses: readonly Glimpse[], message = ''): Glimpses {
  const rows = new CopyRows();
  const places: number[] = [];
  for (const { home, at, id } of glimpses) {
    rows.begin(1);
    places.push(home, at, id, rows.length);
    rows.text(message);
  }
  return { sourceId: sourceOfId(glimpses[0]!.id), rows: rows.finish(), places: Float64Array.from(places) };
}

/** Strand and id of what is recalled, in the order in which it comes. */
function recalled(recall: Recall, strands: number, strandOf: (home: number, at: number) => number): [number, number][] {
  const found: [number, number][] = [];
  recall.read(strands, strandOf, (strand, _, id) => found.push([strand, id]));
  return found;
}

describe('what readers told since the last weaving', () => {
  test('comes strand after strand, by time and then by id, whatever batch it came in', () => {
    const recall = new Recall(0);
    recall.add(told([{ home: 10, at: 300, id: 1 }, { home: 20, at: 100, id: 2 }, { home: 10, at: 100, id: 9 }])); // prettier-ignore
    recall.add(told([{ home: 10, at: 100, id: 3 }, { home: 30, at: 1, id: 4 }])); // prettier-ignore
    const strands = new Map([[10, 1], [20, 0]]); // prettier-ignore
    expect(recalled(recall, 2, (home) => strands.get(home) ?? -1)).toEqual([[0, 2], [1, 3], [1, 9], [1, 1]]); // prettier-ignore
  });

  test('a long strand of many batches is in order too', () => {
    const recall = new Recall(0);
    const times = Array.from({ length: 300 }, (_, i) => (i * 7919) % 1000);
    for (let i = 0; i < times.length; i += 30)
      recall.add(told(times.slice(i, i + 30).map((at, j) => ({ home: (i + j) % 3, at, id: 1000 - i - j })))); // prettier-ignore
    const wanted = times.map((at, i) => ({ at, id: 1000 - i, home: i % 3 })).sort((a, b) => a.at - b.at || a.id - b.id);
    expect(recalled(recall, 1, () => 0).map(([, id]) => id)).toEqual(wanted.map(({ id }) => id));
    expect(recalled(recall, 3, (home) => home)).toEqual(
      [0, 1, 2].flatMap((home) => wanted.filter((one) => one.home === home).map(({ id }) => [home, id])),
    );
  });

  test('a key that is used again belongs to the strand of its time', () => {
    const recall = new Recall(0);
    recall.add(told([{ home: 10, at: 100, id: 1 }, { home: 10, at: 900, id: 2 }])); // prettier-ignore
    expect(recalled(recall, 2, (_, at) => (at < 500 ? 0 : 1))).toEqual([[0, 1], [1, 2]]); // prettier-ignore
  });

  test('more than memory should hold is told and dropped whole', () => {
    const recall = new Recall(0, 3500);
    const large = told([{ home: 10, at: 100, id: 1 }], 'x'.repeat(1000));
    for (let i = 0; i < 3; i++) recall.add(large);
    expect([recall.overflown, recalled(recall, 1, () => 0).length]).toEqual([false, 3]);
    recall.add(large);
    expect([recall.overflown, recalled(recall, 1, () => 0).length]).toEqual([true, 0]);
  });

  test('what was told of sources that are read again is forgotten, the rest stays', () => {
    const recall = new Recall(0);
    const of = (source: number, byte: number): number => source * 2 ** 36 + byte;
    recall.add(told([{ home: 10, at: 1, id: of(1, 0) }, { home: 10, at: 3, id: of(1, 50) }])); // prettier-ignore
    recall.add(told([{ home: 10, at: 2, id: of(2, 0) }]));
    recall.add(told([{ home: 10, at: 4, id: of(3, 0) }]));
    recall.add(told([{ home: 10, at: 5, id: of(3, 9) }]));
    recall.forgetSources(new Set([1]));
    expect(recalled(recall, 1, () => 0)).toEqual([[0, of(2, 0)], [0, of(3, 0)], [0, of(3, 9)]]); // prettier-ignore
    recall.forgetSources(new Set([2, 3]));
    expect(recalled(recall, 1, () => 0)).toEqual([]);
  });

  test('what goes on from another one knows which nodes are new, whatever their numbers', () => {
    const before = new Recall(5);
    before.add(told([{ home: 10, at: 1, id: 1 }]));
    const recall = new Recall(0);
    recall.goOn(before, 8, new Set([2, 6]));
    expect([0, 2, 6, 7, 8].filter((node) => recall.isOlder(node))).toEqual([0, 7]);
    expect(recalled(recall, 1, () => 0)).toEqual([[0, 1]]);
  });
});
