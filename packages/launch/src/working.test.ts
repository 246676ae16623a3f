import { afterAll, afterEach, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { serverLog } from '@fadenweg/server';
import { connect, type Database } from '../../server/src/database/connect.ts';
import { migrate } from '../../server/src/database/migrate.ts';
import { Access } from '../../server/src/platform/access.ts';
import { Happenings } from '../../server/src/platform/happenings/happenings.ts';
import type { Happening } from '../../server/src/platform/happenings/kinds.ts';
import { tell } from '../../server/src/platform/happenings/tell.ts';
import { Waker } from '../../server/src/platform/waker.ts';
import { Later, type Piece, type WorkKind } from '../../server/src/platform/work/types.ts';
import { Cancelled, Work } from '../../server/src/platform/work/work.ts';
import { startPostgres, type Postgres } from './postgres.ts';
import { chmod, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const TESTER = Access.localAdministrator;
const log = serverLog('silent');
let folder: string;
let postgres: Postgres;
let db: Database;
let waker: Waker;
let work: Work;
let happenings: Happenings;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'fadenweg-test-'));
  await chmod(folder, 0o755);
  postgres = await startPostgres(join(folder, 'data'));
  db = connect(postgres.url);
  await migrate(db);
});
afterAll(async () => {
  await db.destroy();
  await postgres.stop();
  await rm(folder, { recursive: true, force: true });
});
afterEach(async () => {
  await work.close();
  await happenings.close();
  await waker.close();
  await db.raw('truncate work, happening, listener');
});
/** As a server begins: with these kinds of work. */
async function begin(...kinds: WorkKind<never>[]): Promise<void> {
  waker = new Waker(postgres.url, log);
  await waker.start();
  work = new Work(db, waker, log);
  happenings = new Happenings(db, waker, log);
  for (const kind of kinds) work.add(kind);
  await work.start();
}
const kind = <Args>(own: Partial<WorkKind<Args>> & Pick<WorkKind<Args>, 'run'>): WorkKind<never> => ({ name: 'sum', label: 'Adding up', ...own }) as unknown as WorkKind<never>; // prettier-ignore
const asking = (args: unknown, more: object = {}) => ({ why: 'for the test', who: 'tester', args, ...more });
const until = async (holds: () => Promise<boolean> | boolean): Promise<void> => {
  for (let i = 0; !(await holds()); i++) {
    if (i > 400) throw new Error('it never came to that');
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
};

describe('work', () => {
  test('of what waits for the same one piece is done, with all that was asked', async () => {
    const done: number[][] = [];
    await begin(kind<number[]>({ merge: (one, more) => [...one, ...more], run: async ({ args }) => void done.push(args) }));
    const ids = [];
    for (const i of [1, 2, 3]) ids.push(await work.ask('sum', asking([i], { after: 60_000 })));
    expect(new Set(ids).size).toBe(1);
    await work.ask('sum', asking([4])); // hastens it
    await work.finished(ids[0]!);
    await work.finished(await work.ask('sum', asking([5], { about: 'another' })));
    expect(done).toEqual([[1, 2, 3, 4], [5]]);
  });

  test('the server stops though a piece waits for another one that is not begun any more, and though one does not heed that it is told to stop', async () => {
    let waits = false;
    const other = kind({ name: 'other', run: async () => {} });
    await begin(kind({ run: async () => { const id = await work.ask('other', asking(1, { after: 60_000 })); waits = true; await work.finished(id); } }), other); // prettier-ignore
    const id = await work.ask('sum', asking(1));
    await until(() => waits);
    let before = Date.now();
    await work.close();
    expect(Date.now() - before).toBeLessThan(2000);
    expect((await work.byId(id))!.state).toBe('waiting');
    await expect(work.finished(id)).rejects.toThrow('the server is stopped');
    await waker.close();

    let deaf = false;
    let wake = (): void => {};
    await begin(kind({ run: () => new Promise<void>((resolve) => { deaf = true; wake = resolve; }) }), other); // prettier-ignore
    await until(() => deaf);
    before = Date.now();
    await work.close();
    expect(Date.now() - before).toBeLessThan(15_000);
    expect((await work.byId(id))!.state).toBe('running'); // the next start puts it back
    wake();
  });

  test('is asked for where its transaction commits, and nowhere else', async () => {
    let done = 0;
    await begin(kind({ run: async () => void done++ }));
    await expect(db.transaction(async (trx) => { await work.ask('sum', asking(1), trx); throw new Error('no'); })).rejects.toThrow('no'); // prettier-ignore
    expect(await work.counts()).toEqual({});
    await db.transaction((trx) => work.ask('sum', asking(1), trx));
    work.soon();
    await until(() => done === 1);
  });

  test('that fails is tried again with pauses, then left and named, and done when somebody asks', async () => {
    let healthy = false;
    await begin(kind({ mostTries: 2, run: async () => { if (!healthy) throw new Error('the press is jammed'); } })); // prettier-ignore
    const id = await work.ask('sum', asking(1));
    await expect(work.finished(id)).rejects.toThrow('the press is jammed');
    const row = (await work.byId(id))!;
    expect(row).toMatchObject({ state: 'failed', tries: 2, error: 'the press is jammed' });
    expect(row.ended_at!.getTime() - row.made_at.getTime()).toBeGreaterThan(900);
    healthy = true;
    expect(await work.again(row, TESTER)).toBe(true);
    await until(async () => (await work.counts()).failed === undefined && (await work.counts()).waiting === undefined);
    expect(await work.again((await work.byId(id))!, TESTER)).toBe(false);
  });

  test('that cannot be done yet, or met another transaction, waits without counting as a try', async () => {
    let calls = 0;
    await begin(
      kind({
        mostTries: 1,
        run: async () => {
          calls++;
          if (calls === 1) throw new Later(30);
          if (calls === 2) throw Object.assign(new Error('deadlock detected'), { code: '40P01' });
        },
      }),
    );
    await work.finished(await work.ask('sum', asking(1)));
    expect(calls).toBe(3);
  });

  test('is cancelled while it waits and while it runs', async () => {
    let running: Piece<unknown> | null = null;
    await begin(kind({ run: (piece) => new Promise<void>((_, reject) => { running = piece; piece.signal.addEventListener('abort', () => reject(piece.signal.reason as Error)); }) })); // prettier-ignore
    const waits = await work.ask('sum', asking(1, { after: 60_000 }));
    expect(await work.cancel((await work.byId(waits))!)).toBe(true);
    expect((await work.byId(waits))!.state).toBe('cancelled');
    const runs = await work.ask('sum', asking(2));
    await until(() => running !== null);
    running!.tell('adding', 0.5);
    await until(async () => (await work.byId(runs))!.share === 0.5);
    await work.cancel((await work.byId(runs))!);
    await expect(work.finished(runs)).rejects.toThrow(Cancelled);
    expect(await work.cancel((await work.byId(runs))!)).toBe(false);
  });

  test('that a dead process had is put back, with what a new one has to know', async () => {
    await db.raw(`insert into work (kind, about, why, who, args, state, tries) values ('sum', '', 'w', 'x', '{"all":false}', 'running', 1), ('sum', '', 'w', 'x', '{"all":false}', 'waiting', 0)`); // prettier-ignore
    const done: unknown[] = [];
    await begin(kind<{ all: boolean }>({ afterStop: () => ({ all: true }), merge: (a, b) => ({ all: a.all || b.all }), run: async ({ args }) => void done.push(args) })); // prettier-ignore
    await until(async () => (await work.counts()).waiting === undefined && (await work.counts()).running === undefined);
    expect(done).toEqual([{ all: true }]);
  });

  test('by the clock does not come again where that is set back', async () => {
    const ticks: number[] = [];
    const now = Date.now.bind(Date);
    await begin(kind({ name: 'tick', label: 'Ticking', schedule: { at: '* * * * * *', zone: 'Europe/Berlin', why: 'each second', args: null }, run: async () => void ticks.push(now()) })); // prettier-ignore
    await until(() => ticks.length >= 2);
    const back = jest.spyOn(Date, 'now').mockImplementation(() => now() - 3_600_000);
    try {
      const before = ticks.length;
      await new Promise((resolve) => setTimeout(resolve, 2500));
      expect(ticks.length - before).toBeLessThanOrEqual(1); // the one that was in line
      const [next] = await work.list(['waiting'], null, 1);
      expect(next).toMatchObject({ kind: 'tick' });
      expect(next!.due_at.getTime()).toBeGreaterThan(ticks.at(-1)!);
    } finally {
      back.mockRestore();
    }
  });

  test('by the clock comes when its time does, once; ten thousand that wait keep nothing up', async () => {
    let ticks = 0;
    await db.raw(`insert into work (kind, about, why, who, args, due_at) select 'sum', 'piece ' || i, 'w', 'x', '1', now() + interval '1 hour' from generate_series(1, 10000) i`); // prettier-ignore
    await begin(
      kind({ run: async () => {} }),
      kind({ name: 'tick', label: 'Ticking', schedule: { at: '* * * * * *', zone: 'Europe/Berlin', why: 'each second', args: null }, run: async () => void ticks++ }), // prettier-ignore
    );
    const began = Date.now();
    await work.finished(await work.ask('sum', asking(1)));
    await until(() => ticks >= 2);
    expect(ticks).toBeLessThanOrEqual(Math.ceil((Date.now() - began) / 1000) + 1);
    await until(async () => (await work.counts()).waiting === 10_001); // the next one among them
    expect(await work.list(['waiting'], null, 3)).toHaveLength(3);
  });
});

describe('happenings', () => {
  const ended = (importId: number): Parameters<typeof tell<'import-ended'>>[2] => ({ importId, state: 'done' });
  const heardBy = (list: number[]): { hear(all: readonly Happening[]): Promise<void> } => ({
    hear: async (all) => void list.push(...all.map((one) => (one.body as { importId: number }).importId)),
  });

  test('are heard in one order by each listener, also where an older transaction ends later', async () => {
    await begin();
    const heard: number[] = [];
    happenings.add({ name: 'one', kinds: ['import-ended'], ...heardBy(heard) });
    await happenings.start();
    const older = await db.transaction();
    await tell(older, 'import-ended', ended(1));
    await db.transaction((trx) => tell(trx, 'import-ended', ended(2)));
    await db.transaction((trx) => tell(trx, 'woven', { strands: 3 }));
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(heard).toEqual([]);
    await older.commit();
    await until(() => heard.length === 2);
    expect(heard).toEqual([1, 2]);
    const gone = await db.transaction();
    await tell(gone, 'import-ended', ended(9));
    await gone.rollback();
    await db.transaction((trx) => tell(trx, 'import-ended', ended(3)));
    await until(() => heard.length === 3);
    expect(heard).toEqual([1, 2, 3]);
  });

  test('count once for what a listener writes, through failures and a new start; what all have heard is cleared', async () => {
    await db.raw('create table if not exists counted (id int)');
    await begin();
    let failing = 2;
    const listener = {
      name: 'counter',
      kinds: ['import-ended'] as const,
      async hear(all: readonly Happening[], trx: Parameters<Parameters<Database['transaction']>[0]>[0]) {
        for (const one of all) await trx('counted').insert({ id: (one.body as { importId: number }).importId });
        if (failing-- > 0) throw new Error('in the middle');
      },
    };
    happenings.add(listener);
    await happenings.start();
    await db.transaction((trx) => tell(trx, 'import-ended', ended(7)));
    await until(async () => (await db('counted')).length === 1);
    await happenings.close();
    await db.transaction((trx) => tell(trx, 'import-ended', ended(8))); // while nobody listens
    happenings = new Happenings(db, waker, log);
    happenings.add(listener);
    await happenings.start();
    await until(async () => (await db('counted')).length === 2);
    expect((await db('counted').orderBy('id')).map((one: { id: number }) => one.id)).toEqual([7, 8]);
    expect(await happenings.state()).toEqual([{ name: 'counter', behind: 0, error: null }]);
    await db.raw("update happening set at = now() - interval '2 days'");
    expect(await happenings.clear()).toBe(2);
  });
});
