import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ImportInfo, Page, SourceText } from '@fadenweg/api';
import { DEMO_ZONE, demoPlan, FLOWS, generate, KINDS, LENS_CALC_VERSIONS, MEANINGS } from '@fadenweg/standin';
import { call, filesBelow, sendFiles, sendSourceText, waitForImport } from './client.ts';

/** The demo is a world of its own: its strands never stand among those of one's own systems. */
export const DEMO_ENVIRONMENT = 'lens works';

const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

/** Declares what an administrator of the lens works would: identifier kinds, flows, meanings. Before data comes in, nothing has to be read again. */
export const declareDemo = (url: string): Promise<void> => declare(url, { kinds: KINDS, flows: FLOWS, meanings: MEANINGS });

/** What an administrator declares of a world. */
export interface Declared {
  kinds: readonly { name: string }[];
  flows: readonly { name: string }[];
  meanings: readonly unknown[];
}
export async function declare(url: string, { kinds, flows, meanings: wanted }: Declared): Promise<void> {
  const { items } = await call<{ items: { name: string }[] }>(`${url}/api/identifier-kinds`);
  const known = new Set(items.map((kind) => kind.name));
  for (const kind of kinds) if (!known.has(kind.name)) await call(`${url}/api/identifier-kinds`, json('POST', kind));
  for (const flow of flows) await call(`${url}/api/flows/${flow.name}`, json('PUT', flow));
  const { items: meanings } = await call<{ items: unknown[] }>(`${url}/api/meanings`);
  if (JSON.stringify(meanings) !== JSON.stringify(wanted)) await call(`${url}/api/meanings`, json('PUT', { items: wanted }));
}

/** The component whose source texts come with the demo. */
const CALC = 'lens-calc';

/** Takes back what `declareDemo` declared; what others declared stays. */
export async function forgetDemo(url: string): Promise<void> {
  const own = async (path: string, names: readonly string[]): Promise<void> => {
    const { items } = await call<{ items: { name: string }[] }>(`${url}/api/${path}`);
    for (const { name } of items) if (names.includes(name)) await call(`${url}/api/${path}/${name}`, { method: 'DELETE' });
  };
  await own('flows', FLOWS.map((flow) => flow.name)); // prettier-ignore
  await own('identifier-kinds', KINDS.map((kind) => kind.name)); // prettier-ignore
  const { items: texts } = await call<Page<SourceText>>(`${url}/api/source-texts`);
  for (const { id, component, version } of texts)
    if (component === CALC && LENS_CALC_VERSIONS.some((one) => one === version)) await call(`${url}/api/source-texts/${id}`, { method: 'DELETE' });
  const { items: meanings } = await call<{ items: unknown[] }>(`${url}/api/meanings`);
  const demo = new Set(MEANINGS.map((one) => JSON.stringify(one)));
  const rest = meanings.filter((one) => !demo.has(JSON.stringify(one)));
  if (rest.length < meanings.length) await call(`${url}/api/meanings`, json('PUT', { items: rest }));
}

/** Generates the demo's logs and brings them in, with progress on the terminal. */
export async function loadDemo(url: string): Promise<ImportInfo> {
  const folder = await mkdtemp(join(tmpdir(), 'fadenweg-demo-'));
  try {
    process.stdout.write('Making the demo’s logs …');
    const { records } = await generate(demoPlan(folder));
    process.stdout.write(` ${records.toLocaleString('en')} records\n`);
    await declareDemo(url);
    for (const version of LENS_CALC_VERSIONS)
      await sendSourceText(url, await filesBelow([join(folder, 'source-texts', CALC, version)]), CALC, version);
    const started = await sendFiles(url, await filesBelow([join(folder, 'logs')]), { environment: DEMO_ENVIRONMENT, zone: DEMO_ZONE, demo: 'true' });
    const show = process.stdout.isTTY;
    const ended = await waitForImport(url, started.id, {
      progress(info) {
        if (show) process.stdout.write(`\rReading: ${info.records.toLocaleString('en')} records, ${info.perSecond.toLocaleString('en')}/s   `);
      },
    });
    console.log(
      `${show ? '\r' : ''}Demo loaded: ${ended.records.toLocaleString('en')} records, ${ended.understood.toLocaleString('en')} understood.          `,
    );
    return ended;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
