import { describe, expect, test } from '@jest/globals';
import { columnsOf } from '../find/columns.ts';
import { NUMBERS, partiesText, STRAND_FIELDS, fitting, strandColumnsOf, strandColumnWords, USUAL_STRAND_COLUMNS, widthOf } from './strand-columns.ts';

const fields = (text: string): string[] => strandColumnsOf(columnsOf(text)).map((one) => one.field);

describe('columns of the list of strands', () => {
  test('come back from an address as they were chosen, in that order', () => {
    const words = strandColumnWords({ columns: [{ field: 'end', width: 150 }, { field: 'parties', width: 180 }, { field: 'happened', width: 0 }] }); // prettier-ignore
    expect(words).toBe('end:150,parties:180,happened');
    expect(strandColumnsOf(columnsOf(words))).toEqual([
      { field: 'end', title: 'End', width: 150 },
      { field: 'parties', title: 'Whom it concerns', width: 180 },
      { field: 'happened', title: 'What happened', width: 0 },
    ]);
  });
  test('what no strand has is left out; where nothing is left the usual ones stand', () => {
    const usual = USUAL_STRAND_COLUMNS.columns.map((one) => one.field);
    expect(fields('logger:90,outcome:98')).toEqual(['outcome']);
    expect(fields('logger:90')).toEqual(usual);
    expect(fields('')).toEqual(usual);
    expect(fields('%ff,,::,__proto__:3')).toEqual(usual);
  });
  test('each has a title and what is a number is one of them', () => {
    expect(new Set(STRAND_FIELDS.map((one) => one.title)).size).toBe(STRAND_FIELDS.length);
    for (const one of NUMBERS) expect(STRAND_FIELDS.map((other) => other.field)).toContain(one);
  });
  test('whom a strand concerns is one text', () => {
    expect(partiesText({ parties: [{ kind: 'shop', value: 'C-0041' }, { kind: 'caller', value: '+49 1' }] })).toBe('shop C-0041 · caller +49 1'); // prettier-ignore
    expect(partiesText({ parties: [] })).toBe('');
  });
});

test('where there is no room, how long it takes usually gives way, then what happened; nothing does before the room is known', () => {
  const usual = strandColumnsOf([]);
  const fields = (room: number): string[] => fitting(usual, room).map((one) => one.field);
  expect(fields(0)).toEqual(usual.map((one) => one.field));
  expect(fields(widthOf(usual))).toContain('usual');
  expect(fields(widthOf(usual) - 1)).not.toContain('usual');
  expect(fields(widthOf(usual) - 1)).toContain('happened');
  expect(fields(400)).not.toContain('happened');
  expect(fitting(strandColumnsOf([{ field: 'happened', width: 0 }]), 10)).toHaveLength(1);
});
