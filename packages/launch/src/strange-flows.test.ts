import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { FlowUsual, IdentifierKind, LogRecord, Meaning, Page, Strand, StrandSummary, Summary } from '@fadenweg/api';
import { filesBelow } from './client.ts';
import { declare } from './demo-data.ts';
import { all as paged, startSystem, type System } from './testing/system.ts';

const MINUTE = 60_000;
const START = Date.UTC(2026, 4, 4);

interface Line {
  at: number;
  /** Of its component, by the flow: each has programs of its own. */
  component: string;
  level?: string;
  text: string;
}
interface FlowOf {
  name: string;
  count: number;
  /** Minutes between two of them. */
  every: number;
  lines(id: string, at: number, i: number): Line[];
}
const taken = (id: string, at: number): Line => ({ at, component: 'desk', text: `parcel ${id} taken` });
const weighed = (id: string, at: number): Line => ({ at, component: 'scale', text: `weighing ${id} done` });
const sent = (id: string, at: number): Line => ({ at, component: 'desk', text: `parcel ${id} is on its way` });
const broke = (id: string, at: number): Line => ({ at, component: 'scale', level: 'ERROR', text: `weighing ${id} failed: the plate is stuck` });

const FLOWS: FlowOf[] = [
  { name: 'few', count: 3, every: 10, lines: (id, at, i) => [taken(id, at), ...(i === 1 ? [broke(id, at + 50)] : [weighed(id, at + 50), sent(id, at + 90)])] }, // prettier-ignore
  { name: 'broken', count: 120, every: 5, lines: (id, at) => [taken(id, at), broke(id, at + 40)] },
  { name: 'fine', count: 120, every: 5, lines: (id, at, i) => [taken(id, at), weighed(id, at + 40 + (i % 7)), sent(id, at + 80 + (i % 11))] },
  { name: 'errors', count: 80, every: 5, lines: (id, at) => [broke(id, at)] },
  {
    name: 'changing',
    count: 400,
    every: 36, // ten days
    lines: (id, at, i) => {
      const since = i >= 200;
      const took = (since ? 9000 : 1000) + (i % 13) * 20;
      const swept: Line[] = since ? [{ at: at + took + 5, component: 'broom', text: `floor swept for ${id}` }] : [];
      return [taken(id, at), weighed(id, at + took), ...swept, sent(id, at + took + 50)];
    },
  },
  {
    name: 'holed',
    count: 300,
    every: 5,
    // the scale's log of the hours from 8 to 12 is missing: files of its own before and behind
    lines: (id, at, i) => [taken(id, at), { ...weighed(id, at + 40), component: i < 96 ? 'scale-early' : i < 144 ? 'lost' : 'scale-late' }, ...(i < 96 || i >= 144 ? [sent(id, at + 80)] : [])], // prettier-ignore
  },
];
const idOf = (name: string, i: number): string => `${name.slice(0, 2).toUpperCase()}-${String(10_000 + i)}`;

let system: System;
beforeAll(async () => {
  system = await startSystem();
  const normal = { case: 'keep', separators: 'keep', leadingZeros: 'keep', phone: false };
  await declare(system.url, {
    kinds: FLOWS.map(({ name }) => ({ name, label: name, role: 'business', patterns: [`\\b${idOf(name, 0).slice(0, 3)}\\d{5}\\b`], fields: [], normal, scope: 'global', leaseMs: null })), // prettier-ignore
    flows: FLOWS.map(({ name }) => ({ name, label: name, kind: name, prefix: '', patienceMs: null, expects: [] })),
    meanings: FLOWS.map(({ name }) => ({ component: `desk-${name}`, contains: 'is on its way', means: 'done' })),
  });
  const files = new Map<string, string[]>();
  for (const { name, count, every, lines } of FLOWS)
    for (let i = 0; i < count; i++)
      for (const { at, component, level = 'INFO', text } of lines(idOf(name, i), START + i * every * MINUTE, i)) {
        if (component === 'lost') continue;
        const [program, part] = component.split('-');
        const file = join(system.folder, 'logs', `${program}-${name}`, `${part ?? 'all'}.log`);
        files.set(file, [...(files.get(file) ?? []), `${new Date(at).toISOString()} ${level} [main] ${program} - ${text}\n`]);
      }
  for (const [file, lines] of files) {
    await mkdir(dirname(file), { recursive: true });
    await writeFile(file, lines.join(''));
  }
  await system.bring(await filesBelow([join(system.folder, 'logs')]));
}, 180_000);
afterAll(() => system.stop());

const usualOf = async (flow: string): Promise<{ status: number; detail?: string } & Partial<FlowUsual>> => {
  const answer = await fetch(`${system.url}/api/flows/${flow}/usual`);
  return { ...((await answer.json()) as Partial<FlowUsual>), status: answer.status };
};
/** How many of a flow ended how. */
async function outcomes(flow: string): Promise<Record<string, number>> {
  const { items } = await system.get<Page<StrandSummary>>(`/strands?flow=${flow}&limit=500`);
  const counts: Record<string, number> = {};
  for (const { outcome } of items) counts[outcome] = (counts[outcome] ?? 0) + 1;
  return counts;
}
const strand = (flow: string, i: number): Promise<Strand> => system.get<Strand>(`/strands/${flow}:${idOf(flow, i)}`);

