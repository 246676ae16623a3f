import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { dialogTies, type KnownDialog } from './dialog-ties.ts';
import { dialogsOf } from './dialogs.ts';
import { ALICE, seen, taken, text } from './testing/messages.ts';

const SECOND = 1_000_000;
const dialog = (key: number, more: Partial<KnownDialog> = {}): KnownDialog => ({
  key,
  callId: `call-${key}@desk.example`,
  at: key * 1000,
  until: 60 * SECOND,
  places: [`place ${key}`],
  sender: `192.0.2.${key}:5060`,
  caller: '+4930231251',
  called: '+4930231252',
  status: 200,
  ringing: 3 * SECOND,
  talking: 40 * SECOND,
  sessions: [],
  names: [],
  ...more,
});
const told = (...dialogs: KnownDialog[]): string[] => dialogTies(dialogs, []).map(({ a, b, how }) => `${a} ${b} ${how}`);

describe('dialogs of a strand', () => {
  test('each by itself, with what its headers say of others', () => {
    const other = { callId: 'b2@agent.example', from: ALICE, via: 'agent.example:5060;branch=z9hG4bKx' };
    const [one, two] = dialogsOf(
      seen([
        ...taken(),
        ...taken([], other),
        [70_000, text('INVITE sip:carol@x.example SIP/2.0', '1 INVITE', { callId: 'c3@agent.example' }, ['Replaces: b2@agent.example;to-tag=1;from-tag=2', 'Session-ID: AB30317f1a784dc48ff824d0d3715d86;remote=00000000000000000000000000000000'])], // prettier-ignore
      ] as [number, string][]),
    );
    expect(one).toMatchObject({ callId: '3848276298220188511@atlanta.example.com', caller: '+4930231250', called: '+493098765', status: 200, ringing: 3 * SECOND, talking: 60 * SECOND, places: ['proxy'], sender: 'client.atlanta.example.com:5060' }); // prettier-ignore
    expect(two).toMatchObject({ callId: 'b2@agent.example', names: [] });
    const third = dialogsOf(seen([[0, text('INVITE sip:carol@x.example SIP/2.0', '1 INVITE', { callId: 'c3@agent.example' }, ['Replaces: b2@agent.example;to-tag=1', 'Session-ID: AB30317f1a784dc48ff824d0d3715d86;remote=00000000000000000000000000000000', 'X-First: z9@desk.example'])]])); // prettier-ignore
    expect(third).toMatchObject([{ status: null, sessions: ['ab30317f1a784dc48ff824d0d3715d86'] }]);
    expect(third[0]!.names).toEqual(expect.arrayContaining(['b2@agent.example', 'z9@desk.example']));
  });
  test('whom a call is handed on to names the dialog that it takes the place of', () => {
    const refer = text('REFER sip:bob@x.example SIP/2.0', '2 REFER', {}, ['Refer-To: <sip:carol@x.example?Replaces=c3%40desk.example%3Bto-tag%3D1>']);
    expect(dialogsOf(seen([...taken(), [50_000, refer]]))[0]!.names).toEqual(['c3@desk.example']);
    const broken = refer.replace('c3%40', 'c3%4g');
    expect(dialogsOf(seen([...taken(), [50_000, broken]]))[0]!.names).toEqual([]);
  });
});

describe('dialogs of one call', () => {
  test('by a session identifier, a header, records, or numbers and time, the surest way', () => {
    expect(told(dialog(1, { sessions: ['s'] }), dialog(2, { sessions: ['t', 's'], caller: 'x', called: 'y' }))).toEqual(['1 2 session']);
    expect(told(dialog(1), dialog(2, { names: ['call-1@desk.example'], caller: 'x', called: 'y' }))).toEqual(['1 2 header']);
    expect(told(dialog(1), dialog(2))).toEqual(['1 2 numbers']);
    expect(dialogTies([dialog(1, { ringing: 1 }), dialog(2)], [[1, 2]])).toEqual([{ a: 1, b: 2, how: 'records', sure: 0.95 }]);
  });
  test('records that name calls of other people, or of another time, or many, tie none', () => {
    const strange = dialog(2, { caller: 'x', called: 'y' });
    expect(dialogTies([dialog(1), strange], [[1, 2]])).toEqual([]);
    expect(dialogTies([dialog(1), dialog(2, { at: 90 * SECOND, until: 99 * SECOND })], [[1, 2]])).toEqual([]);
    const many = [1, 2, 3, 4, 5, 6].map((key) => dialog(key, { ringing: key * SECOND }));
    expect(dialogTies(many, many.slice(1).map(({ key }) => [1, key] as const))).toEqual([]); // prettier-ignore
  });
  test('numbers and time count where exactly one fits', () => {
    // somebody who is busy is rung again at once: two calls on either side
    const busy = { status: 486, ringing: SECOND / 2, talking: null };
    const far = { places: ['far'] };
    expect(told(dialog(1, busy), dialog(2, { ...busy, places: ['place 1'], at: 3 * SECOND }), dialog(3, { ...busy, ...far }), dialog(4, { ...busy, ...far, at: 3 * SECOND }))).toEqual([]); // prettier-ignore
    expect(told(dialog(1), dialog(2, { talking: 39 * SECOND }))).toEqual([]);
    expect(told(dialog(1), dialog(2, { status: 486 }))).toEqual([]);
    expect(told(dialog(1), dialog(2, { at: 12 * SECOND }))).toEqual([]);
    expect(told(dialog(1, { caller: 'anonymous' }), dialog(2, { caller: 'anonymous', called: 'z' }))).toEqual([]);
  });
  test('one who rings again after the first try is over makes two calls, where one place sees both', () => {
    const short = { places: ['edge'], status: 486, ringing: SECOND / 2, talking: null };
    expect(told(dialog(1, { ...short, until: SECOND }), dialog(2, { ...short, at: 3 * SECOND }))).toEqual([]);
    expect(told(dialog(1, { ...short, until: SECOND }), dialog(2, { ...short, at: SECOND / 100 }))).toEqual(['1 2 numbers']);
  });
  test('what one device sent twice are two calls', () => {
    const twice = { status: 404, ringing: null, talking: null, sender: '192.0.2.7:5060' };
    expect(told(dialog(1, twice), dialog(2, twice))).toEqual([]);
    expect(told(dialog(1, twice), dialog(2, { ...twice, sender: '192.0.2.8' }))).toEqual(['1 2 numbers']);
  });
  test('one number alone is enough for a call that was taken, and less sure', () => {
    expect(dialogTies([dialog(1), dialog(2, { caller: 'trunk' })], [])).toEqual([{ a: 1, b: 2, how: 'numbers', sure: 0.8 }]);
    expect(told(dialog(1, { talking: null, status: 404 }), dialog(2, { talking: null, status: 404, caller: 'trunk' }))).toEqual([]);
    expect(told(dialog(1), dialog(2, { caller: 'trunk', talking: 40.2 * SECOND }))).toEqual([]);
  });
  test('whatever the order in which they come, the same', () => {
    const some = [dialog(1), dialog(2), dialog(7, { at: 0, called: 'q' }), dialog(8, { called: 'q', talking: 5 }), dialog(9, { sessions: ['a'] }), dialog(10, { sessions: ['a'] })]; // prettier-ignore
    const right = dialogTies(some, [[1, 7]]);
    fc.assert(
      fc.property(fc.shuffledSubarray(some, { minLength: some.length }), (mixed) => expect(dialogTies(mixed, [[1, 7]])).toEqual(right)),
      { numRuns: 40 },
    );
  });
});
