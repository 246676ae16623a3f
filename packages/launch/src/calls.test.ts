import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { join } from 'node:path';
import type { Call, CallCounts, CallPage, Page, StrandSummary } from '@fadenweg/api';
import { FULL_DAY, generate } from '@fadenweg/standin';
import { bringMorning, startSystem, type System } from './testing/system.ts';

const HOUR = 3_600_000_000;
const iso = (at: number): string => new Date(at / 1000).toISOString();
const [FROM, TO] = [FULL_DAY + 7 * HOUR, FULL_DAY + 12 * HOUR];
const window = `from=${iso(FROM)}&to=${iso(TO)}&environment=production&zone=Europe/Berlin`;
let system: System;
const list = (more = ''): Promise<CallPage> => system.get(`/calls?${window}${more}`);
const one = (id: string): Promise<Call> => system.get(`/strands/${encodeURIComponent(id)}/call`);

beforeAll(async () => {
  system = await startSystem();
  const out = join(system.folder, 'world');
  await generate({ out, seed: 7, faultRate: 0.01, storyDay: FULL_DAY, stretches: [{ from: FROM, hours: 5, records: 15_000 }] });
  await bringMorning(system, join(out, 'logs'));
}, 180_000);
afterAll(() => system.stop());

test('each call is a line: who, how it went, how long', async () => {
  const [{ items }, counts, strands] = await Promise.all([
    list('&limit=500'),
    system.get<CallCounts>(`/calls/counts?${window}`),
    system.get<Page<StrandSummary>>(`/strands?flow=status-call&from=${iso(FROM)}&to=${iso(TO)}&began=true&limit=500`),
  ]);
  expect(items.length).toBeGreaterThan(20);
  expect(items.map((item) => item.strand)).toEqual(strands.items.map((item) => item.id));
  expect(counts.calls).toBe(items.length);
  expect(counts.states.ended).toBe(items.filter((item) => item.state === 'ended').length);
  const ended = items.find((item) => item.state === 'ended' && item.outcome === 'done')!;
  expect(ended).toMatchObject({ called: { name: '+493023125100', device: 'VoiceDesk 2.9' }, status: 200, endedBy: 'caller', repeated: 0 });
  expect(ended.caller.name).toMatch(/^\+493023125\d{3}$/);
  expect(ended.caller.device).toBe('ShopPhone 4.2');
  expect(ended.talkingMs).toBeGreaterThan(5000);
  // a call that was not put through is never done
  for (const item of items) if (item.status !== 200) expect(['refused', 'failed', 'stalled', 'running']).toContain(item.outcome);
});

test('a number is found in any notation, several at once, as caller or called', async () => {
  const { items } = await list('&limit=500');
  const [first, other] = [items[0]!.caller.name, items.find((item) => item.caller.name !== items[0]!.caller.name)!.caller.name];
  const national = `0${first.slice(3, 5)} ${first.slice(5, 10)}-${first.slice(10)}`;
  const found = await list(`&limit=500&number=${encodeURIComponent(`${national},tel:${other}`)}`);
  expect(found.items.map((item) => item.strand)).toEqual(
    items.filter((item) => [first, other].includes(item.caller.name)).map((item) => item.strand),
  );
  expect((await list('&limit=500&number=0049-30-23125-100')).items).toHaveLength(items.length);
  expect((await list('&limit=500&caller=0049-30-23125-100')).items).toEqual([]);
});

test('page by page, in any order, each call once', async () => {
  const whole = (await list('&limit=500&sort=-setup')).items;
  expect(whole.map((item) => item.setUpMs ?? -1)).toEqual([...whole.map((item) => item.setUpMs ?? -1)].sort((a, b) => b - a));
  const got: string[] = [];
  for (let after: string | null = ''; after !== null;) {
    const page: CallPage = await list(`&limit=7&sort=-setup${after ? `&after=${after}` : ''}`);
    got.push(...page.items.map((item) => item.strand));
    after = page.next;
  }
  expect(got).toEqual(whole.map((item) => item.strand));
});

test('one that dropped after a change: its messages between those who sent them, and what is amiss', async () => {
  const dropped = (await list('&limit=500&outcome=failed')).items.find((item) => item.headline.includes('488'))!;
  const call = await one(dropped.strand);
  expect(call.amiss[0]).toMatchObject({ trouble: 'dropped-after-change' });
  expect(call.lanes.map((lane) => lane.label)).toEqual([dropped.caller.name, 'switch', '+493023125100']);
  expect(call.arrows.slice(0, 4).map(({ from, to, label }) => [from, to, label])).toEqual([
    [0, 1, 'INVITE'],
    [1, 0, '100 Trying'],
    [1, 2, 'INVITE'],
    [2, 1, '180 Ringing'],
  ]);
  expect(call.arrows.find((arrow) => arrow.status === 488)).toMatchObject({ from: 0, to: 1, method: 'INVITE' });
  expect(call.talk!.from < call.talk!.to!).toBe(true);
  expect(call).toMatchObject({ offered: expect.arrayContaining(['PCMA', 'PCMU']), agreed: ['PCMA'], repeated: 0 });
});

test('what is no call has none; what is not understood is refused with a reason', async () => {
  const order = (await system.get<Page<StrandSummary>>('/strands?flow=lens-order&limit=1')).items[0]!;
  const answer = await fetch(`${system.url}/api/strands/${encodeURIComponent(order.id)}/call`);
  expect(answer.status).toBe(204);
  for (const [more, words] of [
    ['&state=lost', 'no state “lost”'],
    ['&status=4xx', 'three digits'],
    ['&after=somewhere', 'no place'],
    ['&sort=name', 'sort'],
  ]) {
    const refused = await fetch(`${system.url}/api/calls?${window}${more}`);
    expect([more, refused.status]).toEqual([more, 400]);
    expect(JSON.stringify(await refused.json())).toContain(words);
  }
});
