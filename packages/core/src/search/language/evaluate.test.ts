import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compileSearch, textsOf, type Searchable } from './evaluate.ts';
import { parseSearch } from './parse.ts';

const RECORD: Searchable = {
  at: Date.UTC(2026, 10, 24, 10, 41) * 1000,
  level: 5,
  component: 'order-desk',
  host: 'desk-2',
  environment: 'production',
  source: 'order-desk.log',
  logger: '',
  message: 'Lock timeout after 30 s while storing LX-101234',
  shape: 'Lock timeout after ‹› s while storing ‹›',
  took: 30_000_000,
  fields: { attempt: 3, status: '504', 'http.route': '/orders', note: 'Ärger im Lager', empty: '' },
  identifiers: [{ kind: 'order', value: 'LX-101234' }, { kind: 'order', value: 'LX-101235' }], // prettier-ignore
  flow: 'lens-order',
  outcome: 'failed',
  fault: '',
  weight: 0,
};
function finds(text: string, record = RECORD): boolean {
  const { search, problem } = parseSearch(text);
  if (problem) throw new Error(`${text}: ${problem.message}`);
  return compileSearch(search!)(record);
}

describe('a search decides', () => {
  test.each([
    // words: parts of the message, whatever their case, all of them
    ['lock TIMEOUT', true],
    ['lock nowhere', false],
    ["'timeout after 30'", true],
    // numbers count as numbers, other texts as they stand
    ['where attempt = 3', true],
    ['where attempt = 3.0', true],
    ['where attempt > 20', false],
    ['where status >= 500', true],
    ['where status < 1000', true],
    ['where component < p', true],
    ['where component = Order-desk', false],
    // a nested field goes by its last part
    ["where route = '/orders'", true],
    ["where http.route = '/orders'", true],
    ["where route = '/other'", false],
    // levels are in order, times taken are durations
    ['where level >= warning', true],
    ['where level < error', false],
    ['where took > 2s', true],
    ['where took between 29s and 30s', true],
    ['where took <= 29999ms', false],
    // one of several identifiers is enough; unequal says that none is
    ['where order = LX-101235', true],
    ['where order <> LX-101235', false],
    ['where order <> LX-999999', true],
    // what is not there is equal to nothing, and unequal to all
    ['where nobody = 1', false],
    ['where nobody < 1', false],
    ['where nobody <> 1', true],
    ['where nobody is null', true],
    ['where logger is null', true],
    ['where attempt is not null', true],
    ['where not (nobody = 1)', true],
    // patterns
    ["where message like '%storing LX-_____4'", true],
    ["where message like 'storing'", false],
    ["where status matches '^5[0-9]{2}$'", true],
    ['where component in (relay, order-desk)', true],
    ['where component not in (relay, order-desk)', false],
    // or binds less than and
    ['where component = relay and attempt = 9 or status = 504', true],
    ['where component = relay and (attempt = 9 or status = 504)', false],
    ['timeout where outcome = failed and flow = lens-order', true],
  ])('%s → %s', (text, found) => expect(finds(text)).toBe(found));
});

const OPERATORS = ['=', '<>', '<', '<=', '>', '>='] as const;
const NAMES = ['attempt', 'status', 'component', 'took', 'level', 'order', 'nobody', 'route'];
const VALUES = ['3', '504', 'order-desk', '2s', 'error', 'LX-101234', "'/orders'", '-1', 'zzz'];
/** Values that make sense for a name: levels and durations are checked when a search is read. */
const fitting = (name: string, value: string): string => (name === 'took' ? '2s' : name === 'level' ? 'error' : value);
const comparison = fc
  .tuple(fc.constantFrom(...NAMES), fc.constantFrom(...OPERATORS), fc.constantFrom(...VALUES))
  .map(([name, op, value]) => `${name} ${op} ${fitting(name, value)}`);

describe('whatever is compared', () => {
  test('not turns the answer round, twice back again', () => {
    fc.assert(
      fc.property(comparison, (one) => {
        expect(finds(`where not (${one})`)).toBe(!finds(`where ${one}`));
        expect(finds(`where not (not (${one}))`)).toBe(finds(`where ${one}`));
      }),
    );
  });

  test('and, or and their negations are what logic says', () => {
    fc.assert(
      fc.property(comparison, comparison, (a, b) => {
        const [first, second] = [finds(`where ${a}`), finds(`where ${b}`)];
        expect(finds(`where ${a} and ${b}`)).toBe(first && second);
        expect(finds(`where ${a} or ${b}`)).toBe(first || second);
        expect(finds(`where not (${a} or ${b})`)).toBe(finds(`where not (${a}) and not (${b})`));
      }),
    );
  });

  test('between is from and to, in is one of them', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('attempt', 'status', 'nobody'),
        fc.integer({ min: 0, max: 600 }),
        fc.integer({ min: 0, max: 600 }),
        (name, a, b) => {
          expect(finds(`where ${name} between ${a} and ${b}`)).toBe(finds(`where ${name} >= ${a} and ${name} <= ${b}`));
          expect(finds(`where ${name} in (${a}, ${b})`)).toBe(finds(`where ${name} = ${a} or ${name} = ${b}`));
        },
      ),
    );
  });
});

test('letters whose lower case lies in ASCII stay what they are', () => {
  expect(finds('kelvin', { ...RECORD, message: '\u212aelvin' })).toBe(false);
  expect(finds('äRGER', { ...RECORD, message: 'Ärger' })).toBe(true);
});

test('a name has the texts of its part, its fields and its identifiers', () => {
  expect(textsOf(RECORD, 'order')).toEqual(['LX-101234', 'LX-101235']);
  expect(textsOf(RECORD, 'attempt')).toEqual(['3']);
  expect(textsOf(RECORD, 'took')).toEqual(['30000']);
  expect(textsOf(RECORD, 'logger')).toEqual([]);
  expect(textsOf({ ...RECORD, took: NaN, level: 0 }, 'took')).toEqual([]);
  expect(textsOf(RECORD, 'constructor')).toEqual([]);
});
