import { describe, expect, test } from '@jest/globals';
import { openReader, sampleOf } from '../registry.ts';
import { clearDraft, emptyDraft } from '../types.ts';

const LEVELS = ['debug', 'info', 'warning'];
/** Times, levels and messages that are read of the lines. */
function read(line: (i: number) => string): { at: string; level: number; message: string }[] {
  const lines = Array.from({ length: 30 }, (_, i) => line(i));
  const reader = openReader('text', sampleOf('desk.log', `${lines.join('\n')}\n`, true), { zone: 'UTC', modified: Date.UTC(2026, 4, 5) });
  return lines.map((one) => {
    const draft = emptyDraft();
    clearDraft(draft);
    expect(reader.begins?.(one) ?? true).toBe(true);
    reader.read(one, draft);
    return { at: new Date(draft.at / 1000).toISOString(), level: draft.level, message: draft.message };
  });
}

describe('a time behind columns of different width that no blank parts', () => {
  test.each([';', ',', '|', '] [', '(', '"'])('behind %s', (mark) => {
    const close = { '] [': ']', '(': ')', '"': '"' }[mark] ?? mark;
    const found = read((i) => `${mark === '] [' ? '[' : ''}${LEVELS[i % 3]}${mark}2026-05-04T09:00:${10 + i}.068Z${close} shelf ${i} counted twice`);
    expect(found.map((one) => one.at)).toEqual(Array.from({ length: 30 }, (_, i) => `2026-05-04T09:00:${10 + i}.068Z`));
    expect(found[4]!.message).toMatch(/shelf 4 counted twice$/);
  });
  test('is no part of a name or a number', () => {
    const found = read((i) => `2026-05-04 09:00:${10 + i} shelf-2026-01-01 counted as ${LEVELS[i % 3]}-2026-02-02T01:01:01`);
    expect(found[3]!.at).toBe('2026-05-04T09:00:13.000Z');
  });
});
