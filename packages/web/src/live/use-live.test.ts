import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { effectScope, nextTick, shallowRef, type EffectScope, type ShallowRef } from 'vue';
import { answers, settled } from '../api/testing/answers.ts';
import { useLive, type LiveAsked } from './use-live.ts';

/** The browser's stream of events, played by hand. */
class Played extends EventTarget {
  static readonly CLOSED = 2;
  static all: Played[] = [];
  readyState = 1;
  onerror: (() => void) | null = null;
  constructor(readonly url: string) {
    super();
    Played.all.push(this);
  }
  close(): void {
    this.readyState = Played.CLOSED;
  }
  tell(type: string, data: object, lastEventId = '1'): void {
    this.dispatchEvent(Object.assign(new Event(type), { data: JSON.stringify(data), lastEventId }));
  }
}
const NOTHING = { items: [], left: 0, sampled: false, hidden: 0, arrived: 0 };
const record = (n: number): object => ({ id: `${n}-1`, at: `2026-11-24T10:00:0${n % 10}.000000Z` });
const ASKED: LiveAsked = { q: 'lock', environment: 'production', quiet: 'hide' };
let scope: EffectScope;

setActivePinia(createPinia());
beforeEach(() => {
  Played.all = [];
  globalThis.EventSource = Played as unknown as typeof EventSource;
});
afterEach(() => scope?.stop());
function live(asked: ShallowRef<LiveAsked | null> = shallowRef<LiveAsked | null>(ASKED)) {
  scope = effectScope();
  const used = scope.run(() => useLive(asked))!;
  const ids = (): string[] => Array.from({ length: used.store.length }, (_, i) => {
    const line = used.store.at(i)!;
    return line.type === 'record' ? line.record.id : line.type === 'note' ? line.text : '';
  }); // prettier-ignore
  return { used, asked, ids };
}
const stream = (): Played => Played.all.at(-1)!;

describe('a search that goes on', () => {
  test('asks for what the address says, and shows what comes in', () => {
    const { used, ids } = live();
    expect(new URL(stream().url, 'http://x').searchParams.get('q')).toBe('lock');
    expect(used.state.value).toBe('connecting');
    stream().tell('begin', {});
    stream().tell('records', { ...NOTHING, items: [record(1), record(2)], arrived: 40, hidden: 3 });
    stream().tell('records', { ...NOTHING, items: [record(2), record(3)], arrived: 2 });
    expect(ids()).toEqual(['1-1', '2-1', '3-1']);
    expect([used.state.value, { ...used.sums }]).toEqual(['on', { found: 4, arrived: 42, hidden: 3 }]);
  });

  test('says what came in the same moment and is not shown', () => {
    const { used, ids } = live();
    stream().tell('records', { ...NOTHING, items: [record(1)], left: 1200 });
    stream().tell('records', { ...NOTHING, items: [record(2)], left: 5, sampled: true });
    expect(ids()).toEqual([
      '1-1',
      '1,200 more came in the same moment; the search shows them',
      '2-1',
      'at least 5 more came in the same moment; the search shows them',
    ]);
    expect(used.sums.found).toBe(1207);
  });

  test('while paused nothing moves; all that came in follows', () => {
    const { used, ids } = live();
    stream().tell('records', { ...NOTHING, items: [record(1)] });
    used.pause();
    stream().tell('records', { ...NOTHING, items: [record(2), record(3)], left: 7 });
    expect([ids(), used.waiting.value.length, used.beyond.value]).toEqual([['1-1'], 2, 7]);
    used.resume();
    expect(ids()).toEqual(['1-1', '2-1', '3-1', '7 more came in while it was paused; the search shows them']);
    expect([used.waiting.value.length, used.beyond.value, used.paused.value]).toEqual([0, 0, false]);
  });

  test('fetches what came in while nobody could tell, once', async () => {
    const calls = answers({ items: [], next: null }, { items: [record(2), record(3)], next: null });
    const { used, ids } = live();
    stream().tell('records', { ...NOTHING, items: [record(2)] });
    stream().onerror!();
    expect(used.state.value).toBe('lost');
    stream().tell('gap', { why: 'restarted' });
    await settled();
    expect(calls[0]!.searchParams.get('order')).toBe('oldest');
    expect(calls[0]!.searchParams.get('from')).toBe('2026-11-24T10:00:02.000Z');
    expect(ids()).toEqual(['2-1', 'the server was started again; what came in meanwhile follows', '3-1']);
    expect(used.state.value).toBe('on');
  });

  test('says so where what it missed cannot be asked for', async () => {
    answers({}, { status: 400, detail: 'no' });
    const { ids } = live();
    stream().tell('records', { ...NOTHING, items: [record(2)] });
    stream().tell('gap', { why: 'away' });
    await settled();
    expect(ids()[1]).toMatch(/^the page was away for long; what came in meanwhile could not be asked for/);
  });

  test('another question begins anew; a further environment is no other one, and goes on where it stood', async () => {
    const { used, asked, ids } = live();
    const first = stream();
    first.tell('records', { ...NOTHING, items: [record(1)] }, '77');
    asked.value = { ...ASKED, environment: 'production,stage' };
    await nextTick();
    expect([first.readyState, ids()]).toEqual([2, ['1-1']]);
    expect(new URL(stream().url, 'http://x').searchParams.get('since')).toBe('77');
    asked.value = { ...ASKED, q: 'other' };
    await nextTick();
    expect([ids(), used.sums.found, new URL(stream().url, 'http://x').searchParams.get('since')]).toEqual([[], 0, null]);
    asked.value = null;
    await nextTick();
    expect([Played.all.length, stream().readyState]).toEqual([3, 2]);
  });

  test('is closed with the page that shows it', () => {
    live();
    scope.stop();
    expect(stream().readyState).toBe(2);
  });
});
