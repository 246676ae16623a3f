import { beforeEach, describe, expect, test } from '@jest/globals';
import { flushPromises } from '@vue/test-utils';
import { answers, sent } from '../api/testing/answers.ts';
import { mounted } from '../api/testing/mounted.ts';
import { strandColumnWords, USUAL_STRAND_COLUMNS } from '../strands/strand-columns.ts';
import ColumnSets from './ColumnSets.vue';

const OPERATOR = { id: 1, what: 'strand-columns', name: 'Operator', shared: true, supplied: true, owner: 'supplied', body: { columns: [{ field: 'weight', width: 70 }] } }; // prettier-ignore
const MINE = { id: 2, what: 'strand-columns', name: 'Mine', shared: false, supplied: false, owner: 'me', body: { columns: [{ field: 'end', width: 150 }] } }; // prettier-ignore
const OF_RECORDS = {
  ...OPERATOR,
  id: 3,
  what: 'columns',
  body: { columns: [{ field: 'host', width: 84 }], density: 'usual', wrap: false, rank: null },
};
const props = { what: 'strand-columns', usual: USUAL_STRAND_COLUMNS, shown: USUAL_STRAND_COLUMNS, words: strandColumnWords, saves: 'columns' };
const list = { items: [OPERATOR, MINE], next: null };
const named = (wrapper: Awaited<ReturnType<typeof mounted>>['wrapper'], name: string) => wrapper.findAll('button').find((one) => one.text() === name)!; // prettier-ignore

beforeEach(() => localStorage.clear());

describe('column sets', () => {
  test('the one that is shown is marked; what comes with the application cannot be forgotten', async () => {
    answers({}, list);
    const { wrapper } = await mounted(ColumnSets, { props });
    expect(wrapper.findAll('[aria-pressed="true"]').map((one) => one.text())).toEqual(['Usual']);
    expect(wrapper.findAll('[aria-label^="Forget"]').map((one) => one.attributes('aria-label'))).toEqual(['Forget the column set Mine']);
  });

  test('one for a task is taken in both lists, and stays this person’s choice', async () => {
    answers({}, list, { items: [{ ...OF_RECORDS, name: 'Auditor' }, OF_RECORDS], next: null });
    const { wrapper } = await mounted(ColumnSets, { props });
    await named(wrapper, 'Operator').trigger('click');
    await flushPromises();
    expect(wrapper.emitted('take')).toEqual([[OPERATOR.body]]);
    expect([localStorage.getItem('fadenweg.strand-columns'), localStorage.getItem('fadenweg.columns')]).toEqual(['weight:70', 'host:84']);
    await named(wrapper, 'Usual').trigger('click');
    await flushPromises();
    expect(localStorage.getItem('fadenweg.strand-columns')).toBe('');
  });

  test('one’s own is taken here alone, saved over by its name, forgotten and brought back', async () => {
    answers({}, list, MINE, list, {}, { items: [OPERATOR], next: null }, MINE, list);
    const { wrapper } = await mounted(ColumnSets, { props });
    await named(wrapper, 'Mine').trigger('click');
    await flushPromises();
    expect(localStorage.getItem('fadenweg.columns') ?? '').toBe('');
    await wrapper.get('.input').setValue('Mine');
    await wrapper.get('form').trigger('submit');
    await flushPromises();
    expect(sent()[1]).toMatchObject({ method: 'PUT', path: '/api/saved/2', body: { what: 'strand-columns', name: 'Mine', shared: false } });
    await wrapper.get('[aria-label="Forget the column set Mine"]').trigger('click');
    await flushPromises();
    expect(sent()[3]).toMatchObject({ method: 'DELETE', path: '/api/saved/2' });
    await named(wrapper, 'undo').trigger('click');
    await flushPromises();
    expect(sent()[5]).toMatchObject({ method: 'POST', path: '/api/saved', body: { name: 'Mine', body: MINE.body } });
  });

  test('what goes wrong is told', async () => {
    answers({}, list, { status: 400, title: 'Not so', detail: 'There are too many.' });
    const { wrapper } = await mounted(ColumnSets, { props });
    await wrapper.get('.input').setValue('Another');
    await wrapper.get('form').trigger('submit');
    await flushPromises();
    expect(wrapper.get('[role="alert"]').text()).toContain('There are too many.');
    expect((wrapper.get('.input').element as HTMLInputElement).value).toBe('Another');
  });
});
