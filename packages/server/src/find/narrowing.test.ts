import { describe, expect, test } from '@jest/globals';
import { parseSearch } from '@fadenweg/core/search';
import { FOUNDER } from '../evidence/identifiers.ts';
import { narrow, type Narrowing } from './narrowing.ts';

const NAMES = {
  component: (name: string) => (name === 'labdb' ? 4 : undefined),
  host: (name: string) => (name === 'app-1' ? 2 : undefined),
  isKind: (name: string) => name === 'order' || name === 'message',
  weights: [],
  parameters: new Map([['amount', [{ component: 'labdb', text: 'paid ‹› of 5%' }]]]),
};
const narrowed = (text: string): Narrowing => narrow(parseSearch(text).search!, NAMES);

const TIED = 'select t.key from strand s join tie t on t.founder = s.founder where s.outcome = ?';
const AT_HOME = `(r.home in (${TIED}) or (r.home is null and r.lane is not null and exists (select 1 from carried c where c.at = r.at and c.id = r.id and c.home in (${TIED}))))`;

const ofStrand = (column: string): string =>
  `exists (select 1 from (${FOUNDER}) t join strand s on s.founder = t.founder where t.valid_to >= r.at and s.${column} = ?)`;
const HELD = '(r.message collate "C" like ? and lower(r.message collate "C") like ?)';

describe('narrowing', () => {
  test.each([
    ['', 'true', [], true],
    ['lock', '(lower(r.message collate "C") like ?)', ['%lock%'], true],
    ["'100 %_\\'", '((r.message collate "C" like ? and lower(r.message collate "C") like ?))', Array(2).fill('%100 \\%\\_\\\\%'), true],
    ['LX-101234', '((r.message collate "C" like ? and lower(r.message collate "C") like ?))', ['%-101234%', '%lx-101234%'], true],
    ['größe', 'true', [], false],
    ['übergröße-lenses', '(lower(r.message collate "C") like ?)', ['%e-lenses%'], false],
    ['where level >= warning', '(r.level >= ?)', [4], true],
    ['where level = nonsense', '(false)', [], true],
    ['where component = labdb', '(r.component_id = ?)', [4], true],
    ['where component = elsewhere', '(false)', [], true],
    ['where not component in (labdb, elsewhere)', '((not (r.component_id = ? or false)))', [4], true],
    ['where took between 1s and 2s', '((coalesce(r.took >= ?::float8, false) and coalesce(r.took <= ?::float8, false)))', [1e6, 2e6], true],
    ['where took is null', '(r.took is null)', [], true],
    ['where took is not null', '((not r.took is null))', [], true],
    ['where shop is not null', '(r.attributes::text like ?)', ['%shop":%'], false],
    ['where host is not null', 'true', [], false],
    ['where shop = 0417', '(r.attributes::text like ?)', ['%shop":%'], false],
    ['where not shop = 0417', 'true', [], false],
    ['where order = LX-1', '((r.keys is not null or r.attributes::text like ?))', ['%order":%'], false],
    ['where order_no = LX-1', '(r.attributes::text like ?)', ['%order\\_no":%'], false],
    ['where outcome = failed', `(${AT_HOME})`, ['failed', 'failed'], false],
    [
      'where outcome in (failed, stalled) and level = error',
      `(((${AT_HOME} or ${AT_HOME}) and r.level = ?))`,
      ['failed', 'failed', 'stalled', 'stalled', 5],
      false,
    ],
    ['where not outcome = failed', 'true', [], false],
    ['where outcome <> failed', `((not ${ofStrand('outcome')}))`, ['failed'], true],
    ['where outcome = done and level = error', `((${ofStrand('outcome')} and r.level = ?))`, ['done', 5], true],
    ['where flow = order or level = error', `((${ofStrand('flow')} or r.level = ?))`, ['order', 5], true],
    ['where flow <> order', `((not ${ofStrand('flow')}))`, ['order'], true],
    ["where flow = ''", '(false)', [], true],
    ["where shape = 'a ‹›'", '(r.shape in (select id from shape where text = ? or text like ?))', ['a ‹›', 'a %'], false],
    ["where shape = 'a b'", '(r.shape in (select id from shape where text = ?))', ['a b'], true],
    [
      'where amount > 100',
      '((r.attributes::text like ? or (r.component_id = ? and r.shape in (select id from shape where text like ?))))',
      ['%amount":%', 4, 'paid % of 5\\%'],
      false,
    ],
    [
      "where amount matches '1.0'",
      '((r.attributes::text like ? or (r.component_id = ? and r.shape in (select id from shape where text like ?))))',
      ['%amount":%', 4, 'paid % of 5\\%'],
      false,
    ],
    ["where message like '%lock%'", '(r.message like ?)', ['%lock%'], true],
    ["where message like 'lock_'", `((${HELD}))`, ['%lock%', '%lock%'], false],
    ["where message like '_'", 'true', [], false],
    ["where message matches 'Lock [0-9]+'", `(${HELD})`, ['%Lock %', '%lock %'], false],
    ["where message matches 'lock|wait'", `((${HELD} or ${HELD}))`, ['%lock%', '%lock%', '%wait%', '%wait%'], false],
    ["where message matches '(?i)Time_out'", '(lower(r.message collate "C") like ?)', ['%time\\_out%'], false],
    ["where message matches '[a-z]+'", 'true', [], false],
    ["where not message matches 'lock'", 'true', [], false],
    ["where logger matches '^d.Main'", '(r.logger collate "C" like ?)', ['%Main%'], false],
    ["where shop matches 'a\"bcd'", '((r.attributes::text like ? and r.attributes::text collate "C" like ?))', ['%shop":%', '%bcd%'], false],
    ["where shop like 'ü%'", '(r.attributes::text like ?)', ['%shop":%'], false],
    ["where component matches 'lab'", 'true', [], false],
    ["where order matches 'LX-1'", '((r.keys is not null or r.attributes::text like ?))', ['%order":%'], false],
    ['where weight >= serious', '(((r.marks >> 11) & 3) >= ?)', [2], true],
    ['where weight > 20', '(r.attributes::text like ?)', ['%weight":%'], false],
    [
      'where fault = 77',
      '((exists (select from fault_record q where q.at = r.at and q.id = r.id and q.fault = ?) or r.attributes::text like ?))',
      ['77', '%fault":%'],
      false,
    ],
    ['where environment = trial', '(r.source_id in (select id from source where environment = ?))', ['trial'], true],
  ])('“%s”', (text, sql, bindings, exact) => {
    expect(narrowed(text)).toEqual({ sql, bindings, exact });
  });

  test('what people say weighs narrows beside what was read', () => {
    const weights = [{ search: parseSearch('where logger = a').search!, weight: 3 as const }, { search: parseSearch('where logger = b').search!, weight: 0 as const }]; // prettier-ignore
    expect(narrow(parseSearch('where weight >= serious').search!, { ...NAMES, weights })).toEqual({
      sql: '((((r.marks >> 11) & 3) >= ? or (r.logger = ?)))',
      bindings: [2, 'a'],
      exact: false,
    });
  });

  test('no value stands in the SQL itself', () => {
    const { sql, bindings } = narrowed("'it''s' where host = app-1 and logger = 'x''; drop table record; --' and took > 5ms and source = a");
    expect(sql).not.toMatch(/drop|it's|5000/);
    expect(sql.match(/\?/g)).toHaveLength(bindings.length);
  });
});
