import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Call, CallPage, ImportInfo, Strand } from '@fadenweg/api';
import { filesBelow } from './client.ts';
import { startSystem, type System } from './testing/system.ts';

/** Somebody stands between two sides and calls by himself: three calls of two dialogs each, told to be one by records, a session identifier, or numbers and time. */
let system: System;
const DAY = Date.UTC(2026, 10, 24, 9);
const FAR = 1700;
const window = 'from=2026-11-24T00:00:00Z&to=2026-11-25T00:00:00Z&environment=production&zone=UTC';
interface Side {
  callId: string;
  at: number;
  caller: string;
  called: string;
  way: 'sent' | 'received';
  more?: string;
}
const other = { sent: 'received', received: 'sent' } as const;

function messages({ callId, at, caller, called, way, more = '' }: Side, ring: number, talk: number): [number, string][] {
  const head = (start: string, cseq: string, tag: boolean): string =>
    `${start}\nVia: SIP/2.0/UDP ${callId.split('@')[1]}:5060;branch=z9hG4bK${callId.slice(0, 4)}${cseq.slice(0, 1)}\nMax-Forwards: 70\nFrom: <sip:${caller}@192.0.2.7>;tag=a\nTo: <sip:${called}@192.0.2.9>${tag ? ';tag=b' : ''}\nCall-ID: ${callId}\nCSeq: ${cseq}\n${more}Content-Length: 0\n\n`; // prettier-ignore
  const said = (after: number, direction: string, text: string): [number, string] => {
    const time = new Date(DAY + at + after).toISOString().replace('T', ' ').replace('Z', '000');
    return [at + after, `----------------------------------------------- ${time}\nUDP message ${direction} [${text.length}] bytes :\n\n${text}`];
  };
  return [
    said(0, way, head(`INVITE sip:${called}@192.0.2.9 SIP/2.0`, '1 INVITE', false)),
    said(40, other[way], head('SIP/2.0 180 Ringing', '1 INVITE', true)),
    said(40 + ring, other[way], head('SIP/2.0 200 OK', '1 INVITE', true)),
    said(45 + ring, way, head(`ACK sip:${called}@192.0.2.9 SIP/2.0`, '1 ACK', true)),
    said(45 + ring + talk, way, head(`BYE sip:${called}@192.0.2.9 SIP/2.0`, '2 BYE', true)),
    said(50 + ring + talk, other[way], head('SIP/2.0 200 OK', '2 BYE', true)),
  ];
}
const trace = (calls: [number, string][][]): string => calls.flat().sort(([a], [b]) => a - b).map(([, text]) => text).join(''); // prettier-ignore
const CALLS = [
  { near: 'a1-near@192.0.2.7', far: 'f1c3@192.0.2.8', caller: '+493023125101', called: '+493023125201', at: 0, ring: 2000, talk: 21_000 },
  { near: 'b2-near@192.0.2.7', far: 'e2d4@192.0.2.8', caller: '+493023125102', called: '+493023125202', at: 60_000, ring: 4000, talk: 9000 },
  { near: '3-near@192.0.2.7', far: '3f77@192.0.2.8', caller: '+493023125103', called: '+493023125203', at: 120_000, ring: 900, talk: 5000 },
];
const SESSION = 'Session-ID: 7a0b2c3d4e5f60718293a4b5c6d7e8f9;remote=00000000000000000000000000000000\n';
const bring = async (folder: string, files: Record<string, string>): Promise<ImportInfo> => {
  for (const [name, text] of Object.entries(files)) {
    await mkdir(join(system.folder, folder, name), { recursive: true });
    await writeFile(join(system.folder, folder, name, `${name}.log`), text);
  }
  return system.bring(await filesBelow([join(system.folder, folder)]), { zone: 'UTC' });
};
const calls = async (): Promise<Call[]> => {
  const { items } = await system.get<CallPage>(`/calls?${window}`);
  const wholes = await Promise.all(items.map((one) => system.get<Call>(`/strands/${encodeURIComponent(one.strand)}/call`)));
  return wholes.sort((a, b) => a.startedAt.localeCompare(b.startedAt));
};

beforeAll(async () => {
  system = await startSystem();
  const near = CALLS.map(({ near: callId, caller, called, at, ring, talk }, i) =>
    messages({ callId, at, caller, called, way: 'sent', more: i === 1 ? SESSION : '' }, ring, talk),
  );
  expect(await bring('first', { 'gate-near': trace(near) })).toMatchObject({ state: 'done', errors: [] });
}, 90_000);
afterAll(() => system.stop());

test('one side alone is a call by itself', async () => {
  expect((await calls()).map(({ callIds, ties, unsound }) => [callIds, ties, unsound])).toEqual(CALLS.map(({ near }) => [[near], [], []]));
});

test('the other side, which comes later with another clock, is of the same call, and how that is known is told', async () => {
  // the first hides who calls, the last shows nothing but numbers
  const far = CALLS.map(
    ({ far: callId, caller, called, at, ring, talk }, i) =>
    messages({ callId, at: at + FAR, caller: i === 0 ? 'anonymous' : caller, called, way: 'received', more: i === 1 ? SESSION : '' }, ring - 3, talk + 2), // prettier-ignore
  );
  const log = `${new Date(DAY + 5).toISOString()} INFO bridge - call ${CALLS[0]!.near} to ${CALLS[0]!.called} goes on as call ${CALLS[0]!.far}\n`;
  expect(await bring('second', { 'gate-far': trace(far), bridge: log })).toMatchObject({ state: 'done', errors: [] });
  const told = await calls();
  expect(told.map(({ ties }) => ties.map(({ how, sure }) => [how, sure]))).toEqual([[['records', 0.95]], [['session', 0.99]], [['numbers', 0.9]]]);
  told.forEach((one, i) => {
    const { near, far: second, caller, called, talk } = CALLS[i]!;
    expect(one).toMatchObject({ callIds: [near, second], caller: { name: caller }, called: { name: called }, state: 'ended', outcome: 'done', talkingMs: talk, repeated: 0 }); // prettier-ignore
    expect(one.ties[0]!.callIds).toEqual([near, second]);
  });
});

test('it is so after a restart, and when all is judged anew', async () => {
  await system.restart();
  expect((await calls()).map(({ callIds }) => callIds.length)).toEqual([2, 2, 2]);
});

test('rows that bill calls, with their Call-IDs, stand on the strand of the call', async () => {
  const rows = ['start,callid,src,dst,billsec,disposition', ...CALLS.map(({ far, caller, called, at, talk }) => `${new Date(DAY + at).toISOString()},${far},${caller},${called},${Math.round(talk / 1000)},ANSWERED`)]; // prettier-ignore
  expect(await bring('third', { billing: `${rows.join('\n')}\n` })).toMatchObject({ state: 'done', errors: [] });
  const { items } = await system.get<CallPage>(`/calls?${window}`);
  expect(items).toHaveLength(3);
  for (const { strand } of items) {
    const { steps } = await system.get<Strand>(`/strands/${encodeURIComponent(strand)}`);
    expect(steps.map(({ component }) => component)).toContain('billing');
  }
});
