import { expect, test } from '@jest/globals';
import { ladderOf, type TracedMessage } from './ladder.ts';
import { seen, taken } from './testing/messages.ts';

const REQUEST_OF_CALLER = [true, false, false, false, true, false, true];
/** As the edge saw it, towards the caller. */
const atEdge = (peer: string | null): TracedMessage[] =>
  seen(taken()).map((one, i) => ({
    ...one,
    place: 'edge',
    component: 'switch',
    host: 'tel-1',
    direction: REQUEST_OF_CALLER[i] ? 'in' : 'out',
    peer,
  }));

test('messages go between the place and the far end, by name and address', () => {
  const { parties, messages } = ladderOf(atEdge('198.51.100.7:5060'));
  expect(parties).toEqual([{ label: '+4930231250', detail: '198.51.100.7:5060' }, { label: 'switch', detail: 'tel-1' }]); // prettier-ignore
  expect(messages.map(({ from, to, label, method }) => [from, to, label, method])).toEqual([
    [0, 1, 'INVITE', 'INVITE'],
    [1, 0, '100 Trying', 'INVITE'],
    [1, 0, '180 Ringing', 'INVITE'],
    [1, 0, '200 OK', 'INVITE'],
    [0, 1, 'ACK', 'ACK'],
    [1, 0, 'BYE', 'BYE'],
    [0, 1, '200 OK', 'BYE'],
  ]);
  expect(messages[0]!.media).toBe('audio PCMU, PCMA at 192.0.2.101:49172');
});
test('without addresses an answer goes back the way its request came', () => {
  const { parties, messages } = ladderOf(atEdge(null));
  expect(messages.slice(0, 5).map(({ from, to }) => [from, to])).toEqual([[0, 1], [1, 0], [1, 0], [1, 0], [0, 1]]); // prettier-ignore
  expect(parties[0]!.label).toBe('+4930231250');
});
test('what two places saw is one arrow between them, with how long it took', () => {
  const both = seen(taken().flatMap(([ms, message]): [number, string, string][] => [[ms, message, 'edge'], [ms + 4, message, 'desk']])).map((one, i): TracedMessage => {
    const byCaller = [0, 4].includes(i >> 1) || i >> 1 === 6;
    const edge = one.place === 'edge';
    return { ...one, component: one.place, host: `${one.place}-1`, direction: edge === byCaller ? 'out' : 'in', peer: null };
  }); // prettier-ignore
  const { parties, messages } = ladderOf(both);
  expect(parties.map(({ label }) => label)).toEqual(['edge', 'desk']);
  expect(messages).toHaveLength(7);
  expect(messages.slice(0, 4).map(({ from, to, under, records }) => [from, to, under, records.length])).toEqual([[0, 1, 4000, 2], [1, 0, -4000, 2], [1, 0, -4000, 2], [1, 0, -4000, 2]]); // prettier-ignore
});
