import { describe, expect, test } from '@jest/globals';
import { LEVELS } from '../../units.ts';
import { guessFormats, openReader, sampleOf } from '../registry.ts';
import { emptyDraft, type Draft } from '../types.ts';

function read(lines: readonly string[]): { format: string; drafts: Draft[] } {
  const sample = sampleOf('logs/desk.log', lines.join('\n'), true);
  const { format } = guessFormats(sample)[0]!;
  const reader = openReader(format, sample, { zone: 'UTC', modified: 0 });
  const drafts = lines.map((line) => {
    const draft = emptyDraft();
    reader.read(line, draft);
    return draft;
  });
  return { format, drafts };
}
const line = (second: number, more: object): string => JSON.stringify({ time: `2026-11-24T09:00:0${second}Z`, ...more });

describe('objects line by line', () => {
  test('behind a banner are that, and the banner is kept', () => {
    const { format, drafts } = read([
      '  desk  ',
      'Starting desk 1.2',
      ...[1, 2, 3].map((second) => line(second, { level: 'info', msg: `part ${second}` })),
    ]);
    expect(format).toBe('json-lines');
    expect(drafts.map(({ understood, message }) => [understood, message])).toEqual([
      [false, '  desk  '],
      [false, 'Starting desk 1.2'],
      [true, 'part 1'],
      [true, 'part 2'],
      [true, 'part 3'],
    ]);
  });

  test('without any time are objects all the same, kept as they stand', () => {
    const { format, drafts } = read(['{"level":"error","msg":"no price"}', '{"level":"info","msg":"on"}']);
    expect([format, drafts[0]!.understood, drafts[0]!.message]).toEqual(['json-lines', false, '{"level":"error","msg":"no price"}']);
  });

  test('whose messages are objects again give what these say, beside what is around them', () => {
    const { drafts } = read([
      line(1, { host: 'app-1', message: '{"level":"error","msg":"no price","order":"LX-204817","host":"inner"}' }),
      line(2, { host: 'app-1', message: 'plain words' }),
      line(3, { host: 'app-1', message: '{"broken":' }),
    ]);
    expect(drafts[0]).toMatchObject({
      message: 'no price',
      level: LEVELS.indexOf('error'),
      host: 'app-1',
      fields: { order: 'LX-204817', host: 'app-1' },
    });
    expect(drafts.slice(1).map(({ message }) => message)).toEqual(['plain words', '{"broken":']);
  });

  test('whose messages are whole lines of text give their level, logger and thread, if none of them tells a level', () => {
    const inner = (second: number, level: string, words: string): string =>
      `2026-11-24 10:00:0${second},500 ${level} [exec-1] example.Desk - ${words}`;
    const lines = [line(1, { message: inner(1, 'INFO', 'taken') }), line(2, { message: `${inner(2, 'ERROR', 'failed')}\n\tat a.B(C.java:1)` })];
    const [first, second] = read(lines).drafts;
    expect(first).toMatchObject({ message: 'taken', level: LEVELS.indexOf('info'), logger: 'example.Desk', fields: { thread: 'exec-1' } });
    expect(second).toMatchObject({ message: 'failed\n\tat a.B(C.java:1)', level: LEVELS.indexOf('error') });
    // the record's own time stays: it tells its offset
    expect(second!.timeText).toBe('2026-11-24T09:00:02Z');
    const leveled = read([line(1, { level: 'info', message: inner(1, 'ERROR', 'as it stands') }), line(2, { level: 'info', message: 'x y' })]);
    expect(leveled.drafts[0]!.message).toContain('as it stands');
    expect(leveled.drafts[0]!.level).toBe(LEVELS.indexOf('info'));
  });

  test.each([
    [{ when_it_was_logged_date: '2026-11-24T09:00:01Z' }, '2026-11-24T09:00:01Z'],
    [{ gate_datetime: '2026-11-24T10:00:01.5+0100' }, '2026-11-24T10:00:01.5+0100'],
    [{ nobody_knows: '2026-11-24 09:00:01,250' }, '2026-11-24 09:00:01,250'],
    [{ finished_at: 1_795_510_801 }, '1795510801'],
  ])('find their time under a name that nobody knows: %j', (fields, timeText) => {
    const { drafts } = read([JSON.stringify({ ...fields, msg: 'no price' }), JSON.stringify({ ...fields, msg: 'on' })]);
    expect(drafts[0]).toMatchObject({ understood: true, timeText, message: 'no price' });
    expect(Object.keys(drafts[0]!.fields)).toEqual([]);
  });

  test('a template gets the values of its fields, also of those of a list of properties', () => {
    const [first, second] = read([
      line(1, { '@mt': 'order {Order} waits {Wait:0.00} s for {@Lens}, {Nobody}', Order: 'LX-204817', Wait: 7, Lens: 'left' }),
      line(2, { MessageTemplate: 'order {Order}', Properties: { Order: 'LX-204818' } }),
    ]).drafts;
    expect(first!.message).toBe('order LX-204817 waits 7 s for left, {Nobody}');
    expect(second!.message).toBe('order LX-204818');
  });

  test('a caller with a number of a telephone is one, and seconds are no level', () => {
    const [first, second] = read([
      line(1, { msg: 'rings', caller: '+49 30 23125417', s: 3 }),
      line(2, { msg: 'on', caller: 'desk/intake.go:88', s: 'W' }),
    ]).drafts;
    expect(first).toMatchObject({ logger: '', level: 0, fields: { caller: '+49 30 23125417', s: 3 } });
    expect(second).toMatchObject({ logger: 'desk/intake.go:88', level: LEVELS.indexOf('warning'), fields: {} });
  });

  test('begin where their source does, whatever its sample holds: an hour that comes twice is the first one', () => {
    const lines = ['02:30:00', '03:30:00', '04:30:00'].map((clock) => JSON.stringify({ time: `2026-10-25 ${clock}`, msg: 'a line' }));
    const sample = sampleOf('logs/desk.log', lines.join('\n'), true);
    for (let opened = 0; opened < 2; opened++) {
      const draft = emptyDraft();
      openReader('json-lines', sample, { zone: 'Europe/Berlin', modified: 0 }).read(lines[0]!, draft);
      expect(draft.at).toBe(Date.UTC(2026, 9, 25, 0, 30) * 1000);
    }
  });
});
