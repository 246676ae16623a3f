import { parentPort, workerData } from 'node:worker_threads';
import type pg from 'pg';
import type { OverJoining } from '@fadenweg/core/stitching';
import { ownClient } from '../database/own-client.ts';
import type { Glimpses } from '../evidence/batch.ts';
import { tell } from '../platform/happenings/tell.ts';
import { Spent, type Work } from './spent.ts';
import { Weaver } from './weave.ts';

export interface Told {
  seen: Float64Array;
  tied: Float64Array;
  glimpses: Glimpses;
}
export type ToWeaver =
  | ({ type: 'stored' } & Told)
  /** `fresh`: what is in memory is out of date (sources were taken out, kinds changed): load anew and judge all. */
  | { type: 'weave'; order: number; all: boolean; fresh: boolean; carrying: boolean; judging: boolean; ending: boolean }
  /** Sources are read again from their beginning. */
  | { type: 'again'; sources: readonly number[] }
  /** Records that belong to these keys are others than before, and these keys are tied: a, b, first, last … */
  | { type: 'changed'; keys: readonly number[]; tied: readonly number[] }
  /** Someone waits for what is stored to be tied. */
  | { type: 'hurry' }
  | { type: 'close' };
/** What comes of what is stored. */
type ToldOf = Extract<ToWeaver, { type: 'stored' | 'again' | 'changed' }>;
export type FromWeaver =
  | { type: 'woven'; order: number; strands: number; left: boolean; joining: OverJoining[] | null; ms: number; spent: Record<Work, number> }
  | { type: 'progress'; order: number; done: number; of: number }
  | { type: 'failed'; order: number; error: string; code: string | undefined };

const { url } = workerData as { url: string };
const port = parentPort!;
const send = (message: FromWeaver): void => port.postMessage(message);
const spent = new Spent();
let client: pg.Client | null = null;
let weaver: Weaver | null = null;
/** Told before the weaver was loaded. */
let early: ToldOf[] = [];
/** What is loaded is as it stood when that began: what is told meanwhile comes on top of it. */
let loading = false;
// loaded at once: what is told from now on is new, and need not be read back
let queue: Promise<void> = load().catch(() => {}); // the database is away: the first weaving tries again and says so

function take(on: Weaver, message: ToldOf): void {
  if (message.type === 'stored') on.apply(message);
  else if (message.type === 'again') on.forgetSources(message.sources);
  else on.changed(message.keys, message.tied);
}

port.on('message', (message: ToWeaver) => {
  // taken in at once, also while strands are judged: what waits would pile up
  if (message.type === 'stored' || message.type === 'again' || message.type === 'changed') {
    if (weaver && !loading) take(weaver, message);
    else early.push(message);
  } else if (message.type === 'hurry') weaver?.hurry();
  else if (message.type === 'close') {
    queue = queue.then(async () => {
      await client?.end();
      process.exit(0);
    });
  } else queue = queue.then(() => weave(message));
});

async function load(): Promise<void> {
  client ??= await ownClient(url);
  loading = true;
  try {
    const before = weaver;
    weaver = await Weaver.load(client, spent);
    if (before) weaver.goOn(before);
    for (const told of early) take(weaver, told);
    early = [];
  } finally {
    loading = false;
  }
}

async function weave({ order, all, fresh, carrying, judging, ending }: Extract<ToWeaver, { type: 'weave' }>): Promise<void> {
  const began = Date.now();
  try {
    if (fresh || !weaver) await load();
    let strands = 0;
    if (ending || fresh) weaver!.ends();
    if (judging) strands = await weaver!.weave(all, carrying, (done, of) => send({ type: 'progress', order, done, of }));
    else await spent.on('tying', () => weaver!.tie(all));
    await tell(client!, 'woven', { strands });
    send({
      type: 'woven',
      order,
      strands,
      left: judging && weaver!.owes,
      joining: carrying || !judging ? weaver!.joining() : null,
      ms: Date.now() - began,
      spent: spent.ms,
    });
  } catch (error) {
    await client?.end().catch(() => {}); // the database is away: everything is loaded anew on the next try
    client = null;
    weaver = null;
    const { message, code } = error as Error & { code?: string };
    send({ type: 'failed', order, error: message, code });
  }
}
