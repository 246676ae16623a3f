import { describe, expect, test } from '@jest/globals';
import { amissOf } from './amiss.ts';
import { callFacts } from './facts.ts';
import { ALICE, BOB, sdp, seen, taken, text, turnedAway, type Talk } from './testing/messages.ts';

const facts = (told: [number, string, string?][]) => callFacts(seen(told))!;
const BOTH: Talk = { toTag: '8321234356' };
const change = (at: number, status: string, direction = '', number = 2): [number, string][] => [
  [at, text('INVITE sip:bob@client.biloxi.example.com SIP/2.0', `${number} INVITE`, { ...BOTH, via: `client.atlanta.example.com:5060;branch=z9hG4bK${number}` }, [], sdp('192.0.2.101', '0', direction))],
  [at + 30, text(`SIP/2.0 ${status}`, `${number} INVITE`, { ...BOTH, via: `client.atlanta.example.com:5060;branch=z9hG4bK${number}` }, [], status.startsWith('2') ? sdp('192.0.2.201', '0') : '')],
]; // prettier-ignore

describe('a call that was taken', () => {
  test('who, how long until what, who hung up and why', () => {
    expect(facts(taken())).toMatchObject({
      state: 'ended',
      caller: { name: '+4930231250', display: 'Alice', device: 'DeskPhone 7.1' },
      called: { name: '+493098765', written: '+493098765', display: 'Bob', device: 'Switch 3' },
      final: '+493098765',
      postDial: 1_200_000,
      ringing: 3_000_000,
      setUp: 4_200_000,
      talking: 60_000_000,
      status: 200,
      endedBy: 'called',
      reason: { protocol: 'Q.850', code: 16, text: 'Normal call clearing' },
      offered: ['PCMU', 'PCMA'],
      agreed: ['PCMU'],
      repeated: { invite: 0, answer: 0, other: 0 },
    });
    expect(amissOf(facts(taken()))).toEqual([]);
  });
  test('goes on where nobody has hung up, and rings where nobody has taken it', () => {
    expect(facts(taken().slice(0, 5))).toMatchObject({ state: 'talking', talking: null, endedAt: null, endedBy: null });
    expect(facts(taken().slice(0, 3))).toMatchObject({ state: 'ringing', status: null, ringing: null, postDial: 1_200_000 });
    expect(facts(taken().slice(0, 2))).toMatchObject({ state: 'asked', postDial: null });
  });
  test('messages that come again are counted by what they are, and change nothing else', () => {
    const told = taken();
    const again: [number, string][] = [told[0]!, [500, told[0]![1]], [700, told[0]![1]], ...told.slice(1, 4), [4205, told[3]![1]], ...told.slice(4)];
    expect(facts(again)).toMatchObject({ repeated: { invite: 2, answer: 1, other: 0 }, postDial: 1_200_000, talking: 60_000_000 });
    expect(amissOf(facts(again)).map((one) => [one.trouble, one.outcome])).toEqual([['sent-again', null]]);
  });
  test('two places that saw it tell one call, not one sent twice', () => {
    const told = taken().flatMap(([ms, message]): [number, string, string][] => [[ms, message, 'edge'], [ms + 3, message, 'desk']]); // prettier-ignore
    expect(facts(told)).toMatchObject({ repeated: { invite: 0, answer: 0, other: 0 }, postDial: 1_200_000, talking: 60_000_000 });
  });
  test('who has to say who he is asks again: the call is one, from the first', () => {
    const asked: [number, string][] = [
      [-200, text('INVITE sip:+493098765@biloxi.example.com SIP/2.0', '0 INVITE', { via: 'client.atlanta.example.com:5060;branch=z9hG4bKa' }, [], sdp('192.0.2.101'))], // prettier-ignore
      [-180, text('SIP/2.0 407 Proxy Authentication Required', '0 INVITE', { via: 'client.atlanta.example.com:5060;branch=z9hG4bKa', toTag: '1' })],
      ...taken(),
    ];
    expect(facts(asked)).toMatchObject({ status: 200, challenges: 1, postDial: 1_400_000, talking: 60_000_000 });
  });
  test('a hold is counted, and is no fault; a change that is refused, after which it ends, is one', () => {
    const held = facts(taken([...change(20_000, '200 OK', 'sendonly'), ...change(30_000, '200 OK', '', 3)]));
    expect([held.holds, amissOf(held)]).toEqual([1, []]);
    const refused = facts(taken(change(60_000, '488 Not Acceptable Here')));
    expect(refused.refusedChanges).toMatchObject([{ status: 488, by: 'called' }]);
    expect(amissOf(refused)[0]).toMatchObject({ trouble: 'dropped-after-change', outcome: 'failed', time: 4_180_000 });
    // refused long before, and talked on
    expect(amissOf(facts(taken(change(10_000, '488 Not Acceptable Here'))))).toEqual([]);
  });
  test('handed on: to whom, by whom, and whether it was taken there', () => {
    const refer = (status: string): [number, string][] => [
      [50_000, text('REFER sip:alice@client.atlanta.example.com SIP/2.0', '5 REFER', { from: BOB, to: ALICE, fromTag: '8321234356', toTag: '9fxced76sl' }, ['Refer-To: <sip:030-231-25-140@biloxi.example.com>'])],
      [50_010, text('SIP/2.0 202 Accepted', '5 REFER', { from: BOB, to: ALICE, fromTag: '8321234356', toTag: '9fxced76sl' })],
      [52_000, text('NOTIFY sip:bob@client.biloxi.example.com SIP/2.0', '6 NOTIFY', BOTH, ['Event: refer'], `SIP/2.0 ${status}`)],
    ]; // prettier-ignore
    expect(facts(taken(refer('200 OK'))).transfers).toMatchObject([{ by: 'called', to: '+493023125140', taken: true, status: 200 }]);
    expect(facts(taken(refer('200 OK'))).final).toBe('+493023125140');
    const failed = facts(taken(refer('486 Busy Here')));
    expect(failed.transfers).toMatchObject([{ taken: false, status: 486 }]);
    expect(amissOf(failed)[0]).toMatchObject({ trouble: 'dropped-after-transfer', outcome: 'failed' });
  });
});

