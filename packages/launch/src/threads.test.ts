import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Worker } from 'node:worker_threads';
import { pump, ReaderDied } from '../../server/src/gathering/intake/pump.ts';
import { WeaverThread } from '../../server/src/weaving/weaver-thread.ts';
import { startSystem, type System } from './testing/system.ts';

/** Threads that die, by themselves or from outside: whoever waits for them is told, and the next piece of work finds another one. */
let system: System;
beforeAll(async () => {
  system = await startSystem();
});
afterAll(() => system?.stop());

describe('a reading thread', () => {
  const job = {} as Parameters<typeof pump>[1];
  const use: Parameters<typeof pump>[2] = {
    idsOf: async (names) => ({ component: names.component.map(() => ['', 0]), host: [] }),
    take: async () => true,
  };
  const read = (code: string): Promise<string | null> => pump(new Worker(code, { eval: true }), job, use);
  const listening = "const { parentPort } = require('node:worker_threads'); parentPort.on('message', () => {";

  test('that is ended in the middle is told, with what ended it', async () => {
    await expect(read(`${listening} process.exit(3); });`)).rejects.toThrow(ReaderDied);
    await expect(read(`${listening} throw new Error('out of something'); });`)).rejects.toThrow(/thread that read it ended: out of something/);
    const worker = new Worker(`${listening} });`, { eval: true });
    const reading = pump(worker, job, use);
    setTimeout(() => void worker.terminate(), 50);
    await expect(reading).rejects.toThrow(ReaderDied);
  });
  test('that says what is wrong with a source goes on', async () => {
    expect(
      await read(`${listening} parentPort.postMessage({ type: 'failed', sourceId: 1, error: 'no log' }); setTimeout(() => process.exit(), 50); });`),
    ).toBe('no log');
  });
});

test('a weaving thread that is ended from outside is started again, and weaves', async () => {
  const url = await system.postgres.createDatabase('threads');
  const died: string[] = [];
  await system.get('/health');
  const { connect } = await import('../../server/src/database/connect.ts');
  const { migrate } = await import('../../server/src/database/migrate.ts');
  const db = connect(url);
  await migrate(db);
  const thread = new WeaverThread(url, (error) => died.push(error.message));
  const order = { all: true, fresh: true, carrying: true, judging: true, ending: true };
  const weave = (signal = new AbortController().signal): Promise<{ strands: number }> => thread.weave(order, () => {}, signal);
  expect(await weave()).toMatchObject({ strands: 0 });
  // it is held up by a lock of somebody else, and then is no more
  const other = await db.transaction();
  await other.raw('lock table tie in access exclusive mode');
  const held = weave();
  await new Promise((resolve) => setTimeout(resolve, 300));
  await (Reflect.get(thread, 'worker') as Worker).terminate();
  await expect(held).rejects.toThrow('the thread that weaves ended');
  await other.rollback();
  expect(died).toHaveLength(1);
  expect(await weave()).toMatchObject({ strands: 0 });
  // one that is given up is not taken for the next one's answer
  const asker = new AbortController();
  const given = weave(asker.signal);
  asker.abort(new Error('given up'));
  await expect(given).rejects.toThrow('given up');
  expect(await weave()).toMatchObject({ strands: 0 });
  await thread.close();
  await db.destroy();
});
