import { describe, expect, test } from '@jest/globals';
import { emptyDraft, type Draft } from '../types.ts';
import { sampleOf } from '../sample.ts';
import { logfmt } from './logfmt.ts';

const read = (line: string): Draft => {
  const draft = emptyDraft();
  logfmt.open(sampleOf('a.log', line, true), { zone: 'UTC', modified: 0 }).read(line, draft);
  return draft;
};

describe('pairs alone', () => {
  test('a caller is a place in a program where it is a file with its line, else a field like any other', () => {
    expect(read('time=2026-11-24T09:00:00Z level=info caller=desk/intake.go:88 msg="order taken"')).toMatchObject({
      logger: 'desk/intake.go:88',
      message: 'order taken',
      fields: {},
    });
    expect(read('time=2026-11-24T09:00:00Z level=info caller="030 23125 417" msg="call rings"')).toMatchObject({
      logger: '',
      message: 'call rings',
      fields: { caller: '030 23125 417' },
    });
  });

  test('without a sentence are their own message, behind what is shown beside it', () => {
    expect(read('time=2026-11-24T09:00:00Z level=warn order=LX-204817 msg=late').message).toBe('order=LX-204817 msg=late');
  });

  test('without a time are kept as they stand', () => {
    expect(read('level=warn order=LX-204817')).toMatchObject({ understood: false, message: 'level=warn order=LX-204817' });
  });

  test('what goes on in further lines stays in the record', () => {
    expect(read('time=2026-11-24T09:00:00Z order=LX-204817\n  at a.B(C.java:1)').message).toContain('\n  at a.B(C.java:1)');
  });
});