describe('a call that was not put through', () => {
  test.each([
    ['486 Busy Here', 'busy', 'refused'],
    ['600 Busy Everywhere', 'busy', 'refused'],
    ['480 Temporarily Unavailable', 'no-answer', 'refused'],
    ['603 Decline', 'refused', 'refused'],
    ['403 Forbidden', 'refused', 'refused'],
    ['488 Not Acceptable Here', 'no-common-codec', 'failed'],
    ['408 Request Timeout', 'timed-out', 'failed'],
    ['407 Proxy Authentication Required', 'who-again', 'failed'],
    ['503 Service Unavailable', 'broken', 'failed'],
    ['404 Not Found', 'refused', 'refused'],
  ])('%s', (status, trouble, outcome) => {
    const own = facts(turnedAway(status));
    expect(own).toMatchObject({ state: 'refused', endedBy: 'called', talking: null, ringing: 8_500_000, setUp: 9_000_000 });
    expect(amissOf(own)).toMatchObject([{ trouble, outcome }]);
  });
  test('given up by the caller: the answer to the CANCEL is not the call’s', () => {
    const told = turnedAway('487 Request Terminated');
    const cancelled: [number, string][] = [
      ...told.slice(0, 3),
      [8900, text('CANCEL sip:+493098765@biloxi.example.com SIP/2.0', '1 CANCEL', {}, ['Reason: SIP;cause=487;text="gave up"'])],
      [8910, text('SIP/2.0 200 OK', '1 CANCEL')],
      ...told.slice(3),
    ];
    expect(facts(cancelled)).toMatchObject({ state: 'given-up', status: 487, endedBy: 'caller', reason: { protocol: 'SIP', code: 487 } });
    expect(amissOf(facts(cancelled))).toMatchObject([{ trouble: 'given-up', outcome: 'refused', time: 8_500_000 }]);
  });
  test('given up, though the CANCEL was not seen', () => {
    expect(facts(turnedAway('487 Request Terminated'))).toMatchObject({ state: 'given-up', endedBy: 'caller' });
  });
  test('hung up before it was taken, it was not put through', () => {
    const told = turnedAway('487 Request Terminated');
    const early: [number, string][] = [
      ...told.slice(0, 3),
      [8900, text('BYE sip:bob@biloxi.example.com SIP/2.0', '2 BYE', { toTag: '314159' })],
      ...told.slice(3),
    ];
    expect(facts(early)).toMatchObject({ state: 'given-up', status: 487, endedBy: 'caller', talking: null });
    expect(amissOf(facts(early))).toMatchObject([{ trouble: 'given-up', outcome: 'refused' }]);
  });
  test('nobody answers, however often it is asked', () => {
    const [first] = taken();
    const told: [number, string][] = [0, 500, 1500, 3500, 7500].map((ms) => [ms, first![1]]);
    expect(amissOf(facts(told))).toMatchObject([
      { trouble: 'timed-out', outcome: 'failed', words: '+493098765 said nothing, though it was asked 5 times.' },
    ]);
    expect(amissOf(facts(told.slice(0, 1)))).toMatchObject([
      { trouble: 'timed-out', words: '+493098765 was asked, and neither an answer nor an end came.' },
    ]);
  });
});

describe('one side may hear nothing', () => {
  test.each([
    ['an address that the other cannot reach', sdp('10.4.5.6', '0'), ['one-way']],
    ['a direction that was not asked for', sdp('192.0.2.201', '0', 'recvonly'), ['one-way']],
    ['media that is turned off', sdp('192.0.2.201', '0', '', 0), ['one-way']],
    ['both can be reached', sdp('192.0.2.201', '0'), []],
  ])('%s', (_name, answer, troubles) => expect(amissOf(facts(taken([], {}, answer))).map((one) => one.trouble)).toEqual(troubles));
});

test('cut with a cause by which something is broken', () => {
  const told = taken().map(([ms, message]): [number, string] => [
    ms,
    message.replace('cause=16;text="Normal call clearing"', 'cause=41;text="Temporary failure"'),
  ]);
  expect(amissOf(facts(told))).toMatchObject([{ trouble: 'cut', outcome: 'failed', time: 60_000_000 }]);
});
test('what has no request has no facts', () => {
  expect(callFacts([])).toBeNull();
  expect(callFacts(seen([[0, text('SIP/2.0 200 OK', '1 INVITE')]]))).toBeNull();
});
