import { describe, expect, test } from '@jest/globals';
import { isoMicros, LEVELS } from '../../units.ts';
import { frame } from '../framing.ts';
import { guessFormats, openReader, sampleOf } from '../registry.ts';
import { emptyDraft, type Draft } from '../types.ts';

declare class TextEncoder {
  encode(text: string): Uint8Array;
}
function read(lines: readonly string[], zone = 'UTC'): Draft[] {
  const text = lines.join('\n');
  const sample = sampleOf('pods/desk/0.log', text, true);
  expect(guessFormats(sample)[0]!.format).toBe('container-lines');
  const reader = openReader('container-lines', sample, { zone, modified: 0 });
  const drafts: Draft[] = [];
  frame(new TextEncoder().encode(text), { byte: 0, line: 1 }, 'utf-8', reader, true, ({ text: record }) => {
    const draft = emptyDraft();
    reader.read(record, draft);
    drafts.push(draft);
  });
  return drafts;
}
const flagged = (second: number, text: string, flag = 'F', stream = 'stdout'): string => `2026-11-24T09:00:0${second}.5Z ${stream} ${flag} ${text}`;
const wrapped = (second: number, log: string, stream = 'stdout'): string => JSON.stringify({ log, stream, time: `2026-11-24T09:00:0${second}.5Z` });
const TRACE = ['order LX-204817 failed', 'example.NoPrice: none', '\tat example.A.b(A.java:1)', 'Caused by: example.Gone: no'];
const head = (second: number, level: string): string => `2026-11-24 10:00:0${second},250 ${level} [exec-1] example.Desk - `;

describe('lines of a container', () => {
  test.each([
    ['as text', (second: number, text: string) => flagged(second, text)],
    ['as objects', (second: number, text: string) => wrapped(second, `${text}\n`)],
  ])('%s: a stack trace is one record, with level, thread and logger of the line inside', (_, wrap) => {
    const [first, second, third, ...none] = read([
      wrap(1, `${head(1, 'INFO ')}order LX-204817 taken`),
      wrap(2, head(2, 'ERROR') + TRACE[0]!),
      ...TRACE.slice(1).map((line) => wrap(2, line)),
      wrap(3, `${head(3, 'INFO ')}on with it`),
    ]);
    expect(none).toEqual([]);
    expect([first!, second!, third!].map(({ level }) => LEVELS[level])).toEqual(['info', 'error', 'info']);
    expect(second).toMatchObject({ message: TRACE.join('\n'), logger: 'example.Desk', fields: { thread: 'exec-1', stream: 'stdout' } });
    // the program tells its own time, an hour east of the time at which its line was taken in
    expect(isoMicros(second!.at)).toBe('2026-11-24T09:00:02.250000Z');
  });

  test('in another zone tell the same moments, whatever zone the source is given', () => {
    const lines = [flagged(1, `${head(1, 'INFO ')}taken`), flagged(2, `${head(2, 'INFO ')}ready`)];
    for (const zone of ['UTC', 'Asia/Kolkata', 'America/St_Johns'])
      expect(read(lines, zone).map(({ at }) => isoMicros(at))).toEqual(['2026-11-24T09:00:01.250000Z', '2026-11-24T09:00:02.250000Z']);
  });

  test('that came in parts are whole again', () => {
    const long = 'x'.repeat(40);
    const asText = read([flagged(1, `first ${long}`, 'P'), flagged(1, ' and its rest', 'F'), flagged(2, 'second')]);
    expect(asText.map(({ message }) => message)).toEqual([`first ${long} and its rest`, 'second']);
    const asObjects = read([wrapped(1, `first ${long}`), wrapped(1, ' and its rest\n'), wrapped(2, 'second\n'), wrapped(2, 'third\n')]);
    expect(asObjects.map(({ message }) => message)).toEqual([`first ${long} and its rest`, 'second', 'third']);
  });

  test('without line breaks of their own are whole each', () => {
    expect(read([wrapped(1, 'first'), wrapped(2, 'second')]).map(({ message }) => message)).toEqual(['first', 'second']);
  });

  test('of the other stream begin a record of their own', () => {
    const drafts = read([flagged(1, `${head(1, 'INFO ')}taken`), flagged(1, 'no more paper', 'F', 'stderr'), flagged(2, `${head(2, 'INFO ')}ready`)]);
    expect(drafts.map(({ message, fields }) => [message, fields.stream])).toEqual([
      ['taken', 'stdout'],
      ['no more paper', 'stderr'],
      ['ready', 'stdout'],
    ]);
  });

  test('that hold JSON give its message, level and fields', () => {
    const [draft] = read([
      flagged(1, '{"level":"error","msg":"no price","order":"LX-204817","tookMs":7}'),
      flagged(2, '{"level":"info","msg":"on"}'),
    ]);
    expect(draft).toMatchObject({
      message: 'no price',
      level: LEVELS.indexOf('error'),
      took: 7000,
      fields: { order: 'LX-204817', stream: 'stdout' },
    });
  });

  test('of a program that tells no time have the time around them, and level and fields as if it stood in them', () => {
    const pairs = read([
      wrapped(1, 'level=info msg="order taken" order=LX-204817\n'),
      wrapped(2, 'level=error msg="no price at all" order=LX-204817\n'),
    ]);
    expect(pairs[1]).toMatchObject({ message: 'no price at all', level: LEVELS.indexOf('error'), fields: { order: 'LX-204817', stream: 'stdout' } });
    expect(Object.keys(pairs[1]!.fields).sort()).toEqual(['order', 'stream']);
    expect(isoMicros(pairs[1]!.at)).toBe('2026-11-24T09:00:02.500000Z');
    const words = read([
      flagged(1, 'INFO:     order taken'),
      flagged(2, 'ERROR:    order failed'),
      ...TRACE.slice(1).map((line) => flagged(2, line.replace('NoPrice', 'NoPriceException'))),
    ]);
    expect(words.map(({ level, message }) => [LEVELS[level], message])).toEqual([
      ['info', 'order taken'],
      ['error', 'order failed\nexample.NoPriceException: none\n\tat example.A.b(A.java:1)\nCaused by: example.Gone: no'],
    ]);
  });

  test('that are no such line are kept whole', () => {
    const drafts = read([flagged(1, 'first'), 'what is this?', ...Array.from({ length: 9 }, (_, i) => flagged(i, `line ${i}`))]);
    expect(drafts[1]).toMatchObject({ understood: false, message: 'what is this?' });
  });
});
