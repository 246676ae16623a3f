import { describe, expect, test } from '@jest/globals';
import { pageAt, PRODUCTION } from '../api/testing/page.ts';
import { useScope } from './scope.ts';

const STAGE = { ...PRODUCTION, name: 'stage', from: '2026-11-20T08:00:00.000Z', to: '2026-11-25T08:00:00.000Z' };
const DEMO = { ...PRODUCTION, name: 'demo', demo: true, from: '2026-01-01T00:00:00.000Z' };
const EMPTY = { ...PRODUCTION, name: 'empty', from: null, to: null };

describe('the environments that are looked at', () => {
  test('are one’s own; the made-up demo is not mixed in', async () => {
    expect((await pageAt('/find', useScope, [PRODUCTION, DEMO, STAGE])).used.chosen.value).toEqual(['production', 'stage']);
  });
  test('are the demo where there is nothing else', async () => {
    expect((await pageAt('/find', useScope, [DEMO])).used.chosen.value).toEqual(['demo']);
  });
  test('are those of the address, as far as there are any', async () => {
    const { used } = await pageAt('/find?e=demo,gone', useScope, [PRODUCTION, DEMO]);
    expect(used.chosen.value).toEqual(['demo']);
    expect((await pageAt('/find?e=gone', useScope, [PRODUCTION, DEMO])).used.chosen.value).toEqual(['production']);
  });
  test('reach from the first to the last evidence of the chosen ones', async () => {
    const { used, query } = await pageAt('/find?q=x', useScope, [PRODUCTION, STAGE, DEMO, EMPTY]);
    expect(used.span.value).toEqual({ from: STAGE.from, to: STAGE.to });
    used.set(['production']);
    expect(await query()).toEqual({ q: 'x', e: 'production' });
    expect(used.span.value).toEqual({ from: PRODUCTION.from, to: PRODUCTION.to });
    used.set([]);
    expect(await query()).toEqual({ q: 'x' });
    expect((await pageAt('/find', useScope, [EMPTY])).used.span.value).toEqual({ from: null, to: null });
  });
});
