import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { partsOfMessage } from './parts.ts';
import type { Part } from './types.ts';

const parts = (...lines: string[]): Part[] => partsOfMessage(lines.join('\n')).filter((part) => part.kind !== 'text');
const only = <K extends Part['kind']>(kind: K, ...lines: string[]): Part & { kind: K } => {
  const found = parts(...lines);
  expect(found.map((part) => part.kind)).toEqual([kind]);
  return found[0] as Part & { kind: K };
};
const kinds = (message: string): string[] => partsOfMessage(message).map((part) => part.kind);

describe('headers', () => {
  test('of an answer, with its first line, and a value that goes on', () =>
    expect(only('headers', 'HTTP/1.1 502 Bad Gateway', 'Server: edge', 'X-Request: 7f', ' 3a', '').rows).toEqual([
      { name: '', value: 'HTTP/1.1 502 Bad Gateway' },
      { name: 'Server', value: 'edge' },
      { name: 'X-Request', value: '7f 3a' },
    ]));
  test('of a call, with the session that it describes', () => {
    const [headers, sdp] = parts('INVITE sip:300@works.example SIP/2.0', 'Via: SIP/2.0/UDP 192.0.2.20', 'Call-ID: a84b4c', 'Content-Type: application/sdp', '', 'v=0', 'o=- 3990 1 IN IP4 192.0.2.20', 's=-', 'm=audio 20100 RTP/AVP 8 0 101'); // prettier-ignore
    expect(headers).toMatchObject({ kind: 'headers', rows: [{ name: '' }, { name: 'Via' }, { name: 'Call-ID', value: 'a84b4c' }, {}] });
    expect(sdp).toMatchObject({ kind: 'sdp', rows: [{ name: 'v' }, { name: 'o' }, { name: 's' }, { name: 'm', value: 'audio 20100 RTP/AVP 8 0 101', means: 'media' }] }); // prettier-ignore
  });
  test.each(['Note: the order is late\nWarned: nobody', 'a: 1', 'it said: this\nand then: that', 'v=0\nx'])('are none of %j', (message) => expect(kinds(message)).not.toContain('headers')); // prettier-ignore
});

describe('pairs, tables', () => {
  test('a line of pairs', () =>
    expect(only('pairs', 'ref=PR7 state=timeout took=812ms note="not \\"now\\""').rows).toEqual([
      { name: 'ref', value: 'PR7' },
      { name: 'state', value: 'timeout' },
      { name: 'took', value: '812ms' },
      { name: 'note', value: 'not "now"' },
    ]));
  test('a line that says more than pairs is text', () =>
    expect(kinds('the order of that shop was put aside since its state=held, as the clerk a=1 b=2 wrote by hand')).toEqual(['text']));
  test('by tabs, with a head over numbers', () =>
    expect(only('table', 'part\trows\tms', 'read\t118\t4', 'wrote\t0\t1', 'closed\t0\t')).toMatchObject({
      head: ['part', 'rows', 'ms'],
      rows: [['read', '118', '4'], ['wrote', '0', '1'], ['closed', '0', '']],
    })); // prettier-ignore
  test('by bars, with a rule', () =>
    expect(only('table', ' shop | state', '------+-------', ' 0417 | open', ' 0418 | shut')).toMatchObject({
      head: ['shop', 'state'],
      rows: [['0417', 'open'], ['0418', 'shut']],
    })); // prettier-ignore
  test('two lines are none', () => expect(kinds('a\tb\nc\td')).toEqual(['text']));
});

describe('plans and statements', () => {
  const PLAN = [
    'Sort  (cost=110.50..112.10 rows=640 width=52) (actual time=9.000..9.200 rows=12 loops=1)',
    '  Sort Key: o.placed',
    '  ->  Nested Loop  (cost=0.30..80.70 rows=640 width=52) (actual time=0.020..8.500 rows=12 loops=1)',
    '        ->  Seq Scan on orders o  (cost=0.00..21.00 rows=100 width=40) (actual time=0.010..1.500 rows=100 loops=1)',
    "              Filter: (shop = '0417'::text)",
    '        ->  Index Scan using stock_pkey on stock s  (cost=0.30..0.59 rows=6 width=12) (actual time=0.050..0.060 rows=0 loops=100)',
    'Execution Time: 9.4 ms',
  ];
  test('a plan tells what each node took by itself, in all its loops', () => {
    const { nodes } = only('plan', ...PLAN);
    expect(nodes.map(({ depth, what, totalMs, ownMs, details }) => [depth, what, totalMs, Math.round(ownMs! * 10) / 10, details])).toEqual([
      [0, 'Sort', 9.2, 0.7, ['Sort Key: o.placed']],
      [1, 'Nested Loop', 8.5, 1, []],
      [2, 'Seq Scan on orders o', 1.5, 1.5, ["Filter: (shop = '0417'::text)"]],
      [2, 'Index Scan using stock_pkey on stock s', 6, 6, []],
    ]);
    expect(nodes[3]).toMatchObject({ rows: 6, actualRows: 0, loops: 100 });
  });
  test('one that was not run has estimates alone', () =>
    expect(only('plan', 'Seq Scan on stock  (cost=0.00..21.00 rows=1100 width=40)').nodes).toMatchObject([
      { rows: 1100, totalMs: null, ownMs: null },
    ]));
  test('a statement with its parameters, and the plan behind it', () => {
    const [sql, plan] = parts("duration: 9.4 ms  plan:", "Query Text: select * from orders o where shop = $1 and state <> $2", ...PLAN); // prettier-ignore
    expect([sql!.kind, plan!.kind]).toEqual(['sql', 'plan']);
    const told = only('sql', "execute <unnamed>: UPDATE stock SET count = count - $1 WHERE item = $2", "DETAIL: parameters: $1 = '2', $2 = 'O''Hara, 4', $3 = NULL"); // prettier-ignore
    expect(told).toMatchObject({
      statement: 'UPDATE stock SET count = count - $1 WHERE item = $2',
      parameters: [{ name: '$1', value: '2' }, { name: '$2', value: "O'Hara, 4" }, { name: '$3', value: 'NULL' }],
    }); // prettier-ignore
  });
  test.each(['select a frame from the list', 'Update of the price list set aside', 'with great care as always (said the clerk)', 'deleted from the basket'])('prose is no statement: %s', (message) => expect(kinds(message)).toEqual(['text'])); // prettier-ignore
});

test('the parts of any text cover it, in order', () => {
  const line = fc.constantFrom('a: 1', 'X-A: b', 'v=0', 'o=1', 's=-', 'a\tb', 'a | b', '---+---', 'x=1 y=2 z=3', 'Sort  (cost=1.0..2.0 rows=3 width=4)', '  ->  Seq Scan on t  (cost=1.0..2.0 rows=3 width=4)', 'select a from b where c = 1', '{"a":1,"b":2}', '', ' \t '); // prettier-ignore
  fc.assert(
    fc.property(fc.array(fc.oneof(line, fc.string({ maxLength: 30 })), { maxLength: 30 }), (lines) => {
      const message = lines.join('\n');
      let at = 0;
      for (const { from, to } of partsOfMessage(message)) {
        expect(from).toBe(at);
        expect(to).toBeGreaterThanOrEqual(from);
        at = to;
      }
      expect(at).toBe(message.length);
    }),
  );
});
