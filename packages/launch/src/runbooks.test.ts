import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { join } from 'node:path';
import type { Page, Problem, RunbookInfo, StepResult } from '@fadenweg/api';
import { findingText, SUPPLIED_RUNBOOKS, type Runbook, type StepSum } from '@fadenweg/core/runbooks';
import { FULL_DAY, generate, type Truth } from '@fadenweg/standin';
import { filesBelow } from './client.ts';
import { declareDemo } from './demo-data.ts';
import { readTruth, startSystem, type System } from './testing/system.ts';

let system: System;
let truth: Truth[];
beforeAll(async () => {
  system = await startSystem();
  const out = join(system.folder, 'world');
  await generate({ out, seed: 11, faultRate: 0.06, storyDay: FULL_DAY, stretches: [{ from: FULL_DAY, hours: 24, records: 60_000 }] });
  truth = await readTruth(out);
  await declareDemo(system.url);
  await system.bring(await filesBelow([join(out, 'logs')]));
}, 240_000);
afterAll(() => system.stop());

const iso = (micros: number): string => new Date(micros / 1000).toISOString();
const post = (path: string, body: unknown, method = 'POST'): Promise<Response> =>
  fetch(`${system.url}/api${path}`, { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
const book = (name: string): Runbook => SUPPLIED_RUNBOOKS.find((one) => one.name === name)!;

/** Runs all steps as a page does. */
async function run(
  name: string,
  blanks: Record<string, string> = {},
): Promise<{ sums: Record<string, StepSum>; results: Record<string, StepResult>; text: string }> {
  const runbook = book(name);
  const sums: Record<string, StepSum> = {};
  const results: Record<string, StepResult> = {};
  for (const { name: step } of runbook.steps) {
    const response = await post('/runbooks/run', {
      runbook,
      step,
      blanks,
      from: iso(FULL_DAY),
      to: iso(FULL_DAY + 25 * 3_600_000_000),
      earlier: sums,
    });
    expect(response.status).toBe(200);
    const result = (await response.json()) as StepResult<StepSum>;
    results[step] = result;
    sums[step] = result.sum;
  }
  return { sums, results, text: findingText(runbook.finding, blanks, sums, (at) => at.slice(11, 16)) ?? '' };
}
const ids = (wanted: (one: Truth) => boolean): string[] => truth.filter(wanted).map((one) => one.businessId).sort(); // prettier-ignore
const named = (sum: StepSum): string[] => sum.strands.map((one) => one.slice(one.indexOf(':') + 1)).sort(); // prettier-ignore

describe('what is supplied comes to the right answer in the lens works', () => {
  test('which orders met the restart of a component', async () => {
    const { sums, text } = await run('met-a-restart', { component: 'order-desk' });
    expect(sums.restart!.count).toBeGreaterThan(0);
    const away = FULL_DAY + 337 * 60_000_000;
    expect(Math.abs(Date.parse(sums.restart!.first!) * 1000 - away)).toBeLessThan(120_000_000);
    const around = (one: Truth): boolean => named(sums.met!).includes(one.businessId);
    expect(sums.met!.strands.length).toBeGreaterThan(2);
    expect(named(sums.harmed!)).toEqual(ids((one) => around(one) && ['failed', 'stalled', 'slow'].includes(one.outcome)));
    expect(sums.harmed!.count).toBeGreaterThan(0);
    expect(text).toContain('order-desk was started again, first at 04:3');
  });

  test('which calls of a number failed, and how', async () => {
    const call = truth.find((one) => one.story === 8 && one.outcome === 'failed')!;
    const number = call.attributes.caller!;
    const own = (one: Truth): boolean => one.attributes.caller === number;
    const { sums, text } = await run('calls-of-a-number', { number });
    expect(named(sums.calls!)).toEqual(ids(own));
    expect(named(sums.bad!)).toEqual(ids((one) => own(one) && ['failed', 'stalled', 'slow', 'odd'].includes(one.outcome)));
    expect(text).toContain(number);
  });

  test('which runs ended well and did too little', async () => {
    const { sums, text } = await run('runs-too-small');
    expect(named(sums.small!)).toEqual(ids((one) => one.outcome === 'odd'));
    expect(text).toMatch(/\d+ ended well, but not as usual\. /);
    expect(sums.small!.values.map((one) => one.value).join()).toContain('118');
  });

  test('who held the lock while these waited', async () => {
    const holder = 'SS-7731';
    const { sums, text } = await run('who-held-the-lock');
    expect(sums.held!.values[0]!.value).toBe(holder);
    expect(text).toContain(`They were held by ${holder}`);
  });

  test('what changed before it began', async () => {
    const { sums, text } = await run('changed-before', { component: 'lens-calc' });
    expect(sums.bad!.count).toBeGreaterThan(0);
    expect(sums.changed!.values.map((one) => one.value).join()).toContain('4.12.0');
    expect(text).toContain('4.12.0');
  });

  test('what a party experienced', async () => {
    const slow = truth.find((one) => one.story === 7 && one.outcome === 'slow')!;
    const party = slow.attributes.shop!;
    const own = (one: Truth): boolean => one.attributes.shop === party && one.flow !== 'status-call';
    const { sums } = await run('party-today', { party });
    expect(named(sums.all!)).toEqual(ids(own));
    expect(named(sums.bad!)).toEqual(ids((one) => own(one) && ['failed', 'stalled', 'slow', 'odd', 'doubled'].includes(one.outcome)));
  });

  test('which messages ended in a dead queue, and why', async () => {
    const { sums, text } = await run('dead-queue');
    for (const one of ids((other) => other.story === 9)) expect(named(sums.dead!)).toContain(one);
    expect(sums.why!.sentences.length).toBeGreaterThan(0);
    expect(text).toMatch(/\d+ messages were given up/);
  });

  test('whether a health check tells the truth', async () => {
    const { sums, text } = await run('health-truth', { path: 'health' });
    expect(sums.well!.count).toBeGreaterThan(100);
    expect(sums.bad!.count).toBe(ids((one) => ['failed', 'stalled'].includes(one.outcome)).length);
    expect(text).toContain('the checks do not look that far');
  });
});

describe('runbooks of one’s own', () => {
  test('are kept, changed and forgotten; a mistake is refused with its place', async () => {
    const mine = { ...book('dead-queue'), name: 'mine', title: 'Mine' };
    const added = (await (await post('/runbooks', mine)).json()) as RunbookInfo<Runbook>;
    expect(added).toMatchObject({ supplied: false, owner: 'local administrator', runbook: mine });
    expect((await post(`/runbooks/${added.id}`, { ...mine, title: 'Ours' }, 'PUT')).status).toBe(200);
    const { items } = await system.get<Page<RunbookInfo<Runbook>>>('/runbooks');
    expect(items.find((one) => one.id === added.id)?.runbook.title).toBe('Ours');
    expect(items.filter((one) => one.supplied)).toHaveLength(8);
    const strange = await post('/runbooks', { ...mine, colour: 'red' });
    expect([strange.status, ((await strange.json()) as Problem).detail]).toEqual([400, expect.stringContaining('colour')]);
    const broken = await post('/runbooks', { ...mine, steps: [{ ...mine.steps[0], look: { what: 'records', q: 'where and', by: '' } }] });
    expect([broken.status, ((await broken.json()) as Problem).detail]).toEqual([400, expect.stringContaining('steps.0.look.q')]);
    expect((await fetch(`${system.url}/api/runbooks/${added.id}`, { method: 'DELETE' })).status).toBe(204);
    expect((await fetch(`${system.url}/api/runbooks/${added.id}`, { method: 'DELETE' })).status).toBe(404);
  });
});
