import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { changesBefore, likelierSince } from './before.ts';
import { changesOf, statesAt } from './derive.ts';
import { signOf } from './sign.ts';
import type { SignSpan } from './types.ts';
import { changeWords } from './words.ts';

const MINUTE = 60_000_000;
const KNOWN = { components: ['lens-calc', 'order-desk', 'rx-check', 'systemd', 'relay'], hosts: ['app-1', 'app-2'] };
let number = 0;
/** A sign from a line, at a minute. */
function line(minute: number, component: string, text: string, host = 'app-1'): SignSpan {
  const sign = signOf(text, {});
  if (!sign) throw new Error(`no sign: ${text}`);
  const first = minute * MINUTE;
  return { ...sign, component, host, text, first, last: first, count: 1, record: `${first}-${number++}` };
}
const version = (from: number, to: number, value: string, host = 'app-1'): SignSpan => ({
  kind: 'version',
  subject: '',
  before: '',
  after: value,
  component: 'lens-calc',
  host,
  text: `version ${value}`,
  first: from * MINUTE,
  last: to * MINUTE,
  count: 40,
  record: `${from}-${number++}`,
});
const told = (spans: SignSpan[], hours = 24): string[] => changesOf(spans, KNOWN, hours).map((one) => `${one.at / MINUTE} ${changeWords(one)}`);

describe('what changed', () => {
  test('a stop and a start with another version is one change', () => {
    const spans = [
      line(0, 'lens-calc', 'lens-calc 4.11.0 started, 6 workers'),
      line(739, 'lens-calc', 'lens-calc 4.11.0 stopping, queue left to the next'),
      line(740, 'lens-calc', 'lens-calc 4.12.0 started, 6 workers'),
    ];
    expect(told(spans)).toEqual(['0 lens-calc started in version 4.11.0', '740 lens-calc is version 4.12.0 instead of 4.11.0']);
    const changes = changesOf(spans, KNOWN, 24);
    expect(statesAt(changes, 700 * MINUTE)).toMatchObject([
      { component: 'lens-calc', subject: 'running', value: 'yes', since: 0 },
      { component: 'lens-calc', subject: 'version', value: '4.11.0', since: 0 },
    ]);
    expect(statesAt(changes, 740 * MINUTE)).toMatchObject([
      { subject: 'running', value: 'yes', since: 740 * MINUTE },
      { subject: 'version', value: '4.12.0', since: 740 * MINUTE },
    ]);
    expect(statesAt(changes, -1)).toEqual([]);
  });

  test('a restart says how long it was away, and its lines are told once', () => {
    const database = (minute: number, text: string): SignSpan => line(minute, 'labdb', text);
    expect(
      told([
        database(10, 'database system is shut down'),
        { ...database(14, 'starting PostgreSQL 15.8 (Debian) on x86_64'), component: 'labdb' },
        { ...database(14.1, 'database system is ready to accept connections'), component: 'labdb' },
      ]),
    ).toEqual(['14 labdb restarted in version 15.8 of PostgreSQL, away for 4 min']);
  });

  test('a setting knows what it was before, from its record or from the last one', () => {
    const spans = [
      line(5, 'rx-check', 'parameter "depth" changed to "3"'),
      line(9, 'rx-check', 'parameter "depth" changed to "4"'),
      line(10, 'rx-check', 'parameter "depth" changed to "4"'),
      line(12, 'rx-check', 'setting material 1.74/70 changed from allowed to blocked'),
    ];
    expect(told(spans)).toEqual([
      '5 rx-check: depth changed to 3',
      '9 rx-check: depth changed from 3 to 4',
      '12 rx-check: material 1.74/70 changed from allowed to blocked',
    ]);
    expect(statesAt(changesOf(spans, KNOWN, 24), 11 * MINUTE)).toMatchObject([{ component: 'rx-check', subject: 'depth', value: '4' }]);
  });

  test('a version that records state changes for good, not while two run side by side', () => {
    expect(told([version(0, 59, '1.0'), version(60, 90, '1.1')])).toEqual(['60 lens-calc is version 1.1 instead of 1.0']);
    expect(told([version(0, 59, '1.0'), version(30, 90, '1.1'), version(60, 95, '1.0')])).toEqual([]);
    expect(told([version(0, 90, '1.0', 'app-1'), version(0, 40, '1.0', 'app-2'), version(41, 90, '1.1', 'app-2')])).toEqual([
      '41 lens-calc is version 1.1 instead of 1.0',
    ]);
  });

  test('what comes up all day is routine', () => {
    const pool = Array.from({ length: 20 }, (_, i) => line(i * 60, 'relay', `relay worker ${i} started`));
    expect(told(pool)).toEqual([]);
    expect(told(pool.slice(0, 5)).length).toBeGreaterThan(0);
    // a service that comes up again and again for a while is news
    const loop = Array.from({ length: 30 }, (_, i) => line(600 + i, 'relay', `relay worker ${i} started`));
    expect(told(loop).length).toBeGreaterThan(0);
  });

  test('a start or stop of nothing that is known is none', () => {
    expect(told([line(1, 'relay', 'transfer 7 started')])).toEqual([]);
    expect(told([line(1, 'relay', 'asking app-2 to shut down')])).toEqual(['1 relay: “asking app-2 to shut down”']);
    expect(statesAt(changesOf([line(1, 'relay', 'asking app-2 to shut down')], KNOWN, 24), 9 * MINUTE)).toEqual([]);
  });

  test('the order in which signs come in changes nothing', () => {
    const spans = [
      line(0, 'lens-calc', 'lens-calc 4.11.0 started, 6 workers'),
      line(7, 'lens-calc', 'lens-calc 4.11.0 stopping'),
      line(8, 'lens-calc', 'lens-calc 4.12.0 started, 6 workers'),
      line(9, 'rx-check', 'parameter "depth" changed to "4"'),
      line(12, 'rx-check', 'parameter "depth" changed to "5"'),
      version(20, 30, '2.0', 'app-2'),
      version(31, 40, '2.1', 'app-2'),
    ];
    const expected = told(spans);
    fc.assert(fc.property(fc.shuffledSubarray(spans, { minLength: spans.length }), (shuffled) => expect(told(shuffled)).toEqual(expected)));
  });
});

