import type { ColumnSetBody, SavedSearchBody } from '@fadenweg/api';

interface Supplied<What extends string, Body> {
  what: What;
  name: string;
  body: Body;
}
const columns = (name: string, ...list: [field: string, width: number][]): Supplied<'columns', ColumnSetBody> => ({
  what: 'columns',
  name,
  body: { columns: list.map(([field, width]) => ({ field, width })), density: 'usual', wrap: false, rank: null },
});
const search = (name: string, q: string, about: string, more: Partial<SavedSearchBody> = {}): Supplied<'search', SavedSearchBody> => ({
  what: 'search',
  name,
  body: { about, address: { q, ...more.address } },
});

/** Column sets for the usual roles, and searches that suit any system. */
export const SUPPLIED_VIEWS: readonly (Supplied<'columns', ColumnSetBody> | Supplied<'search', SavedSearchBody>)[] = [
  columns('Support', ['component', 112], ['host', 64], ['level', 24], ['outcome', 84], ['message', 0]),
  columns('Help desk', ['component', 112], ['flow', 110], ['outcome', 90], ['message', 0]),
  columns('Integration', ['component', 112], ['level', 24], ['trace', 140], ['queue', 110], ['took', 80], ['message', 0]),
  columns('Telephony', ['direction', 60], ['method', 80], ['status', 56], ['call-id', 180], ['message', 0]),
  columns('Database', ['level', 24], ['user', 80], ['database', 80], ['pid', 64], ['sqlstate', 70], ['took', 80], ['message', 0]),
  search('Errors', 'where level >= error', 'Everything that a program itself calls an error.'),
  search('Errors outside of transactions', 'where level >= error and flow is null', 'What no order, job or call would lead you to.'),
  search('Slow steps', 'where took > 2s', 'Records that state a duration above two seconds.', { address: { show: 'component' } }),
  search('Waiting for locks', 'lock', 'Statements and programs that speak of locks.', { address: { show: 'shape' } }),
  search('Failed transactions', 'where outcome in (failed, stalled)', 'Records of transactions that failed or got stuck, as transactions.', {
    address: { show: 'strand' },
  }),
];
