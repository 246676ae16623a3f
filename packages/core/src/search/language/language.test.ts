import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compileSearch, type Searchable } from './evaluate.ts';
import { parseSearch } from './parse.ts';

const RECORD: Searchable = {
  at: Date.UTC(2026, 10, 24, 9, 42, 7) * 1000,
  level: 5,
  component: 'blank-store',
  host: 'app-3',
  environment: 'production',
  source: 'blank-store/blank-store.jsonl',
  logger: 'o.b.Reserve',
  message: "Reserve failed, canceling statement due to lock timeout, it's 100 %",
  took: 8_007_000,
  fields: { sqlstate: '55P03', 'order.number': 'LX-204817', rows: 118, ok: false },
  identifiers: [{ kind: 'order', value: 'LX-204817' }, { kind: 'phone', value: '+493023125417' }], // prettier-ignore
  flow: 'lens-order',
  outcome: 'failed',
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
