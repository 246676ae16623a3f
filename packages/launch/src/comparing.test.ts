import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { join } from 'node:path';
import type { AgainstStrand, FlowUsual, IdentifierKind, InCommon, Page, StoryChapter, Strand, StrandSummary } from '@fadenweg/api';
import type { Truth } from '@fadenweg/standin';
import { call } from './client.ts';
import { bringMorning, makeMorning, startSystem, type System } from './testing/system.ts';

let system: System;
let truth: Truth[];
beforeAll(async () => {
  system = await startSystem();
  const morning = await makeMorning(join(system.folder, 'world'));
  truth = morning.truth;
  await bringMorning(system, morning.logs);
}, 120_000);
afterAll(() => system.stop());

const idOf = (one: Truth): string => `${one.identifiers[0]!.kind}:${one.businessId}`;
const strand = (id: string): Promise<Strand> => system.get<Strand>(`/strands/${encodeURIComponent(id)}`);

describe('strands of the lens works’ morning beside others', () => {
  test('what is usual for a flow is told, with its path and how long each part takes', async () => {
    const usual = await system.get<FlowUsual>('/flows/lens-order/usual');
    const good = truth.filter((one) => one.flow === 'lens-order' && one.outcome === 'done').length;
    expect(usual.legs).toBeGreaterThan(good * 0.95);
    expect(usual.legs).toBeLessThanOrEqual(truth.filter((one) => one.flow === 'lens-order').length);
    const parcel = usual.sayings.findIndex((one) => one.text.includes('finished, parcel'));
    expect(usual.sayings[parcel]).toMatchObject({ component: 'order-desk', legs: usual.legs, bad: 0, most: 1 });
    expect(usual.sayings[usual.sayings[parcel]!.after!.saying]!.text).toContain('handed to the carrier');
    const coated = usual.sayings.find((one) => one.component === 'coating-cell' && one.text.includes('layers'))!;
    expect(coated.after!.medianMs).toBeGreaterThan(60_000);
    expect(coated.after!.medianMs).toBeLessThan(80_000);
    expect(usual.variants.reduce((sum, one) => sum + one.share, 0)).toBeGreaterThan(0.9);
    await expect(system.get('/flows/frame-catalogue-job/usual')).rejects.toThrow(/known from 12 strands on/);
    await expect(system.get('/flows/nothing/usual')).rejects.toThrow();
  });

  test('what strands of one finding have in common is told: the shop whose catalogue is walked through, the file that came twice', async () => {
    const slow = truth.find((one) => one.story === 7 && one.outcome === 'slow')!;
    const { findings } = await strand(idOf(slow));
    const common = await system.get<InCommon>(`/strands/in-common?finding=${encodeURIComponent(findings[0]!.signature)}`);
    expect(common.strands).toBe(common.inside);
    const doubled = await system.get<InCommon>('/strands/in-common?outcome=doubled');
    expect(doubled).toMatchObject({ strands: 12, inside: 12 });
    expect(doubled.outside).toBeGreaterThan(50);
    const shop = truth.find((one) => one.outcome === 'doubled')!.attributes.shop!;
    expect(doubled.values.find((one) => one.kind === 'party')).toMatchObject({ field: 'shop', value: shop, inside: 12 });
    expect(doubled.values.find((one) => one.kind === 'saying' && one.value.startsWith('file'))).toMatchObject({ component: 'order-desk' });
    for (const one of doubled.values) expect(one.inside / doubled.inside).toBeGreaterThan(one.outside / doubled.outside);
    // that each number names one order is declared; without it nobody can say that the second is one too many
    const [kind] = (await system.get<Page<IdentifierKind>>('/identifier-kinds')).items.filter((one) => one.name === 'reference');
    const doubles = async (): Promise<number> => (await system.get<Page<StrandSummary>>('/strands?outcome=doubled&limit=50')).items.length;
    for (const [once, wanted] of [
      [false, 0],
      [true, 12],
    ] as const) {
      await call(`${system.url}/api/identifier-kinds/reference`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ ...kind, once }),
      });
      for (const end = Date.now() + 20_000; (await doubles()) !== wanted && Date.now() < end;)
        await new Promise((resolve) => setTimeout(resolve, 50));
      expect(await doubles()).toBe(wanted);
    }
    expect(await system.get<InCommon>('/strands/in-common?outcome=running')).toEqual({ strands: 0, inside: 0, outside: 0, values: [] });
  });

  test('a strand stands beside the nearest good one, or any other, line by line', async () => {
    const failed = await strand(idOf(truth.find((one) => one.story === 1 && one.flow === 'lens-order')!));
    const { other, lines, cut } = await system.get<AgainstStrand>(`/strands/${failed.id}/against`);
    expect(other).toMatchObject({ flow: 'lens-order', outcome: 'done' });
    expect(cut).toBe(false);
    expect(other.id).not.toBe(failed.id);
    const good = await strand(other.id);
    // it passes through all that the failed one passed through
    const components = (one: Strand): Set<string> => new Set(one.steps.map((step) => step.component));
    for (const component of components(failed)) expect([...components(good)]).toContain(component);
    expect(lines.filter((line) => line.own).map((line) => line.own!.record)).toHaveLength(failed.legs[0]!.records);
    expect(lines.find((line) => line.own?.text.includes('canceling statement'))!.kind).toBe('extra');
    expect(lines.some((line) => line.kind === 'missing' && line.component === 'lens-calc')).toBe(true);
    const turned = await system.get<AgainstStrand>(`/strands/${good.id}/against?other=${failed.id}`);
    expect(turned.lines.find((line) => line.other?.text.includes('canceling statement'))!.kind).toBe('missing');
    await expect(system.get(`/strands/${failed.id}/against?other=${failed.id}`)).rejects.toThrow(/The same strand/);
    await expect(system.get(`/strands/${failed.id}/against?other=order:LX-999999`)).rejects.toThrow(/Not found/);
  });

  test('each step tells how long it usually takes, and what it took more', async () => {
    const slow = await strand(idOf(truth.find((one) => one.story === 7 && one.outcome === 'slow')!));
    const known = slow.steps.filter((step) => step.usualMs !== null);
    expect(known.length).toBeGreaterThan(2);
    const late = slow.steps.filter((step) => (step.excessMs ?? 0) > 0);
    expect(late.map((step) => step.component)).toContain(slow.findings[0]!.component);
    expect(Math.max(...late.map((step) => step.excessMs!))).toBeGreaterThan(60_000);
  });

  test('a strand is told as a story: a sentence a step, the knot among them', async () => {
    const failed = await strand(idOf(truth.find((one) => one.story === 1 && one.flow === 'lens-order')!));
    const { items } = await system.get<Page<StoryChapter>>(`/strands/${failed.id}/story`);
    expect(items.map((one) => one.step).sort((a, b) => a - b)).toEqual(failed.steps.map((step) => step.id));
    const words = (one: StoryChapter): string => one.parts.map((part) => ('text' in part ? part.text : part.at)).join('');
    expect(words(items[0]!)).toMatch(/^It began at 2026-11-24T.* in edge: /);
    const knot = items.find((one) => one.knot)!;
    expect(knot.record).toBe(failed.findings[0]!.record.id);
    expect(words(knot)).toMatch(/labdb .*, having waited 8\.0\d s for a lock: canceling statement.*This is where it failed\.$/);
  });
});
