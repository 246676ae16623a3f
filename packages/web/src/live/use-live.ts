import type { LiveGap, LiveRecords, LogRecord } from '@fadenweg/api';
import { onScopeDispose, reactive, ref, shallowRef, watch, type Ref } from 'vue';
import { hrefOf } from '../api/calls.ts';
import { api } from '../api/client.ts';
import { count, micros } from '../time/format.ts';
import { LiveStore } from './live-store.ts';

/** What is asked for, as the address says it. */
export interface LiveAsked {
  q: string;
  environment?: string;
  sources?: string;
  quiet: 'hide' | 'show';
}
/** Records that wait while the list is paused; more are counted only. */
const MOST_WAITING = 10_000;
/** Records that are fetched where the stream broke off. */
const MOST_MISSED = 1000;

/** A search that goes on: what comes in is told by the server, and stands in the list unless it is paused. */
export function useLive(asked: Ref<LiveAsked | null>) {
  const store = new LiveStore();
  const version = ref(0);
  const state = ref<'connecting' | 'on' | 'lost'>('connecting');
  const sums = reactive({ found: 0, arrived: 0, hidden: 0 });
  const paused = ref(false);
  const waiting = shallowRef<LogRecord[]>([]);
  /** Found while paused, but more than wait. */
  const beyond = ref(0);
  const mark = ref<string | null>(null);
  /** One reads further up: nothing is taken from the begin. */
  const held = ref(false);
  let stream: EventSource | null = null;
  /** What was seen last; a stream that is opened anew goes on behind it. */
  let reached = '';

  function take({ items, left, sampled, hidden, arrived }: LiveRecords): void {
    sums.found += items.length + left;
    sums.arrived += arrived;
    sums.hidden += hidden;
    if (paused.value) {
      const room = MOST_WAITING - waiting.value.length;
      waiting.value = [...waiting.value, ...items.slice(0, room)];
      beyond.value += Math.max(0, items.length - room) + left;
      return;
    }
    store.add(items, held.value);
    if (left > 0 || sampled)
      store.note(`${sampled ? 'at least ' : ''}${count(left)} more came in the same moment; the search shows them`, items.at(-1)?.at ?? null);
    if (items.length > 0) version.value++;
  }

  /** Fetches what came in while nobody could tell. */
  async function fill({ why }: LiveGap): Promise<void> {
    const { last } = store;
    if (!last || !asked.value) return;
    const said = why === 'restarted' ? 'the server was started again' : 'the page was away for long';
    try {
      const from = new Date(Math.floor(micros(last.at) / 1000)).toISOString();
      const page = await api.get('/records', { query: { ...asked.value, from, order: 'oldest', limit: MOST_MISSED } });
      store.note(
        page.next === null ? `${said}; what came in meanwhile follows` : `${said}; of what came in meanwhile not all is here: the search shows it`,
        last.at,
      );
      store.add(page.items, held.value);
      sums.found += page.items.length;
    } catch (error) {
      store.note(`${said}; what came in meanwhile could not be asked for (${(error as Error).message}): the search shows it`, last.at);
    }
    version.value++;
  }

  function open(now: LiveAsked): void {
    stream = new EventSource(hrefOf('/live', { query: { ...now, since: reached } }));
    const own = stream;
    const parsed = <T>(event: Event): T => {
      const { data, lastEventId } = event as MessageEvent<string>;
      reached = lastEventId;
      return JSON.parse(data) as T;
    };
    own.addEventListener('begin', (event) => {
      parsed(event);
      state.value = 'on';
    });
    own.addEventListener('records', (event) => take(parsed<LiveRecords>(event)));
    own.addEventListener('gap', (event) => {
      state.value = 'on';
      void fill(parsed<LiveGap>(event));
    });
    // it comes back by itself, and is told what it missed
    own.onerror = () => {
      state.value = 'lost';
      if (own.readyState === EventSource.CLOSED) setTimeout(() => own === stream && asked.value && open(asked.value), 2000);
    };
  }
  function clear(): void {
    store.clear();
    waiting.value = [];
    beyond.value = 0;
    mark.value = null;
    Object.assign(sums, { found: 0, arrived: 0, hidden: 0 });
    version.value++;
  }
  function pause(): void {
    paused.value = true;
  }
  function resume(): void {
    paused.value = false;
    store.add(waiting.value, held.value);
    if (beyond.value > 0) store.note(`${count(beyond.value)} more came in while it was paused; the search shows them`, store.last?.at ?? null);
    waiting.value = [];
    beyond.value = 0;
    version.value++;
  }
  /** Times count from now on. */
  function setMark(at = new Date().toISOString()): void {
    mark.value = at;
    store.note('marked here', at);
    version.value++;
  }
  const close = (): void => {
    stream?.close();
    stream = null;
  };

  watch(
    asked,
    (now, before) => {
      if (JSON.stringify(now) === JSON.stringify(before)) return;
      close();
      // a further environment that shows by itself is no other question
      if (!now || JSON.stringify({ ...now, environment: '' }) !== JSON.stringify({ ...before, environment: '' })) {
        clear();
        paused.value = false;
        reached = '';
      }
      state.value = 'connecting';
      if (now) open(now);
    },
    { immediate: true },
  );
  onScopeDispose(close);
  return { store, version, state, sums, paused, waiting, beyond, mark, held, pause, resume, setMark, clear };
}
