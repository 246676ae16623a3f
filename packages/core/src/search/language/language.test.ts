import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compileSearch, type Searchable } from './evaluate.ts';
import { parseSearch } from './parse.ts';
import { piecesOf, printSearch, withoutPiece, withValue } from './print.ts';
import type { Condition, Search } from './tree.ts';

const RECORD: Searchable = {
  at: Date.UTC(2026, 10, 24, 9, 42, 7) * 1000,
  level: 5,
  component: 'blank-store',
  host: 'app-3',
  environment: 'production',
  source: 'blank-store/blank-store.jsonl',
  logger: 'o.b.Reserve',
  message: "Reserve failed, canceling statement due to lock timeout, it's 100 %",
  shape: "Reserve failed, canceling statement due to lock timeout, it's ‹› %",
  took: 8_007_000,
  fields: { sqlstate: '55P03', 'order.number': 'LX-204817', rows: 118, ok: false },
  identifiers: [{ kind: 'order', value: 'LX-204817' }, { kind: 'phone', value: '+493023125417' }], // prettier-ignore
  flow: 'lens-order',
  outcome: 'failed',
  fault: '',
  weight: 0,
};
const matches = (text: string, record: Searchable = RECORD): boolean => {
  const { search, problem } = parseSearch(text);
  if (problem) throw new Error(`${text}: ${problem.message} at ${problem.from}`);
  return compileSearch(search)(record);
};

describe('the search language', () => {
  test.each([
    '',
    'lock timeout',
    'TIMEOUT Lock',
    "'lock timeout'",
    "'it''s'",
    "lock timeout where component = 'blank-store' and took > 2s and not level in (debug, trace)",
    'where level = error',
    'where level >= warning and level < fatal',
    'where took between 8s and 9s',
    'where took >= 8007ms',
    'where rows < 1000',
    "where rows = '118.0'",
    'where number = LX-204817',
    'where order.number = LX-204817',
    'where order = LX-204817',
    'where phone like %417',
    "where message like 'Reserve%lock%'",
    "where message matches 'due to (lock|statement) timeout'",
    'where shop is null',
    'where sqlstate is not null',
    'where not shop = 0417',
    'where shop <> 0417',
    'where shop not in (0417, 0033)',
    'where (component = labdb or component = blank-store) and host like app-_',
    'where time >= 2026-11-24T09:42:00Z and time < 2026-11-24T10:43:00+01:00',
    'where "order.number" = LX-204817',
    'where flow = lens-order and outcome in (failed, stalled)',
    'where ok = false',
    "where message like '%100 \\% '  or 1 = 1 or rows = 118".replace(' or 1 = 1', ''),
    'WHERE Component = x OR component = blank-store'.replace('Component = x', 'component = x'),
  ])('“%s” finds the record', (text) => expect(matches(text)).toBe(true));

  test.each([
    'lock timeouts',
    "'timeout lock'",
    'where component = labdb',
    'where shop = 0417',
    'where shop < 5',
    'where shop like %',
    'where level in (debug, trace)',
    'where not (level = error)',
    'where took < 2s',
    'where rows between 1 and 100',
    'where order = LX-204818',
    'where message matches ^lock',
    'where sqlstate is null',
    'where not not shop = 0417',
    'where level = nonsense',
    'where time > 2027-01-01',
  ])('“%s” does not', (text) => expect(matches(text)).toBe(false));

  test.each([
    ['where', 5, 'something is missing at the end: ', null],
    ['where component == labdb', 17, 'equality is written =', 'where component = labdb'],
    ['where component != labdb', 16, 'inequality is written <>', 'where component <> labdb'],
    ['where a = 1 && b = 2', 12, 'joined by and', 'where a = 1 and b = 2'],
    ['where a = 1 || b = 2', 12, 'joined by and, or', 'where a = 1 or b = 2'],
    ["lock 'time", 5, 'never closed', "lock 'time'"],
    ['where took >', 12, 'something is missing at the end: ', null],
    ['where (a = 1', 12, 'something is missing at the end', null],
    ['where a = 1 b = 2', 12, '“b” does not fit here', null],
    ["where message matches '('", 22, 'the pattern is not right', null],
    ['where a in 1', 11, '“1” does not fit here', null],
  ])('“%s” is refused at character %d', (text, from, message, proposal) => {
    const { problem } = parseSearch(text);
    expect(problem?.from).toBe(from);
    expect(problem!.message).toContain(message);
    expect(problem!.proposal).toBe(proposal);
    if (proposal) expect(parseSearch(proposal).problem).toBeNull();
  });

  test('anything that is typed is a search or a problem that lies inside of the text', () => {
    const piece = fc.oneof(
      fc.constantFrom('where', 'and', 'or', 'not', 'in', '(', ')', "'", '=', '<>', 'a', "'x y'", '5ms', ',', 'like', 'is', 'null', 'between'),
      fc.string({ maxLength: 6 }),
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 14 }), (pieces) => {
        const text = pieces.join(' ');
        const { search, problem } = parseSearch(text);
        if (search) expect(typeof compileSearch(search)(RECORD)).toBe('boolean');
        else {
          expect(problem!.from).toBeGreaterThanOrEqual(0);
          expect(problem!.to).toBeGreaterThanOrEqual(problem!.from);
          expect(problem!.from).toBeLessThanOrEqual(text.length);
        }
      }),
      { numRuns: 500 },
    );
  });
});

