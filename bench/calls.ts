import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Call, CallPage, CallSummary, Page, StrandData, StrandSummary } from '@fadenweg/api';
import { manyCalls } from './calls/many.ts';
import { rightFor, type TrueCall, type TrueRun } from './calls/truth.ts';
import { declaredBy } from './judge/world.ts';
import { call } from '../packages/launch/src/client.ts';
import { declare } from '../packages/launch/src/demo-data.ts';
import { ROOT } from '../packages/launch/src/places.ts';
import { ms, quantile, times, type Result } from './measure.ts';
import { bring, system } from './world.ts';

const WORLD = join(ROOT, '../shared/worlds/permits');
/** A time is right within this, in milliseconds. */
const NEAR = 5;
const WINDOW = 'from=2026-11-24T00:00:00Z&to=2026-11-26T00:00:00Z&environment=production&zone=UTC';
const share = (right: number, all: number): string => `${(all === 0 ? 0 : right / all).toFixed(3)} (${right} of ${all})`;

/** Calls and runs of the permit office, brought in through the real server, beside what really happened. */
export async function benchCalls(): Promise<Result[]> {
  const truth = JSON.parse(await readFile(join(WORLD, 'truth.json'), 'utf8')) as { calls: TrueCall[]; jobs: TrueRun[] };
  const { kinds, flows } = await declaredBy(join(WORLD, 'kinds.json'));
  const own = await system('calls', true);
  const url = `${own.server.url}/api`;
  try {
    await bring(own.server.url, WORLD, (at) => declare(at, { kinds, flows, meanings: [] }));
    const { items } = await call<CallPage>(`${url}/calls?${WINDOW}&limit=500`);
    const judged = [...(await ofCalls(url, truth.calls, items)), ...(await ofRuns(url, truth.jobs))];
    return [...judged, ...(await manyCalls(own.postgres.url, url))];
  } finally {
    await own.stop();
  }
}

async function ofCalls(url: string, truth: readonly TrueCall[], told: readonly CallSummary[]): Promise<Result[]> {
  const byId = new Map<string, CallSummary>();
  const tied = { right: 0, wrong: 0, all: 0 };
  const ladder = (one: CallSummary): Promise<Call> => call<Call>(`${url}/strands/${encodeURIComponent(one.strand)}/call`);
  const took = await times(told.length, (i) => ladder(told[i]!));
  for (const one of told) {
    const whole = await ladder(one);
    for (const id of whole.callIds) byId.set(id, one);
    tied.wrong += whole.callIds.length - 1;
  }
  const facts = { right: 0, all: 0 };
  const byKind = new Map<string, { right: number; all: number }>();
  for (const one of truth) {
    const own = byId.get(one.call_id);
    tied.all++;
    if (own) tied.right++;
    const near = (value: number | null | undefined, real: number | null): boolean => (real ?? 0) === 0 ? (value ?? 0) <= NEAR : value !== null && value !== undefined && Math.abs(value - real!) <= NEAR; // prettier-ignore
    const checks: [string, boolean][] = [
      ['status', own?.status === one.final_status],
      ['caller', own?.caller.name === one.caller],
      ['called', own?.called.name === one.callee],
      ['post-dial', near(own?.postDialMs, one.post_dial_delay_ms)],
      ['set-up', near(own?.setUpMs, one.setup_ms)],
      ['ringing', near(own?.ringingMs, one.ring_ms)],
      ['talking', near(own?.talkingMs, one.talk_ms)],
      ['who ended', own?.endedBy === rightFor(one).endedBy],
    ];
    for (const [what, right] of checks) {
      facts.all++;
      if (right) facts.right++;
      else console.error(`${one.call_id} (${one.kind}): ${what} is told as ${JSON.stringify(own)}, truth ${JSON.stringify(one)}`.slice(0, 900));
    }
    const { outcomes } = rightFor(one);
    const kind = byKind.get(one.outcome) ?? { right: 0, all: 0 };
    kind.all++;
    if (own && outcomes.includes(own.outcome)) kind.right++;
    else console.error(`${one.call_id} (${one.outcome}): is told as ${own?.outcome} ${own?.headline}`);
    byKind.set(one.outcome, kind);
  }
  const each = [...byKind.values()].reduce((sum, { right, all }) => sum + right / all, 0) / byKind.size;
  return [
    row('permit office: facts of calls (status, both sides, delays within 5 ms, who ended)', share(facts.right, facts.all), '>= 0.99'),
    row('permit office: calls that are one strand; dialogs tied wrongly', `${share(tied.right, tied.all)}; ${tied.wrong}`, '>= 0.98; <= 0.005'),
    row('permit office: outcome of calls, each kind counting alike', each.toFixed(3), '>= 0.95'),
    row(
      'permit office: facts and messages of a call, each call once: p50; p95',
      `${ms(quantile(took, 0.5))}; ${ms(quantile(took, 0.95))}`,
      'p95 <= 80 ms',
    ),
  ];
}

async function ofRuns(url: string, truth: readonly TrueRun[]): Promise<Result[]> {
  const { items } = await call<Page<StrandSummary>>(`${url}/strands?flow=run&limit=500`);
  const byName = new Map(items.map((one) => [one.name, one]));
  const byKind = new Map<string, { right: number; all: number }>();
  const touched = { right: 0, all: 0 };
  const OUTCOMES: Record<string, string[]> = { ok: ['done'], partial: ['odd'], failed: ['failed'], stuck: ['stalled', 'failed'], slow: ['slow'] };
  for (const one of truth) {
    const own = byName.get(one.run_id);
    const kind = byKind.get(one.outcome) ?? { right: 0, all: 0 };
    kind.all++;
    if (own && OUTCOMES[one.outcome]!.includes(own.outcome)) kind.right++;
    else console.error(`${one.run_id} (${one.outcome}): is told as ${own?.outcome} ${own?.headline}`);
    byKind.set(one.outcome, kind);
    touched.all++;
    if (!own) continue;
    const data = (await call<Page<StrandData>>(`${url}/strands/${encodeURIComponent(own.id)}/data`)).items;
    if (data.some(({ way, instance, name }) => way === 'reads' && (instance || name) === one.input_file)) touched.right++;
  }
  const each = [...byKind.values()].reduce((sum, { right, all }) => sum + right / all, 0) / byKind.size;
  const kinds = [...byKind].map(([kind, { right, all }]) => `${kind} ${right} of ${all}`).join(', ');
  return [
    row('permit office: outcome of runs, each kind counting alike', `${each.toFixed(3)} (${kinds})`, '>= 0.95'),
    row('permit office: files that runs read', share(touched.right, touched.all), '>= 0.95'),
  ];
}
const row = (what: string, figure: string, budget: string): Result => ({ what, figure, raw: '', ratio: '', budget });
