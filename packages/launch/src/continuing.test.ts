import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { FlowUsual, Page, Strand, StrandSummary } from '@fadenweg/api';
import { filesBelow } from './client.ts';
import { declare } from './demo-data.ts';
import { startSystem, type System } from './testing/system.ts';

let system: System;
const HOUR = 3_600_000;
const START = Date.UTC(2026, 10, 24);
const PARCELS = 400;
const id = (i: number): string => `PX-${String(100_000 + i)}`;
/** Never asked about. */
const FORGOTTEN = [37, 395];

/** Parcels over twenty hours: weighed and sent within seconds, and one to two hours later each is asked for, under a trace of its own. */
function lines(): { at: number; component: string; text: string }[] {
  const trace = (what: string, i: number): string => createHash('sha256').update(`${what} ${i}`).digest('hex').slice(0, 32);
  return Array.from({ length: PARCELS }, (_, i) => {
    const at = START + Math.floor((i / PARCELS) * 20 * HOUR);
    const later = at + HOUR * (1 + ((i * 7919) % 100) / 100);
    const own = (when: number, component: string, text: string, of: string) => ({ at: when, component, text: `trace=${trace(of, i)} ${text}` });
    return [
      own(at, 'desk', `parcel ${id(i)} taken`, 'sent'),
      own(at + 40, 'scale', 'weighed', 'sent'),
      own(at + 900, 'desk', `parcel ${id(i)} is on its way`, 'sent'),
      ...(FORGOTTEN.includes(i) ? [] : [own(later, 'desk', `parcel ${id(i)} asked for`, 'asked'), own(later + 30, 'scale', 'looked up', 'asked')]),
    ];
  }).flat();
}
async function bring(name: string, wanted: (at: number) => boolean): Promise<void> {
  const folder = join(system.folder, name);
  for (const component of ['desk', 'scale']) {
    await mkdir(join(folder, component), { recursive: true });
    const own = lines().filter((one) => one.component === component && wanted(one.at)).sort((a, b) => a.at - b.at); // prettier-ignore
    await writeFile(join(folder, component, `${name}.log`), own.map((one) => `${new Date(one.at).toISOString()} INFO [main] ${component} - ${one.text}\n`).join('')); // prettier-ignore
  }
  await system.bring(await filesBelow([folder]));
}
const outcomeOf = async (i: number): Promise<string> => (await system.get<Strand>(`/strands/parcel:${id(i)}`)).outcome;
const outcomes = async (): Promise<Map<string, string>> => {
  const { items } = await system.get<Page<StrandSummary>>('/strands?limit=500');
  return new Map(items.map((one) => [one.name, one.outcome]));
};

beforeAll(async () => {
  system = await startSystem();
  const normal = { case: 'keep', separators: 'keep', leadingZeros: 'keep', phone: false };
  const declared = {
    kinds: [{ name: 'parcel', label: 'parcel', role: 'business', patterns: ['\\bPX-\\d{6}\\b'], fields: [], normal, scope: 'global', leaseMs: null }], // prettier-ignore
    flows: [{ name: 'parcel', label: 'parcel', kind: 'parcel', prefix: '', patienceMs: 600_000, expects: [] }],
    meanings: [{ component: 'desk', contains: 'is on its way', means: 'done' }],
  };
  await declare(system.url, declared);
  await bring('first', (at) => at < START + 20.5 * HOUR);
}, 120_000);
afterAll(() => system.stop());

test('what nearly all go on with hours later is learned, and missed where it never came', async () => {
  const usual = await system.get<FlowUsual>('/flows/parcel/usual');
  expect(usual.continues).toMatchObject([{ component: 'desk', surely: true }]);
  expect(usual.continues[0]!.text).toContain('asked for');
  expect(usual.continues[0]!.medianMs / HOUR).toBeCloseTo(1.5, 0);
  const forgotten = await system.get<Strand>(`/strands/parcel:${id(37)}`);
  expect(forgotten.outcome).toBe('stalled');
  expect(forgotten.findings[0]).toMatchObject({ kind: 'stopped-before', missingNext: 'desk' });
  expect(forgotten.findings[0]!.sentence).toContain('but never went on');
  expect([...(await outcomes())].filter(([, outcome]) => outcome !== 'done')).toEqual([[id(37), 'stalled']]);
});

test('a strand that still waits for it is judged again when the evidence goes on', async () => {
  expect(await outcomeOf(395)).toBe('done');
  await bring('second', (at) => at >= START + 20.5 * HOUR);
  // the evidence ends before it would be too late
  expect((await outcomes()).get(id(395))).toBe('done');
  const folder = join(system.folder, 'third/desk');
  await mkdir(folder, { recursive: true });
  await writeFile(join(folder, 'third.log'), `${new Date(START + 26 * HOUR).toISOString()} INFO [main] desk - shut for the night\n`);
  await system.bring(await filesBelow([join(system.folder, 'third')]));
  expect((await outcomes()).get(id(395))).toBe('stalled');
  expect([...(await outcomes())].filter(([, outcome]) => outcome !== 'done')).toHaveLength(2);
});