/** A search without the places of its parts. */
const bare = (search: Search): unknown =>
  JSON.parse(JSON.stringify(search, (name, value: unknown) => (['from', 'to', 'quoted'].includes(name) ? undefined : value)));
const search = (text: string): Search => parseSearch(text).search!;

describe('searches as text', () => {
  test('what is printed is read again as the same', () => {
    const name = fc.constantFrom('level', 'order.number', 'a b', 'where', 'größe', '@timestamp', '0x');
    const text = fc
      .oneof(fc.constantFrom('error', '2s', "it's", 'a b', 'null', '(x)', '<', 'ä'), fc.string({ minLength: 1, maxLength: 8 }))
      .map((one) => one.replace(/[\r\n\t]/g, ' '));
    const place = { from: 0, to: 0 };
    const value = text.map((one) => ({ text: one, quoted: false, ...place }));
    const field = name.map((one) => ({ name: one, ...place }));
    const { tree } = fc.letrec<{ tree: Condition }>((tie) => ({
      tree: fc.oneof(
        { depthSize: 'small', withCrossShrink: true },
        fc.record({ type: fc.constant('compare' as const), field, op: fc.constantFrom('=', '<>', '<', '<=', '>', '>='), value }),
        fc.record({ type: fc.constant('in' as const), field, values: fc.array(value, { minLength: 1, maxLength: 3 }) }),
        fc.record({ type: fc.constant('between' as const), field, low: value, high: value }),
        fc.record({ type: fc.constant('like' as const), field, pattern: value }),
        fc.record({ type: fc.constant('null' as const), field }),
        fc.record({ type: fc.constantFrom('and' as const, 'or' as const), parts: fc.array(tie('tree'), { minLength: 2, maxLength: 3 }) }),
        fc.record({ type: fc.constant('not' as const), part: tie('tree') }),
      ),
    }));
    fc.assert(
      fc.property(fc.array(value, { maxLength: 3 }), fc.option(tree, { nil: null }), (words, condition) => {
        const printed = printSearch({ words, condition });
        const { search: again, problem } = parseSearch(printed);
        expect(problem && !problem.message.includes('nested') ? `${printed}: ${problem.message}` : null).toBeNull();
        if (again) expect(bare(again)).toEqual(bare({ words, condition }));
      }),
      { numRuns: 400 },
    );
  });

  test('pieces are taken away one by one', () => {
    const whole = search("lock 'time out' where level = error and (a = 1 or b = 2) and took > 2s");
    const pieces = piecesOf(whole);
    expect(pieces.map((piece) => piece.text)).toEqual(['lock', 'time out', 'level = error', 'a = 1 or b = 2', 'took > 2s']);
    expect(printSearch(withoutPiece(whole, pieces[1]!))).toBe('lock where level = error and (a = 1 or b = 2) and took > 2s');
    expect(printSearch(withoutPiece(whole, pieces[3]!))).toBe("lock 'time out' where level = error and took > 2s");
    expect(printSearch(withoutPiece(search('where a = 1'), piecesOf(search('where a = 1'))[0]!))).toBe('');
  });

  test('values are added and left out; further values of a field join', () => {
    let now = search('lock');
    now = withValue(now, 'component', 'labdb', false);
    now = withValue(now, 'component', 'blank-store', false);
    now = withValue(now, 'component', 'labdb', false);
    now = withValue(now, 'level', 'debug', true);
    now = withValue(now, 'level', 'trace', true);
    now = withValue(now, 'shop', "it's", false);
    expect(printSearch(now)).toBe("lock where component in (labdb, blank-store) and level not in (debug, trace) and shop = 'it''s'");
  });
});
