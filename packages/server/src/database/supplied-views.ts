import type { ColumnSetBody, SavedSearchBody, StrandColumnsBody } from '@fadenweg/api';

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

const ofStrands = (name: string, ...list: [field: string, width: number][]): Supplied<'strand-columns', StrandColumnsBody> => ({
  what: 'strand-columns',
  name,
  body: { columns: list.map(([field, width]) => ({ field, width })) },
});

/** Column sets by what people are there for, of records and of strands under the same names; others for kinds of systems; and searches that suit any. */
export const SUPPLIED_VIEWS: readonly (
  Supplied<'columns', ColumnSetBody> | Supplied<'strand-columns', StrandColumnsBody> | Supplied<'search', SavedSearchBody>
)[] = [
  columns('Help desk', ['component', 112], ['flow', 110], ['outcome', 90], ['message', 0]),
  columns('Operator', ['component', 112], ['host', 84], ['level', 24], ['weight', 70], ['outcome', 84], ['message', 0]),
  columns('Auditor', ['environment', 90], ['component', 112], ['flow', 110], ['source', 190], ['message', 0]),
  columns('Developer', ['component', 112], ['level', 24], ['logger', 150], ['thread', 90], ['took', 70], ['message', 0]),
  ofStrands('Help desk', ['outcome', 98], ['identifier', 150], ['flow', 110], ['parties', 180], ['begin', 150], ['happened', 0]),
  ofStrands('Operator', ['outcome', 98], ['weight', 70], ['identifier', 150], ['flow', 104], ['begin', 150], ['duration', 84], ['usual', 60], ['gave-up', 120], ['happened', 0]), // prettier-ignore
  ofStrands('Auditor', ['environment', 96], ['flow', 110], ['identifier', 150], ['parties', 180], ['begin', 150], ['end', 150], ['outcome', 98], ['records', 64], ['happened', 0]), // prettier-ignore
  ofStrands('Developer', ['outcome', 98], ['identifier', 150], ['gave-up', 120], ['begin', 150], ['duration', 84], ['usual', 60], ['records', 58], ['happened', 0]), // prettier-ignore
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
