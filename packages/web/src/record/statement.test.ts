import { expect, test } from '@jest/globals';
import { layOut } from './lay-out-statement.ts';
import { statementWith } from './statement.ts';

const parameters = [
  { name: '$1', value: '7' },
  { name: '$2', value: "O'Hara" },
  { name: '$10', value: 'NULL' },
];
test.each([
  ['select * from a where b = $1 and c = $2 and d is $10', "select * from a where b = 7 and c = 'O''Hara' and d is NULL"],
  [`select '$1', "$2" from a -- $1`, `select '$1', "$2" from a -- $1`],
  ['select $3', 'select $3'],
])('parameters take their places in %s', (statement, whole) => expect(statementWith(statement, parameters)).toBe(whole));

test('a statement is laid out by its clauses; one that is cut off stays as it is', () => {
  expect(layOut("select a, b from orders where shop = '0417' order by placed")).toMatch(/^select\n {2}a,\n {2}b\nfrom\n {2}orders\nwhere/);
  expect(layOut("select a from b where c = 'cut o")).toBe("select a from b where c = 'cut o");
});
