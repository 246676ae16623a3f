import { describe, expect, test } from '@jest/globals';
import { emptyDraft } from '../types.ts';
import { scoreHeads } from '../testing/drawn-heads.ts';
import { learnHead, readHead } from './text-head.ts';

describe('heads that nobody has seen', () => {
  test.each([3, 10, 100])('are read in files of %i lines', (lines) => {
    const score = scoreHeads(20_000, 20_150, lines);
    expect(score.time).toBeGreaterThanOrEqual(0.97);
    expect(score.level).toBeGreaterThanOrEqual(0.95);
    expect(score.message).toBeGreaterThanOrEqual(0.95);
    expect(score.told).toBeGreaterThanOrEqual(0.9);
    expect(score.toldRight).toBeGreaterThanOrEqual(0.99);
    expect(score.right).toBeGreaterThanOrEqual(0.95);
  });

  const read = (texts: string[], at = 0): { level: number; logger: string; fields: object; message: string } => {
    const draft = emptyDraft();
    const end = readHead(texts[at]!, learnHead(texts), draft);
    return { level: draft.level, logger: draft.logger, fields: draft.fields, message: texts[at]!.slice(end).trim() };
  };
  const numbered = (line: (i: number) => string): string[] => Array.from({ length: 20 }, (_, i) => line(i));

  test('what is worked on is no thread, whatever brackets it has', () => {
    const texts = numbered((i) => ` INFO [LX-2048${10 + i}] [exec-${i % 3}] priced`);
    expect(read(texts)).toEqual({ level: 3, logger: '', fields: { context: 'LX-204810', thread: 'exec-0' }, message: 'priced' });
  });

  test('of two numbers the one that does not change is the process', () => {
    const texts = numbered((i) => ` ${8100 + (i % 4)} 71 | WARN | late`);
    expect(read(texts, 2)).toEqual({ level: 4, logger: '', fields: { thread: '8102', pid: 71 }, message: '| late' });
  });

  test('the first word of what is said stays in it', () => {
    const texts = numbered((i) => ` order LX-2048${10 + i} taken - ${i} lenses`);
    expect(read(texts)).toEqual({ level: 0, logger: '', fields: {}, message: 'order LX-204810 taken - 0 lenses' });
  });

  test('numbers of messages are no loggers', () => {
    const texts = numbered((i) => ` E DSK000${i % 7}E: order failed`);
    expect(read(texts, 1)).toMatchObject({ level: 5, logger: '', message: 'DSK0001E: order failed' });
  });
});
