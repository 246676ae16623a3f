import { join } from 'node:path';
import type { Call, CallPage, CallSummary } from '@fadenweg/api';
import { COURSES } from './calls/scenarios.ts';
import { drawCalls, type DrawnCall, type DrawnCalls } from './calls/load.ts';
import { call } from '../packages/launch/src/client.ts';
import type { Result } from './measure.ts';
import { bring, HOME, system } from './world.ts';

/** A time is right within this, in milliseconds. */
const NEAR = 5;
interface Share {
  right: number;
  all: number;
}
/** Seeds by which nothing was chosen; others may be named in the surroundings. */
const SEEDS = (process.env.FADENWEG_SEEDS ?? '9411,9412,9413,9414').split(',').map(Number);
const TIES = ['straight', 'session', 'records', 'numbers'] as const;

/** Calls of a load generator at two places with two clocks, each seed with and without somebody between, in a system that was told nothing of them. */
export async function benchPhones(): Promise<Result[]> {
  const results: Result[] = [];
  for (const [i, tie] of TIES.entries()) results.push(...(await judged(SEEDS[i % SEEDS.length]!, tie)));
  return results;
}

async function judged(seed: number, tie: DrawnCalls['tie']): Promise<Result[]> {
  const folder = join(HOME, `phones-${tie}`);
  const drawn = await drawCalls(folder, seed, tie);
  const own = await system(`phones-${tie}-data`, true);
  try {
    await bring(own.server.url, folder, async () => {});
    const url = `${own.server.url}/api`;
    const window = `from=${new Date(Date.now() - 5 * 3_600_000).toISOString()}&to=${new Date(Date.now() + 5 * 3_600_000).toISOString()}&environment=production&zone=UTC`;
    const { items } = await call<CallPage>(`${url}/calls?${window}&limit=500`);
    const wholes = await Promise.all(items.map(async (one) => ({ one, ids: (await call<Call>(`${url}/strands/${encodeURIComponent(one.strand)}/call`)).callIds }))); // prettier-ignore
    return compared(drawn, wholes, seed);
  } finally {
    await own.stop();
  }
}
function compared({ calls, tie }: DrawnCalls, told: readonly { one: CallSummary; ids: string[] }[], seed: number): Result[] {
  const whose = new Map(calls.flatMap((one) => one.callIds.map((id) => [id, one])));
  const facts: Share = { right: 0, all: 0 };
  const tied: Share = { right: 0, all: 0 };
  let wrong = 0;
  for (const { ids } of told) wrong += new Set(ids.map((id) => whose.get(id))).size - 1;
  const kinds = new Map<string, Share>();
  for (const one of calls) {
    const own = told.find(({ ids }) => ids.includes(one.callIds[0]!));
    tied.all++;
    if (own && one.callIds.every((id) => own.ids.includes(id))) tied.right++;
    for (const [what, right] of checks(one, own?.one)) {
      facts.all++;
      if (right) facts.right++;
      else console.error(`${tie} ${seed}, ${one.course}: ${what}; told ${JSON.stringify(own?.one)}, true ${JSON.stringify(one)}`.slice(0, 1100));
    }
    const kind = kinds.get(one.course) ?? { right: 0, all: 0 };
    kind.all++;
    if (own && COURSES[one.course]!.outcomes.includes(own.one.outcome)) kind.right++;
    else console.error(`${tie} ${seed}, ${one.course}: is told as ${own?.one.outcome} ${own?.one.headline}`);
    kinds.set(one.course, kind);
  }
  const each = [...kinds.values()].reduce((sum, { right, all }) => sum + right / all, 0) / kinds.size;
  const what = tie === 'straight' ? 'two places see each call' : `somebody between, told by ${tie}`;
  return [
    row(`load generator, seed ${seed}, ${what}: facts of calls`, share(facts), '>= 0.99'),
    row(`load generator, seed ${seed}, ${what}: calls that are one strand; dialogs tied wrongly`, `${share(tied)}; ${wrong} of ${told.length}`, '>= 0.98; <= 0.005'), // prettier-ignore
    row(`load generator, seed ${seed}, ${what}: outcome, each course counting alike`, each.toFixed(3), '>= 0.95'),
  ];
}
function checks(one: DrawnCall, own: CallSummary | undefined): [string, boolean][] {
  const { times } = one;
  const near = (value: number | null | undefined, real: number | null): boolean =>
    real === null ? (value ?? null) === null : value !== null && value !== undefined && Math.abs(value - real) <= NEAR;
  const between = (from: number | null, to: number | null): number | null => (from === null || to === null ? null : to - from);
  return [
    ['status', own?.status === times.status],
    ['caller', own?.caller.name === one.caller],
    ['called', own?.called.written === one.called],
    ['heard after', near(own?.postDialMs, times.heard)],
    ['answered after', near(own?.setUpMs, times.answered)],
    ['talked', near(own?.talkingMs, between(times.acknowledged, times.hungUp))],
    ['who ended it', own?.endedBy === COURSES[one.course]!.endedBy],
  ];
}
const share = ({ right, all }: Share): string => `${(all === 0 ? 0 : right / all).toFixed(3)} (${right} of ${all})`;
const row = (what: string, figure: string, budget: string): Result => ({ what, figure, raw: '', ratio: '', budget });
