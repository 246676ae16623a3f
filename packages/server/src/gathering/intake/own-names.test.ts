import { describe, expect, test } from '@jest/globals';
import { RowReader } from '../../database/copy-out.ts';
import { CopyRows } from '../../database/copy-rows.ts';
import { OwnNames } from './own-names.ts';

/** The small numbers that were written, one a row. */
function numbers(rows: CopyRows, count: number): number[] {
  const reader = new RowReader();
  reader.buffer = Buffer.from(rows.finish());
  reader.position = 19;
  return Array.from({ length: count }, () => {
    reader.position += 2;
    return reader.small();
  });
}

describe('names that records give', () => {
  test('a name that is not known yet is filled in wherever it was written', () => {
    const names = new OwnNames(7);
    const rows = new CopyRows(20);
    const write = (name: string): void => {
      rows.begin(1);
      names.write(rows, name);
    };
    ['', 'relay', 'batch', 'relay', ''].forEach(write);
    expect(names.unknown()).toEqual(['relay', 'batch']);
    names.know([['relay', 300], ['batch', -2]]); // prettier-ignore
    expect(names.unknown()).toEqual([]);
    write('relay');
    expect(numbers(rows, 6)).toEqual([7, 300, -2, 300, 7, 300]);
  });

  test('rows of several writers are filled in, each in its own', () => {
    const names = new OwnNames(1);
    const [one, two] = [new CopyRows(), new CopyRows()];
    for (const rows of [one, two]) {
      rows.begin(1);
      names.write(rows, 'edge');
    }
    names.know([['edge', 9]]);
    expect([numbers(one, 1), numbers(two, 1)]).toEqual([[9], [9]]);
  });

  test('too many or too long names count as the source’s own', () => {
    const names = new OwnNames(1);
    const rows = new CopyRows();
    for (let i = 0; i < 600; i++) {
      rows.begin(1);
      names.write(rows, `name-${i}`);
    }
    rows.begin(1);
    names.write(rows, 'x'.repeat(100));
    expect(names.unknown()).toHaveLength(500);
    names.know(names.unknown().map((name) => [name, 5]));
    expect(numbers(rows, 601).filter((number) => number === 1)).toHaveLength(101);
  });
});
