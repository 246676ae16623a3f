import { describe, expect, test } from '@jest/globals';
import { callOf } from '../calls/of-records.ts';
import { sdp, taken } from '../calls/testing/messages.ts';
import type { StrandRecord } from '../path/types.ts';
import { Usual } from '../usual/index-of.ts';
import { learnUsual } from '../usual/learn.ts';
import { lessons, said } from '../usual/testing/legs.ts';
import type { Verdict } from './types.ts';
import { withCall } from './with-call.ts';

const call = (address: string, direction = ''): StrandRecord[] =>
  taken([], {}, sdp(address, '0', direction)).map(([ms, message]) => said(ms, 'switch', message));
const NEAR = '10.4.5.6';
const FAR = '192.0.2.201';
const done: Verdict = { outcome: 'done', findings: [] };
const usualOf = (...addresses: string[]): Usual => new Usual(learnUsual('call', lessons(addresses.map((address) => call(address))))!);
const judged = (records: StrandRecord[], usual: Usual | null): Verdict => withCall(done, records, callOf(records)!, 1e12, usual);
const many = (count: number, address: string): string[] => Array.from({ length: count }, () => address);

describe('addresses that look as if one side could not be heard', () => {
  test('are odd where hardly any good call has such', () => {
    expect(judged(call(NEAR), usualOf(...many(60, FAR), NEAR))).toMatchObject({ outcome: 'odd', findings: [{ kind: 'went-astray' }] });
  });
  test('mean nothing where good calls have them too: something between carries the media', () => {
    expect(judged(call(NEAR), usualOf(...many(30, FAR), ...many(30, NEAR)))).toEqual(done);
    expect(judged(call(NEAR), usualOf(...many(60, NEAR)))).toEqual(done);
  });
  test('are told, and nothing comes of them, where nobody knows how calls are', () => {
    expect(judged(call(NEAR), null)).toMatchObject({ outcome: 'done', findings: [{ kind: 'went-astray' }] });
  });
  test('what a side says itself is odd anyway', () => {
    expect(judged(call(FAR, 'recvonly'), null)).toMatchObject({ outcome: 'odd' });
    expect(judged(call(FAR, 'recvonly'), usualOf(...many(60, NEAR)))).toMatchObject({ outcome: 'odd' });
  });
});