describe('what is usual cannot be said', () => {
  test('of three legs: it says so, and errors are told nevertheless', async () => {
    const { status, detail } = await usualOf('few');
    expect([status, /known from \d+ strands on that went well/.test(detail!)]).toEqual([404, true]);
    expect(await outcomes('few')).toEqual({ done: 2, failed: 1 });
    expect((await strand('few', 1)).findings[0]).toMatchObject({ kind: 'failed-at', component: 'scale-few' });
  });
  test('where everything has failed since the beginning: each is failed, none is called normal', async () => {
    expect(await usualOf('broken')).toMatchObject({ status: 404 });
    expect(await outcomes('broken')).toEqual({ failed: 120 });
    const { findings } = await strand('broken', 60);
    expect(findings[0]).toMatchObject({ kind: 'failed-at', component: 'scale-broken' });
    expect(findings[0]!.record).toBeTruthy();
  });
  test('where only errors were brought in', async () => {
    expect(await outcomes('errors')).toEqual({ failed: 80 });
    expect((await strand('errors', 7)).findings[0]).toMatchObject({ component: 'scale-errors' });
  });
});

describe('what is usual is said', () => {
  test('where nothing has failed, and nobody is blamed', async () => {
    expect(await usualOf('fine')).toMatchObject({ status: 200, legs: 120, bad: 0, changed: [] });
    expect(await outcomes('fine')).toEqual({ done: 120 });
    expect((await strand('fine', 60)).findings).toEqual([]);
  });
  test('of a flow that changed for good: since when, and what; each is judged by what was usual when it began', async () => {
    const usual = await usualOf('changing');
    expect(usual.status).toBe(200);
    expect(new Set(usual.changed!.map((one) => one.at))).toEqual(new Set([new Date(START + 200 * 36 * MINUTE).toISOString().replace('Z', '000Z')]));
    expect(usual.changed!.map(({ what, component }) => `${what} ${component}`)).toEqual(expect.arrayContaining(['whole null', 'there broom-changing', 'wait scale-changing'])); // prettier-ignore
    expect(usual.since).toBe(usual.changed![0]!.at);
    expect(usual.whole!.medianMs).toBeGreaterThan(9000);
    expect(await outcomes('changing')).toEqual({ done: 400 });
    const compared = async (i: number): Promise<number> => (await system.get<{ usualMs: number }>(`/strands/changing:${idOf('changing', i)}/against-usual`)).usualMs; // prettier-ignore
    expect(await compared(10)).toBeLessThan(2000);
    expect(await compared(390)).toBeGreaterThan(9000);
  });
  test('where evidence has a hole, what went on in it is out of sight and not stalled', async () => {
    expect(await outcomes('holed')).toEqual({ done: 252, 'out-of-sight': 48 });
    const { outcome, findings } = await strand('holed', 120);
    expect(outcome).toBe('out-of-sight');
    expect(findings[0]!.sentence).toContain('our evidence of it has a hole from');
  });
});

describe('what is declared otherwise', () => {
  const send = async (path: string, body: object): Promise<number> => {
    const answer = await fetch(`${system.url}/api${path}`, { method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }); // prettier-ignore
    expect(answer.status).toBe(202);
    return ((await answer.json()) as { sourcesReadAgain: number }).sourcesReadAgain;
  };
  /** Until all that was read again is woven. */
  async function settled(): Promise<void> {
    for (let i = 0; i < 600; i++) {
      const { unread, weaving, still } = await system.get<Summary>('/summary');
      if (unread === 0 && weaving === null && still) return;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    throw new Error('it was not woven within half a minute');
  }
  const all = async (): Promise<string[]> =>
    (await Promise.all(FLOWS.map(async ({ name }) => (await system.get<Page<StrandSummary>>(`/strands?flow=${name}&limit=500`)).items))).flat().map((one) => `${one.id} ${one.outcome} ${one.records}`).sort(); // prettier-ignore

  test('is read again where it was found alone, and back again leaves everything as it was', async () => {
    const before = await all();
    const { items } = await system.get<Page<IdentifierKind>>('/identifier-kinds');
    const fine = items.find((one) => one.name === 'fine')!;
    expect(await send('/identifier-kinds/fine', { ...fine, role: 'shared' })).toBe(2);
    await settled();
    expect(await outcomes('fine')).toEqual({});
    expect(await outcomes('holed')).toEqual({ done: 252, 'out-of-sight': 48 });
    expect(await send('/identifier-kinds/fine', { ...fine, label: 'fine ones' })).toBe(2);
    await settled();
    expect(await all()).toEqual(before);
    expect(await send('/identifier-kinds/fine', fine)).toBe(0);
  });
  const failing = async (component: string): Promise<number> => {
    const items = await paged<LogRecord>(system, `/records?q=${encodeURIComponent(`weighing where component = '${component}'`)}`);
    return items.filter(({ marks }) => marks.includes('failing')).length;
  };
  test('a meaning is applied where it is said alone', async () => {
    const before = await all();
    const { items } = await system.get<Page<Meaning>>('/meanings');
    expect(await send('/meanings', { items: [...items, { component: 'desk-fine', contains: 'is nowhere to be found', means: 'failed' }] })).toBe(0);
    expect(await send('/meanings', { items: [...items, { component: 'scale-fine', contains: 'weighing', means: 'failed' }] })).toBe(1);
    await settled();
    expect(await failing('scale-fine')).toBe(120);
    expect(await failing('scale-holed')).toBe(0);
    expect(await send('/meanings', { items })).toBe(1);
    await settled();
    expect(await all()).toEqual(before);
  });
});
