import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { chmod, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { connect, patiently, type Database } from '../../server/src/database/connect.ts';
import { isDatabaseAway, isFull, isTransient, whenThere } from '../../server/src/database/failures.ts';
import { ownClient } from '../../server/src/database/own-client.ts';
import { transaction, transactionOn } from '../../server/src/database/transaction.ts';
import type pg from 'pg';
import { startPostgres, type Postgres } from './postgres.ts';

let folder: string;
let postgres: Postgres;
let db: Database;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'fadenweg-test-'));
  await chmod(folder, 0o755);
  postgres = await startPostgres(join(folder, 'data'));
  db = connect(postgres.url);
  await db.raw('create table stock (id int primary key, pieces int not null)');
  await db.raw(`alter system set deadlock_timeout = '100ms'`);
  await db.raw('select pg_reload_conf()');
});
afterAll(async () => {
  await db.destroy();
  await postgres.stop();
  await rm(folder, { recursive: true, force: true });
});
beforeEach(() => db.raw('truncate stock; insert into stock select i, 0 from generate_series(1, 4) i'));

const deadlocks = async (): Promise<number> => {
  const { rows } = await db.raw<{ rows: { deadlocks: number }[] }>('select deadlocks from pg_stat_database where datname = current_database()');
  return Number(rows[0]!.deadlocks);
};
/** The database itself counts as many; each connection tells its figures with the next query a second later. */
const counted = async (wanted: number, clients: readonly pg.Client[] = []): Promise<void> => {
  await setTimeout(1100);
  await Promise.all([...Array.from({ length: 8 }, () => db.raw('select pg_sleep(0.1)')), ...clients.map((client) => client.query('select 1'))]);
  for (let i = 0; i < 50 && (await deadlocks()) < wanted; i++) await setTimeout(200);
  expect(await deadlocks()).toBe(wanted);
};
const pieces = async (): Promise<number[]> => (await db('stock').orderBy('id').pluck('pieces')) as number[];

describe('a transaction that meets another one', () => {
  test('is done again, whole, at its place: of two that lock crosswise both count, though the database ends one', async () => {
    const before = await deadlocks();
    let tries = 0;
    const add = (first: number, second: number): Promise<void> =>
      transaction(db, async (trx) => {
        tries++;
        await trx('stock').where({ id: first }).increment('pieces', 1);
        await setTimeout(150);
        await trx('stock').where({ id: second }).increment('pieces', 1);
      });
    await Promise.all([add(1, 2), add(2, 1), add(1, 2), add(2, 1)]);
    expect(await pieces()).toEqual([4, 4, 0, 0]);
    expect(tries).toBeGreaterThan(4);
    await counted(before + tries - 4);
  });

  test('so it is on a connection of its own, which is of use afterwards', async () => {
    const before = await deadlocks();
    const clients = await Promise.all([ownClient(postgres.url), ownClient(postgres.url)]);
    let tries = 0;
    await Promise.all(
      clients.map((client, own) =>
        transactionOn(client, async () => {
          tries++;
          await client.query('update stock set pieces = pieces + 1 where id = $1', [1 + own]);
          await setTimeout(150);
          await client.query('update stock set pieces = pieces + 1 where id = $1', [2 - own]);
        }),
      ),
    );
    expect(await pieces()).toEqual([2, 2, 0, 0]);
    expect(tries).toBeGreaterThan(2);
    await counted(before + tries - 2, clients);
    for (const client of clients) {
      expect((await client.query('select 1 as one')).rows).toEqual([{ one: 1 }]);
      await client.end();
    }
  });

  test('serialisation failures are done again too; what is wrong in itself is told at once, and leaves nothing', async () => {
    const add = (): Promise<void> =>
      transaction(db, async (trx) => {
        await trx.raw('set transaction isolation level serializable');
        const row = (await trx('stock').where({ id: 3 }).first()) as { pieces: number };
        await setTimeout(50);
        await trx('stock')
          .where({ id: 3 })
          .update({ pieces: row.pieces + 1 });
      });
    await Promise.all([add(), add(), add()]);
    expect((await pieces())[2]).toBe(3);
    let tries = 0;
    const wrong = transaction(db, async (trx) => {
      tries++;
      await trx('stock').where({ id: 4 }).update({ pieces: 9 });
      await trx.raw('insert into stock values (4, 0)');
    });
    await expect(wrong).rejects.toMatchObject({ code: '23505' });
    expect([tries, (await pieces())[3]]).toEqual([1, 0]);
  });
});

describe('what a failure of the database is', () => {
  test.each<[string, object, { away: boolean; transient: boolean; full: boolean }]>([
    ['ended by a shutdown', { code: '57P01' }, { away: true, transient: false, full: false }],
    ['not to be reached', { code: 'ECONNREFUSED' }, { away: true, transient: false, full: false }],
    ['lost', { message: 'Connection terminated unexpectedly' }, { away: true, transient: false, full: false }],
    ['a full disk', { code: '53100' }, { away: true, transient: false, full: true }],
    ['a deadlock', { code: '40P01' }, { away: false, transient: true, full: false }],
    ['a lock that was not to be had', { code: '55P03' }, { away: false, transient: true, full: false }],
    ['stopped, since it took too long', { code: '57014' }, { away: false, transient: false, full: false }],
    ['a value twice', { code: '23505' }, { away: false, transient: false, full: false }],
  ])('%s', (_name, error, { away, transient, full }) => {
    const thrown = Object.assign(new Error('x'), error);
    expect({ away: isDatabaseAway(thrown), transient: isTransient(thrown), full: isFull(thrown) }).toEqual({ away, transient, full });
  });

  test('an everyday query is stopped after its time, one that may take long is not, and the connection is as before', async () => {
    const quick = connect(`${postgres.url}?options=${encodeURIComponent('-c statement_timeout=200')}`, null, 1);
    try {
      await quick.raw('set statement_timeout = 200');
      await expect(quick.raw('select pg_sleep(3)')).rejects.toMatchObject({ code: '57014' });
      await patiently(quick, (trx) => trx.raw('select pg_sleep(0.5)'));
      await expect(quick.raw('select pg_sleep(3)')).rejects.toMatchObject({ code: '57014' });
    } finally {
      await quick.destroy();
    }
  });

  test('who is half through an answer asks until the database is back, and no longer where it is something else', async () => {
    let asked = 0;
    const back = whenThere(async () => {
      if (++asked < 3) throw Object.assign(new Error('gone'), { code: '08006' });
      return asked;
    });
    expect(await back).toBe(3);
    await expect(whenThere(() => Promise.reject(new Error('broken')))).rejects.toThrow('broken');
  });
});
