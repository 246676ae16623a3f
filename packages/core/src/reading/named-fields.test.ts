import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { LEVELS } from '../units.ts';
import { levelOfValue, namesOf, NamedFields } from './named-fields.ts';
import { emptyDraft, type Draft, type Fields } from './types.ts';

const AT = Date.UTC(2026, 10, 24, 10, 41, 58, 123) * 1000;
function read(fields: Fields, zone = 'UTC'): Draft {
  const draft = emptyDraft();
  new NamedFields({ zone, modified: AT }).read(fields, JSON.stringify(fields), draft);
  return draft;
}

describe('a record of named fields', () => {
  test.each([
    [{ time: '2026-11-24T10:41:58.123Z' }, AT],
    [{ '@timestamp': '2026-11-24T11:41:58.123+01:00' }, AT],
    [{ ts: AT / 1e6 }, AT],
    [{ Timestamp: AT / 1000 }, AT],
    [{ time_unix_nano: `${AT}000` }, AT],
    [{ zeitstempel: '24.11.2026 10:41:58,123' }, AT],
    [{ date: '2026-11-24', time: '10:41:58.123' }, AT],
  ])('has its time under any usual name: %j', (fields: Fields, at) => {
    const draft = read({ ...fields, msg: 'stored' });
    expect([draft.understood, draft.at, draft.message]).toEqual([true, at, 'stored']);
  });

  test('is in the zone of its source where it names none', () => {
    expect(read({ time: '2026-11-24 11:41:58.123', msg: 'x' }, 'Europe/Berlin').at).toBe(AT);
  });

  test('without a time is not understood, and kept as it stands', () => {
    const draft = read({ level: 'error', msg: 'stored', id: 7 });
    expect([draft.understood, draft.message, draft.fields]).toEqual([false, JSON.stringify({ level: 'error', msg: 'stored', id: 7 }), { id: 7 }]);
  });

  test('tells what is not one of its parts as fields, and never twice', () => {
    const { level, logger, message, fields } = read({ time: '2026-11-24T10:41:58Z', severity: 'WARN', logger: 'desk.Store', msg: 'stored', order: 'LX-1', attempt: 2, ok: true }); // prettier-ignore
    expect([LEVELS[level], logger, message, fields]).toEqual(['warning', 'desk.Store', 'stored', { order: 'LX-1', attempt: 2, ok: true }]);
  });

  test('a sentence is the message, a word under such a name stays a field', () => {
    const draft = read({ time: '2026-11-24T10:41:58Z', message: 'M4711', text: 'Order was stored' });
    expect([draft.message, draft.fields]).toEqual(['Order was stored', { message: 'M4711' }]);
    expect(read({ time: '2026-11-24T10:41:58Z', message: 'stored' }).message).toBe('stored');
  });

  test('a stack stands behind the message, and a time that is none stays a field', () => {
    const draft = read({ time: 'soon', ts: '2026-11-24T10:41:58Z', msg: 'failed', stack_trace: 'Error\n  at store' });
    expect([draft.message, draft.fields]).toEqual(['failed\nError\n  at store', { time: 'soon' }]);
  });

  test('every field is somewhere, whatever the fields are', () => {
    const names = fc.constantFrom('time', 'ts', 'level', 'severity', 'msg', 'message', 'logger', 'name', 'stack', 'order', 'took_ms', 'date', 'x');
    const values = fc.oneof(fc.constantFrom('2026-11-24T10:41:58Z', 'error', 'all is well', 'a\nb', '10:41:58', '2026-11-24', ''), fc.integer(), fc.boolean()); // prettier-ignore
    fc.assert(
      fc.property(fc.dictionary(names, values), (fields) => {
        const draft = read(fields);
        const told = `${draft.timeText} ${draft.logger} ${draft.message}`;
        for (const [name, value] of Object.entries(fields)) {
          const there = Object.hasOwn(draft.fields, name) ? draft.fields[name] === value : told.includes(String(value)) || told.includes(JSON.stringify(value)) || levelOfValue(value) === draft.level; // prettier-ignore
          expect([name, there]).toEqual([name, true]);
        }
        for (const name of Object.keys(draft.fields)) expect(Object.hasOwn(fields, name)).toBe(true);
      }),
    );
  });
});

test('levels in numbers are of one of two scales, those of syslog or in tens', () => {
  expect([10, 20, 30, 40, 50, 60].map((value) => LEVELS[levelOfValue(value)])).toEqual(['trace', 'debug', 'info', 'warning', 'error', 'fatal']);
  expect([levelOfValue(3), levelOfValue('3')]).toEqual([LEVELS.indexOf('error'), LEVELS.indexOf('error')]);
  expect([levelOfValue(99), levelOfValue(-1), levelOfValue(true), levelOfValue('nothing')]).toEqual([0, 0, 0, 0]);
});

test('component and host are names, not texts', () => {
  expect(namesOf({ 'service.name': 'relay', hostname: 'relay-1.lab' })).toEqual({ component: 'relay', host: 'relay-1.lab' });
  expect(namesOf({ 'service.name': 'two words', program: 'batch', host: 'a/b', node_name: 'n1' })).toEqual({ component: 'batch', host: 'n1' });
  expect(namesOf({ 'service.name': 7, host: 'x'.repeat(81) })).toEqual({ component: '', host: '' });
});