describe('whether a fault began with a change', () => {
  const changes = changesOf(
    [
      line(100, 'lens-calc', 'lens-calc 4.11.0 started'),
      line(740, 'lens-calc', 'lens-calc 4.12.0 started'),
      line(745, 'order-desk', 'order-desk 7.3.1 started, 41 routes'),
      line(750, 'systemd', 'Started order-desk.service', 'app-2'),
    ],
    KNOWN,
    24,
  );

  test('the latest before it come first, of what it touches alone', () => {
    const before = (minute: number, components: string[], hosts: string[] = []): number[] =>
      changesBefore(changes, minute * MINUTE, components, hosts, 3).map((one) => one.at / MINUTE);
    expect(before(800, ['lens-calc'])).toEqual([740, 100]);
    expect(before(700, ['lens-calc'])).toEqual([100]);
    expect(before(800, ['relay'])).toEqual([]);
    // systemd names the service, and thereby the host on which it runs
    expect(before(800, ['order-desk'])).toEqual([750, 745]);
    const power = line(720, 'upsmon', 'battery low, asking app-2 to shut down', 'job-1');
    const all = changesOf([power, line(750, 'systemd', 'Started order-desk.service', 'app-2')], KNOWN, 24);
    expect(changesBefore(all, 730 * MINUTE, ['order-desk'], [], 3).map((one) => one.text)).toEqual([power.text]);
    expect(before(50, ['lens-calc'])).toEqual([]);
  });

  test('much likelier since, and beyond chance', () => {
    const since = likelierSince({ before: { faulty: 0, all: 500 }, since: { faulty: 12, all: 60 } })!;
    expect(since.factor).toBeGreaterThan(50);
    expect(since.sure).toBe(true);
    expect(likelierSince({ before: { faulty: 9, all: 500 }, since: { faulty: 1, all: 60 } })!.sure).toBe(false);
    expect(likelierSince({ before: { faulty: 0, all: 0 }, since: { faulty: 1, all: 60 } })).toBeNull();
  });

  test('never less sure for more faults since', () => {
    fc.assert(
      fc.property(fc.nat(400), fc.nat(30), fc.nat(30), (all, faulty, more) => {
        const of = (count: number): number => likelierSince({ before: { faulty: 2, all: 400 }, since: { faulty: count, all: all + 60 } })!.factor;
        expect(of(faulty + more)).toBeGreaterThanOrEqual(of(faulty));
      }),
    );
  });
});
