import { expect, test } from '@jest/globals';
import { begunAnew, type AnewChange } from './anew.ts';

const DAY = 86_400_000_000;
const MINUTE = 60_000_000;
const change = (at: number, component: string, kind: AnewChange['kind'] = 'start', host = ''): AnewChange => ({ at, component, kind, host });

test('what follows within minutes is one, and the gravest of it is told', () => {
  const all = [change(28 * DAY, '', 'start', 'app-2'), change(28 * DAY + MINUTE, 'desk', 'restart'), change(28 * DAY + 60 * MINUTE, 'relay', 'stop')];
  const groups = begunAnew(all, 28 * DAY, 29 * DAY);
  expect(groups.map((one) => [one.told.component, one.places])).toEqual([
    ['desk', ['app-2', 'desk']],
    ['relay', ['relay']],
  ]);
});

test('what begins anew every other day is usual; versions are no beginning', () => {
  const often = Array.from({ length: 14 }, (_, i) => change(i * 2 * DAY, 'batch'));
  expect(begunAnew([...often, change(28 * DAY, 'batch'), change(28 * DAY, 'desk', 'version')], 28 * DAY, 29 * DAY)).toEqual([]);
  expect(begunAnew([...often.slice(1), change(28 * DAY, 'batch')], 28 * DAY, 29 * DAY)).toHaveLength(1);
});
