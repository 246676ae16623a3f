import { describe, expect, test } from '@jest/globals';
import type { Platform } from '../platform/room.ts';
import type { Piece } from '../platform/work/types.ts';
import { Weaving, type WeavingArgs } from './weaving.ts';

/** A weaver that answers when the test says so, and the work it is asked for. */
function weaving(reading: () => boolean): { weaving: Weaving; orders: { carrying: boolean; answer(): void }[]; run(): Promise<void> } {
  const orders: { carrying: boolean; answer(): void }[] = [];
  const nothing = (): void => {};
  const thread = {
    stored: nothing,
    again: nothing,
    changed: nothing,
    hurry: nothing,
    close: () => Promise.resolve(),
    weave: (order: { carrying: boolean; judging: boolean }) =>
      new Promise<never>((resolve) => {
        const joining = order.carrying || !order.judging ? [{ kind: 7, values: 8, joining: 8, worst: 1, worstCount: 15 }] : null;
        const woven = { type: 'woven', order: 1, strands: 1, left: !order.judging, joining, ms: 1, spent: {} } as never;
        orders.push({ carrying: order.carrying, answer: () => resolve(woven) });
      }),
  };
  const work = { ask: () => Promise.resolve(1), finished: () => new Promise<void>(nothing), soon: nothing };
  const own = new Weaving({ work, happenings: { echo: nothing } } as unknown as Platform, reading, thread as never);
  const piece = { args: { all: false, fresh: false }, tell: nothing, signal: new AbortController().signal } as unknown as Piece<WeavingArgs>;
  return { weaving: own, orders, run: () => own.kind.run(piece) };
}

describe('whoever waits for what belongs together', () => {
  test('waits for a weaving that began while sources were read, and for what is carried over: only then it is known what joins too much', async () => {
    let reading = true;
    const { weaving: own, orders, run } = weaving(() => reading);
    const first = run();
    reading = false;
    let served = false;
    const tied = own.tied().then(() => (served = true));
    orders[0]!.answer();
    await first;
    await Promise.resolve();
    expect(orders[0]!.carrying).toBe(false);
    expect(served).toBe(false);
    const second = run();
    orders[1]!.answer();
    await second;
    await tied;
    expect(own.joining).toHaveLength(1);
  });
  test('waits for nothing where nothing is woven', async () => {
    const { weaving: own } = weaving(() => false);
    await own.tied();
    expect(own.atWork).toBe(false);
  });
});
